'use client';
/** The past is marked as such, with what has just changed and the ways out of it. */
import { Flex } from '@chakra-ui/react';
import { useStore } from 'zustand';
import { placeAt } from '@/core/debugging/travel';
import { Button } from '../../kit';
import type { Bench } from '../create-bench';
import type { Names } from '@/core/tape/words';

/** The past is marked as such, with what has just changed and the ways out of it. */
export function PastBanner({
  bench,
  at,
  names,
  changed,
}: {
  bench: Bench;
  at: number;
  names: Names;
  changed: readonly string[];
}) {
  const { standing, detailed, sites } = useStore(bench.tape.store);
  const place =
    standing?.detail == null || detailed === null ? null : placeAt(detailed, standing.detail);
  const line = place === null ? null : sites.get(place.script)?.[place.site]?.line;
  return (
    <Flex
      role="status"
      gap="10px"
      px="10px"
      py="5px"
      align="baseline"
      flexWrap="wrap"
      bg="saidGround"
      borderWidth="1px"
      borderColor="saidEdge"
      borderRadius="4px"
      fontSize="13px"
    >
      <span>
        The form as it was at {at === 0 ? 'the opening' : `step ${at}`}
        {line !== null && line !== undefined && `, line ${line}`}
        {changed.length > 0 && (
          <>
            . Just changed:{' '}
            <b>
              {changed
                .slice(0, 4)
                .map((part) => names.part(part))
                .join(', ')}
            </b>
            {changed.length > 4 && ` and ${changed.length - 4} more`}
          </>
        )}
      </span>
      <Button
        look="text"
        ml="auto"
        title="Make this the last step; the later ones can be brought back"
        onClick={() => void bench.tape.goOnFromHere()}
      >
        Go on from here
      </Button>
      <Button look="text" title="Esc" onClick={() => void bench.tape.standOn(null)}>
        To now
      </Button>
    </Flex>
  );
}
