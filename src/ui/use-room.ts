/** What a component shows of something that has a store. It draws again only when what it takes differs. */
import { useStore, type StoreApi } from 'zustand';
import { useShallow } from 'zustand/react/shallow';

export function useRoom<S, T>(room: { store: StoreApi<S> }, select: (state: S) => T): T {
  return useStore(room.store, useShallow(select));
}
