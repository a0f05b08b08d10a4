'use client';
/** What becomes of the form for each combination of what varies; what changed after an edit stands out. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { equal, type Value } from '@/core/form/value';
import type { Strength } from '@/core/scenario/covering';
import type { Axis, Scenario } from '@/core/scenario/definition';
import { outcomeChanges, unfolded, type CellChange } from '@/core/scenario/grid';
import {
  columnName,
  gridAsCsv,
  gridAsPage,
  gridTable,
  gridWords,
  type GridColumn,
  type GridRow,
  type GridWords,
} from '@/core/scenario/grid-table';
import { drivingFields } from '@/core/testing/both-ways';
import { download } from '../../download';
import { Button, Line, Notice, Select } from '../../kit';
import type { BenchStore } from '../store';
import { useBench, useNames } from '../use-bench';
import { Progress } from './progress';
import type { GridOutcome } from './state';

export function GridTab({ bench }: { bench: BenchStore }) {
  const { form, services, launch, scenarios, records } = useBench(bench, (state) => ({
    form: state.material.form,
    services: state.material.services,
    launch: state.material.form.launch,
    scenarios: state.scenarios,
    records: state.material.records.length,
  }));
  const { axes, startsAs, strength, underway, outcome, before } = useStore(bench.tests).grid;
  const names = useNames(bench);
  const words = useMemo(
    () => gridWords(form, names.part, bench.store.getState().material),
    [bench, form, names],
  );
  const [title, setTitle] = useState('');
  const offered = [
    ...drivingFields(form).map(({ name, label }) => ({ key: name, label })),
    { key: '@as', label: 'who opens it' },
    ...(records > 0 ? [{ key: '@record', label: 'new or which record' }] : []),
    ...(launch ?? []).map(({ name }) => ({
      key: `@launch.${name}`,
      label: `handed over: ${name}`,
    })),
    ...services.map(({ name }) => ({ key: `@fails.${name}`, label: `${name} fails` })),
  ].filter(({ key }) => !axes.some(({ input }) => input === key));
  const all = axes.reduce((count, { values }) => count * values.length, 1);
  const setAxes = (next: Axis[]) => bench.setGrid({ axes: next });
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
          every={bench.usualValues(axis.input)}
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
            if (input !== '') setAxes([...axes, { input, values: bench.usualValues(input) }]);
          }}
        />
        <Select
          aria-label="Each combination starts as"
          maxW="230px"
          value={startsAs ?? ''}
          options={[
            { key: '', label: 'from a form just opened' },
            ...scenarios.map(({ name, scenario }) => ({
              key: name,
              label: `after “${scenario.title}”`,
            })),
          ]}
          onChange={(event) => bench.setGrid({ startsAs: event.target.value || null })}
        />
        <Select
          aria-label="Which combinations"
          value={strength === null ? '' : String(strength)}
          options={[
            { key: '', label: all > 2000 ? 'any two values meet' : `all ${all} combinations` },
            { key: '2', label: 'any two values meet' },
            { key: '3', label: 'any three values meet' },
          ]}
          onChange={(event) =>
            bench.setGrid({
              strength: event.target.value === '' ? null : (Number(event.target.value) as Strength),
            })
          }
        />
        <Button
          look="go"
          disabled={axes.length === 0 || underway !== null}
          onClick={() => void bench.runGrid()}
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
              if (title.trim() !== '')
                void bench.acceptGrid(title.trim()).then((kept) => {
                  if (kept) setTitle('');
                });
            }}
          >
            <span role="status">{saidOf(outcome)}</span>
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
                    saidOf(outcome),
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
              onChange={(event) => setTitle(event.target.value)}
            />
            <Button type="submit" disabled={title.trim() === ''}>
              Accept as it is now
            </Button>
          </Flex>
          {before !== null && <Changed outcome={outcome} before={before} words={words} />}
          <GridOf
            bench={bench}
            outcome={outcome}
            before={before}
            words={words}
            onOpen={(row) => bench.showCombination(outcome, row)}
          />
        </>
      )}
    </>
  );
}

function saidOf({ all, accepted, strength }: GridOutcome): string {
  const tried = accepted.rows.length;
  return strength === null
    ? `All ${all} combinations.`
    : `${tried} of ${all} combinations: any ${strength === 2 ? 'two' : 'three'} values of different inputs meet, ${all - tried} combinations are left out.`;
}

function AxisLine({
  axis,
  words,
  every,
  onChange,
  onRemove,
}: {
  axis: Axis;
  words: GridWords;
  every: readonly Value[];
  onChange: (values: Value[]) => void;
  onRemove: () => void;
}) {
  return (
    <Flex gap="8px" py="3px" align="baseline" wrap="wrap" borderTopWidth="1px" borderColor="line">
      <chakra.span fontWeight={560}>{words.part(axis.input)}</chakra.span>
      {every.slice(0, 30).map((value) => {
        const on = axis.values.some((one) => equal(one, value));
        return (
          <chakra.label
            key={JSON.stringify(value)}
            display="inline-flex"
            gap="4px"
            alignItems="center"
          >
            <input
              type="checkbox"
              checked={on}
              // One is left, else there is nothing to combine.
              disabled={on && axis.values.length === 1}
              onChange={() =>
                onChange(
                  every.filter(
                    (one) => equal(one, value) !== axis.values.some((kept) => equal(kept, one)),
                  ),
                )
              }
            />
            {words.value(axis.input, value) === '–' ? 'empty' : words.value(axis.input, value)}
          </chakra.label>
        );
      })}
      <Button
        look="text"
        color="soft"
        aria-label={`Do not vary ${words.part(axis.input)}`}
        onClick={onRemove}
      >
        ×
      </Button>
    </Flex>
  );
}

/** Cells that are not as they were. */
function changesOf({ accepted }: Pick<GridOutcome, 'accepted'>, before: GridOutcome): CellChange[] {
  return accepted.rows.flatMap(([, at], row) => {
    const was = before.accepted.rows[row];
    return was === undefined
      ? []
      : outcomeChanges(unfolded(before.accepted, was[1]), unfolded(accepted, at));
  });
}

/** How many cells an edit has changed, with before and after. */
function Changed({
  outcome,
  before,
  words,
}: {
  outcome: GridOutcome;
  before: GridOutcome;
  words: GridWords;
}) {
  const changes = changesOf(outcome, before);
  if (changes.length === 0)
    return (
      <Notice tone="info" mb="6px">
        The edit changed nothing in the grid.
      </Notice>
    );
  const distinct = [...new Map(changes.map((change) => [JSON.stringify(change), change])).values()];
  return (
    <Notice tone="warning" mb="6px">
      The edit changed {changes.length === 1 ? '1 cell' : `${changes.length} cells`}:{' '}
      {distinct
        .slice(0, 4)
        .map(
          ({ part, aspect, before: was, now }) =>
            `${words.part(part)} ${aspect} ${words.value(part, was)} → ${words.value(part, now)}`,
        )
        .join('; ')}
      {distinct.length > 4 && ` and ${distinct.length - 4} more`}
    </Notice>
  );
}

/** Rows drawn at once. */
const DRAWN = 150;

function GridOf({
  bench,
  outcome,
  before,
  words,
  onOpen,
}: {
  bench: BenchStore;
  outcome: Pick<GridOutcome, 'axes' | 'accepted'>;
  before: GridOutcome | null;
  words: GridWords;
  onOpen: (row: number) => Promise<void>;
}) {
  const { axes, accepted } = outcome;
  // What an edit changed is shown, though it may be the same everywhere now.
  const table = useMemo(
    () => gridTable(axes, accepted, before === null ? [] : changesOf(outcome, before)),
    [axes, accepted, outcome, before],
  );
  const [most, setMost] = useState(DRAWN);
  if (table.columns.length === 0) return <Box>Every combination comes to the same.</Box>;
  const wasIn = (row: GridRow, { part, aspect }: GridColumn): Value | undefined => {
    for (const at of row.rows) {
      const was = before?.accepted.rows[at];
      if (was === undefined) continue;
      const value = unfolded(before!.accepted, was[1])[part]?.[aspect] ?? null;
      if (!equal(value, row.outcome[part]?.[aspect] ?? null)) return value;
    }
    return undefined;
  };
  const [first] = table.rows;
  return (
    <>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Outcomes">
        <chakra.table
          fontSize="12.5px"
          css={{
            borderCollapse: 'collapse',
            '& td, & th': {
              border: '1px solid',
              borderColor: 'line',
              padding: '3px 7px',
              textAlign: 'left',
              verticalAlign: 'top',
            },
          }}
        >
          <thead>
            <tr>
              {axes.map(({ input }) => (
                <chakra.th key={input} scope="col" bg="ground">
                  {words.part(input)}
                </chakra.th>
              ))}
              {table.columns.map((column) => (
                <chakra.th key={columnName(column)} scope="col" bg="ground" fontWeight={560}>
                  {[column, ...(table.sameAs.get(columnName(column)) ?? [])]
                    .map(({ part }) => words.part(part))
                    .join(', ')}
                  <chakra.span display="block" color="soft" fontWeight={400}>
                    {column.aspect}
                  </chakra.span>
                </chakra.th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.rows.slice(0, most).map((row, at) => (
              <tr key={at}>
                {row.values.map((some, axis) => (
                  <chakra.th key={axis} scope="row" fontWeight={400}>
                    {some.length === axes[axis]!.values.length && some.length > 1
                      ? 'any'
                      : some.map((value) => words.value(axes[axis]!.input, value)).join(' or ')}
                  </chakra.th>
                ))}
                {table.columns.map((column) => {
                  const value = row.outcome[column.part]?.[column.aspect] ?? null;
                  const was = wasIn(row, column);
                  const base = first!.outcome[column.part]?.[column.aspect] ?? null;
                  const text = words.value(column.part, value);
                  return (
                    <chakra.td
                      key={columnName(column)}
                      bg={
                        was !== undefined
                          ? 'saidGround'
                          : equal(value, base)
                            ? undefined
                            : 'actGround'
                      }
                    >
                      <chakra.button
                        type="button"
                        cursor="pointer"
                        textAlign="left"
                        aria-label={`${words.part(column.part)} ${column.aspect} ${text}: open it and ask why`}
                        onClick={() =>
                          void onOpen(row.rows[0]!).then(
                            () => column.part !== '@form' && bench.ask(column.part, column.aspect),
                          )
                        }
                      >
                        {was !== undefined && (
                          <chakra.span color="soft" textDecoration="line-through">
                            {words.value(column.part, was)}{' '}
                          </chakra.span>
                        )}
                        {text}
                      </chakra.button>
                    </chakra.td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </chakra.table>
      </Box>
      {table.rows.length > most && (
        <Button mt="6px" onClick={() => setMost(most + DRAWN)}>
          Show more of {table.rows.length} outcomes
        </Button>
      )}
    </>
  );
}

/** The grid that a scenario keeps, as it was accepted. */
export function GridKept({
  bench,
  name,
  scenario,
}: {
  bench: BenchStore;
  name: string;
  scenario: Scenario;
}) {
  const form = useBench(bench, (state) => state.material.form);
  const names = useNames(bench);
  const words = useMemo(
    () => gridWords(form, names.part, bench.store.getState().material),
    [bench, form, names],
  );
  const grid = scenario.grid!;
  return (
    <Box mt="14px">
      <Box fontWeight={620}>Grid, as it was accepted</Box>
      <GridOf
        bench={bench}
        outcome={grid}
        before={null}
        words={words}
        onOpen={(row) => bench.showScenario(name, row)}
      />
    </Box>
  );
}
