'use client';
/** Doing steps and submitting: what the server says of a submission, and the way back to filling in when it does not save. */
import { useState } from 'react';
import type { Form } from '@/core/form/definition';
import type { Value, Values } from '@/core/form/value';
import type { Answer, Step, SubmitOutcome } from '@/core/session/step';
import { call } from '../api';
import { useHeldWhilePressed } from '../press';
import type { Filling } from './use-filling';

export type SubmissionState =
  | { kind: 'filling' }
  | { kind: 'sending' }
  | { kind: 'saved'; id: string }
  | { kind: 'refused'; says: string }
  | {
      kind: 'differs';
      says: string;
      differences: { label: string; browser: Value; server: Value }[];
      values: Values;
    }
  | { kind: 'conflict'; says: string; theirs: { values: Values; revision: number }; mine: Values };

export function useSubmission(
  form: Form,
  session: Filling,
  onSaved: ((id: string, toParent: { set: string; to: Value }[]) => void) | undefined,
) {
  const [outcome, setOutcome] = useState<SubmissionState>({ kind: 'filling' });
  /** What stopped the last submission, until something else is done. */
  const [stops, setStops] = useState<SubmitOutcome['stops'] | null>(null);

  async function step(done: Step): Promise<void> {
    setStops(null);
    let result: Answer | null;
    try {
      result = await session.step(done);
    } catch (caught) {
      // The server did not begin the filling-in; the session is as before.
      return setOutcome({
        kind: 'refused',
        says: caught instanceof Error ? caught.message : 'The server is out of reach.',
      });
    }
    if (result === null) return;
    if (result.submit?.saved === true) return send(result.submit.values, undefined);
    if (result.submit === null) return;
    setStops(result.submit.stops);
    // What has to be mended may stand on another page.
    const wrong = pageOf(form, result.submit.stoppedBy);
    if (wrong !== null && wrong !== result.page) await session.step({ turnTo: wrong });
  }

  async function send(shown: Values, overRevision: number | undefined): Promise<void> {
    setOutcome({ kind: 'sending' });
    const reply = await call<{ id: string; toParent?: { set: string; to: Value }[] }>(
      'POST',
      `/api/fill/${form.name}/submissions`,
      {
        filling: await session.begin(),
        steps: session.steps(),
        shown,
        ...(overRevision === undefined ? {} : { overRevision }),
      },
    );
    if (reply.ok) {
      session.forget();
      setOutcome({ kind: 'saved', id: reply.body.id });
      onSaved?.(reply.body.id, reply.body.toParent ?? []);
      return;
    }
    const body = reply.body as { kind?: string } | null;
    if (body?.kind === 'differs' || body?.kind === 'conflict') {
      setOutcome(body as SubmissionState);
      return;
    }
    await backToFilling(reply.says);
  }

  /** The submission did not go through: the session is brought back to before it, with all that was typed. */
  async function backToFilling(says: string): Promise<void> {
    await session.takeBack();
    setOutcome({ kind: 'refused', says });
  }

  return {
    outcome: useHeldWhilePressed(outcome),
    stops: useHeldWhilePressed(stops),
    step,
    send,
    backToFilling,
  };
}

/** The page that a field is on, for a cell that of its rows field; null for a part that is on none. */
function pageOf(form: Form, part: string | null): string | null {
  const name = part?.replace(/\[.*$/, '');
  return (
    form.pages.find((page) =>
      page.sections.some((section) => section.fields.some((field) => field.name === name)),
    )?.name ?? null
  );
}
