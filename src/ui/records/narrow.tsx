'use client';
/** What stands above a column to narrow a list of records down; loaded once the records are in view. */
import { Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { readDate, type DateStyle } from '@/core/form/date-style';
import type { Field } from '@/core/form/definition';
import { narrowedBy } from '@/core/form/listing';
import { definedOptions } from '@/core/form/reading';
import type { TableIndex } from '@/core/form/table-index';
import { useDates } from '../writing';
import { Line, Select } from '../kit';
import type { ListQuery } from './use-records';

/** What the readings of values look at. */
export interface Around {
  options: null;
  table: (name: string) => TableIndex;
  dates: DateStyle;
}

export interface NarrowProps {
  field: Field;
  asked: ListQuery;
  around: Around;
  onPut: (key: string, value: string) => void;
}

/** What narrows a column down: one of its options, a range, or what it contains. */
export function Narrow({ field, asked, around, onPut }: NarrowProps) {
  const dates = useDates();
  const how = narrowedBy(field);
  const value = (key: string) => asked[`${key}.${field.name}`] ?? '';
  const type =
    field.kind === 'date'
      ? 'text'
      : field.kind === 'datetime'
        ? 'datetime-local'
        : field.kind === 'time'
          ? 'time'
          : 'text';
  const line = (key: string, label: string, placeholder: string) => (
    <Line
      aria-label={`${field.label} ${label}`}
      type={type}
      placeholder={placeholder}
      width="100%"
      px="5px"
      py="1px"
      fontSize="12.5px"
      value={value(key)}
      onChange={(event) => onPut(`${key}.${field.name}`, event.target.value)}
    />
  );
  if (how === 'option') {
    const options =
      field.kind === 'yes_no'
        ? [
            { key: 'true', label: 'yes' },
            { key: 'false', label: 'no' },
          ]
        : definedOptions(field as never, around.table);
    return (
      <Select
        aria-label={`${field.label} is`}
        width="100%"
        py="1px"
        fontSize="12.5px"
        value={value('is')}
        options={[{ key: '', label: 'all' }, ...options.slice(0, 500)]}
        onChange={(event) => onPut(`is.${field.name}`, event.target.value)}
      />
    );
  }
  if (how === 'text') return line('is', 'contains', 'contains');
  if (field.kind === 'date')
    return (
      <Flex direction="column" gap="2px">
        {(['from', 'to'] as const).map((key) => (
          <DayLimit
            key={key}
            label={`${field.label} ${key}`}
            placeholder={`${key} ${dates.looks}`}
            value={value(key)}
            onPut={(day) => onPut(`${key}.${field.name}`, day)}
          />
        ))}
      </Flex>
    );
  return (
    <Flex direction={type === 'text' ? 'row' : 'column'} gap="2px">
      {line('from', 'from', 'from')}
      {line('to', 'to', 'to')}
    </Flex>
  );
}

/** One end of a range of days, typed as the workspace writes them; what is no day yet narrows nothing down. */
function DayLimit({
  label,
  placeholder,
  value,
  onPut,
}: {
  label: string;
  placeholder: string;
  /** As YYYY-MM-DD; empty for none. */
  value: string;
  onPut: (day: string) => void;
}) {
  const dates = useDates();
  const [text, setText] = useState<string | null>(null);
  return (
    <Line
      aria-label={label}
      placeholder={placeholder}
      width="100%"
      px="5px"
      py="1px"
      fontSize="12.5px"
      value={text ?? dates.day(value)}
      onChange={({ target }) => {
        setText(target.value);
        const day = target.value.trim() === '' ? '' : readDate(target.value, dates.order);
        if (day !== null) onPut(day);
      }}
      onBlur={() => setText(null)}
    />
  );
}
