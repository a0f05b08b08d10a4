'use client';
/** How the scenarios came out, at the foot of the outline; those that fail by their titles. */
import { useRoom } from '../../use-room';
import { Box } from '@chakra-ui/react';
import { Button } from '../../kit';
import type { Bench } from '../create-bench';
import { useResults } from '../common/use-bench';

/** Lines that fit below the behaviours. */
const LISTED = 3;

export function ScenarioResults({ bench }: { bench: Bench }) {
  const results = useResults(bench);
  const scenarios = useRoom(bench.tests, (state) => state.scenarios);
  const failed = scenarios.filter(({ name }) => results.get(name)?.passed === false);
  if (scenarios.length === 0) return null;
  const run = scenarios.filter(({ name }) => results.has(name)).length;
  return (
    <Box
      as="section"
      aria-label="Results of the scenarios"
      flexShrink={0}
      px="14px"
      py="5px"
      borderTopWidth="1px"
      borderColor="line"
    >
      <Button
        look="text"
        color={failed.length > 0 ? 'bad' : 'soft'}
        fontSize="12.5px"
        height="auto"
        whiteSpace="normal"
        textAlign="left"
        onClick={() => bench.tests.open('scenarios')}
      >
        Scenarios: {inWords(scenarios.length, run, failed.length)}
      </Button>
      {failed.slice(0, LISTED).map(({ name, scenario }) => (
        <Button
          key={name}
          look="text"
          color="bad"
          fontSize="12.5px"
          display="block"
          maxW="100%"
          overflow="hidden"
          textOverflow="ellipsis"
          textAlign="left"
          title={[scenario.title, results.get(name)!.misses[0]?.says].join('\n')}
          onClick={() => {
            bench.tests.open('scenarios', name);
            void bench.tests.showMiss(name);
          }}
        >
          × {scenario.title}
        </Button>
      ))}
      {failed.length > LISTED && <Box color="soft">and {failed.length - LISTED} more</Box>}
    </Box>
  );
}

function inWords(all: number, run: number, failed: number): string {
  if (failed > 0) return `${failed} failed, ${run - failed} passed`;
  return run < all ? `${run} of ${all} run` : all === 1 ? 'one, passed' : `all ${all} passed`;
}
