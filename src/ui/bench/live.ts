/** The session that goes on in the live form: steps, undoing them, doing all of it again when a script changes. */
import { differences } from '@/core/debugging/differences';
import type { Value } from '@/core/form/value';
import type { Open } from '@/core/scenario/definition';
import type { SampleRecord } from '@/core/scenario/opening';
import { seenAt, type Seen } from '@/core/scenario/seen';
import type { Engine } from '@/core/sandbox/engine';
import { untilDone, wasCutShort } from '@/core/sandbox/cut-short';
import type { Answer, Step } from '@/core/session/step';
import { engineInWorker } from '@/workers/engine-in-browser';
import type { BenchCore } from './core';
import { handToParent, listenToChildren } from './parent-channel';

export function liveSession(
  { get, set, form, openingFor, engineMaterial }: BenchCore,
  told: { replayed(): void; stepped(): void },
) {
  let live: Engine | null = null;
  let deafen = () => undefined as void;
  let waitTimer: ReturnType<typeof setTimeout> | undefined;
  /** Those that go on once it is tried again. */
  const stopped: (() => void)[] = [];

  /** Opens the form with the scripts as the server compiled them. */
  async function begin(): Promise<void> {
    deafen = listenToChildren(form().name, (record, sets) => void takeFromChild(record, sets));
    live = engineInWorker();
    await replay();
  }

  function end(): void {
    live?.close();
    live = null;
    deafen();
    clearTimeout(waitTimer);
  }

  /** A bench that was opened from this one has saved: what it asks for is done here as steps, when its record is open. */
  async function takeFromChild(
    record: string,
    sets: readonly { set: string; to: Value }[],
  ): Promise<void> {
    if (get().answers.at(-1)?.record !== record) return;
    for (const { set: name, to } of sets) await step({ fromChild: name, to });
  }

  /** Time passes on the bench as it does for people: when something waited for becomes due, a wait is done as a step. */
  function keepTime(): void {
    clearTimeout(waitTimer);
    const { answers, steps, at } = get();
    const last = answers.at(-1);
    if (last === undefined || at < steps.length || answers.length !== steps.length + 1) return;
    const due = Math.min(
      ...last.waiting.flatMap((run) => run.calls.map((call) => call.due ?? Infinity)),
    );
    if (Number.isFinite(due))
      waitTimer = setTimeout(
        () => void step({ wait: Math.max(0, due - last.clock) }),
        Math.max(0, due - last.clock),
      );
  }

  async function step(done: Step): Promise<void> {
    if (get().at < get().steps.length) return;
    clearTimeout(waitTimer);
    const steps = [...get().steps, done];
    set({ steps, at: steps.length, replayed: null });
    const answer = await untilStarted(() => live!.step(done));
    if (answer === null) return;
    // After a replay has begun, it brings the answers itself.
    if (get().answers.length !== steps.length) return;
    set((state) => ({ answers: [...state.answers, answer], listens: live!.listens }));
    told.stepped();
    const { parent } = get().open;
    if (parent !== undefined && answer.toParent.length > 0)
      handToParent({ ...parent, sets: answer.toParent });
    keepTime();
  }

  /**
   * What the engine answers; where its worker cannot be loaded or the machine is too busy, as soon as somebody tries again
   * and it can. Null for whoever has left meanwhile.
   */
  async function untilStarted<T>(work: () => Promise<T>): Promise<T | null> {
    const mine = live;
    try {
      const answer = await untilDone(work);
      // Each step comes by here, and setting what is so already would be looked at by every pane.
      if (get().cannotStart) set({ cannotStart: false });
      return answer;
    } catch (caught) {
      if (live !== mine) return null;
      if (!wasCutShort(caught)) throw caught;
    }
    set({ cannotStart: true });
    await new Promise<void>((resolve) => stopped.push(resolve));
    return untilStarted(work);
  }

  function tryAgain(): void {
    for (const go of stopped.splice(0)) go();
  }

  /** Loads what runs now and does everything done so far again. */
  async function replay(): Promise<void> {
    const { open, steps, answers: before } = get();
    set({ busy: true });
    const answers = await untilStarted(async () => {
      await live!.load(engineMaterial());
      return live!.play(openingFor(open), steps);
    });
    if (answers === null) return;
    // A step done meanwhile was answered by the former scripts; all is done once more with it.
    if (get().steps !== steps || get().open !== open) return replay();
    set({
      // An equal outcome re-renders nothing.
      answers: JSON.stringify(answers) === JSON.stringify(before) ? before : answers,
      at: Math.min(get().at, steps.length),
      listens:
        JSON.stringify(live!.listens) === JSON.stringify(get().listens)
          ? get().listens
          : live!.listens,
      busy: false,
      replayed:
        before.length === answers.length
          ? differences(lastSeen(before), lastSeen(answers), form())
          : null,
    });
    keepTime();
    told.replayed();
  }

  async function reopen(open: Open = get().open): Promise<void> {
    set({ open, steps: [], answers: [], at: 0, replayed: null, asked: null });
    await replay();
  }

  /** Takes the last step back by doing the others again. */
  async function undo(): Promise<void> {
    if (get().steps.length === 0) return;
    const steps = get().steps.slice(0, -1);
    set({ steps, at: steps.length, answers: get().answers.slice(0, steps.length + 1) });
    await replay();
    set({ replayed: null });
  }

  /** Opens the form with a record that is none of the samples. */
  async function takeRecord(record: SampleRecord): Promise<void> {
    set((state) => ({
      material: {
        ...state.material,
        records: [...state.material.records.filter(({ id }) => id !== record.id), record],
      },
    }));
    await reopen({ ...get().open, record: record.id });
  }

  /** Adds a record of a parent form to those the form can be opened from. */
  function takeParent(name: string, record: SampleRecord): void {
    const forms = get().material.forms.map((one) =>
      one.form.name === name
        ? { ...one, records: [...one.records.filter(({ id }) => id !== record.id), record] }
        : one,
    );
    set((state) => ({ material: { ...state.material, forms } }));
  }

  function lookAt(at: number): void {
    set((state) => ({ at: Math.max(0, Math.min(at, state.steps.length)) }));
    keepTime();
  }

  return { begin, end, replay, step, tryAgain, reopen, undo, takeRecord, takeParent, lookAt };
}

function lastSeen(answers: readonly Answer[]): Seen {
  return seenAt(answers, answers.length - 1);
}
