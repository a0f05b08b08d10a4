'use client';
/** Leaving a page: what can be saved on the way is, and leaving what cannot be is asked about. */
import { useEffect, useRef } from 'react';

/** A page with something that may be unsaved. */
export interface Leaving {
  /** Saves what is not saved yet, without waiting for the answer. */
  flush(): void;
  /** Something is unsaved that `flush` does not save for certain. */
  unsaved(): boolean;
}

const QUESTION =
  'Something on this page is not saved. It is kept in this browser and offered again when you come back. Leave the page?';

export function useLeaving(leaving: Leaving): void {
  const now = useRef(leaving);
  useEffect(() => {
    now.current = leaving;
  });
  useEffect(() => {
    const beforeUnload = (event: BeforeUnloadEvent) => {
      const asks = now.current.unsaved();
      now.current.flush();
      if (asks) event.preventDefault();
    };
    const hidden = () => now.current.flush();
    // Links inside the app lead away without the page being unloaded.
    const clicked = (event: MouseEvent) => {
      const link = (event.target as Element | null)?.closest?.('a[href]');
      if (
        link == null ||
        event.defaultPrevented ||
        event.button !== 0 ||
        event.metaKey ||
        event.ctrlKey ||
        event.shiftKey ||
        link.getAttribute('target') === '_blank' ||
        link.hasAttribute('download')
      )
        return;
      if (!now.current.unsaved()) return now.current.flush();
      if (confirm(QUESTION)) return now.current.flush();
      event.preventDefault();
      event.stopPropagation();
    };
    addEventListener('beforeunload', beforeUnload);
    addEventListener('pagehide', hidden);
    document.addEventListener('click', clicked, { capture: true });
    return () => {
      removeEventListener('beforeunload', beforeUnload);
      removeEventListener('pagehide', hidden);
      document.removeEventListener('click', clicked, { capture: true });
    };
  }, []);
}
