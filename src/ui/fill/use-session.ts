'use client';
/**
 * A release in use in this browser: the engine, the steps done with their times, and what is seen of them. Time passes
 * for real here: when something the form waits for becomes due, the session is told. The server hears of it when
 * something is entered, and what was entered is kept in the browser until it is saved.
 */
import { useEffect, useRef, useState } from 'react';
import { NOTHING_SEEN, seenAfter, type Seen } from '@/core/scenario/seen';
import { untilDone } from '@/core/sandbox/cut-short';
import type { Engine } from '@/core/sandbox/engine';
import type { Material } from '@/core/session/session';
import type { Answer, Opening, Step, TimedStep } from '@/core/session/step';
import { call } from '../api';
import { forgetLeft, keepUnder, leftUnder, type Left } from '../draft/kept';
import { useHeldWhilePressed } from '../press';

/** What is kept of a form that is being filled in. */
interface KeptFilling {
  steps: TimedStep[];
  /** A text that was typed and not taken over yet. */
  typed: { part: string; text: string } | null;
}

export interface SessionInUse {
  seen: Seen;
  answer: Answer | null;
  /** Something differs from what the form was opened with, or is just being entered: never held back, since it is asked when somebody leaves. */
  changed: boolean;
  /** What the form runs in could not be loaded, until it is tried again. */
  cannotOpen: boolean;
  tryAgain: () => void;
  listens: { input: string[]; focus: string[]; blur: string[] };
  /** Done so far, with their times. */
  steps: () => TimedStep[];
  step: (step: Step) => Promise<Answer>;
  /** Begins the filling-in on the server, once however often it is asked for. Throws an Error with the server's words. */
  begin: () => Promise<string>;
  /** Takes the last step back by doing the others again. */
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

const KEEP_AFTER = 400;

export function useSession(
  material: Material,
  handout: { ticket: string; opening: Opening },
): SessionInUse {
  const { opening: first, ticket } = handout;
  const form = material.form.name;
  const key = `filling ${form} ${first.record?.id ?? ''} ${first.person.key}`;
  const [keep] = useState(() => keepUnder<KeptFilling>(key));
  const engine = useRef<Engine | null>(null);
  const opening = useRef(first);
  const steps = useRef<TimedStep[]>([]);
  const began = useRef(0);
  const typed = useRef<KeptFilling['typed']>(null);
  const filling = useRef<Promise<string> | null>(null);
  const [seen, setSeen] = useState<Seen>(NOTHING_SEEN);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [listens, setListens] = useState({
    input: [] as string[],
    focus: [] as string[],
    blur: [] as string[],
  });
  const [left, setLeft] = useState<Left<KeptFilling> | null>(null);
  /** Entries that are not answered yet. */
  const [underway, setUnderway] = useState(0);
  const [cannotOpen, setCannotOpen] = useState(false);
  const [tries, setTries] = useState(0);

  useEffect(() => {
    let made: Engine | null = null;
    let gone = false;
    began.current = Date.now();
    opening.current = first;
    const open = async () => {
      // The page is drawn before what the form runs in is there.
      const { engineInWorker } = await import('@/workers/engine-in-browser');
      if (gone) return;
      made = engineInWorker();
      engine.current = made;
      const own = made;
      await untilDone(() => own.load(material));
      const answers = await untilDone(() => own.play(first, steps.current));
      setListens(own.listens);
      setSeen(answers.reduce(seenAfter, NOTHING_SEEN));
      setAnswer(answers.at(-1)!);
      if (first.viewing !== true) setLeft(await leftUnder<KeptFilling>(key));
    };
    open().catch(() => {
      // A page that was left meanwhile has ended its engine.
      if (!gone) setCannotOpen(true);
    });
    return () => {
      gone = true;
      made?.close();
    };
  }, [material, first, key, tries]);

  function keepNow(): void {
    if (first.viewing !== true) keep.put({ steps: steps.current, typed: typed.current }, 0);
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
      // Only now the number of a new record is known, and scripts may ask for it once it is saved.
      if (opening.current.newId !== reply.body.newId)
        opening.current = { ...opening.current, newId: reply.body.newId };
      return reply.body.filling;
    })();
    return filling.current;
  }

  async function step(done: Step): Promise<Answer> {
    if ('submit' in done && first.viewing !== true) {
      await begin();
      // The engine reads the steps in its turn, when those that it was doing have been answered and stand among them.
      if (opening.current !== first)
        await untilDone(() => engine.current!.play(opening.current, steps.current));
    } else if (isEntry(done) && first.viewing !== true) void begin().catch(() => undefined);
    if ('set' in done && typed.current?.part === done.set) typed.current = null;
    const timed: TimedStep = { ...done, at: Date.now() - began.current };
    const entering = isEntry(done) ? 1 : 0;
    setUnderway((before) => before + entering);
    let result: Answer;
    try {
      result = await untilDone(() =>
        // In the same moment as the engine has answered: what it does next may read the steps.
        engine.current!.step(timed).then((came) => {
          // A step that came too late, such as on a field just hidden, is none.
          if (came.refused === null) {
            steps.current.push(timed);
            if (isEntry(done) && !('submit' in done)) keepNow();
          }
          return came;
        }),
      );
    } finally {
      setUnderway((before) => before - entering);
    }
    setSeen((before) => seenAfter(before, result));
    setAnswer(result);
    return result;
  }

  const due = Math.min(
    ...seen.waiting.flatMap((run) => run.calls.map((call) => call.due ?? Infinity)),
  );
  useEffect(() => {
    if (!Number.isFinite(due)) return;
    const wait = due - first.clock - (Date.now() - began.current);
    const timer = setTimeout(() => void step({ wait: 0 }), Math.max(0, wait) + 1);
    return () => clearTimeout(timer);
    // Each answer says what is due next.
  }, [due, seen]);

  async function takeBack(): Promise<void> {
    steps.current = steps.current.slice(0, -1);
    const answers = await untilDone(() => engine.current!.play(opening.current, steps.current));
    setSeen(answers.reduce(seenAfter, NOTHING_SEEN));
    setAnswer({ ...answers.at(-1)!, submit: null, messages: [] });
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
    if (take && found !== null) {
      const { steps: entered, typed: last } = found.value;
      // Their times were those of another visit.
      for (const one of entered) if ((await step(withoutTime(one))).refused !== null) lost++;
      if (last !== null && (await step({ set: last.part, to: last.text })).refused !== null) lost++;
    }
    await forgetLeft(key);
    return lost;
  }

  function forget(): void {
    clearTimeout(timer.current);
    keep.remove();
    void forgetLeft(key);
  }

  return {
    seen: useHeldWhilePressed(seen),
    answer: useHeldWhilePressed(answer),
    changed: seen.changed || underway > 0,
    cannotOpen,
    tryAgain: () => {
      setCannotOpen(false);
      setTries(tries + 1);
    },
    listens,
    steps: () => steps.current,
    step,
    begin,
    takeBack,
    typing,
    forget,
    left,
    takeLeft,
  };
}
