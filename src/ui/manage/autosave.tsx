'use client';
/** Saves what is edited shortly after it was, tries again when that fails, and shows both when somebody else was faster. */
import { Flex } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { call } from '../api';
import { Button, Notice } from '../kit';

export type Saving<T> = { state: 'saved' } | { state: 'waiting' } | { state: 'unsaved'; says: string } | { state: 'conflict'; theirs: { content: T; revision: number } };

export interface Autosave<T> {
  value: T;
  saving: Saving<T>;
  edit: (value: T) => void;
  settle: (take: 'mine' | 'theirs') => void;
}

const AFTER = 600;
const AGAIN_AFTER = 2500;

/** `body` makes what is sent, from the value and the revision it was made from. */
export function useAutosave<T>(path: string, first: T, revision: number, body: (value: T, from: number) => object): Autosave<T> {
  const [value, setValue] = useState(first);
  const [saving, setSaving] = useState<Saving<T>>({ state: 'saved' });
  const latest = useRef({ value: first, revision, sending: false });
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);

  const send = async (): Promise<void> => {
    const { current } = latest;
    if (current.sending) return later(AFTER);
    const sent = current.value;
    current.sending = true;
    const reply = await call<{ revision: number }>('PUT', path, body(sent, current.revision));
    current.sending = false;
    if (reply.ok) {
      current.revision = reply.body.revision;
      if (current.value === sent) setSaving({ state: 'saved' });
      else later(AFTER);
    } else if (reply.status === 409 && (reply.body as { theirs?: unknown } | null)?.theirs !== undefined) {
      setSaving({ state: 'conflict', theirs: (reply.body as { theirs: { content: T; revision: number } }).theirs });
    } else {
      setSaving({ state: 'unsaved', says: reply.says });
      // A value that was refused is not sent again until it is changed; a server out of reach is asked again.
      if (reply.status === 0 || reply.status >= 500) later(AGAIN_AFTER);
    }
  };

  function later(after: number): void {
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void send(), after);
  }

  return {
    value,
    saving,
    edit: (next) => {
      latest.current.value = next;
      setValue(next);
      if (saving.state === 'conflict') return;
      setSaving({ state: 'waiting' });
      later(AFTER);
    },
    settle: (take) => {
      if (saving.state !== 'conflict') return;
      const { content, revision: theirs } = saving.theirs;
      latest.current.revision = theirs;
      if (take === 'theirs') {
        latest.current.value = content;
        setValue(content);
        setSaving({ state: 'saved' });
      } else {
        setSaving({ state: 'waiting' });
        later(0);
      }
    },
  };
}

/** How saving stands, with the choice when two have edited the same. */
export function SavingNote<T>({ saving, onSettle }: { saving: Saving<T>; onSettle: (take: 'mine' | 'theirs') => void }) {
  if (saving.state === 'conflict') {
    return (
      <Notice tone="warning">
        Somebody else saved this meanwhile. Nothing is overwritten until you choose.
        <Flex gap="8px" mt="4px">
          <Button onClick={() => onSettle('mine')}>Keep mine</Button>
          <Button onClick={() => onSettle('theirs')}>Take theirs</Button>
        </Flex>
      </Notice>
    );
  }
  if (saving.state === 'unsaved') return <Notice tone="error">Not saved: {saving.says} What you entered is still here.</Notice>;
  return (
    <span role="status" style={{ opacity: 0.8 }}>
      {saving.state === 'saved' ? 'saved' : 'saving…'}
    </span>
  );
}
