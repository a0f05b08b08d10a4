'use client';
/** What fails, at the foot of the outline. */
import { Box } from '@chakra-ui/react';
import { Button } from '../kit';
import type { BenchStore } from './store';
import { useBench } from './use-bench';

/** Lines that fit below the behaviours. */
const LISTED = 3;

export function FailingScenarios({ bench }: { bench: BenchStore }) {
  const { scenarios, results } = useBench(bench, (state) => ({
    scenarios: state.scenarios,
    results: state.results,
  }));
  const failed = scenarios.filter(({ name }) => results.get(name)?.passed === false);
  if (failed.length === 0) return null;
  return (
    <Box
      as="section"
      aria-label="Scenarios that fail"
      flexShrink={0}
      px="14px"
      py="5px"
      borderTopWidth="1px"
      borderColor="line"
    >
      {failed.slice(0, LISTED).map(({ name, scenario }) => (
        <Box key={name} overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
          <Button
            look="text"
            color="bad"
            fontSize="12.5px"
            title={results.get(name)!.misses[0]?.says}
            onClick={() => {
              bench.showTests('scenarios', name);
              void bench.openScenario(name);
            }}
          >
            × {scenario.title}
          </Button>
        </Box>
      ))}
      {failed.length > LISTED && <Box color="soft">and {failed.length - LISTED} more</Box>}
    </Box>
  );
}
