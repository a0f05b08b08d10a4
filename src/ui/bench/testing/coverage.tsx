'use client';
/** What of the behaviours the scenarios reach: statements, conditions both ways, functions, option keys. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useStore } from 'zustand';
import type { ScriptCoverage, Share } from '@/core/testing/coverage';
import { Button, Mono } from '../../kit';
import type { BenchStore } from '../store';
import { useBench, useNames } from '../use-bench';
import { Progress } from './progress';

const percent = ({ reached, of }: Share) =>
  of === 0 ? '–' : `${Math.floor((reached / of) * 100)} %`;

export function CoverageTab({ bench }: { bench: BenchStore }) {
  const { underway, scripts, keys } = useStore(bench.tests).coverage;
  const files = useBench(bench, (state) => state.behaviours.map(({ name }) => name).join('\n'));
  const names = useNames(bench);
  const fileOf = (script: string) =>
    files.split('\n').find((name) => name.replace(/\.[jt]s$/, '') === script) ?? script;
  return (
    <>
      <Box color="soft" mb="6px">
        What of the behaviours the scenarios reach, with each condition both as met and as not.
      </Box>
      <Button look="go" disabled={underway !== null} onClick={() => void bench.cover()}>
        Measure
      </Button>
      {underway !== null && <Progress bench={bench} underway={underway} what="scenarios" />}
      {scripts !== null && (
        <chakra.table
          mt="10px"
          fontSize="13px"
          css={{
            '& td, & th': { padding: '3px 10px 3px 0', textAlign: 'left', verticalAlign: 'top' },
          }}
        >
          <thead>
            <tr>
              <th scope="col">Behaviour</th>
              <th scope="col">Statements</th>
              <th scope="col">Conditions both ways</th>
              <th scope="col">Handlers and functions</th>
            </tr>
          </thead>
          <tbody>
            {scripts.map(({ name, coverage, shares }) => (
              <tr key={name}>
                <th scope="row">
                  <Mono fontWeight={400}>{name}</Mono>
                </th>
                <td>{percent(shares.statements)}</td>
                <td>{percent(shares.conditions)}</td>
                <td>
                  {percent(shares.functions)}
                  <Missing bench={bench} file={fileOf(name)} coverage={coverage} />
                </td>
              </tr>
            ))}
          </tbody>
        </chakra.table>
      )}
      {keys.length > 0 && (
        <Box mt="10px">
          <Box fontWeight={620}>Options that no script has read</Box>
          {keys.map(({ field, keys: missing }) => (
            <Flex key={field} gap="8px">
              <span>{names.part(field)}</span>
              <Mono color="soft">{missing.join(', ')}</Mono>
            </Flex>
          ))}
        </Box>
      )}
    </>
  );
}

/** The lines that nothing reached, and conditions that came out one way only. */
function Missing({
  bench,
  file,
  coverage,
}: {
  bench: BenchStore;
  file: string;
  coverage: ScriptCoverage;
}) {
  const places = new Map<number, string[]>();
  const add = (line: number, what: string) => places.set(line, [...(places.get(line) ?? []), what]);
  for (const { line, count } of coverage.statements) if (count === 0) add(line, 'not reached');
  for (const { line, text, yes, no } of coverage.conditions)
    if (yes + no > 0 && (yes === 0 || no === 0))
      add(line, `${text} never ${yes === 0 ? 'held' : 'failed to hold'}`);
  if (places.size === 0) return null;
  return (
    <chakra.details>
      <chakra.summary cursor="pointer">
        {places.size === 1 ? '1 line' : `${places.size} lines`}
      </chakra.summary>
      {[...places]
        .toSorted((a, b) => a[0] - b[0])
        .map(([line, what]) => (
          <Box key={line}>
            <Button look="text" onClick={() => bench.goTo(file, line)}>
              line {line}
            </Button>{' '}
            <chakra.span color="soft">{[...new Set(what)].join('; ')}</chakra.span>
          </Box>
        ))}
    </chakra.details>
  );
}
