'use client';
/** How one part is defined, to be read and changed: its words, its limits, its options, its technical name, its removal. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState, type ReactNode } from 'react';
import { useStore } from 'zustand';
import type { FieldKind, LaunchParameter, Option } from '@/core/form/definition';
import { kindInWords } from '@/core/form/in-words';
import { placeOf, type PartName } from '@/core/structure/edit';
import { get } from '../api';
import { Button, countInWords, Labelled, Line, Mono, Notice, Select } from '../kit';
import type { BenchMaterial, BenchStore, Renaming } from './store';

type Draft = Record<string, unknown>;

export function Definition({ bench, part }: { bench: BenchStore; part: PartName }) {
  const { material } = useStore(bench.store);
  const place = placeOf(material.form, part);
  if (place === null) return <Box color="soft">This part is gone.</Box>;
  const definition = place.definition as unknown as Draft;
  const change = (to: Draft) => bench.editStructure({ do: 'change', part, to });
  const kind = (definition.kind as string | undefined) ?? place.sort;
  const sections = material.form.pages.flatMap((page) =>
    page.sections.map((section) => ({ key: section.name, label: section.title })),
  );
  const pages = material.form.pages.map((page) => ({ key: page.name, label: page.title }));
  const targets = place.sort === 'field' ? sections : place.sort === 'section' ? pages : [];
  const shared = { definition, change };
  const isField = place.sort === 'field' || place.sort === 'cell';
  return (
    <Flex direction="column" gap="8px" fontSize="13.5px">
      <Flex align="baseline" gap="8px">
        <chakra.h2 fontSize="15px" fontWeight={640}>
          {(definition.label ?? definition.title) as string}
        </chakra.h2>
        <chakra.span color="soft">
          {isField
            ? kindInWords(place.definition as never)
            : place.sort === 'list'
              ? 'list of records'
              : place.sort}
        </chakra.span>
      </Flex>
      <Rename bench={bench} part={part} />
      <Text
        {...shared}
        name={'label' in definition ? 'label' : 'title'}
        label={'label' in definition ? 'Label' : 'Title'}
        needed
      />
      {isField && <Text {...shared} name="help" label="Help, below the field" />}
      {isField && <Text {...shared} name="hint" label="Hint, until a script says another" />}
      {isField && <Text {...shared} name="warning" label="Warning, until a script says another" />}
      <Flex gap="14px" wrap="wrap">
        {place.sort !== 'track' && place.sort !== 'list' && (
          <Tick {...shared} name="locked" label="locked from the start" />
        )}
        {place.sort !== 'list' && <Tick {...shared} name="hidden" label="hidden from the start" />}
        {isField && <Tick {...shared} name="required" label="required" />}
        {isField && <Tick {...shared} name="scriptOnly" label="only scripts write it" />}
        {(isField || place.sort === 'section') && (
          <Tick {...shared} name="keepsSpace" label="keeps its space" />
        )}
      </Flex>
      {isField && (
        <Flex gap="10px" wrap="wrap">
          <Choice
            {...shared}
            name="whenHidden"
            label="When hidden"
            options={[
              ['', 'keeps its value'],
              ['omit', 'is left out'],
              ['clear', 'is cleared'],
            ]}
          />
          <Choice
            {...shared}
            name="width"
            label="Width"
            options={[
              ['', 'full'],
              ['half', 'one column'],
            ]}
          />
        </Flex>
      )}
      <KindOfDefinition
        kind={kind}
        shared={shared}
        tables={material.tables.map(({ name, title }) => [name, title])}
      />
      {(kind === 'choice' || kind === 'choices') && (
        <Options
          bench={bench}
          part={part}
          list="options"
          options={definition.options as Option[]}
          title="Options"
        />
      )}
      {kind === 'track' && (
        <Options
          bench={bench}
          part={part}
          list="stages"
          options={definition.stages as Option[]}
          title="Stages"
        />
      )}
      {kind === 'list' && <ListOfRecords {...shared} others={material.others} />}
      {(kind === 'button' || kind === 'list') && (
        <Choice
          {...shared}
          name="section"
          label="Stands in"
          options={[
            ['', 'the foot of the form'],
            ...sections.map(({ key, label }): [string, string] => [key, label]),
          ]}
        />
      )}
      {targets.length > 1 && (
        <Labelled label="Move to">
          <Select
            value={place.into ?? ''}
            options={targets}
            onChange={(event) =>
              bench.editStructure({
                do: 'move',
                part,
                into: event.target.value,
                at: Number.MAX_SAFE_INTEGER,
              })
            }
          />
        </Labelled>
      )}
      <Remove bench={bench} part={part} />
    </Flex>
  );
}

/** What is said of the form as a whole, while no part is chosen. */
export function FormDefinition({ bench }: { bench: BenchStore }) {
  const { form } = useStore(bench.store).material;
  const settings = form.settings ?? {};
  const commitLimit = (text: string) => {
    const limit = text.trim() === '' ? undefined : Number(text);
    const { runLimit: _, ...rest } = settings;
    return bench.editStructure({
      do: 'changeForm',
      settings: limit === undefined ? rest : { ...rest, runLimit: limit },
    });
  };
  return (
    <Flex direction="column" gap="8px" fontSize="13.5px">
      <Box color="soft">Choose a part to see and change how it is defined.</Box>
      <Committed
        label="Title of the form"
        value={form.title}
        onCommit={(title) =>
          title.trim() !== '' && bench.editStructure({ do: 'changeForm', title })
        }
      />
      <Committed
        label="How often one handler or rule may run in a step (100)"
        width="100px"
        value={settings.runLimit === undefined ? '' : String(settings.runLimit)}
        onCommit={commitLimit}
      />
      <chakra.label display="flex" gap="6px" alignItems="center">
        <input
          type="checkbox"
          checked={settings.checkPages !== false}
          onChange={(event) => {
            const { checkPages: _, ...rest } = settings;
            bench.editStructure({
              do: 'changeForm',
              settings: event.target.checked ? rest : { ...rest, checkPages: false },
            });
          }}
        />
        a page is checked when it is left
      </chakra.label>
      <LaunchParameters bench={bench} parameters={form.launch ?? []} />
    </Flex>
  );
}

const LAUNCH_KINDS = [
  { key: 'text', label: 'text' },
  { key: 'number', label: 'number' },
  { key: 'date', label: 'date' },
  { key: 'yes_no', label: 'yes or no' },
];

/** What whoever opens the form may hand over, with the kinds that scripts have them in. */
function LaunchParameters({
  bench,
  parameters,
}: {
  bench: BenchStore;
  parameters: readonly LaunchParameter[];
}) {
  const [name, setName] = useState('');
  const put = (launch: readonly LaunchParameter[]) =>
    bench.editStructure({
      do: 'changeForm',
      launch: launch.length === 0 ? undefined : [...launch],
    });
  const add = () => {
    if (name.trim() !== '' && put([...parameters, { name: name.trim(), kind: 'text' }]))
      setName('');
  };
  return (
    <chakra.fieldset>
      <chakra.legend fontWeight={620}>Launch parameters</chakra.legend>
      <Box color="soft" fontSize="12.5px">
        Scripts have them as form.launch.name. One that is not declared here is a text.
      </Box>
      {parameters.map((parameter, i) => (
        <Flex key={parameter.name} gap="8px" mt="4px" align="end" wrap="wrap">
          <Committed
            label={parameter.name}
            width="150px"
            value={parameter.label ?? ''}
            onCommit={(label) =>
              put(
                parameters.map((other, j) =>
                  i === j
                    ? { ...other, label: label.trim() === '' ? undefined : label.trim() }
                    : other,
                ),
              )
            }
          />
          <Select
            aria-label={`Kind of ${parameter.name}`}
            value={parameter.kind}
            options={LAUNCH_KINDS}
            onChange={({ target }) =>
              put(
                parameters.map((other, j) =>
                  i === j ? { ...other, kind: target.value as LaunchParameter['kind'] } : other,
                ),
              )
            }
          />
          <Button
            look="text"
            color="soft"
            aria-label={`Remove ${parameter.name}`}
            onClick={() => put(parameters.filter((other) => other !== parameter))}
          >
            remove
          </Button>
        </Flex>
      ))}
      <Flex gap="8px" mt="6px">
        <Line
          aria-label="Name of a new launch parameter"
          placeholder="technical_name"
          fontFamily="mono"
          width="150px"
          value={name}
          onChange={(event) => setName(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && add()}
        />
        <Button disabled={name.trim() === ''} onClick={add}>
          Add
        </Button>
      </Flex>
    </chakra.fieldset>
  );
}

/** A list of records: of which form, by which of its fields, showing which. */
function ListOfRecords({
  definition,
  change,
  others,
}: {
  definition: Draft;
  change: (to: Draft) => void;
  others: BenchMaterial['others'];
}) {
  const other = others.find(({ name }) => name === definition.form);
  const fields = (other?.fields ?? []).map(({ key, label }): [string, string] => [key, label]);
  const columns = definition.columns as string[];
  return (
    <Flex direction="column" gap="8px">
      <Labelled label="Records of">
        <Select
          value={definition.form as string}
          options={others.map(({ name, title }) => ({ key: name, label: title }))}
          onChange={({ target }) => {
            const first = others.find(({ name }) => name === target.value)?.fields[0]?.key;
            if (first !== undefined) change({ form: target.value, field: first, columns: [first] });
          }}
        />
      </Labelled>
      <Choice
        definition={definition}
        change={change}
        name="field"
        label="whose field holds the id of this record"
        options={fields}
      />
      <Text
        definition={definition}
        change={change}
        name="launch"
        label="Launch parameter that hands it to a new one"
        mono
        needed
      />
      <chakra.fieldset>
        <chakra.legend color="soft" fontSize="12.5px">
          Columns
        </chakra.legend>
        {fields.map(([key, label]) => (
          <chakra.label key={key} display="flex" gap="6px" alignItems="center">
            <input
              type="checkbox"
              checked={columns.includes(key)}
              disabled={columns.length === 1 && columns[0] === key}
              onChange={({ target }) =>
                change({
                  columns: target.checked
                    ? [...columns, key]
                    : columns.filter((column) => column !== key),
                })
              }
            />
            {label}
          </chakra.label>
        ))}
      </chakra.fieldset>
    </Flex>
  );
}

interface LimitProps {
  kind: string;
  shared: { definition: Draft; change: (to: Draft) => void };
  tables: [string, string][];
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

function KindOfDefinition(props: LimitProps) {
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
  return (
    <Flex gap="10px" wrap="wrap">
      <Text {...shared} name="min" label="Not before" mono />
      <Text {...shared} name="max" label="Not after" mono />
      {kind === 'time' && numeric(shared, 'step', 'Every so many minutes')}
      <Text {...shared} name="default" label="Default" mono />
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
  return <YesNoDefault {...shared} />;
}

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
      <Text {...shared} name="default" label="Default (key)" mono />
    </Flex>
  );
}

function ChoicesLimits({ shared }: LimitProps) {
  return (
    <Flex gap="10px" wrap="wrap">
      {numeric(shared, 'minCount', 'Choose at least')}
      {numeric(shared, 'maxCount', 'Choose at most')}
    </Flex>
  );
}

function ReferenceLimits({ shared, tables }: LimitProps) {
  return (
    <Flex gap="10px" wrap="wrap">
      <Choice {...shared} name="table" label="Table" options={tables} />
      <Choice
        {...shared}
        name="display"
        label="Shown as"
        options={[
          ['', 'what suits its length'],
          ['list', 'list'],
          ['search', 'search'],
        ]}
      />
    </Flex>
  );
}

function FileLimits({ shared }: LimitProps) {
  return (
    <Flex gap="10px" wrap="wrap">
      {numeric(shared, 'maxFiles', 'Files at most')}
      {numeric(shared, 'maxBytes', 'Bytes of each at most')}
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
  return <Text {...shared} name="stage" label="Stage it begins at (key)" mono />;
}

interface Shared {
  definition: Draft;
  change: (to: Draft) => void;
  name: string;
  label: string;
}

/** A line that is taken over when it is left or Enter is pressed; what is refused is put back. */
function Committed({
  label,
  value,
  mono,
  width,
  onCommit,
}: {
  label: string;
  value: string;
  mono?: boolean;
  width?: string;
  onCommit: (text: string) => boolean;
}) {
  const [text, setText] = useState<string | null>(null);
  const commit = () => {
    if (text !== null && text !== value) onCommit(text);
    setText(null);
  };
  return (
    <Labelled label={label}>
      <Line
        width={width ?? '100%'}
        fontFamily={mono ? 'mono' : undefined}
        value={text ?? value}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit();
          if (event.key === 'Escape') setText(null);
        }}
      />
    </Labelled>
  );
}

function Text({
  definition,
  change,
  name,
  label,
  needed,
  mono,
}: Shared & { needed?: boolean; mono?: boolean }) {
  const commit = (text: string) => {
    if (needed && text.trim() === '') return false;
    change({ [name]: text === '' ? undefined : text });
    return true;
  };
  return (
    <Committed
      label={label}
      value={(definition[name] as string | undefined) ?? ''}
      {...(mono ? { mono, width: '170px' } : {})}
      onCommit={commit}
    />
  );
}

function NumberLine({ definition, change, name, label }: Shared) {
  const commit = (text: string) => {
    const number = Number(text.replace(',', '.'));
    if (text.trim() !== '' && !Number.isFinite(number)) return false;
    change({ [name]: text.trim() === '' ? undefined : number });
    return true;
  };
  return (
    <Committed
      label={label}
      value={definition[name] === undefined ? '' : String(definition[name])}
      width="100px"
      onCommit={commit}
    />
  );
}

function Tick({ definition, change, name, label }: Shared) {
  return (
    <chakra.label display="flex" gap="6px" alignItems="center">
      <input
        type="checkbox"
        checked={definition[name] === true}
        onChange={(event) => change({ [name]: event.target.checked ? true : undefined })}
      />
      {label}
    </chakra.label>
  );
}

function Choice({
  definition,
  change,
  name,
  label,
  options,
}: Shared & { options: readonly (readonly [string, string])[] }) {
  return (
    <Labelled label={label}>
      <Select
        value={(definition[name] as string | undefined) ?? ''}
        options={options.map(([key, text]) => ({ key, label: text }))}
        onChange={(event) =>
          change({ [name]: event.target.value === '' ? undefined : event.target.value })
        }
      />
    </Labelled>
  );
}

function YesNoDefault({ definition, change }: Omit<Shared, 'name' | 'label'>) {
  const value = definition.default === undefined ? '' : definition.default === true ? 'yes' : 'no';
  return (
    <Labelled label="Default">
      <Select
        value={value}
        options={[
          { key: '', label: 'untouched' },
          { key: 'yes', label: 'yes' },
          { key: 'no', label: 'no' },
        ]}
        onChange={({ target }) =>
          change({ default: target.value === '' ? undefined : target.value === 'yes' })
        }
      />
    </Labelled>
  );
}

interface KeyUses {
  mentions: { behaviour: string; line: number; text: string }[];
  scenarios: string[];
  records: { count: number; more: boolean };
}

type OptionsEdit = (now: readonly Option[]) => Option[];

/** Keys and labels apart: the label is free to change, a key that is in use warns before it does. Each change is made to the options as they are when it is taken over, so that none undoes another. */
function Options({
  bench,
  part,
  list,
  options,
  title,
}: {
  bench: BenchStore;
  part: PartName;
  list: 'options' | 'stages';
  options: readonly Option[];
  title: string;
}) {
  const [pending, setPending] = useState<{ key: string; says: string; edit: OptionsEdit } | null>(
    null,
  );
  const form = useStore(bench.store).material.form.name;
  const apply = (edit: OptionsEdit) => {
    const now = placeOf(bench.store.getState().material.form, part)?.definition as
      Record<string, unknown> | undefined;
    if (now !== undefined)
      bench.editStructure({
        do: 'change',
        part,
        to: { [list]: edit((now[list] ?? []) as readonly Option[]) },
      });
  };
  /** Takes a change of keys over when nothing uses the key; else asks first. */
  const guarded = async (key: string, edit: OptionsEdit) => {
    const reply = await get<KeyUses>(
      `/api/forms/${form}/uses?${new URLSearchParams({ part, key }).toString()}`,
    );
    const places = reply.ok ? inUse(reply.body) : 'It could not be looked up whether it is in use.';
    if (places === '') apply(edit);
    else setPending({ key, says: places, edit });
  };
  const put =
    (key: string, changes: Partial<Option>): OptionsEdit =>
    (now) =>
      now.map((other) => (other.key === key ? { ...other, ...changes } : other));
  const moved =
    (key: string, by: number): OptionsEdit =>
    (now) => {
      const at = now.findIndex((other) => other.key === key);
      const next = [...now];
      if (at < 0 || at + by < 0 || at + by >= now.length) return next;
      const [taken] = next.splice(at, 1);
      next.splice(at + by, 0, taken!);
      return next;
    };
  const small = {
    look: 'text',
    color: 'soft',
    px: '4px',
    minW: '24px',
    minH: '24px',
    textDecoration: 'none',
  } as const;
  return (
    <chakra.fieldset borderTopWidth="1px" borderColor="line" pt="6px">
      <chakra.legend fontWeight={620} pr="6px">
        {title}
      </chakra.legend>
      {options.map((option, i) => (
        <Flex key={`${option.key}-${i}`} gap="6px" align="end">
          <Box flex="1">
            <Committed
              label={i === 0 ? 'Label' : ''}
              value={option.label}
              onCommit={(label) => label.trim() !== '' && (apply(put(option.key, { label })), true)}
            />
          </Box>
          <Box width="130px">
            <Committed
              label={i === 0 ? 'Key' : ''}
              mono
              value={option.key}
              onCommit={(key) =>
                key.trim() !== '' &&
                (void guarded(option.key, put(option.key, { key: key.trim() })), true)
              }
            />
          </Box>
          <Button
            {...small}
            aria-label={`${option.label} up`}
            disabled={i === 0}
            onClick={() => apply(moved(option.key, -1))}
          >
            ↑
          </Button>
          <Button
            {...small}
            aria-label={`${option.label} down`}
            disabled={i === options.length - 1}
            onClick={() => apply(moved(option.key, 1))}
          >
            ↓
          </Button>
          <Button
            {...small}
            aria-label={`Remove ${option.label}`}
            disabled={options.length === 1}
            onClick={() =>
              void guarded(option.key, (now) => now.filter((other) => other.key !== option.key))
            }
          >
            ×
          </Button>
        </Flex>
      ))}
      {pending !== null && (
        <Notice tone="warning">
          The key <Mono>{pending.key}</Mono> is in use. {pending.says}
          <Flex gap="8px" mt="4px">
            <Button
              onClick={() => {
                apply(pending.edit);
                setPending(null);
              }}
            >
              Change it all the same
            </Button>
            <Button onClick={() => setPending(null)}>Leave it</Button>
          </Flex>
        </Notice>
      )}
      <Button
        mt="6px"
        onClick={() =>
          apply((now) => [
            ...now,
            { key: freeKey(now), label: `New ${list === 'stages' ? 'stage' : 'option'}` },
          ])
        }
      >
        Add one
      </Button>
    </chakra.fieldset>
  );
}

function freeKey(options: readonly Option[]): string {
  for (let i = options.length + 1; ; i++)
    if (!options.some(({ key }) => key === `key_${i}`)) return `key_${i}`;
}

function inUse({ mentions, scenarios, records }: KeyUses): string {
  const places = [
    ...mentions.slice(0, 4).map(({ behaviour, line }) => `${behaviour}, line ${line}`),
    ...scenarios.slice(0, 3).map((title) => `scenario “${title}”`),
    ...(records.count > 0 ? [countInWords(records)] : []),
  ];
  return places.length === 0 ? '' : `${places.join('; ')}.`;
}

/** With a capital letter, as at the start of a sentence. */
const sentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** The technical name, and renaming it everywhere after a look at what will change. */
function Rename({ bench, part }: { bench: BenchStore; part: PartName }) {
  const [to, setTo] = useState<string | null>(null);
  const [preview, setPreview] = useState<Renaming | null>(null);
  const [says, setSays] = useState<string | null>(null);
  const bare = part.split('.').at(-1)!;
  const ask = async (apply: boolean) => {
    const reply = await bench.rename(part, to!.trim(), apply);
    if ('says' in reply) {
      setSays(reply.says);
      return;
    }
    setSays(null);
    setPreview(reply);
    // Scripts, scenarios and records have changed with the form: all of it is read anew.
    if (reply.applied) location.reload();
  };
  if (to === null) {
    return (
      <Flex gap="8px" align="baseline">
        <Mono>{part}</Mono>
        <Button look="text" onClick={() => setTo(bare)}>
          rename
        </Button>
      </Flex>
    );
  }
  return (
    <Box borderWidth="1px" borderColor="line" borderRadius="4px" p="8px">
      <Flex gap="6px" align="end" wrap="wrap">
        <Labelled label="New technical name">
          <Line
            autoFocus
            fontFamily="mono"
            width="180px"
            value={to}
            onChange={(event) => {
              setTo(event.target.value);
              setPreview(null);
            }}
            onKeyDown={(event) => {
              if (event.key === 'Enter') void ask(false);
            }}
          />
        </Labelled>
        <Button disabled={to.trim() === bare || to.trim() === ''} onClick={() => void ask(false)}>
          Show what changes
        </Button>
        <Button
          onClick={() => {
            setTo(null);
            setPreview(null);
            setSays(null);
          }}
        >
          Cancel
        </Button>
      </Flex>
      {says !== null && (
        <Box mt="6px">
          <Notice tone="error">{says}</Notice>
        </Box>
      )}
      {preview !== null && !preview.applied && (
        <Box mt="8px" role="region" aria-label="What renaming changes">
          {preview.plan.behaviours.map((behaviour) => (
            <Box key={`${behaviour.form}/${behaviour.name}`} mb="4px">
              <chakra.b fontWeight={620}>{behaviour.title}</chakra.b>
              {behaviour.lines.map(({ line, before, after }) => (
                <Box
                  key={line}
                  fontFamily="mono"
                  fontSize="12px"
                  whiteSpace="pre-wrap"
                  overflowWrap="anywhere"
                >
                  <chakra.span color="soft">{String(line).padStart(4)} </chakra.span>
                  <chakra.del color="bad">{before}</chakra.del>
                  {'\n     '}
                  <chakra.ins color="act" textDecoration="none">
                    {after}
                  </chakra.ins>
                </Box>
              ))}
            </Box>
          ))}
          <Box>
            {preview.plan.scenarios.length === 0
              ? 'No scenario names it.'
              : `Scenarios: ${preview.plan.scenarios.map(({ title }) => title).join('; ')}.`}
          </Box>
          <Box>
            {preview.records.count === 0
              ? 'No record holds it.'
              : `${sentence(countInWords(preview.records))} will hold it under the new name.`}
          </Box>
          {preview.plan.forms.length > 1 && (
            <Box>Definitions: {preview.plan.forms.join(', ')}.</Box>
          )}
          {preview.plan.mentions.length > 0 && (
            <Notice tone="warning" mt="4px">
              These texts read like the name and are left as they are:{' '}
              {preview.plan.mentions
                .map(({ behaviour, line }) => `${behaviour}, line ${line}`)
                .join('; ')}
              .
            </Notice>
          )}
          <Button look="go" mt="6px" onClick={() => void ask(true)}>
            Rename everywhere
          </Button>
        </Box>
      )}
    </Box>
  );
}

interface Uses {
  code: { form: string; behaviour: string; title: string; lines: number[] }[];
  scenarios: { title: string }[];
  lists: { list: string }[];
}

/** Removing shows first which behaviours and scenarios would break. */
function Remove({ bench, part }: { bench: BenchStore; part: PartName }) {
  const [uses, setUses] = useState<Uses | 'asking' | 'unknown' | null>(null);
  const form = useStore(bench.store).material.form.name;
  const remove = () => {
    setUses(null);
    bench.editStructure({ do: 'remove', part });
  };
  const ask = async () => {
    setUses('asking');
    const response = await fetch(
      `/api/forms/${form}/uses?${new URLSearchParams({ part }).toString()}`,
    ).catch(() => null);
    const found = response?.ok === true ? ((await response.json()) as Uses) : null;
    if (found === null) setUses('unknown');
    else if (found.code.length === 0 && found.scenarios.length === 0 && found.lists.length === 0)
      remove();
    else setUses(found);
  };
  return (
    <Box borderTopWidth="1px" borderColor="line" pt="8px">
      <Button color="bad" disabled={uses === 'asking'} onClick={() => void ask()}>
        Remove this part
      </Button>
      {uses !== null && uses !== 'asking' && (
        <Notice tone="warning" mt="6px">
          {uses === 'unknown' ? (
            'It could not be looked up what uses this part.'
          ) : (
            <>
              Removing it breaks:
              <chakra.ul pl="16px">
                {uses.code.map((use) => (
                  <li key={`${use.form}/${use.behaviour}`}>
                    {use.title},{' '}
                    {use.lines.length === 1
                      ? `line ${use.lines[0]}`
                      : `lines ${use.lines.join(', ')}`}
                  </li>
                ))}
                {uses.scenarios.map(({ title }) => (
                  <li key={title}>scenario “{title}”</li>
                ))}
                {uses.lists.map(({ list }) => (
                  <li key={list}>the list “{list}”</li>
                ))}
              </chakra.ul>
            </>
          )}
          <Flex gap="8px" mt="4px">
            <Button onClick={remove}>Remove it all the same</Button>
            <Button onClick={() => setUses(null)}>Keep it</Button>
          </Flex>
        </Notice>
      )}
    </Box>
  );
}
