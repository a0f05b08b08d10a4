'use client';
/** A text that is being typed over what stands there. */
import { useState } from 'react';

/**
 * What is typed; when what stands there changes, that takes its place, and `taken` is called. Done while drawing: an
 * effect of the first drawing may run after the first key, and would take it back.
 */
export function useTyped(
  shown: string,
  taken: () => void = () => undefined,
): [string, (text: string) => void] {
  const [text, setText] = useState(shown);
  const [last, setLast] = useState(shown);
  if (last === shown) return [text, setText];
  setLast(shown);
  setText(shown);
  taken();
  return [shown, setText];
}
