'use client';
/** The input of each kind of field. An input shows the value it is given and says when another is committed. */
import { chakra } from '@chakra-ui/react';
import { useRef, useState, type KeyboardEvent, type ReactElement } from 'react';
import { throughMask } from '@/core/form/checks';
import { readDate, readDateAndTime, readTime } from '@/core/form/date-style';
import { fromWallClock, toWallClock } from '@/core/form/zone';
import type { FieldOf } from '@/core/form/definition';
import type { Value } from '@/core/form/value';
import { useDates, useNumbers, type Dates, type Numbers } from '../writing';
import { lazily } from '../lazily';
import { useHeldWhilePressed } from '../press';
import { useTyped } from '../typed';
import { look, named, type InputProps } from './input';
import { BareButton } from '../kit';

const ChakraInput = chakra('input');
const ChakraArea = chakra('textarea');
const ChakraSelect = chakra('select');

/** The chosen option, until what it is searched with has come. */
function Shown(props: InputProps) {
  const label = props.options.find(({ key }) => key === props.value)?.label ?? '';
  return <ChakraInput {...named(props)} {...look(props)} readOnly value={label} />;
}

const FileInput = lazily<InputProps & { field: FieldOf<'file'> }>(() =>
  import('./file-input').then((module) => module.FileInput),
);

/** Few forms have one, and its libraries are large. */
const SearchInput = lazily<InputProps>(
  () => import('./search-input').then((module) => module.SearchInput),
  (props) => <Shown {...props} />,
);

/** How a value is typed and read back. What cannot be read is kept as typed and said to be wrong. */
interface Typing {
  show: (value: Value) => string;
  read: (text: string) => { ok: true; value: Value } | { ok: false; says: string };
}

const asText: Typing = {
  show: (value) => (value === null ? '' : String(value)),
  read: (text) => ({ ok: true, value: text === '' ? null : text }),
};

const asNumber = (numbers: Numbers, decimals: number | undefined): Typing => ({
  show: (value) => (typeof value === 'number' ? numbers.show(value, decimals) : ''),
  read: (text) => {
    if (text.trim() === '') return { ok: true, value: null };
    const value = numbers.read(text);
    return value === null ? { ok: false, says: `"${text}" is not a number.` } : { ok: true, value };
  },
});

/** A line or area that commits when it is left or Enter is pressed. */
function TypedInput({
  typing,
  area,
  placeholder,
  ...props
}: InputProps & {
  typing: Typing;
  area?: number | undefined;
  placeholder?: string | undefined;
}) {
  const shown = typing.show(props.value);
  const [found, setWrong] = useState<string | null>(null);
  const wrong = useHeldWhilePressed(found);
  // What the form says replaces what is typed only when the form's value changes.
  const [text, setText] = useTyped(shown, () => setWrong(null));
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
          placeholder={placeholder}
          inputMode={
            props.field.kind === 'number' || props.field.kind === 'money'
              ? 'decimal'
              : props.field.kind === 'text' && props.field.format === 'email'
                ? 'email'
                : undefined
          }
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

/** Typed in whatever way, kept as the mask spells it. */
const asMasked = (mask: string): Typing => ({
  show: asText.show,
  read: (text) => ({ ok: true, value: text === '' ? null : throughMask(text, mask) }),
});

function TextInput(props: InputProps) {
  const { mask } = props.field as FieldOf<'text'>;
  return (
    <TypedInput
      {...props}
      typing={mask === undefined ? asText : asMasked(mask)}
      area={props.field.kind === 'text' ? props.field.lines : undefined}
    />
  );
}

function NumberInput(props: InputProps) {
  const { field } = props;
  const decimals =
    field.kind === 'money'
      ? (field.decimals ?? 2)
      : field.kind === 'number'
        ? field.decimals
        : undefined;
  return <TypedInput {...props} typing={asNumber(useNumbers(), decimals)} />;
}

/** Typed as people of the workspace write it, with any common separator; stored as it is for everybody. */
function calendarTyping(
  kind: 'date' | 'time' | 'datetime',
  { order, looks, day }: Dates,
  zone: string,
): Typing & { looks: string } {
  const typing = (
    pattern: string,
    show: (value: string) => string,
    read: (text: string) => string | null,
  ) => ({
    looks: pattern,
    show: (value: Value) => (typeof value === 'string' ? show(value) : ''),
    read: (text: string): ReturnType<Typing['read']> => {
      if (text.trim() === '') return { ok: true, value: null };
      const value = read(text);
      return value === null
        ? { ok: false, says: `"${text}" is not written as ${pattern}.` }
        : { ok: true, value };
    },
  });
  if (kind === 'time') return typing('HH:MM', (value) => value, readTime);
  if (kind === 'date') return typing(looks, day, (text) => readDate(text, order));
  // Moments are entered as clocks show them in the session's time zone, as the label says.
  return typing(
    `${looks} HH:MM`,
    (value) => {
      const wall = toWallClock(zone, value);
      return `${day(wall)} ${wall.slice(11)}`;
    },
    (text) => {
      const wall = readDateAndTime(text, order);
      return wall === null ? null : fromWallClock(zone, wall);
    },
  );
}

/** A date, a time or both, typed; beside a date the browser's own calendar can be opened with the mouse. */
function CalendarInput({ kind, ...props }: InputProps & { kind: 'date' | 'time' | 'datetime' }) {
  const dates = useDates();
  const { looks, ...typing } = calendarTyping(kind, dates, props.zone);
  const picker = useRef<HTMLInputElement>(null);
  const line = (
    <TypedInput {...props} typing={typing} placeholder={props.editable ? looks : undefined} />
  );
  // In a grid there is no room for it.
  if (kind !== 'date' || props.label !== undefined || !props.editable) return line;
  return (
    <chakra.div position="relative" css={{ '& > input:first-of-type': { paddingRight: '26px' } }}>
      {line}
      <BareButton
        tabIndex={-1}
        aria-hidden
        title="Choose a day"
        position="absolute"
        right="4px"
        top="2px"
        height="24px"
        px="5px"
        color="soft"
        onClick={() => picker.current?.showPicker()}
      >
        ▾
      </BareButton>
      <chakra.input
        ref={picker}
        type="date"
        tabIndex={-1}
        aria-hidden
        position="absolute"
        right="4px"
        bottom="0"
        width="1px"
        height="1px"
        opacity="0"
        pointerEvents="none"
        value={typeof props.value === 'string' ? props.value : ''}
        onChange={({ target }) => target.value !== '' && props.onCommit(target.value)}
      />
    </chakra.div>
  );
}

function ListInput(props: InputProps) {
  const { options, value } = props;
  const known = value === null || options.some((option) => option.key === value);
  const blank = !(props.field.kind === 'choice' && props.field.blank === false);
  return (
    <ChakraSelect
      {...named(props)}
      {...look(props)}
      disabled={!props.editable}
      value={value === null ? '' : String(value)}
      onBlur={props.onBlur}
      onChange={(event) => props.onCommit(event.target.value === '' ? null : event.target.value)}
    >
      {blank ? <option value="" /> : value === null && <option value="" disabled hidden />}
      {!known && <option value={String(value)}>{String(value)} (no longer offered)</option>}
      {options.map((option) => (
        <option key={option.key} value={option.key}>
          {option.label}
        </option>
      ))}
    </ChakraSelect>
  );
}

function Radios({
  choices,
  ...props
}: InputProps & { choices: readonly { value: Value; label: string }[] }) {
  return (
    <chakra.div
      display="flex"
      gap="14px"
      flexWrap="wrap"
      role="radiogroup"
      {...groupName(props)}
      aria-required={props.required}
      aria-invalid={props.invalid}
      aria-describedby={props.describedBy}
      minH="28px"
      alignItems="center"
    >
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

/** A group is named by the label beside it, or by itself in a grid. */
function groupName({
  id,
  label,
}: InputProps): { 'aria-label': string } | { 'aria-labelledby': string } {
  return label === undefined ? { 'aria-labelledby': `${id}-label` } : { 'aria-label': label };
}

/** Several keys: a box to tick for each option, and those of the value that are no longer offered. */
function Ticks(props: InputProps) {
  const chosen = (props.value ?? []) as readonly string[];
  const gone = chosen.filter((key) => !props.options.some((option) => option.key === key));
  const toggle = (key: string, on: boolean) =>
    props.onCommit(on ? [...chosen, key] : chosen.filter((other) => other !== key));
  return (
    <chakra.div
      display="grid"
      gridTemplateColumns="repeat(auto-fill, minmax(150px, 1fr))"
      columnGap="14px"
      rowGap="2px"
      role="group"
      {...groupName(props)}
      aria-describedby={props.describedBy}
      minH="28px"
      alignItems="center"
    >
      {[...props.options, ...gone.map((key) => ({ key, label: `${key} (no longer offered)` }))].map(
        (option, i) => (
          <chakra.label key={option.key} display="flex" gap="6px" alignItems="center" minH="24px">
            <input
              type="checkbox"
              id={i === 0 ? props.id : undefined}
              disabled={!props.editable}
              aria-invalid={props.invalid}
              checked={chosen.includes(option.key)}
              onFocus={props.onFocus}
              onBlur={props.onBlur}
              onChange={(event) => toggle(option.key, event.target.checked)}
            />
            {option.label}
          </chakra.label>
        ),
      )}
    </chakra.div>
  );
}

const YES_NO = [
  { value: true, label: 'Yes' },
  { value: false, label: 'No' },
];

/** Longer lists are searched, unless the definition says otherwise. */
export const LIST_AT_MOST = 40;

/** The input of a field, by its kind. */
export function FieldInput(props: InputProps): ReactElement {
  const { field } = props;
  switch (field.kind) {
    case 'text':
      return <TextInput {...props} />;
    case 'number':
    case 'money':
      return <NumberInput {...props} />;
    case 'date':
    case 'time':
    case 'datetime':
      return <CalendarInput {...props} kind={field.kind} />;
    case 'yes_no':
      return <Radios {...props} choices={YES_NO} />;
    case 'choice':
      if (field.display === 'radios')
        return (
          <Radios
            {...props}
            choices={[
              ...(field.blank === true ? [{ value: null, label: 'None' }] : []),
              ...props.options.map(({ key, label }) => ({ value: key, label })),
            ]}
          />
        );
      return <ListInput {...props} />;
    case 'choices':
      return <Ticks {...props} />;
    case 'reference':
      return (field.display ?? (props.options.length > LIST_AT_MOST ? 'search' : 'list')) ===
        'search' ? (
        <SearchInput {...props} />
      ) : (
        <ListInput {...props} />
      );
    case 'file':
      return <FileInput {...props} field={field} />;
    case 'rows':
      throw new Error('rows are drawn by RowsBlock');
  }
}
