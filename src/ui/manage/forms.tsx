'use client';
/** The page of forms: how each stands, and what can be done with a form as a whole. */
import { counted } from '@/core/counted';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { addressHere, LinkHere, useAddress } from '../address';
import { useEffect, useState } from 'react';
import type { Person } from '@/core/form/table';
import { changesInWords, type FormRow, type RemovedForm } from '@/core/workspace/overview';
import { call } from '../api';
import { useWorkspaceCheck, type WorkspaceCheck } from '../check-workspace';
import { CutShort } from '../cut-short';
import {
  Anchor,
  BareButton,
  Button,
  Cell,
  countInWords,
  HeadCell,
  Labelled,
  Line,
  Mono,
  TextLink,
} from '../kit';
import { useDates } from '../writing';
import { SaidNotice, useAsking } from './use-change';
import { lazily } from '../lazily';
import { PageHead } from '../page-head';
import { useHeldWhilePressed } from '../press';
import { PersonSwitch } from '../person-switch';
import { FaultSearch } from './fault-search';
import { COLUMNS, firstBackwards, listed, type FormColumn, type Order } from './form-order';

const FormFrom = lazily<{ onMade: (name: string) => void }>(() =>
  import('./form-from').then((module) => module.FormFrom),
);

export interface FormsProps {
  workspace: string;
  people: Person[];
  person: string;
  forms: FormRow[];
  removed: RemovedForm[];
}

export function Forms({ workspace, people, person, removed, ...now }: FormsProps) {
  const forms = useHeldWhilePressed(now.forms);
  const [search, setSearch] = useState('');
  const [order, setOrder] = useState<Order>({ by: 'form', backwards: false });
  const [naming, setNaming] = useState<string | null>(null);
  const { said, setSaid, ask } = useAsking<{ name: string; title: string }>();
  const dates = useDates();
  const router = useRouter();
  const address = useAddress();
  const checking = useCheck(forms);
  const rows = listed(forms, search, order);
  const copy = async ({ name, title }: FormRow) => {
    const made = await ask<{ name: string }>('POST', `/api/forms/${name}/copies`, {
      title: `Copy of ${title}`.slice(0, 120),
    });
    if (made === null) return;
    setSaid({ tone: 'info', text: `${title} was copied. Give the copy a title of its own.` });
    setSearch('');
    setNaming(made.name);
  };
  const rename = async (name: string, title: string) => {
    if ((await ask('PUT', `/api/forms/${name}`, { title })) === null) return;
    setNaming(null);
  };
  const restore = async ({ name, title }: { name: string; title: string }) => {
    if ((await ask('POST', `/api/forms/${name}/restore`, {})) !== null)
      setSaid({ tone: 'info', text: `${title} is back.` });
  };
  const remove = async (row: FormRow) => {
    const gone = await ask('DELETE', `/api/forms/${row.name}?from=${row.revision}`);
    if (gone !== null) setSaid({ tone: 'info', text: `${row.title} was removed.`, undo: row });
  };
  return (
    <>
      <PageHead workspace={workspace} section="forms" title="Forms">
        <PersonSwitch people={people} person={person} />
      </PageHead>
      <Box as="main" px="16px" py="14px" maxW="1320px">
        <Flex gap="14px" align="end" wrap="wrap" mb="10px">
          {forms.length > 1 && (
            <Labelled label="Search">
              <Line
                type="search"
                width="220px"
                placeholder="title or technical name"
                value={search}
                onChange={(event) => setSearch(event.target.value)}
              />
            </Labelled>
          )}
          <NewForm empty={forms.length === 0} />
          <FormFrom onMade={(name) => router.push(addressHere(`/bench/${name}`))} />
          <Box color="soft" role="status" pb="4px" ml="auto">
            {checking.going
              ? (checking.says ??
                `Checking: ${checking.done} of ${Math.max(checking.of, forms.length)} forms…`)
              : search !== '' && `${rows.length} of ${forms.length} forms`}
          </Box>
          {forms.length > 0 && <FaultSearch />}
          {forms.length > 0 && (
            <Button
              look="text"
              disabled={checking.going && checking.says === null}
              onClick={checking.runAgain}
            >
              Run again
            </Button>
          )}
        </Flex>
        <CutShort forms={checking.over ? checking.cutShort : []} />
        <SaidNotice said={said} onUndo={(undo) => void restore(undo)} />
        {forms.length === 0 ? (
          <Box color="soft">
            This workspace has no form yet. Give the first one a title; it opens on the bench, where
            you add its fields and write its behaviours.
          </Box>
        ) : (
          <Box overflowX="auto">
            <chakra.table width="100%" minW="960px" borderCollapse="collapse">
              <chakra.caption srOnly>Forms of {workspace}</chakra.caption>
              <thead>
                <tr>
                  {COLUMNS.map((column) => (
                    <SortHead key={column} column={column} order={order} onOrder={setOrder} />
                  ))}
                  <HeadCell>
                    <chakra.span srOnly>Actions</chakra.span>
                  </HeadCell>
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={row.name}>
                    <Cell>
                      {naming === row.name ? (
                        <Title
                          first={row.title}
                          onTake={(title) => void rename(row.name, title)}
                          onDone={() => setNaming(null)}
                        />
                      ) : (
                        <TextLink href={`/bench/${row.name}`} strong>
                          {row.title}
                        </TextLink>
                      )}
                      <Mono as="div" color="soft">
                        {row.name}
                      </Mono>
                    </Cell>
                    <Cell>
                      <Check row={row} />
                    </Cell>
                    <Cell>
                      <LastRun row={row} />
                    </Cell>
                    <Cell>
                      <Released row={row} />
                    </Cell>
                    <Cell>
                      <TextLink href={`/records/${row.name}`}>{countInWords(row.records)}</TextLink>
                    </Cell>
                    <Cell>
                      {dates.day(row.touched.at)}
                      <Small>
                        {people.find(({ key }) => key === row.touched.by)?.name ?? row.touched.by}
                      </Small>
                    </Cell>
                    <Cell>
                      <Flex gap="4px" color="soft">
                        <Button
                          look="text"
                          aria-label={`Rename ${row.title}`}
                          onClick={() => setNaming(row.name)}
                        >
                          rename
                        </Button>
                        <Button
                          look="text"
                          aria-label={`Copy ${row.title}`}
                          onClick={() => void copy(row)}
                        >
                          copy
                        </Button>
                        <Button
                          look="text"
                          aria-label={`Remove ${row.title}`}
                          onClick={() => void remove(row)}
                        >
                          remove
                        </Button>
                        <Anchor
                          href={address(`/api/forms/${row.name}/json-schema`)}
                          download
                          aria-label={`JSON Schema of ${row.title}`}
                          title="A JSON Schema of what the form saves"
                        >
                          schema
                        </Anchor>
                      </Flex>
                    </Cell>
                  </tr>
                ))}
              </tbody>
            </chakra.table>
            {rows.length === 0 && <Box color="soft">No form is called that.</Box>}
          </Box>
        )}
        {removed.length > 0 && (
          <chakra.details mt="24px" color="soft">
            <chakra.summary cursor="pointer">
              {counted(removed.length, 'removed form')}
            </chakra.summary>
            {removed.map((form) => (
              <Box key={form.name} mt="4px">
                {form.title} <Mono>{form.name}</Mono>{' '}
                <Button
                  look="text"
                  aria-label={`Restore ${form.title}`}
                  onClick={() => void restore(form)}
                >
                  restore
                </Button>
              </Box>
            ))}
          </chakra.details>
        )}
      </Box>
    </>
  );
}

/** Checks what has changed since it was last checked, once, while the page is looked at. */
function useCheck(forms: readonly FormRow[]): WorkspaceCheck & { going: boolean } {
  const [needed, setNeeded] = useState(
    () =>
      !forms.every(
        ({ check, run, scenarios }) =>
          check?.current === true && (scenarios === 0 || run?.current === true),
      ),
  );
  const checking = useWorkspaceCheck(needed);
  const router = useRouter();
  useEffect(() => {
    if (checking.over) router.refresh();
    // What was cut short comes later.
  }, [checking.over, checking.cutShort.length]);
  return {
    ...checking,
    going: needed && !checking.over,
    runAgain: () => {
      setNeeded(true);
      checking.runAgain();
    },
  };
}

const HEADS: Readonly<Record<FormColumn, string>> = {
  form: 'Form',
  problems: 'Problems',
  scenarios: 'Scenarios, last run',
  release: 'Release',
  records: 'Records',
  touched: 'Last changed',
};

function SortHead({
  column,
  order,
  onOrder,
}: {
  column: FormColumn;
  order: Order;
  onOrder: (order: Order) => void;
}) {
  const isIt = order.by === column;
  return (
    <HeadCell
      // What comes when forms have been checked has room already.
      minW={column === 'problems' ? '130px' : column === 'scenarios' ? '150px' : undefined}
      aria-sort={!isIt ? 'none' : order.backwards ? 'descending' : 'ascending'}
    >
      <BareButton
        color={isIt ? 'ink' : 'soft'}
        title={`Sort by ${HEADS[column].toLowerCase()}`}
        onClick={() =>
          onOrder({
            by: column,
            backwards: isIt ? !order.backwards : firstBackwards(column),
          })
        }
      >
        {HEADS[column]}
        <span aria-hidden>{isIt ? (order.backwards ? ' ↓' : ' ↑') : ''}</span>
      </BareButton>
    </HeadCell>
  );
}

function Small({ children }: { children: React.ReactNode }) {
  return (
    <chakra.div color="soft" fontSize="12px">
      {children}
    </chakra.div>
  );
}

/** A title being changed: Enter takes it, Esc leaves it as it was. */
function Title({
  first,
  onTake,
  onDone,
}: {
  first: string;
  onTake: (title: string) => void;
  onDone: () => void;
}) {
  const [title, setTitle] = useState(first);
  const take = () => (title.trim() === first ? onDone() : title.trim() !== '' && onTake(title));
  return (
    <Flex gap="6px">
      <Line
        autoFocus
        aria-label={`Title of ${first}`}
        width="200px"
        maxLength={120}
        value={title}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setTitle(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') take();
          if (event.key === 'Escape') onDone();
        }}
      />
      <Button onClick={take}>Rename</Button>
    </Flex>
  );
}

/** Begins a form and goes to its structure. */
function NewForm({ empty }: { empty: boolean }) {
  const [title, setTitle] = useState('');
  const [says, setSays] = useState<string | null>(null);
  const router = useRouter();
  const add = async () => {
    if (title.trim() === '') return;
    const reply = await call<{ name: string }>('POST', '/api/forms', { title });
    if (reply.ok) router.push(addressHere(`/bench/${reply.body.name}?structure=first_field`));
    else setSays(reply.says);
  };
  return (
    <Flex gap="6px" align="end">
      <Labelled label="Title of a new form">
        <Line
          autoFocus={empty}
          width="220px"
          maxLength={120}
          value={title}
          onChange={(event) => setTitle(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && void add()}
        />
      </Labelled>
      <Button
        look={empty ? 'go' : 'plain'}
        disabled={title.trim() === ''}
        onClick={() => void add()}
      >
        New form
      </Button>
      {says !== null && <chakra.span color="bad">{says}</chakra.span>}
    </Flex>
  );
}

/** What the last check found, apart from scenarios. */
function Check({ row: { name, check, found: ofSearch } }: { row: FormRow }) {
  if (check === null) return <chakra.span color="soft">not checked yet</chakra.span>;
  const { errors, warnings, current } = check;
  const some = (count: number, what: string) => (count === 0 ? [] : [counted(count, what)]);
  const found = [...some(errors, 'error'), ...some(warnings, 'warning')].join(', ');
  return (
    <>
      {found === '' ? (
        <chakra.span color={current ? 'act' : 'soft'}>✓ no problems</chakra.span>
      ) : (
        <Anchor asChild color={errors > 0 ? 'bad' : 'said'}>
          <LinkHere href="/problems">
            {errors > 0 ? '×' : '!'} {found}
          </LinkHere>
        </Anchor>
      )}
      {!current && <Small>changed since</Small>}
      {ofSearch !== null && ofSearch.wrong > 0 && (
        <Box>
          <Anchor asChild color="bad">
            <LinkHere href={`/bench/${name}?faults=yes`}>
              × {counted(ofSearch.wrong, 'fault')} found
            </LinkHere>
          </Anchor>
          {!ofSearch.current && <Small>changed since</Small>}
        </Box>
      )}
    </>
  );
}

/** The outcome of the scenarios' last run, on the bench or by the check of the workspace. */
function LastRun({ row: { run, scenarios } }: { row: FormRow }) {
  const dates = useDates();
  if (scenarios === 0) return <chakra.span color="soft">none</chakra.span>;
  if (run === null) return <chakra.span color="soft">{scenarios}, not run yet</chakra.span>;
  const all = run.passed + run.failed;
  return (
    <>
      <chakra.span color={run.failed > 0 ? 'bad' : run.current ? 'act' : 'soft'}>
        {run.failed > 0 ? '×' : '✓'} {run.passed} of {all} passed
      </chakra.span>
      <Small>
        {dates.day(run.at)}
        {!run.current && ', changed since'}
        {run.coverage !== null && ` · ${run.coverage} % reached`}
      </Small>
    </>
  );
}

/** The newest release, and what changed since. */
function Released({ row: { name, release } }: { row: FormRow }) {
  const dates = useDates();
  if (release === null)
    return (
      <>
        <chakra.span color="soft">none yet</chakra.span>
        <Small>
          <TextLink href={`/bench/${name}`}>make one on the bench</TextLink>
        </Small>
      </>
    );
  const changed = release.changes === null ? '' : changesInWords(release.changes);
  return (
    <>
      {release.number}, {dates.day(release.createdAt)} ·{' '}
      <TextLink href={`/fill/${name}`}>fill in</TextLink>
      <Small>{changed === '' ? 'nothing changed since' : `changed since: ${changed}`}</Small>
      {changed !== '' && release.forPeople !== null && (
        <Box>
          <TextLink href={`/bench/${name}?changes=yes`}>
            {release.forPeople.count === 0
              ? 'nothing changed for people'
              : `${counted(release.forPeople.count, 'change')} for people`}
          </TextLink>
          {!release.forPeople.current && <Small>changed since</Small>}
        </Box>
      )}
    </>
  );
}
