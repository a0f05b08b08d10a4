'use client';
/** What a grid varies, with its values: ticked where there are few, else written and offered. */
import { chakra, Flex } from '@chakra-ui/react';
import { useId, useState } from 'react';
import { equal, type Value } from '@/core/form/value';
import type { Axis } from '@/core/scenario/definition';
import type { GridWords } from '@/core/scenario/grid-table';
import { readWritten, written } from '@/core/scenario/written';
import { Button, Checkbox, Line } from '../../kit';
import type { ValueEntry } from './value-input';
import { useNumbers } from '../../writing';

export function AxisLine({
  axis,
  words,
  every,
  suggested,
  entry,
  onChange,
  onRemove,
}: {
  axis: Axis;
  words: GridWords;
  every: readonly Value[] | null;
  suggested: readonly Value[];
  entry: ValueEntry;
  onChange: (values: Value[]) => void;
  onRemove: () => void;
}) {
  const name = words.part(axis.input);
  const shown = [...(every ?? []), ...axis.values.filter((value) => !isAmong(every ?? [], value))];
  return (
    <Flex gap="8px" py="3px" align="baseline" wrap="wrap" borderTopWidth="1px" borderColor="line">
      <chakra.span fontWeight={560}>{name}</chakra.span>
      {shown.map((value) => {
        const on = isAmong(axis.values, value);
        return (
          <Checkbox
            key={JSON.stringify(value)}
            label={
              words.value(axis.input, value) === '–' ? 'empty' : words.value(axis.input, value)
            }
            on={on}
            // One is left, else there is nothing to combine.
            disabled={on && axis.values.length === 1}
            onSet={() =>
              onChange(shown.filter((one) => equal(one, value) !== isAmong(axis.values, one)))
            }
          />
        );
      })}
      {every === null && (
        <AddValue
          name={name}
          entry={entry}
          suggested={suggested.filter((value) => value !== null && !isAmong(shown, value))}
          onAdd={(values) =>
            onChange([...axis.values, ...values.filter((value) => !isAmong(axis.values, value))])
          }
        />
      )}
      <Button look="text" color="soft" aria-label={`Do not vary ${name}`} onClick={onRemove}>
        ×
      </Button>
    </Flex>
  );
}

const isAmong = (values: readonly Value[], value: Value) => values.some((one) => equal(one, value));

/** A value to vary, written; those that the scripts compare with are offered. */
function AddValue({
  name,
  entry: { spelling },
  suggested,
  onAdd,
}: {
  name: string;
  entry: ValueEntry;
  suggested: readonly Value[];
  onAdd: (values: Value[]) => void;
}) {
  const { style: numbers } = useNumbers();
  const [text, setText] = useState('');
  const list = useId();
  const read = readWritten(text, spelling, numbers);
  const add = () => {
    if (read === undefined || read === null) return;
    onAdd([read]);
    setText('');
  };
  return (
    <Flex as="span" display="inline-flex" gap="6px" align="center">
      <Line
        aria-label={`A value for ${name}`}
        placeholder="another value"
        width="130px"
        list={list}
        aria-invalid={read === undefined}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') add();
        }}
      />
      <datalist id={list}>
        {suggested.map((value) => (
          <option key={JSON.stringify(value)} value={written(value, spelling, numbers)} />
        ))}
      </datalist>
      <Button aria-label={`Add the value for ${name}`} disabled={read == null} onClick={add}>
        Add
      </Button>
    </Flex>
  );
}
