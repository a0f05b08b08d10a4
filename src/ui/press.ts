'use client';
/**
 * A press takes a tenth of a second, and leaving an input at its start may change the page: what stood above moves, and
 * the press ends beside the button it began on, which is no click. So what is drawn stays as it is from the moment a
 * pointer goes down until its click has been dispatched.
 */
import { useState, useSyncExternalStore } from 'react';

/** What ends a press. Lists and menus of the browser's own swallow the release, so other signs of it count as well. */
const ENDS: { readonly [type: string]: (event: Event) => boolean } = {
  pointerup: () => true,
  pointercancel: () => true,
  pointermove: (event) => (event as PointerEvent).buttons === 0,
  click: () => true,
  keydown: () => true,
  // Inputs that are left by the press say so in the same way.
  change: ({ target }) => target instanceof HTMLSelectElement,
  blur: ({ target, currentTarget }) => target === currentTarget,
};

/** Milliseconds after a finger was lifted in which the click of a tap comes, if it comes. */
const TAP = 350;

let pressed = false;
let ending: ReturnType<typeof setTimeout> | undefined;
const listeners = new Set<() => void>();

function begin({ button }: PointerEvent): void {
  if (button !== 0) return;
  clearTimeout(ending);
  pressed = true;
  for (const type in ENDS) addEventListener(type, endIfOver, true);
}

function endIfOver(event: Event): void {
  if (!ENDS[event.type]!(event)) return;
  const isTap =
    event.type === 'pointerup' && (event as Partial<PointerEvent>).pointerType === 'touch';
  clearTimeout(ending);
  // The click of a mouse comes in the same task as the release, after it.
  ending = setTimeout(end, isTap ? TAP : 0);
}

function end(): void {
  for (const type in ENDS) removeEventListener(type, endIfOver, true);
  pressed = false;
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  if (listeners.size === 0) addEventListener('pointerdown', begin, true);
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
    if (listeners.size === 0) removeEventListener('pointerdown', begin, true);
  };
}

/** The value, or while a pointer is pressed the one from before. A value of another identity is another one. */
export function useHeldWhilePressed<T>(now: T): T {
  const [held, hold] = useState(() => now);
  // Draws again only where something was held back.
  const holding = useSyncExternalStore(
    subscribe,
    () => pressed && !Object.is(held, now),
    () => false,
  );
  if (!holding && !Object.is(held, now)) hold(() => now);
  return holding ? held : now;
}
