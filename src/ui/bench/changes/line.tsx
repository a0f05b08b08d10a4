'use client';
/** How many differences there are for people, at the foot of the outline. */
import { Box } from '@chakra-ui/react';
import { counted } from '@/core/counted';
import { useRoom } from '../../use-room';
import { Button } from '../../kit';
import type { Bench } from '../create-bench';
import { useAccepted } from './use-accepted';

export function ChangesLine({ bench }: { bench: Bench }) {
  const { differences, since, compared } = useRoom(bench.changes, (state) => ({
    differences: state.differences,
    since: state.since,
    compared: state.compared,
  }));
  const accepted = useAccepted(bench);
  const open = differences.filter((one) => accepted(one) === null).length;
  if (since === null || (open === 0 && (compared === null || compared.sessions === 0))) return null;
  return (
    <Box flexShrink={0} px="14px" pb="5px">
      <Button
        look="text"
        color={open > 0 ? 'said' : 'soft'}
        fontSize="12.5px"
        height="auto"
        whiteSpace="normal"
        textAlign="left"
        onClick={() => bench.tests.open('changes')}
      >
        For people: {open === 0 ? 'nothing changed' : counted(open, 'change')}
        {since.is === 'release' && ` since release ${since.number}`}
      </Button>
    </Box>
  );
}
