'use client';
/** What of a scenario was not met. */
import { Box, chakra } from '@chakra-ui/react';
import type { Miss } from '@/core/scenario/run-scenario';
import { Button, Mono } from '../../kit';
import type { Bench } from '../create-bench';
import { Shown } from './value-input';

/** What was not met: expected and actual side by side; leads to its moment and to why. */
export function MissLine({ bench, name, miss }: { bench: Bench; name: string; miss: Miss }) {
  const show = () => bench.tests.show(name, miss.at, miss.after);
  return (
    <Box pl="20px" py="2px" fontSize="13px">
      <Button
        look="text"
        onClick={() => void show()}
        aria-label={`Open at ${whenOf(miss)}: ${miss.says}`}
      >
        {whenOf(miss)}
      </Button>{' '}
      {miss.expected === undefined || miss.actual === undefined ? (
        <chakra.span color="bad">{miss.says}</chakra.span>
      ) : (
        <>
          <Mono>
            {miss.part}
            {miss.aspect === null ? '' : `.${miss.aspect}`}
          </Mono>{' '}
          <chakra.span color="soft">expected</chakra.span> <Shown value={miss.expected} />{' '}
          <chakra.span color="bad">
            is <Shown value={miss.actual} />
          </chakra.span>
        </>
      )}{' '}
      {!miss.part.startsWith('@') && (
        <Button
          look="text"
          aria-label={`Why? ${miss.says}`}
          onClick={() => void show().then(() => bench.tape.ask(miss.part, miss.aspect))}
        >
          why?
        </Button>
      )}
      {miss.why !== undefined && <Box color="soft">{miss.why}</Box>}
    </Box>
  );
}

export const whenOf = ({ after, at }: Miss) =>
  `${at === null ? '' : `case ${at + 1}, `}${after === 0 ? 'opening' : `step ${after}`}`;
