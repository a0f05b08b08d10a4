'use client';
import { useState } from 'react';
import { NOTHING_SEEN, seenAfter, type Seen } from '@/core/scenario/seen';
import type { Answer } from '@/core/session/step';

/** What is seen after the last answer. Where answers go on from those before, only the new ones are added. */
export function useSeen(answers: readonly Answer[]): Seen {
  const [last, remember] = useState<{ answers: readonly Answer[]; seen: Seen }>({
    answers: [],
    seen: NOTHING_SEEN,
  });
  if (last.answers === answers) return last.seen;
  const goesOn = last.answers.every((answer, i) => answers[i] === answer);
  const seen = (goesOn ? answers.slice(last.answers.length) : answers).reduce(
    seenAfter,
    goesOn ? last.seen : NOTHING_SEEN,
  );
  remember({ answers, seen });
  return seen;
}
