'use client';
/** What only one kind of part has in its definition. */
import { chakra, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { FieldKind, Option } from '@/core/form/definition';
import type { Table } from '@/core/form/table';
import { Labelled, Select } from '../../kit';
import { Choice, Committed, NumberLine, Text, YesOrNo, type Shared } from './inputs';
import { useNumbers } from '../../writing';

interface LimitProps {
  kind: string;
  shared: Pick<Shared, 'definition' | 'change'>;
  tables: readonly Table[];
}

/** What only some kinds have. A kind of field that is missing here does not compile. */
const LIMITS: Readonly<Record<FieldKind | 'section' | 'track', (props: LimitProps) => ReactNode>> =
  {
    text: TextLimits,
    number: NumberLimits,
    money: NumberLimits,
    date: DateLimits,
    time: DateLimits,
    datetime: DateLimits,
    yes_no: YesNoLimits,
    choice: ChoiceLimits,
    choices: ChoicesLimits,
    reference: ReferenceLimits,
    file: FileLimits,
    rows: RowsLimits,
    section: SectionLimits,
    track: TrackLimits,
  };

/** What only this kind of part has. */
export function Limits(props: LimitProps) {
  return LIMITS[props.kind as keyof typeof LIMITS]?.(props) ?? null;
}

function numeric(shared: Pick<Shared, 'definition' | 'change'>, name: string, label: string) {
  return <NumberLine {...shared} name={name} label={label} />;
}

function TextLimits({ shared }: LimitProps) {
  return (
    <Flex gap="10px" wrap="wrap">
      {numeric(shared, 'lines', 'Lines')}
      <Choice
        {...shared}
        name="format"
        label="Format"
        options={[
          ['', 'none'],
          ['email', 'e-mail'],
          ['url', 'web address'],
          ['phone', 'telephone'],
          ['iban', 'IBAN'],
          ['imo', 'IMO number'],
          ['container', 'container'],
        ]}
      />
      {numeric(shared, 'minLength', 'At least, characters')}
      {numeric(shared, 'maxLength', 'At most, characters')}
      <Text {...shared} name="mask" label="Mask" mono />
      <Text {...shared} name="pattern" label="Pattern" mono />
      <Text {...shared} name="patternHelp" label="What the pattern asks for" />
      <Text {...shared} name="default" label="Default" />
      <Choice
        {...shared}
        name="defaultFrom"
        label="Default from"
        options={[
          ['', 'nothing'],
          ['person_name', 'the name of the person'],
          ['person_key', 'the key of the person'],
          ['person_role', 'the first role of the person'],
        ]}
      />
    </Flex>
  );
}

function NumberLimits({ kind, shared }: LimitProps) {
  return (
    <Flex gap="10px" wrap="wrap">
      {numeric(shared, 'min', 'At least')}
      {numeric(shared, 'max', 'At most')}
      {kind === 'number' && numeric(shared, 'step', 'In steps of')}
      {numeric(shared, 'decimals', 'Decimals')}
      <Text
        {...shared}
        name={kind === 'number' ? 'unit' : 'currency'}
        label={kind === 'number' ? 'Unit' : 'Currency'}
      />
      {numeric(shared, 'default', 'Default')}
    </Flex>
  );
}

function DateLimits({ kind, shared }: LimitProps) {
  // A moment has a zone, which the browser's own input does not let one say.
  const type = kind === 'datetime' ? {} : { type: kind };
  return (
    <Flex gap="10px" wrap="wrap">
      <Text {...shared} name="min" label="Not before" mono {...type} />
      <Text {...shared} name="max" label="Not after" mono {...type} />
      {kind === 'time' && numeric(shared, 'step', 'In steps of minutes')}
      <Text {...shared} name="default" label="Default" mono {...type} />
      <Choice
        {...shared}
        name="defaultFrom"
        label="Default from"
        options={[['', 'nothing'], kind === 'date' ? ['today', 'today'] : ['now', 'now']]}
      />
    </Flex>
  );
}

function YesNoLimits({ shared }: LimitProps) {
  return <YesOrNo {...shared} name="default" label="Default" unset="not answered" />;
}

const optionsOf = ({ definition }: LimitProps['shared']) =>
  ((definition.options ?? definition.stages ?? []) as Option[]).map(
    ({ key, label }): [string, string] => [key, label],
  );

function ChoiceLimits({ shared }: LimitProps) {
  return (
    <Flex gap="10px" wrap="wrap">
      <Choice
        {...shared}
        name="display"
        label="Shown as"
        options={[
          ['', 'list'],
          ['radios', 'radio buttons'],
        ]}
      />
      <YesOrNo
        {...shared}
        name="blank"
        label="Empty entry first"
        unset={shared.definition.display === 'radios' ? 'no, as usual' : 'yes, as usual'}
      />
      <Choice
        {...shared}
        name="default"
        label="Default"
        options={[['', 'none'], ...optionsOf(shared)]}
      />
    </Flex>
  );
}

function ChoicesLimits({ shared }: LimitProps) {
  const { definition, change } = shared;
  const chosen = (definition.default ?? []) as string[];
  return (
    <Flex gap="10px" wrap="wrap">
      {numeric(shared, 'minCount', 'Choose at least')}
      {numeric(shared, 'maxCount', 'Choose at most')}
      <chakra.fieldset>
        <chakra.legend color="soft" fontSize="12.5px">
          Default
        </chakra.legend>
        {optionsOf(shared).map(([key, label]) => (
          <chakra.label key={key} display="flex" gap="6px" alignItems="center">
            <input
              type="checkbox"
              checked={chosen.includes(key)}
              onChange={({ target }) => {
                const next = target.checked
                  ? [...chosen, key]
                  : chosen.filter((other) => other !== key);
                change({ default: next.length === 0 ? undefined : next });
              }}
            />
            {label}
          </chakra.label>
        ))}
      </chakra.fieldset>
    </Flex>
  );
}

/** Rows that a list of defaults offers; in a longer table the key is typed. */
const MOST_OFFERED = 500;

function ReferenceLimits({ shared, tables }: LimitProps) {
  const table = tables.find(({ name }) => name === shared.definition.table);
  const rows = table === undefined || table.rows.length > MOST_OFFERED ? null : table.rows;
  return (
    <Flex gap="10px" wrap="wrap">
      <Labelled label="Table">
        <Select
          value={shared.definition.table as string}
          options={tables.map(({ name, title }) => ({ key: name, label: title }))}
          // A default is a key of the former table.
          onChange={({ target }) => shared.change({ table: target.value, default: undefined })}
        />
      </Labelled>
      <Choice
        {...shared}
        name="display"
        label="Shown as"
        options={[
          ['', 'list, or search if it is long'],
          ['list', 'list'],
          ['search', 'search'],
        ]}
      />
      {table !== undefined && rows !== null ? (
        <Choice
          {...shared}
          name="default"
          label="Default"
          options={[
            ['', 'none'],
            ...rows.map((row): [string, string] => [
              String(row[table.key]),
              String(row[table.label] ?? row[table.key]),
            ]),
          ]}
        />
      ) : (
        <Text {...shared} name="default" label="Default, a key of the table" mono />
      )}
    </Flex>
  );
}

const MIB = 1024 * 1024;

function FileLimits({ shared }: LimitProps) {
  const { definition, change } = shared;
  const numbers = useNumbers();
  const most = definition.maxBytes as number | undefined;
  return (
    <Flex gap="10px" wrap="wrap" align="end">
      {numeric(shared, 'maxFiles', 'Files at most')}
      <Committed
        label="Size of each at most, in MiB"
        width="100px"
        value={most === undefined ? '' : numbers.show(Math.round((most / MIB) * 1000) / 1000)}
        onCommit={(text) => {
          if (text.trim() === '') return change({ maxBytes: undefined });
          const size = numbers.read(text);
          return size !== null && change({ maxBytes: Math.round(size * MIB) });
        }}
      />
      <Committed
        label="Types, such as application/pdf, image/*"
        mono
        width="300px"
        value={((definition.types ?? []) as string[]).join(', ')}
        onCommit={(text) => {
          const types = text
            .toLowerCase()
            .split(/[\s,;]+/)
            .filter((type) => type !== '');
          return change({ types: types.length === 0 ? undefined : types });
        }}
      />
    </Flex>
  );
}

function RowsLimits({ shared }: LimitProps) {
  return (
    <Flex gap="10px" wrap="wrap">
      <Choice
        {...shared}
        name="display"
        label="Shown as"
        options={[
          ['', 'grid'],
          ['stack', 'one under the other'],
        ]}
      />
      {numeric(shared, 'minRows', 'Rows at least')}
      {numeric(shared, 'maxRows', 'Rows at most')}
      <Text {...shared} name="addLabel" label="Button that adds one" />
    </Flex>
  );
}

function SectionLimits({ shared }: LimitProps) {
  return numeric(shared, 'columns', 'Columns');
}

function TrackLimits({ shared }: LimitProps) {
  return (
    <Choice
      {...shared}
      name="stage"
      label="Stage it begins at"
      options={[['', 'none'], ...optionsOf(shared)]}
    />
  );
}
