'use client';
/** Next and previous record, which asks before changes are left behind. */
import { Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { Button } from '../../kit';
import type { Bench } from '../create-bench';

/** Next and previous record, which asks before changes are left behind. */
export function RecordTurn({
  bench,
  record,
  changed,
  frozen,
  records,
}: {
  bench: Bench;
  record: string;
  changed: boolean;
  frozen: boolean;
  records: readonly { id: string }[];
}) {
  const [asking, setAsking] = useState<'next' | 'previous' | null>(null);
  const at = records.findIndex(({ id }) => id === record);
  const turn = (way: 'next' | 'previous') => {
    setAsking(null);
    void bench.form.step(way === 'next' ? { next: true } : { previous: true });
  };
  const want = (way: 'next' | 'previous') => (changed ? setAsking(way) : turn(way));
  if (asking !== null) {
    return (
      <Flex gap="6px" align="center" role="alert">
        Changes in record {record} are not saved.
        <Button onClick={() => turn(asking)}>Go on</Button>
        <Button onClick={() => setAsking(null)}>Stay</Button>
      </Flex>
    );
  }
  return (
    <Flex gap="4px" align="center" role="group" aria-label="Records">
      <Button
        look="text"
        disabled={frozen || at <= 0}
        onClick={() => want('previous')}
        aria-label="Previous record"
      >
        ‹
      </Button>
      record {record}
      <Button
        look="text"
        disabled={frozen || at < 0 || at >= records.length - 1}
        onClick={() => want('next')}
        aria-label="Next record"
      >
        ›
      </Button>
    </Flex>
  );
}
