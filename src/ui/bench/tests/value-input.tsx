'use client';
/** A value of a field or an aspect: offered where there is something to choose from, else written. */
import { chakra, Flex } from '@chakra-ui/react';
import { useId } from 'react';
import type { Form, Option } from '@/core/form/definition';
import type { Table } from '@/core/form/table';
import { equal, type Value } from '@/core/form/value';
import { fieldAt, readWritten, SPELLED, spellingOf, written } from '@/core/scenario/written';
import { Line, Select } from '../../kit';
import { useTyped } from '../../typed';
import { useNumbers } from '../../writing';
import type { Spelling } from '@/core/form/traits';

const YES_NO: readonly Option[] = [
  { key: 'true', label: 'yes' },
  { key: 'false', label: 'no' },
];

/** Options of a table beyond these are written by key. */
const MOST_OFFERED = 60;

/** How a value is entered: chosen from options, or written. */
export interface ValueEntry {
  spelling: Spelling;
  offered: readonly Option[] | null;
  /** Whether it can be nothing. */
  empty: boolean;
}

/** How an aspect of a part, or an input of a table or grid, is entered. */
export function entryOf(
  form: Form,
  {
    tables,
    people,
  }: { tables: readonly Table[]; people: readonly { key: string; name: string }[] },
  name: string,
  aspect = 'value',
): ValueEntry {
  const spelling = spellingOf(form, name, aspect);
  const isField = aspect === 'value' && !name.startsWith('@');
  if (spelling === 'yes or no') return { spelling, offered: YES_NO, empty: isField };
  if (name === '@as')
    return {
      spelling,
      offered: people.map(({ key, name: label }) => ({ key, label })),
      empty: false,
    };
  const field = isField ? fieldAt(form, name) : null;
  if (field?.kind === 'choice') return { spelling, offered: field.options, empty: true };
  const table = field?.kind === 'reference' && tables.find((one) => one.name === field.table);
  if (!table || table.rows.length > MOST_OFFERED) return { spelling, offered: null, empty: true };
  return {
    spelling,
    offered: table.rows.map((row) => ({
      key: String(row[table.key]),
      label: String(row[table.label]),
    })),
    empty: true,
  };
}

export function ValueInput({
  value,
  entry,
  label,
  onChange,
}: {
  value: Value;
  entry: ValueEntry;
  label: string;
  onChange: (value: Value) => void;
}) {
  const { offered } = entry;
  if (offered === null || (value !== null && typeof value === 'object'))
    return <WrittenInput value={value} entry={entry} label={label} onChange={onChange} />;
  const there = value === null || offered.some(({ key }) => key === String(value));
  return (
    <Select
      aria-label={label}
      value={value === null ? '' : String(value)}
      maxW="190px"
      options={[
        ...(entry.empty || value === null ? [{ key: '', label: '(nothing)' }] : []),
        ...offered,
        ...(there ? [] : [{ key: String(value), label: String(value) }]),
      ]}
      onChange={({ target: { value: key } }) =>
        onChange(key === '' ? null : entry.spelling === 'yes or no' ? key === 'true' : key)
      }
    />
  );
}

function WrittenInput({
  value,
  entry: { spelling },
  label,
  onChange,
}: {
  value: Value;
  entry: ValueEntry;
  label: string;
  onChange: (value: Value) => void;
}) {
  const { style: numbers } = useNumbers();
  const before = written(value, spelling, numbers);
  const [text, setText] = useTyped(before);
  const id = useId();
  const read = readWritten(text, spelling, numbers);
  const done = () => {
    if (text !== before && read !== undefined && !equal(read, value)) onChange(read);
  };
  return (
    <Flex as="span" display="inline-flex" direction="column">
      <Line
        aria-label={label}
        aria-invalid={read === undefined}
        aria-describedby={read === undefined ? id : undefined}
        value={text}
        width={spelling === 'number' ? '88px' : '150px'}
        placeholder="(nothing)"
        onChange={(event) => setText(event.target.value)}
        onBlur={done}
        onKeyDown={(event) => {
          if (event.key === 'Enter') done();
        }}
      />
      {read === undefined && (
        <chakra.span id={id} color="bad" fontSize="12px">
          This takes {SPELLED[spelling]}.
        </chakra.span>
      )}
    </Flex>
  );
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
