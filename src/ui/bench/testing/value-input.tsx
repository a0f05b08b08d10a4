'use client';
/** A value of a field or an aspect: offered where there is something to choose from, else written. */
import { chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Form } from '@/core/form/definition';
import { cellsOf, fieldsOf } from '@/core/form/fields';
import { equal, type Value } from '@/core/form/value';
import { readCell } from '@/core/scenario/cases-csv';
import type { Table } from '@/core/form/table';
import { Line, Select } from '../../kit';

const YES_NO = [
  { key: 'true', label: 'yes' },
  { key: 'false', label: 'no' },
];

/** Options of a table beyond these are written by key. */
const MOST_OFFERED = 60;

/** What a field can hold, by key with its label; null where it is written. */
export function offeredFor(
  form: Form,
  tables: readonly Table[],
  address: string,
): { key: string; label: string }[] | null {
  const [owner, cellName] = address.replace(/\[\d+\]/, '').split('.');
  const field = fieldsOf(form).find(({ name }) => name === owner);
  const of =
    cellName === undefined ? field : field && cellsOf(field).find(({ name }) => name === cellName);
  if (of === undefined) return null;
  if (of.kind === 'yes_no') return YES_NO;
  if (of.kind === 'choice') return of.options;
  if (of.kind !== 'reference') return null;
  const table = tables.find(({ name }) => name === of.table);
  if (table === undefined || table.rows.length > MOST_OFFERED) return null;
  return table.rows.map((row) => ({
    key: String(row[table.key]),
    label: String(row[table.label]),
  }));
}

export function ValueInput({
  value,
  offered,
  label,
  onChange,
}: {
  value: Value;
  offered: { key: string; label: string }[] | null;
  label: string;
  onChange: (value: Value) => void;
}) {
  const [text, setText] = useState(written(value));
  useEffect(() => setText(written(value)), [value]);
  if (offered !== null && (value === null || typeof value !== 'object')) {
    const isYesNo = offered === YES_NO;
    const there = value === null || offered.some(({ key }) => key === String(value));
    return (
      <Select
        aria-label={label}
        value={value === null ? '' : String(value)}
        maxW="190px"
        options={[
          { key: '', label: '(nothing)' },
          ...offered,
          ...(there ? [] : [{ key: String(value), label: String(value) }]),
        ]}
        onChange={(event) => {
          const { value: key } = event.target;
          onChange(key === '' ? null : isYesNo ? key === 'true' : key);
        }}
      />
    );
  }
  const done = () => {
    const read = readCell(text);
    if (!equal(read, value)) onChange(read);
  };
  return (
    <Line
      aria-label={label}
      value={text}
      width="150px"
      placeholder="(nothing)"
      onChange={(event) => setText(event.target.value)}
      onBlur={done}
      onKeyDown={(event) => {
        if (event.key === 'Enter') done();
      }}
    />
  );
}

export const YesNoOffered = YES_NO;

function written(value: Value): string {
  return value === null ? '' : typeof value === 'string' ? value : JSON.stringify(value);
}

/** A value as it stands in a line of text. */
export function Shown({ value }: { value: Value }) {
  return (
    <chakra.span fontFamily="mono" fontSize="0.9em">
      {value === null
        ? 'nothing'
        : value === true
          ? 'yes'
          : value === false
            ? 'no'
            : typeof value === 'string'
              ? `“${value}”`
              : JSON.stringify(value)}
    </chakra.span>
  );
}
