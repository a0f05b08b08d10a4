'use client';
/** How the saving of a draft stands, in words, and the choice when two have edited the same. */
import { chakra, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Button, Notice } from '../kit';
import type { Saving } from './draft';

/** One line; `saved` is what it says when nothing is left to be saved. */
export function SavingLine({ saving, saved }: { saving: Saving<unknown>; saved: string }) {
  return (
    <chakra.span whiteSpace="nowrap" color={saving.state === 'unsaved' ? 'bad' : 'soft'}>
      {inWords(saving, saved)}
    </chakra.span>
  );
}

function inWords(saving: Saving<unknown>, saved: string): string {
  switch (saving.state) {
    case 'saved':
      return saved;
    case 'waiting':
      return 'saving…';
    case 'conflict':
      return 'two versions';
    case 'unsaved':
      return `not saved: ${saving.says} Tried again on its own.`;
  }
}

interface ConflictNoticeProps {
  says: string;
  mine?: string;
  theirs?: string;
  onSettle: (take: 'mine' | 'theirs') => void;
  /** What the other version is. */
  children?: ReactNode;
}

/** Nothing is overwritten until one of the two is chosen. */
export function ConflictNotice({
  says,
  mine = 'Keep mine',
  theirs = 'Take theirs',
  onSettle,
  children,
}: ConflictNoticeProps) {
  return (
    <Notice tone="warning">
      {says}
      <Flex gap="8px" mt="6px">
        <Button onClick={() => onSettle('mine')}>{mine}</Button>
        <Button onClick={() => onSettle('theirs')}>{theirs}</Button>
      </Flex>
      {children}
    </Notice>
  );
}
