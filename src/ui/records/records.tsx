'use client';
/** The records of a form: searched, narrowed down, sorted by a column; of a million only those in view are drawn. */
import { counted } from '@/core/counted';
import { Box, Flex } from '@chakra-ui/react';
import { useQueryClient } from '@tanstack/react-query';
import { memo, useEffect, useRef, useState } from 'react';
import type { Field, Form } from '@/core/form/definition';
import { listedFields, narrowedBy } from '@/core/form/listing';
import { indexOf } from '@/core/form/table-index';
import type { Person, Table } from '@/core/form/table';
import {
  Anchor,
  BareButton,
  Button,
  countInWords,
  Labelled,
  Line,
  Notice,
  Region,
  TextLink,
} from '../kit';
import { useAddress } from '../address';
import { useDates } from '../writing';
import { PageHead } from '../page-head';
import { PersonSwitch } from '../person-switch';
import { Columns, columnsOf, useChosenColumns } from './columns';
import { lazily } from '../lazily';
import { Window } from '../window';
import type { BringInProps } from './bring-in';
import type { RecordHistoryProps } from './history';
import type { Around, NarrowProps } from './narrow';
import { useRecords, type ListQuery, type ListedRecord, type RecordPage } from './use-records';
import { isNumeric, textOf } from '@/core/form/traits';

/** Two limits, one under the other, since a day does not fit beside another. */
const isTall = (field: Field) => narrowedBy(field) === 'range' && !isNumeric(field);

const Narrow = lazily<NarrowProps>(
  () => import('./narrow').then((module) => module.Narrow),
  // As high as what comes, so that the rows below stay where they are.
  ({ field }) => <Box height={isTall(field) ? '50px' : '24px'} />,
);

const RecordHistory = lazily<RecordHistoryProps>(() =>
  import('./history').then((module) => module.RecordHistory),
);

const BringIn = lazily<BringInProps>(() => import('./bring-in').then((module) => module.BringIn));

export interface RecordsProps {
  title: string;
  people: Person[];
  person: string;
  form: Form;
  tables: Table[];
  first: RecordPage;
}

export function Records({ title, people, person, form, tables, first }: RecordsProps) {
  const listed = listedFields(form);
  const [chosen, choose] = useChosenColumns(form);
  const fields = columnsOf(form).filter(({ name }) => chosen.has(name));
  const [asked, setAsked] = useState<ListQuery>({});
  const [history, setHistory] = useState<ListedRecord | null>(null);
  const [bringing, setBringing] = useState(false);
  const client = useQueryClient();
  const view = useRecords(form.name, asked, first);
  const indexes = new Map(tables.map((table) => [table.name, indexOf(table)]));
  const dates = useDates();
  const around: Around = {
    options: null,
    table: (name) => indexes.get(name)!,
    dates: dates.style,
  };
  const put = (key: string, value: string) => setAsked((before) => ({ ...before, [key]: value }));
  const sort = asked.sort ?? '';
  const sortBy = (field: string) =>
    put('sort', sort === field ? `-${field}` : sort === `-${field}` ? '' : field);
  const narrowed = Object.entries(asked).some(([key, value]) => key !== 'sort' && value !== '');
  return (
    <>
      <PageHead
        workspace={title}
        section="records"
        title={form.title}
        form={{ name: form.name, room: 'records' }}
      >
        <PersonSwitch people={people} person={person} />
      </PageHead>
      <Box as="main" px="16px" py="14px">
        <Flex gap="12px" align="end" wrap="wrap">
          <Labelled label="Search">
            <Line
              type="search"
              width="210px"
              placeholder="number, or three letters"
              value={asked.search ?? ''}
              onChange={(event) => put('search', event.target.value)}
            />
          </Labelled>
          {narrowed && (
            <Button onClick={() => setAsked(sort === '' ? {} : { sort })}>Show all</Button>
          )}
          <Columns form={form} chosen={chosen} onChoose={choose} />
          <Downloads form={form.name} />
          <Button onClick={() => setBringing(true)}>Bring in…</Button>
          <Box color="soft" role="status" pb="4px">
            {view.loading && view.records.length === 0
              ? 'Searching…'
              : view.total !== null && countInWords(view.total)}
          </Box>
        </Flex>
        {view.says !== null && (
          <Box mt="8px">
            <Notice tone="warning">{view.says}</Notice>
          </Box>
        )}
        {!narrowed && !view.loading && view.records.length === 0 && (
          <Box mt="8px" color="soft">
            There is no record yet.{' '}
            <TextLink href={`/fill/${form.name}`}>Fill in the form</TextLink> to make the first;
            until it has a release, samples are made on the{' '}
            <TextLink href={`/bench/${form.name}`}>bench</TextLink>.
          </Box>
        )}
        <Grid
          form={form}
          fields={fields}
          listed={new Set(listed.map(({ name }) => name))}
          view={view}
          around={around}
          people={people}
          asked={asked}
          onPut={put}
          sort={sort}
          onSort={sortBy}
          onHistory={setHistory}
        />
      </Box>
      <Window open={bringing} onClose={() => setBringing(false)} size="md" stays>
        {bringing && (
          <BringIn
            form={form.name}
            title={form.title}
            onDone={(changed) => {
              setBringing(false);
              if (changed) void client.invalidateQueries({ queryKey: ['records', form.name] });
            }}
          />
        )}
      </Window>
      {history !== null && (
        <RecordHistory
          form={form}
          record={history}
          people={people}
          around={around}
          onDone={() => setHistory(null)}
        />
      )}
    </>
  );
}

const FORMATS = [
  ['csv', 'CSV'],
  ['json', 'JSON'],
  ['jsonl', 'JSON Lines'],
] as const;

/** All records as a file. */
function Downloads({ form }: { form: string }) {
  const address = useAddress();
  return (
    <Flex gap="8px" pb="4px" color="soft">
      Download all as
      {FORMATS.map(([as, name]) => (
        <Anchor key={as} href={address(`/api/forms/${form}/records/export?as=${as}`)} download>
          {name}
        </Anchor>
      ))}
    </Flex>
  );
}

interface GridProps {
  form: Form;
  fields: readonly Field[];
  /** Those by which it can be sorted and narrowed down. */
  listed: ReadonlySet<string>;
  view: ReturnType<typeof useRecords>;
  around: Around;
  people: readonly Person[];
  asked: ListQuery;
  onPut: (key: string, value: string) => void;
  sort: string;
  onSort: (field: string) => void;
  onHistory: (record: ListedRecord) => void;
}

const ROW_HEIGHT = 34;

function Grid({
  form,
  fields,
  listed,
  view,
  around,
  people,
  asked,
  onPut,
  sort,
  onSort,
  onHistory,
}: GridProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const { records, more, loadMore } = view;
  const end = useRef<HTMLDivElement>(null);
  // The next page is asked for before its place comes into view.
  useEffect(() => {
    if (!more) return;
    const seen = new IntersectionObserver(([entry]) => entry!.isIntersecting && loadMore(), {
      root: scroller.current,
      rootMargin: '1000px',
    });
    seen.observe(end.current!);
    return () => seen.disconnect();
  }, [more, records.length]);
  const width = `150px ${fields.map((field) => `minmax(${isTall(field) ? 128 : 110}px, 1fr)`).join(' ')} 170px`;
  const ordered = (field: Field) =>
    sort === field.name ? 'ascending' : sort === `-${field.name}` ? 'descending' : 'none';
  return (
    <Region
      ref={scroller}
      mt="6px"
      maxH="calc(100vh - 190px)"
      borderWidth="1px"
      borderColor="line"
      aria-label={`Records of ${form.title}`}
    >
      <Box
        role="table"
        aria-label={form.title}
        aria-rowcount={more ? -1 : records.length + 1}
        minW={`${320 + fields.length * 122}px`}
      >
        <Box role="rowgroup" position="sticky" top={0} bg="ground" zIndex={1}>
          <Box
            role="row"
            display="grid"
            gridTemplateColumns={width}
            gap="8px"
            px="8px"
            py="4px"
            borderBottomWidth="1px"
            borderColor="line"
            color="soft"
            fontSize="12px"
          >
            <Box role="columnheader">Record</Box>
            {fields.map((field) => (
              <Box role="columnheader" key={field.name} aria-sort={ordered(field)}>
                {listed.has(field.name) ? (
                  <BareButton
                    color={ordered(field) === 'none' ? 'soft' : 'ink'}
                    title={`Sort by ${field.label}`}
                    onClick={() => onSort(field.name)}
                  >
                    {field.label}
                    <span aria-hidden>
                      {ordered(field) === 'ascending'
                        ? ' ↑'
                        : ordered(field) === 'descending'
                          ? ' ↓'
                          : ''}
                    </span>
                  </BareButton>
                ) : (
                  field.label
                )}
                {listed.has(field.name) && (
                  <Narrow field={field} asked={asked} around={around} onPut={onPut} />
                )}
              </Box>
            ))}
            <Box role="columnheader">Saved</Box>
          </Box>
        </Box>
        <Box role="rowgroup">
          {records.map((record, i) => (
            <RecordRow
              key={record.id}
              place={i + 2}
              width={width}
              form={form.name}
              record={record}
              texts={fields.map((field) =>
                textOf(record.values[field.name] ?? null, field, around),
              )}
              savedBy={people.find(({ key }) => key === record.savedBy)?.name ?? record.savedBy}
              onHistory={onHistory}
            />
          ))}
          <div ref={end} />
        </Box>
      </Box>
    </Region>
  );
}

const CELL = {
  role: 'cell',
  overflow: 'hidden',
  textOverflow: 'ellipsis',
  whiteSpace: 'nowrap',
} as const;

interface RecordRowProps {
  place: number;
  width: string;
  form: string;
  record: ListedRecord;
  /** Its values as they read, column by column. */
  texts: readonly string[];
  savedBy: string;
  onHistory: (record: ListedRecord) => void;
}

/** One of the rows, which the browser draws when it comes into view. */
const RecordRow = memo(
  function RecordRow({ place, width, form, record, texts, savedBy, onHistory }: RecordRowProps) {
    const address = useAddress()(`/fill/${form}?record=${encodeURIComponent(record.id)}`);
    return (
      <Box
        role="row"
        aria-rowindex={place}
        display="grid"
        gridTemplateColumns={width}
        gap="8px"
        px="8px"
        py="6px"
        borderBottomWidth="1px"
        borderColor="line"
        height={`${ROW_HEIGHT}px`}
        contentVisibility="auto"
        containIntrinsicSize={`auto ${ROW_HEIGHT}px`}
      >
        <Box {...CELL}>
          {/* A plain link: the server hands out each opening afresh. */}
          <Anchor href={address}>{record.id}</Anchor>{' '}
          <Anchor
            color="soft"
            fontSize="12.5px"
            aria-label={`View record ${record.id}`}
            href={`${address}&view`}
          >
            view
          </Anchor>{' '}
          <Button
            look="text"
            color="soft"
            fontSize="12.5px"
            aria-label={`History of record ${record.id}`}
            onClick={() => onHistory(record)}
          >
            history
          </Button>
        </Box>
        {texts.map((text, i) => (
          <Box {...CELL} key={i}>
            {text}
          </Box>
        ))}
        <Box {...CELL} color="soft">
          {record.release === null ? 'sample' : `release ${record.release}`}, {savedBy}
          {record.recordings !== undefined && (
            <>
              {' · '}
              <TextLink href={`/recordings?form=${form}&record=${encodeURIComponent(record.id)}`}>
                {counted(record.recordings, 'recording')}
              </TextLink>
            </>
          )}
        </Box>
      </Box>
    );
  },
  (before, after) =>
    before.record === after.record &&
    before.place === after.place &&
    before.width === after.width &&
    before.savedBy === after.savedBy &&
    before.texts.join('\n') === after.texts.join('\n'),
);
