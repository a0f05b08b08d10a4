/** What is looked at on the bench: panes, the handbook, notices, and the part that the pointer is on. */
import { createStore } from 'zustand/vanilla';

export interface ScreenState {
  /** What stands between the outline and the live form. */
  pane: 'code' | 'structure' | 'map' | 'history' | 'tests' | 'beside';
  /** What stands to the right. */
  side: 'form' | 'handbook';
  /** The page and section of the handbook that is open. */
  handbook: string;
  /** Whether technical names are shown. */
  names: boolean;
  notice: { tone: 'info' | 'error'; text: string } | null;
}

export type Screen = ReturnType<typeof benchScreen>;

export function benchScreen(first: Pick<ScreenState, 'pane' | 'notice'>) {
  const store = createStore<ScreenState>(() => ({
    ...first,
    side: 'form',
    handbook: 'language',
    names: true,
  }));
  const { getState: get, setState: set } = store;
  /** Apart, so that moving the pointer draws nothing again. */
  const light = createStore<{ part: string | null; from: 'code' | 'form'; reveal: boolean }>(
    () => ({ part: null, from: 'form', reveal: false }),
  );

  return {
    store,
    light,
    showPane: (pane: ScreenState['pane']) => set({ pane }),
    showForm: () => set({ side: 'form' }),
    /** Opens a page of the handbook beside the code. */
    openHandbook: (page: string = get().handbook) => set({ side: 'handbook', handbook: page }),
    showNames: (names: boolean) => set({ names }),
    say: (text: string) => set({ notice: { tone: 'info', text } }),
    /** Says something that went wrong. */
    complain: (text: string) => set({ notice: { tone: 'error', text } }),
    dismiss: () => set({ notice: null }),
    /** Lights up a part on the other side; nothing is drawn again for it. */
    shine: (part: string | null, from: 'code' | 'form') => {
      if (light.getState().part !== part || light.getState().from !== from)
        light.setState({ part, from, reveal: false });
    },
    /** Lights up a part in the live form and brings it into sight. */
    reveal: (part: string) => {
      set({ side: 'form' });
      light.setState({ part, from: 'code', reveal: true });
    },
  };
}
