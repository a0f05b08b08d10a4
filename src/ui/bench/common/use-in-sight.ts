import { useEffect, type RefObject } from 'react';

/** Scrolls to what is marked with `data-NAME="VALUE"` below `root` whenever the value changes; null is nothing. */
export function useInSight(
  root: RefObject<HTMLElement | null>,
  name: string,
  value: string | null,
): void {
  useEffect(() => {
    if (value !== null)
      root.current
        ?.querySelector(`[data-${name}="${globalThis.CSS.escape(value)}"]`)
        ?.scrollIntoView({ block: 'nearest' });
  }, [root, name, value]);
}
