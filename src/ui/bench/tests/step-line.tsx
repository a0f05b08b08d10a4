'use client';
/** A step of a scenario, changed in place, and adding one. */
import { useMaterial } from '../common/use-bench';
import { chakra, Flex } from '@chakra-ui/react';
import type { Form } from '@/core/form/definition';
import { cellsOf, fieldsOf } from '@/core/form/fields';
import type { Value, Values } from '@/core/form/value';
import type { Expectation, ScenarioStep } from '@/core/scenario/definition';
import { namedParts, type PlacesOf } from '@/core/scenario/naming';
import type { Step } from '@/core/session/step';
import { Button, Line, Select } from '../../kit';
import { servicesAsked } from '../form/services-asked';
import type { Bench } from '../create-bench';

import { PartSelect } from './part-select';
import { entryOf, ValueInput, type ValueEntry } from './value-input';

const MILLISECONDS: ValueEntry = { spelling: 'number', offered: null, empty: false };
const ANSWER: ValueEntry = { spelling: 'json', offered: null, empty: true };

export function StepLine({
  bench,
  step,
  number,
  words,
  placesOf,
  onChange,
}: {
  bench: Bench;
  step: Exclude<ScenarioStep, { expect: Expectation }>;
  number: number;
  /** The step in words, for one that is done again and not changed. */
  words: string;
  placesOf: PlacesOf;
  onChange: (step: Step) => void;
}) {
  return (
    <Flex gap="6px" align="center" wrap="wrap">
      <chakra.span color="soft" minW="20px">
        {number}
      </chakra.span>
      <StepParts
        bench={bench}
        step={step}
        number={number}
        words={words}
        placesOf={placesOf}
        onChange={onChange}
      />
    </Flex>
  );
}

function StepParts({
  bench,
  step,
  number,
  words,
  placesOf,
  onChange,
}: Parameters<typeof StepLine>[0]) {
  const { form, tables, people } = useMaterial(bench);
  const part = (value: string, change: (part: string) => Step) => (
    <PartSelect
      form={form}
      label={`Part of step ${number}`}
      only="values"
      value={value}
      placesOf={placesOf}
      onChange={(next) => onChange(change(next))}
    />
  );
  const value = (of: string, to: Value, change: (to: Value) => Step) => (
    <ValueInput
      value={to}
      entry={entryOf(form, { tables, people }, of)}
      label={`Value of step ${number}`}
      onChange={(next) => onChange(change(next))}
    />
  );
  const chosen = (
    options: readonly { key: string; label: string }[],
    key: string,
    change: (key: string) => Step,
  ) => (
    <Select
      aria-label={`Part of step ${number}`}
      maxW="220px"
      value={key}
      options={
        options.some((option) => option.key === key) ? options : [...options, { key, label: key }]
      }
      onChange={(event) => onChange(change(event.target.value))}
    />
  );
  const row = (address: string, change: (address: string) => Step) => {
    const [field, place] = rowAt(address);
    return (
      <>
        row{' '}
        <PlaceInput
          label={`Row of step ${number}`}
          place={place}
          onChange={(next) => onChange(change(`${field}[${next}]`))}
        />{' '}
        of {chosen(rowsFieldsOf(form), field, (next) => change(`${next}[${place}]`))}
      </>
    );
  };
  if ('set' in step)
    return (
      <>
        set {part(step.set, (set) => ({ ...step, set }))} to{' '}
        {value(step.set, step.to, (to) => ({ ...step, to }))}
      </>
    );
  if ('input' in step)
    return (
      <>
        type into {part(step.input, (input) => ({ ...step, input }))}{' '}
        {value(step.input, step.to, (to) => ({ ...step, to }))}
      </>
    );
  if ('focus' in step) return <>go to {part(step.focus, (focus) => ({ focus }))}</>;
  if ('blur' in step) return <>leave {part(step.blur, (blur) => ({ blur }))}</>;
  if ('click' in step)
    return <>press {chosen(buttonsOf(form), step.click, (click) => ({ click }))}</>;
  if ('turnTo' in step)
    return <>turn to {chosen(pagesOf(form), step.turnTo, (turnTo) => ({ turnTo }))}</>;
  if ('wait' in step)
    return (
      <>
        wait{' '}
        <ValueInput
          value={step.wait}
          entry={MILLISECONDS}
          label={`Milliseconds of step ${number}`}
          onChange={(wait) => typeof wait === 'number' && wait >= 0 && onChange({ wait })}
        />{' '}
        ms
      </>
    );
  if ('addRow' in step)
    return (
      <>
        add a row to {chosen(rowsFieldsOf(form), step.addRow, (addRow) => ({ addRow }))}
        {!Array.isArray(step.with) && (
          <CellsOfRow
            form={form}
            field={step.addRow}
            values={step.with ?? {}}
            number={number}
            entry={(cell) => entryOf(form, { tables, people }, `${step.addRow}[0].${cell}`)}
            onChange={(cells) =>
              onChange(
                Object.keys(cells).length === 0
                  ? { addRow: step.addRow }
                  : { addRow: step.addRow, with: cells },
              )
            }
          />
        )}
        {Array.isArray(step.with) && <span>, {step.with.length} at once</span>}
      </>
    );
  if ('removeRow' in step) return <>remove {row(step.removeRow, (removeRow) => ({ removeRow }))}</>;
  if ('moveRow' in step)
    return (
      <>
        move {row(step.moveRow, (moveRow) => ({ ...step, moveRow }))} to place{' '}
        <PlaceInput
          label={`Place of step ${number}`}
          place={step.to}
          onChange={(to) => onChange({ ...step, to })}
        />
      </>
    );
  if ('answer' in step && step.usual !== true) {
    const { with: answer, fails, ...rest } = step;
    return (
      <>
        {chosen(functionsOf(bench), step.answer, (next) => ({ ...step, answer: next }))}
        <Select
          aria-label={`Answer of step ${number}`}
          value={fails === undefined ? 'answers' : 'fails'}
          options={[
            { key: 'answers', label: 'answers' },
            { key: 'fails', label: 'fails with' },
          ]}
          onChange={(event) =>
            onChange(
              event.target.value === 'fails'
                ? { ...rest, fails: 'is out of order' }
                : { ...rest, with: null },
            )
          }
        />
        <ValueInput
          value={fails ?? answer ?? null}
          entry={fails === undefined ? ANSWER : { ...ANSWER, spelling: 'text' }}
          label={`Value of step ${number}`}
          onChange={(next) =>
            onChange(
              fails === undefined
                ? { ...rest, with: next }
                : { ...rest, fails: String(next ?? 'is out of order') },
            )
          }
        />
      </>
    );
  }
  if ('fromChild' in step)
    return (
      <>
        a child sets {part(step.fromChild, (fromChild) => ({ ...step, fromChild }))} to{' '}
        {value(step.fromChild, step.to, (to) => ({ ...step, to }))}
      </>
    );
  return <span>{words}</span>;
}

/** A row is counted from 1 for people. */
function PlaceInput({
  label,
  place,
  onChange,
}: {
  label: string;
  place: number;
  onChange: (place: number) => void;
}) {
  return (
    <Line
      type="number"
      min={1}
      aria-label={label}
      width="58px"
      value={place + 1}
      onChange={(event) => {
        const next = Number(event.target.value);
        if (Number.isInteger(next) && next >= 1) onChange(next - 1);
      }}
    />
  );
}

/** What a new row brings: a value for each of its cells that is named. */
function CellsOfRow({
  form,
  field,
  values,
  number,
  entry,
  onChange,
}: {
  form: Form;
  field: string;
  values: Values;
  number: number;
  entry: (cell: string) => ValueEntry;
  onChange: (values: Values) => void;
}) {
  const rows = fieldsOf(form).find(({ name }) => name === field);
  const cells = rows === undefined ? [] : cellsOf(rows);
  const named = cells.filter(({ name }) => Object.hasOwn(values, name));
  const others = cells.filter((cell) => !named.includes(cell));
  return (
    <>
      {named.length > 0 && <span>with</span>}
      {named.map(({ name, label }) => (
        <Flex key={name} as="span" display="inline-flex" gap="4px" align="center">
          {label}
          <ValueInput
            value={values[name]!}
            entry={entry(name)}
            label={`${label} of step ${number}`}
            onChange={(next) => onChange({ ...values, [name]: next })}
          />
          <Button
            look="text"
            color="soft"
            aria-label={`Without ${label} in step ${number}`}
            onClick={() => {
              const { [name]: _, ...rest } = values;
              onChange(rest);
            }}
          >
            ×
          </Button>
        </Flex>
      ))}
      {others.length > 0 && (
        <Select
          aria-label={`A cell of the row in step ${number}`}
          value=""
          options={[
            { key: '', label: '+ cell' },
            ...others.map(({ name, label }) => ({ key: name, label })),
          ]}
          onChange={(event) =>
            event.target.value !== '' && onChange({ ...values, [event.target.value]: null })
          }
        />
      )}
    </>
  );
}

const buttonsOf = (form: Form) =>
  (form.buttons ?? []).map(({ name, label }) => ({ key: name, label }));

const pagesOf = (form: Form) => form.pages.map(({ name, title }) => ({ key: name, label: title }));

const rowsFieldsOf = (form: Form) =>
  fieldsOf(form).flatMap(({ kind, name, label }) =>
    kind === 'rows' ? [{ key: name, label }] : [],
  );

const functionsOf = (bench: Bench) =>
  servicesAsked(bench).flatMap((service) =>
    Object.keys(service.functions).map((name) => ({
      key: `${service.name}.${name}`,
      label: `${service.name}.${name}`,
    })),
  );

/** `cargo[2]` as its field and its place. */
function rowAt(address: string): [field: string, place: number] {
  const [, field = address, place = '0'] = /^(\w+)\[(\d+)\]/.exec(address) ?? [];
  return [field, Number(place)];
}

/** The kinds of step that can be added, each with what it is at first; null where the form has no part for it. */
const KINDS: readonly {
  key: string;
  label: string;
  first: (form: Form, bench: Bench) => Step | null;
}[] = [
  {
    key: 'set',
    label: 'set a field',
    first: (form) => onFirst(namedParts(form, 'values'), (set) => ({ set, to: null })),
  },
  {
    key: 'input',
    label: 'type into a field',
    first: (form) =>
      onFirst(
        fieldsOf(form).flatMap(({ kind, name }) => (kind === 'text' ? [{ key: name }] : [])),
        (input) => ({ input, to: null }),
      ),
  },
  {
    key: 'click',
    label: 'press a button',
    first: (form) => onFirst(buttonsOf(form), (click) => ({ click })),
  },
  { key: 'submit', label: 'submit', first: () => ({ submit: true }) },
  { key: 'wait', label: 'wait', first: () => ({ wait: 1000 }) },
  {
    key: 'addRow',
    label: 'add a row',
    first: (form) => onFirst(rowsFieldsOf(form), (addRow) => ({ addRow })),
  },
  {
    key: 'removeRow',
    label: 'remove a row',
    first: (form) => onFirst(rowsFieldsOf(form), (field) => ({ removeRow: `${field}[0]` })),
  },
  {
    key: 'moveRow',
    label: 'move a row',
    first: (form) => onFirst(rowsFieldsOf(form), (field) => ({ moveRow: `${field}[0]`, to: 1 })),
  },
  {
    key: 'turnTo',
    label: 'turn to a page',
    first: (form) => (form.pages.length < 2 ? null : { turnTo: form.pages.at(-1)!.name }),
  },
  {
    key: 'answer',
    label: 'answer a service by hand',
    first: (_, bench) => onFirst(functionsOf(bench), (answer) => ({ answer, with: null })),
  },
  { key: 'next', label: 'next record', first: () => ({ next: true }) },
  { key: 'previous', label: 'previous record', first: () => ({ previous: true }) },
];

function onFirst(options: readonly { key: string }[], make: (key: string) => Step): Step | null {
  const [first] = options;
  return first === undefined ? null : make(first.key);
}

export function AddStep({
  bench,
  label = 'Add a step',
  onAdd,
}: {
  bench: Bench;
  label?: string;
  onAdd: (step: ScenarioStep) => void;
}) {
  const form = useMaterial(bench).form;
  return (
    <Select
      aria-label={label}
      value=""
      options={[
        { key: '', label: '+ add a step' },
        ...KINDS.filter(({ first }) => first(form, bench) !== null),
      ]}
      onChange={(event) => {
        const kind = KINDS.find(({ key }) => key === event.target.value);
        const step = kind?.first(form, bench) ?? null;
        if (step !== null) onAdd(step);
      }}
    />
  );
}
