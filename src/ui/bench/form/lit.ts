/** What stands out on the live form: parts that the code points at, and parts that just changed. */
import { useEffect } from 'react';
import type { Bench } from '../create-bench';

/** How a part that the code points at stands out. */
export const LIT = {
  '& [data-lit]': {
    bg: 'saidGround',
    outline: '2px solid var(--tavro-colors-said-edge)',
    outlineOffset: '1px',
    borderRadius: '3px',
  },
};

/** So many parts that just changed are marked; more would be the whole form. */
const MOST_MARKED = 40;

/** A bar beside each part that just changed. Cells and rows are marked by the field that they stand in. */
export function changedMarks(changed: readonly string[]): Record<string, object> {
  const fields = new Set(changed.map((part) => part.replace(/[[.].*$/, '')));
  return Object.fromEntries(
    [...fields]
      .filter((part) => /^\w+$/.test(part))
      .slice(0, MOST_MARKED)
      .map((part) => [
        `& [data-part="${part}"]`,
        { boxShadow: '-5px 0 0 -1px var(--tavro-colors-said-edge)' },
      ]),
  );
}

/** Lights up what the code points at, and brings it into sight when somebody goes to it. Done to the page itself, since drawing the sheet again at each movement of the pointer would be felt. */
export function useLight(bench: Bench, root: React.RefObject<HTMLDivElement | null>): void {
  useEffect(() => {
    const show = ({
      part,
      from,
      reveal,
    }: {
      part: string | null;
      from: 'code' | 'form';
      reveal: boolean;
    }) => {
      for (const lit of root.current?.querySelectorAll('[data-lit]') ?? [])
        lit.removeAttribute('data-lit');
      if (part === null || from !== 'code') return;
      const [owner, cell] = part.split('.');
      const found = [
        ...(root.current?.querySelectorAll<HTMLElement>(
          cell === undefined
            ? `[data-part="${owner}"]`
            : `[data-part="${owner}"] [data-column="${cell}"]`,
        ) ?? []),
      ];
      for (const element of found) element.setAttribute('data-lit', '');
      if (reveal) found[0]?.scrollIntoView({ block: 'center' });
    };
    const stop = bench.screen.light.subscribe(show);
    if (bench.screen.light.getState().reveal) show(bench.screen.light.getState());
    return stop;
  }, [bench, root]);
}
