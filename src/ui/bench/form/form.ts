/** The live form: a session that goes on, opened as one likes, with what forms opened from this one hand back. */
import { createStore } from 'zustand/vanilla';
import { differences, type Difference } from '@/core/debugging/differences';
import { equal, type Value } from '@/core/form/value';
import type { Open } from '@/core/scenario/definition';
import { openingOf, type SampleRecord } from '@/core/scenario/opening';
import { openOf } from '@/core/scenario/recorded';
import { seenAt, type Seen } from '@/core/scenario/seen';
import type { Answer, Opening, Step, TimedStep } from '@/core/session/step';
import { engineInWorker } from '@/workers/engine-in-browser';
import { LiveSession } from '../../session/live-session';
import { Signal } from '../../signal';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { TakenOver } from '../common/material';
import type { Screen } from '../common/screen';
import { handToParent, listenToChildren } from './parent-channel';

export interface FormState {
  /** The part that is asked about, marked in the outline. */
  asked: { part: string; aspect: string | null } | null;
  /** What the last replay changed at the end; null where there is nothing to compare it with. */
  replayed: readonly Difference[] | null;
}

export type FormRoom = ReturnType<typeof benchForm>;

export function benchForm(
  core: BenchCore,
  screen: Screen,
  code: Code,
  first: Partial<Open>,
  before: TakenOver | undefined,
) {
  const { form, material, cast, save, pathOf } = core;
  const store = createStore<FormState>(() => ({ asked: null, replayed: null }));
  const recording = material.recording?.content ?? null;
  const replayed = new Signal();
  const stepped = new Signal();
  const session = new LiveSession<Open>({
    engine: engineInWorker,
    material: code.scripts.material,
    openingOf: openingFor,
    open: before?.open ?? { as: material.people[0]!.key, record: null, ...first },
    steps: before?.steps ?? recording?.steps ?? [],
    time: 'steps',
    keepsRefused: true,
    replayed: (answers) => {
      store.setState({ replayed: changedAtTheEnd(answers, session.state.answers) });
      void replayed.tell();
    },
    stepped: () => void stepped.tell(),
  });
  let deafen = () => undefined as void;

  /** What the form is opened with; of a recording exactly what it was opened with. */
  function openingFor(open: Open): Opening {
    const recorded = recording?.opening ?? null;
    return recorded !== null && equal(open as Value, openOf(recorded) as Value)
      ? recorded
      : openingOf(open, form(), cast());
  }

  function changedAtTheEnd(
    before: readonly Answer[],
    answers: readonly Answer[],
  ): readonly Difference[] | null {
    return before.length === answers.length
      ? differences(lastSeen(before), lastSeen(answers), form())
      : null;
  }

  async function step(done: Step): Promise<void> {
    if (session.state.at === session.state.steps.length) store.setState({ replayed: null });
    const answer = await session.step(done);
    const { parent } = session.state.open;
    if (answer !== null && parent !== undefined && answer.toParent.length > 0)
      handToParent({ ...parent, sets: answer.toParent });
  }

  /** A bench that was opened from this one has saved: what it asks for is done here as steps, when its record is open. */
  async function takeFromChild(
    record: string,
    sets: readonly { set: string; to: Value }[],
  ): Promise<void> {
    if (session.state.answers.at(-1)?.record !== record) return;
    for (const { set: name, to } of sets) await step({ fromChild: name, to });
  }

  /** Opens the form anew with these steps, and looks at it after some of them; `asked` is marked. */
  async function show(
    open: Open,
    steps: readonly TimedStep[],
    at = steps.length,
    asked: FormState['asked'] = null,
  ): Promise<void> {
    store.setState({ replayed: null, asked });
    await session.show(open, steps, at);
  }

  const reopen = (open: Open = session.state.open) => show(open, []);

  /** Opens the form with a record that is none of the samples. */
  async function takeRecord(record: SampleRecord): Promise<void> {
    core.putRecord(record);
    await reopen({ ...session.state.open, record: record.id });
  }

  /** Keeps what the last submission would save as a sample record, and opens the form with it. */
  async function keepSample(): Promise<void> {
    const submit = session.state.answers.findLast((answer) => answer.submit !== null)?.submit;
    if (submit?.saved !== true) return;
    await core.saving.saveAll();
    const reply = await save<SampleRecord>('POST', pathOf('records'), { values: submit.values });
    if (!reply.ok) return screen.complain(reply.says);
    await takeRecord(reply.body);
    screen.say(`Kept as record ${reply.body.id}, which is open now.`);
  }

  return {
    store,
    session,
    replayed,
    stepped,
    openingFor,
    /** Opens the form with the scripts as the server compiled them. */
    async begin(): Promise<void> {
      deafen = listenToChildren(form().name, (record, sets) => void takeFromChild(record, sets));
      await session.begin();
    },
    end(): void {
      session.end();
      deafen();
    },
    step,
    show,
    reopen,
    takeRecord,
    async undo(): Promise<void> {
      await session.undo();
      store.setState({ replayed: null });
    },
    keepSample: core.changes(keepSample, Promise.resolve()),
    /** Marks a part in the outline. */
    mark: (asked: FormState['asked']) => store.setState({ asked }),
    /** Shows a part in the outline and the live form. */
    reveal(part: string): void {
      store.setState({ asked: { part, aspect: null } });
      screen.reveal(part);
    },
  };
}

function lastSeen(answers: readonly Answer[]): Seen {
  return seenAt(answers, answers.length - 1);
}
