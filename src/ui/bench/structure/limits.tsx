'use client';
/** What only one kind of part has in its definition. */
import { Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { FieldKind, Option } from '@/core/form/definition';
import type { Table } from '@/core/form/table';
import { Checkboxes, Fieldset, Labelled, Select } from '../../kit';
import { useNumbers } from '../../writing';
import { Choice, Committed, NumberLine, Text, YesOrNo, type Shared } from './inputs';

interface LimitProps {
  shared: Pick<Shared, 'definition' | 'change'>;
  tables: readonly Table[];
}

/** The input for one property of a definition. */
type Limit = (props: LimitProps) => ReactNode;

const number =
  (name: string, label: string): Limit =>
  ({ shared }) => <NumberLine key={name} {...shared} name={name} label={label} />;

const text =
  (name: string, label: string, look: { mono?: boolean; type?: string } = {}): Limit =>
  ({ shared }) => <Text key={name} {...shared} {...look} name={name} label={label} />;

/** One of fixed values, each with what it is called, or of what the definition itself has. */
const choice =
  (
    name: string,
    label: string,
    values: Record<string, string> | ((shared: LimitProps['shared']) => [string, string][]),
  ): Limit =>
  ({ shared }) => (
    <Choice
      key={name}
      {...shared}
      name={name}
      label={label}
      options={typeof values === 'function' ? values(shared) : Object.entries(values)}
    />
  );

const optionsOf = ({ definition }: LimitProps['shared']) =>
  (definition.options ?? definition.stages ?? []) as Option[];

const anOption = (shared: LimitProps['shared']): [string, string][] => [
  ['', 'none'],
  ...optionsOf(shared).map(({ key, label }): [string, string] => [key, label]),
];

/** `type` is the browser's own input; there is none for a moment, which has a zone. */
const moments = (look: { type?: string }, from: string, more: readonly Limit[] = []) => [
  text('min', 'Not before', { mono: true, ...look }),
  text('max', 'Not after', { mono: true, ...look }),
  ...more,
  text('default', 'Default', { mono: true, ...look }),
  choice('defaultFrom', 'Default from', { '': 'nothing', [from]: from }),
];

/** What only some kinds have. A kind of field that is missing here does not compile. */
const LIMITS: Readonly<Record<FieldKind | 'section' | 'track', readonly Limit[]>> = {
  text: [
    number('lines', 'Lines'),
    choice('format', 'Format', {
      '': 'none',
      email: 'e-mail',
      url: 'web address',
      phone: 'telephone',
      iban: 'IBAN',
      imo: 'IMO number',
      container: 'container',
    }),
    number('minLength', 'At least, characters'),
    number('maxLength', 'At most, characters'),
    text('mask', 'Mask', { mono: true }),
    text('pattern', 'Pattern', { mono: true }),
    text('patternHelp', 'What the pattern asks for'),
    text('default', 'Default'),
    choice('defaultFrom', 'Default from', {
      '': 'nothing',
      person_name: 'the name of the person',
      person_key: 'the key of the person',
      person_role: 'the first role of the person',
    }),
  ],
  number: [
    number('min', 'At least'),
    number('max', 'At most'),
    number('step', 'In steps of'),
    number('decimals', 'Decimals'),
    text('unit', 'Unit'),
    number('default', 'Default'),
  ],
  money: [
    number('min', 'At least'),
    number('max', 'At most'),
    number('decimals', 'Decimals'),
    text('currency', 'Currency'),
    number('default', 'Default'),
  ],
  date: moments({ type: 'date' }, 'today'),
  time: moments({ type: 'time' }, 'now', [number('step', 'In steps of minutes')]),
  datetime: moments({}, 'now'),
  yes_no: [
    ({ shared }) => (
      <YesOrNo key="default" {...shared} name="default" label="Default" unset="not answered" />
    ),
  ],
  choice: [
    choice('display', 'Shown as', { '': 'list', radios: 'radio buttons' }),
    ({ shared }) => (
      <YesOrNo
        key="blank"
        {...shared}
        name="blank"
        label="Empty entry first"
        unset={shared.definition.display === 'radios' ? 'no, as usual' : 'yes, as usual'}
      />
    ),
    choice('default', 'Default', anOption),
  ],
  choices: [
    number('minCount', 'Choose at least'),
    number('maxCount', 'Choose at most'),
    ({ shared }) => (
      <Fieldset key="default" legend="Default">
        <Checkboxes
          options={optionsOf(shared)}
          chosen={(shared.definition.default ?? []) as string[]}
          onChoose={(keys) => shared.change({ default: keys.length === 0 ? undefined : keys })}
        />
      </Fieldset>
    ),
  ],
  reference: [
    (props) => <TableOfReference key="table" {...props} />,
    choice('display', 'Shown as', {
      '': 'list, or search if it is long',
      list: 'list',
      search: 'search',
    }),
    (props) => <DefaultOfReference key="default" {...props} />,
  ],
  file: [
    number('maxFiles', 'Files at most'),
    (props) => <LargestFile key="maxBytes" {...props} />,
    (props) => <FileTypes key="types" {...props} />,
  ],
  rows: [
    choice('display', 'Shown as', { '': 'grid', stack: 'one under the other' }),
    number('minRows', 'Rows at least'),
    number('maxRows', 'Rows at most'),
    text('addLabel', 'Button that adds one'),
  ],
  section: [number('columns', 'Columns')],
  track: [choice('stage', 'Stage it begins at', anOption)],
};

/** What only this kind of part has. */
export function Limits({ kind, ...props }: LimitProps & { kind: string }) {
  const limits = LIMITS[kind as keyof typeof LIMITS] as readonly Limit[] | undefined;
  return (
    limits !== undefined && (
      <Flex gap="10px" wrap="wrap" align="end">
        {limits.map((limit) => limit(props))}
      </Flex>
    )
  );
}

/** Rows that a list of defaults offers; in a longer table the key is typed. */
const MOST_OFFERED = 500;

function TableOfReference({ shared, tables }: LimitProps) {
  return (
    <Labelled label="Table">
      <Select
        value={shared.definition.table as string}
        options={tables.map(({ name, title }) => ({ key: name, label: title }))}
        // A default is a key of the former table.
        onChange={({ target }) => shared.change({ table: target.value, default: undefined })}
      />
    </Labelled>
  );
}

function DefaultOfReference({ shared, tables }: LimitProps) {
  const table = tables.find(({ name }) => name === shared.definition.table);
  if (table === undefined || table.rows.length > MOST_OFFERED)
    return <Text {...shared} name="default" label="Default, a key of the table" mono />;
  const rows = table.rows.map((row): [string, string] => [
    String(row[table.key]),
    String(row[table.label] ?? row[table.key]),
  ]);
  return <Choice {...shared} name="default" label="Default" options={[['', 'none'], ...rows]} />;
}

const MIB = 1024 * 1024;

function LargestFile({ shared: { definition, change } }: LimitProps) {
  const numbers = useNumbers();
  const most = definition.maxBytes as number | undefined;
  return (
    <Committed
      label="Size of each at most, in MiB"
      width="100px"
      value={most === undefined ? '' : numbers.show(Math.round((most / MIB) * 1000) / 1000)}
      onCommit={(written) => {
        if (written.trim() === '') return change({ maxBytes: undefined });
        const size = numbers.read(written);
        return size !== null && change({ maxBytes: Math.round(size * MIB) });
      }}
    />
  );
}

function FileTypes({ shared: { definition, change } }: LimitProps) {
  return (
    <Committed
      label="Types, such as application/pdf, image/*"
      mono
      width="300px"
      value={((definition.types ?? []) as string[]).join(', ')}
      onCommit={(written) => {
        const types = written
          .toLowerCase()
          .split(/[\s,;]+/)
          .filter((type) => type !== '');
        return change({ types: types.length === 0 ? undefined : types });
      }}
    />
  );
}
