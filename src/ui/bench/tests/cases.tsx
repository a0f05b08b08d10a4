'use client';
/** A scenario over a table: inputs and what is expected of each row, edited in place; CSV in and out. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import type { Form } from '@/core/form/definition';
import { readColumn } from '@/core/scenario/cases';
import { casesAsCsv, casesFromCsv } from '@/core/scenario/cases-csv';
import type { Cases, Scenario } from '@/core/scenario/definition';
import { namedInputs, namedParts, unknownNames } from '@/core/scenario/naming';
import type { ScenarioResult } from '@/core/scenario/run-scenario';
import { download } from '../../download';
import { Button, Notice, Region, Select } from '../../kit';
import { servicesAsked } from '../form/services-asked';
import {
  casesOver,
  withCase,
  withCell,
  withColumn,
  withoutCase,
  withoutColumn,
  withTitle,
} from '@/core/scenario/editing-cases';
import type { Bench } from '../create-bench';
import { useNames } from '../common/use-bench';
import { MissLine } from './misses';
import { entryOf, ValueInput, type ValueEntry } from './value-input';

/** Aspects that a column can expect, besides values. */
const EXPECTED = ['shown', 'locked', 'required', 'problem', 'hint', 'warning', 'options'];
const TITLE: ValueEntry = { spelling: 'text', offered: null, empty: true };
const OF_THE_FORM = [
  { key: '@submit.saved', label: 'Submitting: saved' },
  { key: '@submit.stoppedBy', label: 'Submitting: stopped by' },
  { key: '@page', label: 'Page' },
  { key: '@notice', label: 'Message above the form' },
  { key: '@replaced', label: 'Message in place of the form' },
  { key: '@messages', label: 'Messages' },
];

export function CasesTable({
  bench,
  form,
  name,
  scenario,
  result,
  onChange,
}: {
  bench: Bench;
  form: Form;
  name: string;
  scenario: Scenario;
  result: ScenarioResult | undefined;
  onChange: (scenario: Scenario, says: string) => void;
}) {
  const [says, setSays] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const { cases } = scenario;
  const { tables, people } = bench.core.store.getState().material;
  const names = useNames(bench);
  const inputs = namedInputs(form, servicesAsked(bench));
  const set = (next: Cases, what: string) => onChange({ ...scenario, cases: next }, what);
  const take = async (chosen: File | undefined) => {
    if (chosen === undefined) return;
    const read = casesFromCsv(await chosen.text(), cases, form);
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
          options={[{ key: '', label: '+ a table of cases over …' }, ...inputs]}
          onChange={(event) => {
            const input = event.target.value;
            if (input !== '') set(casesOver(input), 'A table was made');
          }}
        />
        {csvIn}
        {says !== null && <Notice tone="error">{says}</Notice>}
      </Flex>
    );
  const headOf = (kind: 'inputs' | 'expected', column: string): string => {
    if (kind === 'inputs')
      return inputs.find(({ key }) => key === column)?.label ?? names.part(column);
    if (column.startsWith('@'))
      return OF_THE_FORM.find(({ key }) => key === column)?.label ?? column;
    const { part, aspect } = readColumn(column, form);
    return aspect === 'value' ? names.part(part) : `${names.part(part)} ${aspect}`;
  };
  const head = (kind: 'inputs' | 'expected', column: string, at: number) => (
    <chakra.th
      key={`${kind} ${column}`}
      scope="col"
      textAlign="left"
      px="4px"
      fontWeight={560}
      verticalAlign="bottom"
      color={kind === 'expected' ? 'act' : undefined}
    >
      <span title={column}>
        {kind === 'expected' ? '→ ' : ''}
        {headOf(kind, column)}
      </span>
      {(kind === 'expected' || cases.inputs.length > 1) && (
        <Button
          look="text"
          color="soft"
          aria-label={`Remove the column ${column}`}
          onClick={() => set(withoutColumn(cases, kind, at), 'A column was removed')}
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
      <Region aria-label="Cases">
        <chakra.table fontSize="13px" css={{ '& td': { padding: '2px 4px' } }}>
          <thead>
            <tr>
              <th aria-label="Result" />
              <chakra.th
                scope="col"
                textAlign="left"
                verticalAlign="bottom"
                px="4px"
                fontWeight={560}
              >
                Case
              </chakra.th>
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
                      onClick={() => void bench.tests.show(name, i)}
                    >
                      {came === undefined ? '…' : came.passed ? '✓' : '×'}
                    </Button>
                  </td>
                  <td>
                    <ValueInput
                      value={row.title ?? null}
                      entry={TITLE}
                      label={`Title of case ${i + 1}`}
                      onChange={(title) =>
                        set(
                          withTitle(cases, i, typeof title === 'string' ? title : ''),
                          'The title of a case was changed',
                        )
                      }
                    />
                  </td>
                  {row.inputs.map((value, at) => (
                    <td key={`in ${at}`}>
                      <ValueInput
                        value={value}
                        entry={entryOf(form, { tables, people }, cases.inputs[at]!)}
                        label={`${cases.inputs[at]} of case ${i + 1}`}
                        onChange={(next) =>
                          set(withCell(cases, i, 'inputs', at, next), 'A case was changed')
                        }
                      />
                    </td>
                  ))}
                  {row.expected.map((value, at) => {
                    const { part, aspect } = readColumn(cases.expected[at]!, form);
                    return (
                      <td key={`out ${at}`}>
                        <ValueInput
                          value={value}
                          entry={entryOf(form, { tables, people }, part, aspect)}
                          label={`${cases.expected[at]} expected of case ${i + 1}`}
                          onChange={(next) =>
                            set(withCell(cases, i, 'expected', at, next), 'A case was changed')
                          }
                        />
                      </td>
                    );
                  })}
                  <td>
                    <Button
                      look="text"
                      color="soft"
                      aria-label={`Remove case ${i + 1}`}
                      onClick={() => set(withoutCase(cases, i), 'A case was removed')}
                    >
                      ×
                    </Button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </chakra.table>
      </Region>
      <Flex gap="8px" mt="6px" wrap="wrap">
        <Button onClick={() => set(withCase(cases), 'A case was added')}>+ case</Button>
        <Select
          aria-label="Add an input"
          value=""
          options={[
            { key: '', label: '+ input' },
            ...inputs.filter(({ key }) => !cases.inputs.includes(key)),
          ]}
          onChange={(event) =>
            event.target.value !== '' &&
            set(withColumn(cases, 'inputs', event.target.value), 'A column was added')
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
            ...OF_THE_FORM,
          ].filter(({ key }) => !cases.expected.includes(key))}
          onChange={(event) =>
            event.target.value !== '' &&
            set(withColumn(cases, 'expected', event.target.value), 'A column was added')
          }
        />
        <Button onClick={() => download(`${name}-cases.csv`, 'text/csv', casesAsCsv(cases, form))}>
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
      {result?.misses
        .filter(({ at }) => at !== null && scenario.grid === undefined)
        .slice(0, 5)
        .map((miss, i) => (
          <MissLine key={i} bench={bench} name={name} miss={miss} />
        ))}
    </Box>
  );
}
