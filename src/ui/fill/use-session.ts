'use client';
/**
 * A release in use in this browser: the engine, the steps done with their times, and what is seen of them. Time passes
 * for real here: when something the form waits for becomes due, the session is told.
 */
import { useEffect, useRef, useState } from 'react';
import { NOTHING_SEEN, seenAfter, type Seen } from '@/core/scenario/snapshot';
import type { Engine } from '@/core/sandbox/engine';
import type { Material } from '@/core/session/session';
import type { Answer, Opening, Step, TimedStep } from '@/core/session/step';
import { engineInWorker } from '@/workers/in-browser';

export interface SessionInUse {
  seen: Seen;
  answer: Answer | null;
  listens: { input: string[]; focus: string[]; blur: string[] };
  /** Done so far, with their times. */
  steps: () => TimedStep[];
  step: (step: Step) => Promise<Answer>;
  /** Takes the last step back by doing the others again. */
  takeBack: () => Promise<void>;
}

export function useSession(material: Material, opening: Opening): SessionInUse {
  const engine = useRef<Engine | null>(null);
  const steps = useRef<TimedStep[]>([]);
  const began = useRef(0);
  const [seen, setSeen] = useState<Seen>(NOTHING_SEEN);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [listens, setListens] = useState({ input: [] as string[], focus: [] as string[], blur: [] as string[] });

  useEffect(() => {
    const made = engineInWorker();
    engine.current = made;
    began.current = Date.now();
    const open = async () => {
      await made.load(material);
      const answers = await made.play(opening, steps.current);
      setListens(made.listens);
      setSeen(answers.reduce(seenAfter, NOTHING_SEEN));
      setAnswer(answers.at(-1)!);
    };
    void open();
    return () => made.close();
  }, [material, opening]);

  async function step(done: Step): Promise<Answer> {
    const timed: TimedStep = { ...done, at: Date.now() - began.current };
    const result = await engine.current!.step(timed);
    // A step that came too late, such as on a field just hidden, is none.
    if (result.refused === null) steps.current.push(timed);
    setSeen((before) => seenAfter(before, result));
    setAnswer(result);
    return result;
  }

  const due = Math.min(...seen.waiting.flatMap((run) => run.calls.map((call) => call.due ?? Infinity)));
  useEffect(() => {
    if (!Number.isFinite(due)) return;
    const left = due - opening.clock - (Date.now() - began.current);
    const timer = setTimeout(() => void step({ wait: 0 }), Math.max(0, left) + 1);
    return () => clearTimeout(timer);
    // Each answer says anew what is due next.
  }, [due, seen]);

  async function takeBack(): Promise<void> {
    steps.current = steps.current.slice(0, -1);
    const answers = await engine.current!.play(opening, steps.current);
    setSeen(answers.reduce(seenAfter, NOTHING_SEEN));
    setAnswer({ ...answers.at(-1)!, submit: null, messages: [] });
  }

  return { seen, answer, listens, steps: () => steps.current, step, takeBack };
}
