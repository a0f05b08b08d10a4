'use client';
/** Asking the server to change something on a page of a list: what changed is shown, and a refusal is said. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call } from '../api';
import { Button, Notice } from '../kit';
import { useHeldWhilePressed } from '../press';

/** What is said above the list; `undo` is what can be undone. */
interface Said<U> {
  tone: 'info' | 'error';
  text: string;
  undo?: U;
}

export function useAsking<U>() {
  const [said, setSaid] = useState<Said<U> | null>(null);
  const router = useRouter();
  /** The answer; null where it was refused. */
  const ask = async <T,>(...request: Parameters<typeof call<T>>): Promise<T | null> => {
    const reply = await call<T>(...request);
    if (!reply.ok) {
      setSaid({ tone: 'error', text: reply.says });
      return null;
    }
    router.refresh();
    return reply.body;
  };
  return { said: useHeldWhilePressed(said), setSaid, ask };
}

export function SaidNotice<U>({
  said,
  onUndo,
}: {
  said: Said<U> | null;
  onUndo: (undo: U) => void;
}) {
  if (said === null) return null;
  const { tone, text, undo } = said;
  return (
    <Notice tone={tone} mb="10px" whiteSpace="pre-line">
      {text}{' '}
      {undo !== undefined && (
        <Button look="text" autoFocus onClick={() => onUndo(undo)}>
          Undo
        </Button>
      )}
    </Notice>
  );
}
