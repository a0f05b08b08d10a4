'use client';
/** Parts of a page that are loaded by those who use them. */
import { useEffect, useState, type ComponentType, type ReactNode } from 'react';
import { OutOfReach } from './kit';

/**
 * A component that is loaded when it is first drawn; `waiting` stands in its place meanwhile. A server that is out of
 * reach is said there, and takes nothing else of the page with it.
 */
export function lazily<P extends object>(
  load: () => Promise<ComponentType<P>>,
  waiting: (props: P) => ReactNode = () => null,
): ComponentType<P> {
  let loaded: ComponentType<P> | null = null;
  return function Lazily(props: P) {
    const [Loaded, setLoaded] = useState(() => loaded);
    const [tried, setTried] = useState({ times: 0, failed: false });
    useEffect(() => {
      if (loaded !== null) return setLoaded(() => loaded);
      let here = true;
      load().then(
        (component) => {
          loaded = component;
          if (here) setLoaded(() => component);
        },
        () => here && setTried(({ times }) => ({ times, failed: true })),
      );
      return () => {
        here = false;
      };
    }, [tried.times]);
    if (Loaded !== null) return <Loaded {...props} />;
    if (!tried.failed) return waiting(props);
    return (
      <OutOfReach
        what="This part of the page could not be loaded"
        onAgain={() => setTried(({ times }) => ({ times: times + 1, failed: false }))}
      />
    );
  };
}

/** Loads parts while the browser has nothing else to do, so that they are there when the server is not. */
export function inIdleTime(load: () => Promise<unknown>): void {
  if (typeof window === 'undefined') return;
  const idle = window.requestIdleCallback ?? ((work: () => void) => setTimeout(work, 2000));
  idle(() => void load().catch(() => undefined), { timeout: 10_000 });
}
