'use client';
/** A draft on a page of its own: tables, services, people. */
import { Flex } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { Button, Notice } from '../kit';
import { Draft, losesOnLeaving, put, type Saving } from './draft';
import { forgetLeft, keepUnder, type Left } from './kept';
import { leftBeside } from './left';
import { useLeaving } from './leaving';
import { ConflictNotice } from './saving';

export interface DraftInUse<T> {
  value: T;
  revision: number;
  saving: Saving<T>;
  edit: (value: T) => void;
  settle: (take: 'mine' | 'theirs') => void;
  /** What an earlier visit left unsaved. */
  left: Left<T> | null;
  takeLeft: (take: boolean) => void;
  save: () => Promise<void>;
}

/** `body` makes what is sent to the path, from the value and the revision it was made from. */
export function useDraft<T>(
  path: string,
  first: T,
  revision: number,
  body: (value: T, from: number) => object,
): DraftInUse<T> {
  const [, drawAgain] = useState(0);
  const [left, setLeft] = useState<Left<T> | null>(null);
  const [draft] = useState(
    () =>
      new Draft<T>({
        value: first,
        revision,
        send: (value, from) => put<T>(path, body(value, from), ({ theirs }) => theirs),
        keep: keepUnder(path),
        onChange: () => drawAgain((count) => count + 1),
      }),
  );
  useEffect(() => {
    void leftBeside(path, first).then(setLeft);
    return () => void draft.save();
  }, [path, draft, first]);
  useLeaving({
    flush: () => draft.leave(),
    unsaved: () => losesOnLeaving(draft.saving, body(draft.value, draft.revision)),
  });
  return {
    value: draft.value,
    revision: draft.revision,
    saving: draft.saving,
    edit: (value) => draft.edit(value),
    settle: (take) => draft.settle(take),
    left,
    takeLeft(take) {
      if (take && left !== null) draft.edit(left.value);
      setLeft(null);
      void forgetLeft(path);
    },
    save: () => draft.save(),
  };
}

/** How saving stands, with the choice when two have edited the same, and what an earlier visit left. */
export function SavingNote<T>({ draft }: { draft: DraftInUse<T> }) {
  const { saving, left } = draft;
  if (left !== null) return <LeftNotice at={left.at} what="changes" onTake={draft.takeLeft} />;
  if (saving.state === 'conflict') {
    return (
      <ConflictNotice
        says="Somebody else saved this meanwhile. Nothing is overwritten until you choose."
        onSettle={draft.settle}
      />
    );
  }
  if (saving.state === 'unsaved') {
    return (
      <Notice tone="error">
        Not saved: {saving.says} What you entered is still here.{' '}
        <Button look="text" onClick={() => void draft.save()}>
          Try again
        </Button>
      </Notice>
    );
  }
  return (
    <span role="status" style={{ opacity: 0.8 }}>
      {saving.state === 'saved' ? 'saved' : 'saving…'}
    </span>
  );
}

/** Offers what an earlier visit left unsaved. */
export function LeftNotice({
  at,
  what,
  onTake,
}: {
  at: number;
  what: string;
  onTake: (take: boolean) => void;
}) {
  return (
    <Notice tone="warning">
      On {new Date(at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })} you
      left {what} here that were not saved.
      <Flex gap="8px" mt="4px">
        <Button look="go" onClick={() => onTake(true)}>
          Bring them back
        </Button>
        <Button onClick={() => onTake(false)}>Throw them away</Button>
      </Flex>
    </Notice>
  );
}
