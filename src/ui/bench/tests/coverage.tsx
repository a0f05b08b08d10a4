'use client';
/** What of the behaviours the scenarios reach: statements, conditions both ways, functions, option keys. */
import { counted } from '@/core/counted';
import { useRoom } from '../../use-room';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useStore } from 'zustand';
import { gapsOf, type ScriptCoverage, type Share } from '@/core/testing/coverage';
import { Button, Mono } from '../../kit';
import { useHeldWhilePressed } from '../../press';
import type { Bench } from '../create-bench';
import { useNames } from '../common/use-bench';
import { Progress } from './progress';

const percent = ({ reached, of }: Share) =>
  of === 0 ? '–' : `${Math.floor((reached / of) * 100)} %`;

export function CoverageTab({ bench }: { bench: Bench }) {
  const { underway, scripts, keys, offers } = useHeldWhilePressed(
    useStore(bench.tests.store).coverage,
  );
  const files = useRoom(bench.code, (state) => state.behaviours.map(({ name }) => name).join('\n'));
  const names = useNames(bench);
  const fileOf = (script: string) =>
    files.split('\n').find((name) => name.replace(/\.[jt]s$/, '') === script) ?? script;
  return (
    <>
      <Box color="soft" mb="6px">
        What of the behaviours the scenarios reach, with each condition both as met and as not.
      </Box>
      <Button
        look="go"
        disabled={underway !== null}
        onClick={() => void bench.tests.coverage.run()}
      >
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
      {offers.length > 0 && (
        <Box mt="10px">
          <Box fontWeight={620}>Sessions that get further</Box>
          {offers.map(({ scenario, places }) => (
            <Flex key={scenario.title} gap="8px" align="baseline" wrap="wrap">
              <span>
                {places
                  .slice(0, 4)
                  .map(({ script, line }) => `${script}:${line}`)
                  .join(', ')}
                {places.length > 4 && ` and ${places.length - 4} more`}
              </span>
              <Button
                look="text"
                aria-label={`Keep as a scenario: ${scenario.title}`}
                onClick={() => void bench.tests.keepOffered(scenario)}
              >
                keep as a scenario
              </Button>
            </Flex>
          ))}
        </Box>
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
  bench: Bench;
  file: string;
  coverage: ScriptCoverage;
}) {
  const gaps = gapsOf(coverage);
  if (gaps.length === 0) return null;
  return (
    <chakra.details>
      <chakra.summary cursor="pointer">{counted(gaps.length, 'line')}</chakra.summary>
      {gaps.map(({ line, says }) => (
        <Box key={line}>
          <Button look="text" onClick={() => bench.code.goTo(file, line)}>
            line {line}
          </Button>{' '}
          <chakra.span color="soft">{says}</chakra.span>
        </Box>
      ))}
    </chakra.details>
  );
}
