'use client';
/** Differences in a list, told to people: with what has the same cause, the way there, and what can be done with each. */
import { Box, Flex } from '@chakra-ui/react';
import type { ComponentType } from 'react';
import { keyOf, type Difference } from '@/core/compare/difference';
import { alsoInWords, toldOfDifference } from '@/core/compare/told';
import { Button } from '../../kit';
import { useMaterial, useNames } from '../common/use-bench';
import type { Bench } from '../create-bench';

/** What can be done with a difference. */
export interface ActionsProps {
  bench: Bench;
  difference: Difference;
  /** Its sentence. */
  told: string;
  onOpen?: () => void;
}

const nameOf = (difference: Difference): string =>
  `${keyOf(difference)} ${JSON.stringify(difference.lines)} ${JSON.stringify(difference.way.steps)}`;

export function Differences({
  bench,
  differences,
  label,
  actions: Actions,
  onOpen,
}: {
  bench: Bench;
  differences: readonly Difference[];
  label: string;
  /** What stands below a difference. */
  actions: ComponentType<ActionsProps>;
  /** Both versions are opened. */
  onOpen?: () => void;
}) {
  const { form, tables } = useMaterial(bench);
  const names = useNames(bench);
  return (
    <Box as="ul" listStyleType="none" aria-label={label}>
      {differences.map((difference) => {
        const told = toldOfDifference(difference, { form, tables }, names);
        const also = alsoInWords(difference, names);
        return (
          <Box as="li" key={nameOf(difference)} py="6px" borderTopWidth="1px" borderColor="line">
            <Box>
              {told}
              {also.length > 0 && (
                <Box as="span" color="soft">
                  {' '}
                  With it: {also.join(', ')}.
                </Box>
              )}
            </Box>
            <Flex gap="14px" mt="3px" wrap="wrap" fontSize="13px">
              <Actions
                bench={bench}
                difference={difference}
                told={told}
                {...(onOpen === undefined ? {} : { onOpen })}
              />
            </Flex>
          </Box>
        );
      })}
    </Box>
  );
}

/** Opens both versions where they differ. */
export function SideBySide({ bench, difference, told, onOpen }: ActionsProps) {
  return (
    <Button
      look="text"
      aria-label={`Both side by side: ${told}`}
      onClick={() => {
        onOpen?.();
        void bench.changes.openBoth(difference);
      }}
    >
      both side by side
    </Button>
  );
}
