'use client';
/** The outcomes of a grid as a table: what differs from the first row stands out, and what changed since before. */
import { counted } from '@/core/counted';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { equal, type Value } from '@/core/form/value';
import type { Scenario } from '@/core/scenario/definition';
import { outcomeChanges, outcomeFinder, unfolded, type CellChange } from '@/core/scenario/grid';
import {
  columnName,
  gridTable,
  gridWords,
  type GridColumn,
  type GridRow,
  type GridWords,
} from '@/core/scenario/grid-table';
import { BareButton, Button, Notice, Region } from '../../kit';
import type { Bench } from '../create-bench';
import { useNames, useMaterial } from '../common/use-bench';
import type { GridOutcome } from './state';

/** Cells that are not as they were. */
function changesOf({ accepted }: Pick<GridOutcome, 'accepted'>, before: GridOutcome): CellChange[] {
  const wasAt = outcomeFinder(before.accepted);
  return accepted.rows.flatMap(([places, at]) => {
    const was = wasAt(places);
    return was === null ? [] : outcomeChanges(was, unfolded(accepted, at));
  });
}

/** How many cells an edit has changed, with before and after. */
export function Changed({
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
        Nothing in the grid has changed.
      </Notice>
    );
  const distinct = [...new Map(changes.map((change) => [JSON.stringify(change), change])).values()];
  return (
    <Notice tone="warning" mb="6px">
      {counted(changes.length, 'cell has', 'cells have')} changed:{' '}
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

export function Outcomes({
  bench,
  outcome,
  before,
  words,
  onOpen,
}: {
  bench: Bench;
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
  const wasAt = before === null ? null : outcomeFinder(before.accepted);
  const wasIn = (row: GridRow, { part, aspect }: GridColumn): Value | undefined => {
    for (const at of row.rows) {
      const was = wasAt?.(accepted.rows[at]![0]);
      if (was == null) continue;
      const value = was[part]?.[aspect] ?? null;
      if (!equal(value, row.outcome[part]?.[aspect] ?? null)) return value;
    }
    return undefined;
  };
  const [first] = table.rows;
  return (
    <>
      <Region aria-label="Outcomes">
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
                      <BareButton
                        textAlign="left"
                        aria-label={`${words.part(column.part)} ${column.aspect} ${text}: open it and ask why`}
                        onClick={() =>
                          void onOpen(row.rows[0]!).then(
                            () =>
                              column.part !== '@form' && bench.tape.ask(column.part, column.aspect),
                          )
                        }
                      >
                        {was !== undefined && (
                          <chakra.span color="soft" textDecoration="line-through">
                            {words.value(column.part, was)}{' '}
                          </chakra.span>
                        )}
                        {text}
                      </BareButton>
                    </chakra.td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </chakra.table>
      </Region>
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
  bench: Bench;
  name: string;
  scenario: Scenario;
}) {
  const form = useMaterial(bench).form;
  const names = useNames(bench);
  const words = useMemo(
    () => gridWords(form, names.part, bench.core.store.getState().material),
    [bench, form, names],
  );
  const grid = scenario.grid!;
  return (
    <Box mt="14px">
      <Flex gap="8px" align="center" mb="4px">
        <Box fontWeight={620}>Grid, as it was accepted</Box>
        <Button onClick={() => void bench.tests.grid.open(scenario)}>Compare with now</Button>
      </Flex>
      <Outcomes
        bench={bench}
        outcome={grid}
        before={null}
        words={words}
        onOpen={(row) => bench.tests.show(name, row)}
      />
    </Box>
  );
}
