'use client';
/** How far work is that takes a while. */
import { Flex } from '@chakra-ui/react';
import { Button, ProgressBar } from '../../kit';
import type { Bench } from '../create-bench';
import type { Underway } from './state';

/** How far work is, with a button that stops it. */
export function Progress({
  bench,
  underway,
  what,
}: {
  bench: Bench;
  underway: Underway;
  what: string;
}) {
  return (
    <Flex gap="10px" align="center" role="status" my="8px">
      <ProgressBar
        done={underway.of === 0 ? undefined : underway.done}
        of={underway.of}
        what={what}
      />
      <span>
        {underway.of === 0 ? 'getting ready' : `${underway.done} of ${underway.of} ${what}`}
      </span>
      <Button onClick={() => bench.tests.stop()}>Stop</Button>
    </Flex>
  );
}
