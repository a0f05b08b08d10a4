'use client';
/** The input of each kind of field. An input shows the value it is given and says when another is committed. */
import { chakra } from '@chakra-ui/react';
import { useEffect, useState, type KeyboardEvent } from 'react';
import type { Field, Option } from '@/core/form/definition';
import { round } from '@/core/form/round';
import type { Value } from '@/core/form/value';

export interface InputProps {
  field: Field;
  id: string;
  value: Value;
  options: readonly Option[];
  editable: boolean;
  required: boolean;
  invalid: boolean;
  describedBy: string | undefined;
  /** Said by a script, and shown so on the bench. */
  marked: boolean;
  onCommit: (value: Value) => void;
  /** Each keystroke; only where a behaviour listens. */
  onType: ((value: Value) => void) | null;
  onFocus: () => void;
  onBlur: () => void;
}

const look = (props: InputProps) =>
  ({
    width: '100%',
    minH: '28px',
    px: '9px',
    py: '3px',
    borderWidth: '1px',
    borderRadius: '4px',
    borderColor: props.invalid ? 'bad' : props.marked ? 'saidEdge' : 'edge',
    boxShadow: props.marked ? 'inset 0 -2px 0 var(--tavro-colors-said-edge)' : undefined,
    bg: props.editable ? 'field' : 'lockedField',
    color: 'ink',
  }) as const;

const named = (props: InputProps) => ({
  id: props.id,
  'aria-required': props.required,
  'aria-invalid': props.invalid,
  'aria-describedby': props.describedBy,
  onFocus: props.onFocus,
});

const ChakraInput = chakra('input');
const ChakraArea = chakra('textarea');
const ChakraSelect = chakra('select');

/** How a value is typed and read back. What cannot be read is kept as typed and said to be wrong. */
interface Typing {
  show: (value: Value) => string;
  read: (text: string) => { ok: true; value: Value } | { ok: false; says: string };
}

const asText: Typing = { show: (value) => (value === null ? '' : String(value)), read: (text) => ({ ok: true, value: text === '' ? null : text }) };

const asNumber = (decimals: number | undefined): Typing => ({
  show: (value) => (typeof value !== 'number' ? '' : decimals === undefined || round(value, decimals) !== value ? String(value) : value.toFixed(decimals)),
  read: (text) => {
    if (text.trim() === '') return { ok: true, value: null };
    const number = Number(text.trim().replace(',', '.'));
    return Number.isFinite(number) ? { ok: true, value: number } : { ok: false, says: `"${text}" is not a number.` };
  },
});

/** A line or area that commits when it is left or Enter is pressed. */
function TypedInput({ typing, area, ...props }: InputProps & { typing: Typing; area?: number | undefined }) {
  const [text, setText] = useState(typing.show(props.value));
  const [wrong, setWrong] = useState<string | null>(null);
  const shown = typing.show(props.value);
  // What the form says replaces what is typed only when the form's value changes.
  useEffect(() => {
    setText(shown);
    setWrong(null);
  }, [shown]);
  const commit = () => {
    if (text === shown) {
      setWrong(null);
      return;
    }
    const read = typing.read(text);
    setWrong(read.ok ? null : read.says);
    if (read.ok) props.onCommit(read.value);
  };
  const common = {
    ...named(props),
    ...look({ ...props, invalid: props.invalid || wrong !== null }),
    'aria-invalid': props.invalid || wrong !== null,
    readOnly: !props.editable,
    value: text,
    onChange: (event: { target: { value: string } }) => {
      setText(event.target.value);
      const read = typing.read(event.target.value);
      if (read.ok) props.onType?.(read.value);
    },
    onBlur: () => {
      commit();
      if (text === shown) props.onBlur();
    },
  };
  return (
    <>
      {area !== undefined && area > 1 ? (
        <ChakraArea rows={area} resize="vertical" {...common} />
      ) : (
        <ChakraInput
          {...common}
          inputMode={props.field.kind === 'number' || props.field.kind === 'money' ? 'decimal' : props.field.kind === 'text' && props.field.format === 'email' ? 'email' : undefined}
          onKeyDown={(event: KeyboardEvent) => {
            if (event.key === 'Enter') commit();
          }}
        />
      )}
      {wrong !== null && (
        <chakra.p color="bad" fontSize="12.5px" role="alert">
          {wrong}
        </chakra.p>
      )}
    </>
  );
}

function TextInput(props: InputProps) {
  return <TypedInput {...props} typing={asText} area={props.field.kind === 'text' ? props.field.lines : undefined} />;
}

function NumberInput(props: InputProps) {
  const { field } = props;
  const decimals = field.kind === 'money' ? (field.decimals ?? 2) : field.kind === 'number' ? field.decimals : undefined;
  return <TypedInput {...props} typing={asNumber(decimals)} />;
}

/** The browser's own date input: it speaks the person's way of writing dates and stores ours. */
function DateInput(props: InputProps) {
  const [text, setText] = useState(props.value === null ? '' : String(props.value));
  const shown = props.value === null ? '' : String(props.value);
  useEffect(() => setText(shown), [shown]);
  const commit = () => {
    if (text !== shown) props.onCommit(text === '' ? null : text);
  };
  return (
    <ChakraInput
      {...named(props)}
      {...look(props)}
      type="date"
      readOnly={!props.editable}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => {
        commit();
        if (text === shown) props.onBlur();
      }}
      onKeyDown={(event: KeyboardEvent) => {
        if (event.key === 'Enter') commit();
      }}
    />
  );
}

function ListInput(props: InputProps) {
  const { options, value } = props;
  const known = value === null || options.some((option) => option.key === value);
  return (
    <ChakraSelect
      {...named(props)}
      {...look(props)}
      disabled={!props.editable}
      value={value === null ? '' : String(value)}
      onBlur={props.onBlur}
      onChange={(event) => props.onCommit(event.target.value === '' ? null : event.target.value)}
    >
      <option value="" />
      {!known && <option value={String(value)}>{String(value)} (no longer offered)</option>}
      {options.map((option) => (
        <option key={option.key} value={option.key}>
          {option.label}
        </option>
      ))}
    </ChakraSelect>
  );
}

function Radios({ choices, ...props }: InputProps & { choices: readonly { value: Value; label: string }[] }) {
  return (
    <chakra.div display="flex" gap="14px" flexWrap="wrap" role="radiogroup" aria-labelledby={`${props.id}-label`} aria-required={props.required} aria-invalid={props.invalid} aria-describedby={props.describedBy} minH="28px" alignItems="center">
      {choices.map((choice, i) => (
        <chakra.label key={choice.label} display="flex" gap="6px" alignItems="center">
          <input
            type="radio"
            id={i === 0 ? props.id : undefined}
            name={props.id}
            disabled={!props.editable}
            checked={props.value === choice.value}
            onFocus={props.onFocus}
            onBlur={props.onBlur}
            onChange={() => props.onCommit(choice.value)}
          />
          {choice.label}
        </chakra.label>
      ))}
    </chakra.div>
  );
}

const YES_NO = [
  { value: true, label: 'Yes' },
  { value: false, label: 'No' },
];

/** The input of a field, by its kind. */
export function FieldInput(props: InputProps) {
  const { field } = props;
  switch (field.kind) {
    case 'text':
      return <TextInput {...props} />;
    case 'number':
    case 'money':
      return <NumberInput {...props} />;
    case 'date':
      return <DateInput {...props} />;
    case 'yes_no':
      return <Radios {...props} choices={YES_NO} />;
    case 'choice':
      if (field.display === 'radios') return <Radios {...props} choices={props.options.map(({ key, label }) => ({ value: key, label }))} />;
      return <ListInput {...props} />;
    case 'reference':
      return <ListInput {...props} />;
  }
}
