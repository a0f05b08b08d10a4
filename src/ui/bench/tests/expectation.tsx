'use client';
/** What a scenario expects at one place: a line for each aspect, changed in place, and what can be added. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Form } from '@/core/form/definition';
import type { Person, Table } from '@/core/form/table';
import type { Value } from '@/core/form/value';
import type { ExpectedAspect } from '@/core/scenario/aspects';
import type { Expectation, PartExpectation } from '@/core/scenario/definition';
import { aspectsOf, valueNow, withAspect } from '@/core/scenario/editing';
import { callsWaitedFor } from '@/core/scenario/expecting';
import { NOTHING_SEEN, type Seen } from '@/core/scenario/seen';
import type { Names } from '@/core/tape/words';
import { Button, Checkbox, Select } from '../../kit';
import { PartSelect } from './part-select';
import { entryOf, ValueInput } from './value-input';

/** What stands for nothing where an aspect cannot be null. */
const NOTHING: Readonly<Record<string, Value>> = { options: [], label: '' };

const WHOLE: readonly { key: string; label: string; now: (seen: Seen) => Value }[] = [
  { key: '@page', label: 'Page', now: (seen) => seen.page },
  {
    key: '@replaced',
    label: 'Message in place of the form',
    now: (seen) => seen.replaced?.text ?? null,
  },
  { key: '@notice', label: 'Message above the form', now: (seen) => seen.notice?.text ?? null },
  {
    key: '@submit',
    label: 'Submitting',
    now: ({ submit }): Value =>
      submit === null
        ? ({ saved: true } as Value)
        : {
            saved: submit.saved,
            stoppedBy: submit.stoppedBy,
            values: submit.values,
            without: submit.without,
          },
  },
  { key: '@messages', label: 'Messages', now: () => [] },
  { key: '@log', label: 'Log', now: () => [] },
  { key: '@waiting', label: 'Services waited for', now: callsWaitedFor },
  { key: '@errors', label: 'Errors', now: () => [] },
  { key: '@parent', label: 'Handed to the parent', now: () => [] },
];

export function ExpectationLines({
  form,
  tables,
  people,
  names,
  expect,
  seen,
  onChange,
}: {
  form: Form;
  tables: readonly Table[];
  people: readonly Person[];
  names: Names;
  expect: Expectation;
  /** The live form at this place, where it shows the scenario. */
  seen: Seen | null;
  onChange: (expect: Expectation, says: string) => void;
}) {
  const lines = Object.entries(expect).flatMap(([part, wanted]) =>
    part.startsWith('@')
      ? []
      : Object.entries(wanted as PartExpectation).map(([aspect, value]) => ({
          part,
          aspect,
          value: value as Value,
        })),
  );
  const whole = Object.entries(expect).filter(
    ([name]) => name.startsWith('@') && name !== '@nothingElse',
  );
  const { '@nothingElse': nothingElse, ...rest } = expect;
  return (
    <Box fontSize="13px">
      <chakra.span color="soft">expect</chakra.span>
      {lines.map(({ part, aspect, value }) => (
        <Flex key={`${part}.${aspect}`} gap="6px" align="center" wrap="wrap" pl="10px">
          <span>{names.part(part)}</span>
          <chakra.span color="soft">{aspect}</chakra.span>
          <ValueInput
            value={value}
            entry={entryOf(form, { tables, people }, part, aspect)}
            label={`${names.part(part)} ${aspect}`}
            onChange={(next) =>
              onChange(
                withAspect(expect, part, aspect, next ?? NOTHING[aspect] ?? null),
                'An expectation was changed',
              )
            }
          />
          <Button
            look="text"
            color="soft"
            aria-label={`Do not expect ${names.part(part)} ${aspect}`}
            onClick={() =>
              onChange(withAspect(expect, part, aspect, undefined), 'An expectation was removed')
            }
          >
            ×
          </Button>
        </Flex>
      ))}
      {whole.map(([name, value]) => (
        <Flex key={name} gap="6px" align="center" wrap="wrap" pl="10px">
          <span>{WHOLE.find(({ key }) => key === name)?.label ?? name.slice(1)}</span>
          <ValueInput
            value={value as Value}
            entry={entryOf(form, { tables, people }, name)}
            label={name.slice(1)}
            onChange={(next) =>
              onChange({ ...expect, [name]: next } as Expectation, 'An expectation was changed')
            }
          />
          <Button
            look="text"
            color="soft"
            aria-label={`Do not expect ${name.slice(1)}`}
            onClick={() => {
              const { [name]: _, ...others } = expect;
              onChange(others as Expectation, 'An expectation was removed');
            }}
          >
            ×
          </Button>
        </Flex>
      ))}
      <Flex gap="10px" align="center" wrap="wrap" pl="10px">
        <Checkbox
          label="nothing else changed"
          on={nothingElse === true}
          onSet={(on) =>
            onChange(
              (on ? { ...rest, '@nothingElse': true } : rest) as Expectation,
              'An expectation was changed',
            )
          }
        />
        <AddExpectation form={form} seen={seen} expect={expect} onChange={onChange} />
      </Flex>
    </Box>
  );
}

/** A part and an aspect, expected as it is now; or something of the form as a whole. */
function AddExpectation({
  form,
  seen,
  expect,
  onChange,
}: {
  form: Form;
  seen: Seen | null;
  expect: Expectation;
  onChange: (expect: Expectation, says: string) => void;
}) {
  const [adding, setAdding] = useState(false);
  const [part, setPart] = useState('');
  if (!adding)
    return (
      <Button look="text" fontSize="12.5px" onClick={() => setAdding(true)}>
        + expect …
      </Button>
    );
  const aspects =
    part === ''
      ? []
      : seen === null
        ? (['value', 'shown', 'locked', 'required'] as ExpectedAspect[])
        : aspectsOf(seen, form, part);
  const add = (next: Expectation) => {
    setAdding(false);
    setPart('');
    onChange(next, 'An expectation was added');
  };
  return (
    <Flex gap="6px" wrap="wrap" align="center">
      <PartSelect form={form} label="Part to expect" only="all" value={part} onChange={setPart} />
      {part !== '' && (
        <Select
          aria-label="Aspect to expect"
          value=""
          options={[
            { key: '', label: 'its …' },
            ...aspects.map((aspect) => ({ key: aspect, label: aspect })),
          ]}
          onChange={(event) => {
            const aspect = event.target.value as ExpectedAspect;
            const value =
              seen === null
                ? aspect === 'value'
                  ? null
                  : true
                : valueNow(seen, form, part, aspect);
            add(withAspect(expect, part, aspect, value));
          }}
        />
      )}
      <Select
        aria-label="Of the form as a whole"
        value=""
        options={[{ key: '', label: 'or of the form …' }, ...WHOLE]}
        onChange={(event) => {
          const whole = WHOLE.find(({ key }) => key === event.target.value);
          if (whole !== undefined)
            add({ ...expect, [whole.key]: whole.now(seen ?? NOTHING_SEEN) } as Expectation);
        }}
      />
      <Button look="text" onClick={() => setAdding(false)}>
        cancel
      </Button>
    </Flex>
  );
}
