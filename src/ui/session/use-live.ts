'use client';
/** What a component shows of a session that goes on. */
import { useMemo, useRef } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { NOTHING_SEEN, seenAfter, type Seen } from '@/core/scenario/seen';
import type { Answer } from '@/core/session/step';
import type { LiveSession, SessionState } from './live-session';

export function useLive<O, T>(
  session: LiveSession<O>,
  select: (state: SessionState<O>) => T,
): T {
  return useStore(session.store, useShallow(select));
}

/** What is seen after the last answer; of answers that go on from those before only the new ones are added. */
export function useSeen(answers: readonly Answer[]): Seen {
  const last = useRef<{ answers: readonly Answer[]; seen: Seen }>({
    answers: [],
    seen: NOTHING_SEEN,
  });
  return useMemo(() => {
    const { answers: before, seen } = last.current;
    const goesOn = before.every((answer, i) => answers[i] === answer);
    const now = (goesOn ? answers.slice(before.length) : answers).reduce(
      seenAfter,
      goesOn ? seen : NOTHING_SEEN,
    );
    last.current = { answers, seen: now };
    return now;
  }, [answers]);
}
