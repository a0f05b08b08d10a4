'use client';
/** What becomes of the form for each combination of what varies; what changed after an edit stands out. */
import { useRoom } from '../../use-room';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useMemo } from 'react';
import { useStore } from 'zustand';
import type { Strength } from '@/core/scenario/covering';
import type { Axis } from '@/core/scenario/definition';
import { gridAsCsv, gridAsPage, gridWords, triedInWords } from '@/core/scenario/grid-table';
import { COMBINATIONS_PER_GRID } from '@/core/limits';
import { namedInputs } from '@/core/scenario/naming';
import { download } from '../../download';
import { Button, Line, Select } from '../../kit';
import { useHeldWhilePressed } from '../../press';
import { servicesAsked } from '../form/services-asked';
import type { Bench } from '../create-bench';
import { useNames, useMaterial } from '../common/use-bench';
import { AxisLine } from './axis-line';
import { Changed, Outcomes } from './outcomes';
import { Progress } from './progress';
import { entryOf } from './value-input';

export function GridTab({ bench }: { bench: Bench }) {
  const { form } = useMaterial(bench);
  const scenarios = useRoom(bench.tests, (state) => state.scenarios);
  const { axes, start, title, strength, ...last } = useStore(bench.tests.store).grid;
  // What a click goes on from is as it is now.
  const underway = useHeldWhilePressed(last.underway);
  const outcome = useHeldWhilePressed(last.outcome);
  const before = useHeldWhilePressed(last.before);
  const names = useNames(bench);
  const words = useMemo(
    () => gridWords(form, names.part, bench.core.store.getState().material),
    [bench, form, names],
  );
  const offered = namedInputs(form, servicesAsked(bench)).filter(
    ({ key }) => !axes.some(({ input }) => input === key),
  );
  const all = axes.reduce((count, { values }) => count * values.length, 1);
  const setAxes = (next: Axis[]) => bench.tests.grid.plan({ axes: next });
  const taken = scenarios.some(({ scenario }) => scenario.title === title.trim());
  return (
    <>
      <Box color="soft" mb="6px">
        Choose what varies. Each combination is tried with the real scripts.
      </Box>
      {axes.map((axis, at) => (
        <AxisLine
          key={axis.input}
          axis={axis}
          words={words}
          every={bench.tests.grid.everyValue(axis.input)}
          suggested={bench.tests.grid.suggestedValues(axis.input)}
          entry={entryOf(form, bench.core.store.getState().material, axis.input)}
          onChange={(values) => setAxes(axes.with(at, { ...axis, values }))}
          onRemove={() => setAxes(axes.filter((_, i) => i !== at))}
        />
      ))}
      <Flex gap="8px" my="6px" align="center" wrap="wrap">
        <Select
          aria-label="Add what varies"
          value=""
          options={[{ key: '', label: '+ what varies' }, ...offered]}
          onChange={(event) => {
            const input = event.target.value;
            if (input !== '')
              setAxes([...axes, { input, values: bench.tests.grid.everyValue(input) ?? [null] }]);
          }}
        />
        <Select
          aria-label="Each combination starts as"
          maxW="230px"
          value={start === null ? '' : (start.startsAs ?? '@own')}
          options={[
            { key: '', label: 'from a form just opened' },
            ...(start !== null && start.startsAs === undefined
              ? [{ key: '@own', label: 'as the grid was kept' }]
              : []),
            ...scenarios
              .filter(({ scenario }) => scenario.grid === undefined)
              .map(({ name, scenario }) => ({ key: name, label: `after “${scenario.title}”` })),
          ]}
          onChange={(event) => {
            const startsAs = event.target.value;
            if (startsAs !== '@own')
              bench.tests.grid.plan({ start: startsAs === '' ? null : { startsAs, steps: [] } });
          }}
        />
        <Select
          aria-label="Which combinations"
          value={strength === null ? '' : String(strength)}
          options={[
            { key: '', label: unthinned(all) },
            { key: '2', label: 'any two values meet' },
            { key: '3', label: 'any three values meet' },
          ]}
          onChange={(event) =>
            bench.tests.grid.plan({
              strength: event.target.value === '' ? null : (Number(event.target.value) as Strength),
            })
          }
        />
        <Button
          look="go"
          disabled={axes.length === 0 || underway !== null}
          onClick={() => void bench.tests.grid.run()}
        >
          Try them
        </Button>
      </Flex>
      {underway !== null && <Progress bench={bench} underway={underway} what="combinations" />}
      {outcome !== null && (
        <>
          <Flex
            gap="8px"
            my="6px"
            wrap="wrap"
            align="center"
            as="form"
            onSubmit={(event) => {
              event.preventDefault();
              if (title.trim() !== '') void bench.tests.grid.accept(title.trim());
            }}
          >
            <span role="status">{triedInWords(outcome)}</span>
            <Button
              onClick={() =>
                download('grid.csv', 'text/csv', gridAsCsv(outcome.axes, outcome.accepted))
              }
            >
              CSV
            </Button>
            <Button
              onClick={() =>
                download(
                  'grid.html',
                  'text/html',
                  gridAsPage(title.trim() || form.title, outcome.axes, outcome.accepted, words, [
                    triedInWords(outcome),
                  ]),
                )
              }
            >
              Page to sign
            </Button>
            <Line
              aria-label="Title of the grid as a test"
              placeholder="Keep it as a test called …"
              value={title}
              onChange={(event) => bench.tests.grid.plan({ title: event.target.value })}
            />
            <Button type="submit" disabled={title.trim() === ''}>
              {taken ? 'Replace it as it is now' : 'Accept as it is now'}
            </Button>
            {taken && (
              <chakra.span color="soft">
                A scenario has this title; it would be replaced.
              </chakra.span>
            )}
          </Flex>
          {before !== null && <Changed outcome={outcome} before={before} words={words} />}
          <Outcomes
            bench={bench}
            outcome={outcome}
            before={before}
            words={words}
            onOpen={(row) => bench.tests.grid.showCombination(outcome, row)}
          />
        </>
      )}
    </>
  );
}

function unthinned(all: number): string {
  if (all > COMBINATIONS_PER_GRID) return `${all} combinations, thinned`;
  return all === 1 ? 'the one combination' : `all ${all} combinations`;
}
