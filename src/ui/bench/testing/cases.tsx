'use client';
/** A scenario over a table: inputs and what is expected of each row, edited in place; CSV in and out. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import type { Form } from '@/core/form/definition';
import type { Value } from '@/core/form/value';
import { readColumn } from '@/core/scenario/cases';
import { casesAsCsv, casesFromCsv } from '@/core/scenario/cases-csv';
import type { Cases, Scenario } from '@/core/scenario/definition';
import { namedParts, unknownNames } from '@/core/scenario/naming';
import type { ScenarioResult } from '@/core/scenario/run';
import { download } from '../../download';
import { Button, Notice, Select } from '../../kit';
import type { BenchStore } from '../store';
import { MissLine } from './misses';
import { offeredFor, ValueInput, YesNoOffered } from './value-input';

const INPUTS = [
  { key: '@as', label: 'who opens it' },
  { key: '@record', label: 'which record' },
];
const EXPECTED = ['shown', 'locked', 'required', 'problem', 'hint', 'options'];

export function CasesTable({
  bench,
  form,
  name,
  scenario,
  result,
  onChange,
}: {
  bench: BenchStore;
  form: Form;
  name: string;
  scenario: Scenario;
  result: ScenarioResult | undefined;
  onChange: (scenario: Scenario, says: string) => void;
}) {
  const [says, setSays] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const { cases } = scenario;
  const { tables } = bench.store.getState().material;
  const set = (next: Cases, what: string) => onChange({ ...scenario, cases: next }, what);
  const take = async (chosen: File | undefined) => {
    if (chosen === undefined) return;
    const read = casesFromCsv(await chosen.text(), cases);
    if ('says' in read) return setSays(read.says);
    const [unknown] = unknownNames({ ...scenario, cases: read }, form);
    if (unknown !== undefined)
      return setSays(`${unknown.says[0]!.toUpperCase()}${unknown.says.slice(1)}.`);
    setSays(null);
    set(read, `${read.rows.length} cases were read`);
  };
  const csvIn = (
    <>
      <Button onClick={() => file.current?.click()}>Read from CSV</Button>
      <input
        ref={file}
        type="file"
        accept=".csv,text/csv"
        aria-label="CSV file with cases"
        hidden
        onChange={(event) => {
          void take(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
    </>
  );
  const fields = namedParts(form, 'values');
  if (cases === undefined)
    return (
      <Flex gap="8px" mt="12px" align="center" wrap="wrap">
        <Select
          aria-label="Make a table of cases"
          value=""
          options={[{ key: '', label: '+ a table of cases over …' }, ...fields, ...INPUTS]}
          onChange={(event) => {
            const input = event.target.value;
            if (input !== '')
              set(
                { inputs: [input], expected: [], rows: [{ inputs: [null], expected: [] }] },
                'A table was made',
              );
          }}
        />
        {csvIn}
        {says !== null && <Notice tone="error">{says}</Notice>}
      </Flex>
    );
  const withColumn = (kind: 'inputs' | 'expected', column: string) =>
    set(
      {
        ...cases,
        [kind]: [...cases[kind], column],
        rows: cases.rows.map((row) => ({ ...row, [kind]: [...row[kind], null] })),
      },
      'A column was added',
    );
  const withoutColumn = (kind: 'inputs' | 'expected', at: number) =>
    set(
      {
        ...cases,
        [kind]: cases[kind].filter((_, i) => i !== at),
        rows: cases.rows.map((row) => ({ ...row, [kind]: row[kind].filter((_, i) => i !== at) })),
      },
      'A column was removed',
    );
  const setCell = (row: number, kind: 'inputs' | 'expected', at: number, value: Value) =>
    set(
      {
        ...cases,
        rows: cases.rows.map((one, i) =>
          i === row ? { ...one, [kind]: one[kind].with(at, value) } : one,
        ),
      },
      'A case was changed',
    );
  const head = (kind: 'inputs' | 'expected', column: string, at: number) => (
    <chakra.th
      key={`${kind} ${column}`}
      scope="col"
      textAlign="left"
      px="4px"
      fontWeight={560}
      whiteSpace="nowrap"
      color={kind === 'expected' ? 'act' : undefined}
    >
      {kind === 'expected' ? '→ ' : ''}
      {column}
      {(kind === 'expected' || cases.inputs.length > 1) && (
        <Button
          look="text"
          color="soft"
          aria-label={`Remove the column ${column}`}
          onClick={() => withoutColumn(kind, at)}
        >
          ×
        </Button>
      )}
    </chakra.th>
  );
  return (
    <Box mt="14px">
      <Box fontWeight={620}>Cases</Box>
      <Box color="soft" fontSize="12.5px">
        The scenario runs once for each row: after its steps the inputs are set, then what stands
        behind → is expected.
      </Box>
      {says !== null && (
        <Notice tone="error" mt="4px">
          {says}
        </Notice>
      )}
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Cases">
        <chakra.table fontSize="13px" css={{ '& td': { padding: '2px 4px' } }}>
          <thead>
            <tr>
              <th aria-label="Result" />
              {cases.inputs.map((column, at) => head('inputs', column, at))}
              {cases.expected.map((column, at) => head('expected', column, at))}
              <th aria-label="Remove" />
            </tr>
          </thead>
          <tbody>
            {cases.rows.map((row, i) => {
              const came = result?.cases?.[i];
              const misses = result?.misses.filter(({ at }) => at === i) ?? [];
              return (
                <tr key={i}>
                  <td>
                    <Button
                      look="text"
                      color={came?.passed === false ? 'bad' : 'act'}
                      aria-label={`Case ${i + 1} ${came === undefined ? 'not run yet' : came.passed ? 'passed' : 'failed'}: open it`}
                      title={misses.map((miss) => miss.says).join('\n')}
                      onClick={() => void bench.showScenario(name, i)}
                    >
                      {came === undefined ? '…' : came.passed ? '✓' : '×'}
                    </Button>
                  </td>
                  {row.inputs.map((value, at) => (
                    <td key={`in ${at}`}>
                      <ValueInput
                        value={value}
                        offered={offeredFor(form, tables, cases.inputs[at]!)}
                        label={`${cases.inputs[at]} of case ${i + 1}`}
                        onChange={(next) => setCell(i, 'inputs', at, next)}
                      />
                    </td>
                  ))}
                  {row.expected.map((value, at) => {
                    const { part, aspect } = readColumn(cases.expected[at]!, form);
                    return (
                      <td key={`out ${at}`}>
                        <ValueInput
                          value={value}
                          offered={
                            aspect === 'value'
                              ? offeredFor(form, tables, part)
                              : ['shown', 'locked', 'required'].includes(aspect)
                                ? YesNoOffered
                                : null
                          }
                          label={`${cases.expected[at]} expected of case ${i + 1}`}
                          onChange={(next) => setCell(i, 'expected', at, next)}
                        />
                      </td>
                    );
                  })}
                  <td>
                    <Button
                      look="text"
                      color="soft"
                      aria-label={`Remove case ${i + 1}`}
                      onClick={() =>
                        set(
                          { ...cases, rows: cases.rows.filter((_, at) => at !== i) },
                          'A case was removed',
                        )
                      }
                    >
                      ×
                    </Button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </chakra.table>
      </Box>
      {result?.misses
        .filter(({ at }) => at !== null && scenario.grid === undefined)
        .slice(0, 5)
        .map((miss, i) => (
          <MissLine key={i} bench={bench} name={name} miss={miss} />
        ))}
      <Flex gap="8px" mt="6px" wrap="wrap">
        <Button
          onClick={() =>
            set(
              {
                ...cases,
                rows: [
                  ...cases.rows,
                  {
                    inputs: cases.inputs.map(() => null),
                    expected: cases.expected.map(() => null),
                  },
                ],
              },
              'A case was added',
            )
          }
        >
          + case
        </Button>
        <Select
          aria-label="Add an input"
          value=""
          options={[
            { key: '', label: '+ input' },
            ...[...fields, ...INPUTS].filter(({ key }) => !cases.inputs.includes(key)),
          ]}
          onChange={(event) =>
            event.target.value !== '' && withColumn('inputs', event.target.value)
          }
        />
        <Select
          aria-label="Add what is expected"
          value=""
          options={[
            { key: '', label: '+ expected' },
            ...namedParts(form, 'all').flatMap(({ key, label }) => [
              ...(fields.some((field) => field.key === key)
                ? [{ key, label: `${label}: value` }]
                : []),
              ...EXPECTED.map((aspect) => ({
                key: `${key}.${aspect}`,
                label: `${label}: ${aspect}`,
              })),
            ]),
            { key: '@submit.saved', label: 'Submitting: saved' },
          ].filter(({ key }) => !cases.expected.includes(key))}
          onChange={(event) =>
            event.target.value !== '' && withColumn('expected', event.target.value)
          }
        />
        <Button onClick={() => download(`${name}-cases.csv`, 'text/csv', casesAsCsv(cases))}>
          Write as CSV
        </Button>
        {csvIn}
        <Button
          look="text"
          color="soft"
          onClick={() => {
            const { cases: _, ...rest } = scenario;
            onChange(rest, 'The table was removed');
          }}
        >
          remove the table
        </Button>
      </Flex>
    </Box>
  );
}
