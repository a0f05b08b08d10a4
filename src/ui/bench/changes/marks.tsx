'use client';
/** Marks in the live form what differs from the former version beside it. Draws nothing itself. */
import { Global, type CSSObject } from '@emotion/react';
import { changedMarks } from '../form/lit';
import type { Bench } from '../create-bench';
import type { Beside } from './beside';
import { useDifferingNow } from './use-differing';

export function DifferingMarks({ bench, beside }: { bench: Bench; beside: Beside }) {
  const differing = useDifferingNow(bench, beside);
  const marks = changedMarks(differing.map(({ part }) => part));
  return (
    <Global
      styles={Object.fromEntries(
        Object.entries(marks).map(([selector, style]) => [
          `section[aria-label="Live form"] ${selector.replace(/^& /, '')}`,
          style as CSSObject,
        ]),
      )}
    />
  );
}
