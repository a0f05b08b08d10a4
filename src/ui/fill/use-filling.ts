'use client';
/**
 * A form that is being filled in: its session, the filling-in on the server, which begins when something is entered, and
 * what is kept in this browser until it is saved.
 */
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Seen } from '@/core/scenario/seen';
import type { Material } from '@/core/session/material';
import type { Answer, Opening, Step, TimedStep } from '@/core/session/step';
import { call } from '../api';
import { forgetLeft, keepUnder, leftUnder, type Left } from '../draft/kept';
import { useHeldWhilePressed } from '../press';
import { LiveSession } from '../session/live-session';
import { useSeen } from '../session/use-seen';
import { useRoom } from '../use-room';

/** What is kept of a form that is being filled in. */
interface KeptFilling {
  steps: readonly TimedStep[];
  /** A text that was typed and not taken over yet. */
  typed: { part: string; text: string } | null;
}

export interface Filling {
  seen: Seen;
  answer: Answer | null;
  /** Something differs from what the form was opened with, or is just being entered: never held back, since it is asked when somebody leaves. */
  changed: boolean;
  /** What the form runs in could not be loaded, until it is tried again. */
  cannotStart: boolean;
  tryAgain: () => void;
  listens: { input: string[]; focus: string[]; blur: string[] };
  /** Done so far, with their times. */
  steps: () => readonly TimedStep[];
  /** Null where the page has been left meanwhile. Throws an Error with the server's words where it cannot begin. */
  step: (step: Step) => Promise<Answer | null>;
  /** Begins the filling-in on the server, once however often it is asked for. Throws an Error with the server's words. */
  begin: () => Promise<string>;
  /** Takes the last step back. */
  takeBack: () => Promise<void>;
  /** A text is being typed into a field and is not taken over yet. */
  typing: (part: string, text: string) => void;
  /** What was entered is saved, and need not be kept any more. */
  forget: () => void;
  /** What an earlier visit had entered and not submitted. */
  left: Left<KeptFilling> | null;
  /** Enters it again, or throws it away; gives how many steps could not be done any more. */
  takeLeft: (take: boolean) => Promise<number>;
}

/** Steps by which something is entered, as opposed to looked at. */
const isEntry = (step: Step) =>
  !(
    'focus' in step ||
    'blur' in step ||
    'turnTo' in step ||
    'wait' in step ||
    'next' in step ||
    'previous' in step
  );

function withoutTime(step: TimedStep): Step {
  const copy = { ...step };
  delete copy.at;
  return copy;
}

/** Real milliseconds without a key after which a text that is being typed is kept. */
const KEEP_AFTER = 400;

export function useFilling(
  material: Material,
  handout: { ticket: string; opening: Opening },
): Filling {
  const { opening, ticket } = handout;
  const form = material.form.name;
  const isViewing = opening.viewing === true;
  const key = `filling ${form} ${opening.record?.id ?? ''} ${opening.person.key}`;
  const [keep] = useState(() => keepUnder<KeptFilling>(key));
  const typed = useRef<KeptFilling['typed']>(null);
  const filling = useRef<Promise<string> | null>(null);
  const [left, setLeft] = useState<Left<KeptFilling> | null>(null);
  /** The answers after a step was taken back: what the last of them said was said before. */
  const [takenBackTo, setTakenBackTo] = useState<readonly Answer[] | null>(null);
  const session = useMemo(
    () =>
      new LiveSession<Opening>({
        engine: () =>
          import('@/workers/engine-in-browser').then(({ engineInWorker }) => engineInWorker()),
        material: () => material,
        openingOf: (open) => open,
        open: opening,
        time: 'real',
        keepsRefused: false,
      }),
    [material, opening],
  );
  const { answers, steps, listens, cannotStart } = useRoom(session, (state) => state);
  const seen = useSeen(answers);

  useEffect(() => {
    void session.begin().then(async () => {
      if (!isViewing) setLeft(await leftUnder<KeptFilling>(key));
    });
    return () => session.end();
  }, [session, key, isViewing]);

  function keepNow(): void {
    if (!isViewing) keep.put({ steps: session.done, typed: typed.current }, 0);
  }

  function begin(): Promise<string> {
    filling.current ??= (async () => {
      const reply = await call<{ filling: string; newId: string }>(
        'POST',
        `/api/fill/${form}/fillings`,
        { ticket },
      );
      if (!reply.ok) {
        filling.current = null;
        throw new Error(reply.says);
      }
      // Scripts may ask for it once the record is saved.
      void session.identify(reply.body.newId);
      return reply.body.filling;
    })();
    return filling.current;
  }

  async function step(done: Step): Promise<Answer | null> {
    if (isEntry(done) && !isViewing) {
      const begun = begin();
      if ('submit' in done) await begun;
      else begun.catch(() => undefined);
    }
    if ('set' in done && typed.current?.part === done.set) typed.current = null;
    const answer = await session.step(done);
    if (answer?.refused === null && isEntry(done) && !('submit' in done)) keepNow();
    return answer;
  }

  async function takeBack(): Promise<void> {
    await session.undo();
    setTakenBackTo(session.state.answers);
  }

  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  function typing(part: string, text: string): void {
    typed.current = { part, text };
    clearTimeout(timer.current);
    timer.current = setTimeout(keepNow, KEEP_AFTER);
  }

  async function takeLeft(take: boolean): Promise<number> {
    const found = left;
    setLeft(null);
    let lost = 0;
    const again = async (one: Step) => {
      if ((await step(one))?.refused !== null) lost++;
    };
    if (take && found !== null) {
      const { steps: entered, typed: last } = found.value;
      // Their times were those of another visit.
      for (const one of entered) await again(withoutTime(one));
      if (last !== null) await again({ set: last.part, to: last.text });
    }
    await forgetLeft(key);
    return lost;
  }

  function forget(): void {
    clearTimeout(timer.current);
    keep.remove();
    void forgetLeft(key);
  }

  const last = answers.at(-1) ?? null;
  return {
    seen: useHeldWhilePressed(seen),
    answer: useHeldWhilePressed(
      useMemo(
        () =>
          last !== null && answers === takenBackTo ? { ...last, submit: null, messages: [] } : last,
        [last, answers, takenBackTo],
      ),
    ),
    changed: seen.changed || steps.slice(Math.max(0, answers.length - 1)).some(isEntry),
    cannotStart,
    tryAgain: () => session.tryAgain(),
    listens,
    steps: () => session.done,
    step,
    begin,
    takeBack,
    typing,
    forget,
    left,
    takeLeft,
  };
}
