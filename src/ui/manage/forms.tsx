'use client';
/** The workspace's forms: for each its behaviours, scenarios passed of all, newest release, records. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Person, Role } from '@/core/form/table';
import { call } from '../api';
import { Button, Cell, countInWords, Line, PageHead } from '../kit';
import { PersonSwitch } from '../person-switch';

export interface FormRow {
  name: string;
  title: string;
  behaviours: number;
  scenarios: number;
  /** How the scenarios came out when they were last run, and whether that still holds. */
  run: { passed: number; failed: number; at: string; current: boolean } | null;
  records: { count: number; more: boolean };
  release: { number: number; createdAt: string } | null;
}

export interface FormsProps {
  title: string;
  roles: Role[];
  people: Person[];
  person: string;
  tables: { name: string; title: string; rows: number }[];
  services: { name: string; title: string }[];
  forms: FormRow[];
}

export function Forms(props: FormsProps) {
  return (
    <>
      <PageHead trail={[{ label: props.title }]}>
        <PersonSwitch people={props.people} person={props.person} />
      </PageHead>
      <Box as="main" px="16px" py="14px" maxW="1100px">
        <chakra.table width="100%" borderCollapse="collapse">
          <chakra.caption textAlign="left" color="soft" pb="6px">
            {props.forms.length === 1 ? '1 form' : `${props.forms.length} forms`}
          </chakra.caption>
          <thead>
            <tr>
              {['Form', 'Behaviours', 'Scenarios', 'Newest release', 'Records'].map((head) => (
                <chakra.th
                  key={head}
                  textAlign="left"
                  fontWeight={400}
                  color="soft"
                  fontSize="12px"
                  pb="4px"
                  borderBottomWidth="1px"
                  borderColor="line"
                >
                  {head}
                </chakra.th>
              ))}
            </tr>
          </thead>
          <tbody>
            {props.forms.map((row) => {
              const { name, title } = row;
              return (
                <tr key={name}>
                  <Cell>
                    <Go href={`/bench/${name}`} strong>
                      {title}
                    </Go>
                    <chakra.div fontFamily="mono" fontSize="12px" color="soft">
                      {name}
                    </chakra.div>
                  </Cell>
                  <Cell>{row.behaviours}</Cell>
                  <Cell>
                    <LastRun row={row} />
                  </Cell>
                  <Cell>
                    {row.release === null ? (
                      <chakra.span color="soft">none yet</chakra.span>
                    ) : (
                      <>
                        {row.release.number}, {row.release.createdAt.slice(0, 10)} ·{' '}
                        <Go href={`/fill/${name}`}>fill in</Go>
                      </>
                    )}
                  </Cell>
                  <Cell>
                    <Go href={`/records/${name}`}>{countInWords(row.records)}</Go>
                  </Cell>
                </tr>
              );
            })}
          </tbody>
        </chakra.table>
        {props.forms.length === 0 && <Box color="soft">This workspace has no form yet.</Box>}
        <Flex gap="14px" align="baseline">
          <NewForm />
          <Go href="/problems">Problems of the workspace</Go>
        </Flex>
        <Flex mt="26px" gap="30px" color="soft" fontSize="13px" flexWrap="wrap">
          <Box>
            <Box color="ink" fontWeight={620}>
              Tables
            </Box>
            {props.tables.map((table) => (
              <div key={table.name}>
                <Go href={`/tables/${table.name}`}>{table.title}</Go>, {table.rows} rows
              </div>
            ))}
            <Go href="/tables">New table</Go>
          </Box>
          <Box>
            <Box color="ink" fontWeight={620}>
              Services
            </Box>
            {props.services.map((service) => (
              <div key={service.name}>
                <Go href={`/services/${service.name}`}>{service.title}</Go>
              </div>
            ))}
            <NewService taken={props.services.map((service) => service.name)} />
          </Box>
          <Box>
            <Box color="ink" fontWeight={620}>
              People
            </Box>
            {props.people.map((person) => (
              <div key={person.key}>
                {person.name},{' '}
                {person.roles
                  .map((held) => props.roles.find((role) => role.key === held)?.label ?? held)
                  .join(', ')}
              </div>
            ))}
            <Go href="/people">People and roles</Go>
          </Box>
        </Flex>
      </Box>
    </>
  );
}

/** Begins a form and goes to its bench. */
function NewForm() {
  const [title, setTitle] = useState('');
  const [says, setSays] = useState<string | null>(null);
  const router = useRouter();
  const add = async () => {
    if (title.trim() === '') return;
    const reply = await call<{ name: string }>('POST', '/api/forms', { title });
    if (reply.ok) router.push(`/bench/${reply.body.name}`);
    else setSays(reply.says);
  };
  return (
    <Flex gap="6px" mt="8px" align="center">
      <Line
        aria-label="Title of a new form"
        placeholder="Title"
        value={title}
        onChange={(event) => setTitle(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && void add()}
      />
      <Button disabled={title.trim() === ''} onClick={() => void add()}>
        New form
      </Button>
      {says !== null && <chakra.span color="bad">{says}</chakra.span>}
    </Flex>
  );
}

/** Begins a service under a technical name. */
function NewService({ taken }: { taken: readonly string[] }) {
  const [name, setName] = useState('');
  const router = useRouter();
  const good = /^[a-z][a-z0-9_]*$/.test(name) && !taken.includes(name);
  return (
    <Flex gap="6px" mt="4px">
      <Line
        aria-label="Technical name of a new service"
        fontFamily="mono"
        width="130px"
        placeholder="technical_name"
        value={name}
        onChange={(event) => setName(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && good && router.push(`/services/${name}`)}
      />
      <Button disabled={!good} onClick={() => router.push(`/services/${name}`)}>
        New service
      </Button>
    </Flex>
  );
}

function Go({
  href,
  strong = false,
  children,
}: {
  href: string;
  strong?: boolean;
  children: React.ReactNode;
}) {
  return (
    <chakra.a
      asChild
      color="act"
      textDecoration="underline"
      textUnderlineOffset="3px"
      fontWeight={strong ? 620 : 400}
    >
      <Link href={href}>{children}</Link>
    </chakra.a>
  );
}

/** How the scenarios came out when they were last run, on the bench or by the check of the workspace. */
function LastRun({ row: { run, scenarios } }: { row: FormRow }) {
  if (scenarios === 0) return <chakra.span color="soft">none</chakra.span>;
  if (run === null) return <chakra.span color="soft">{scenarios}, not run yet</chakra.span>;
  const all = run.passed + run.failed;
  return (
    <>
      <chakra.span color={run.failed > 0 ? 'bad' : run.current ? 'act' : 'soft'}>
        {run.failed > 0 ? '×' : '✓'} {run.passed} of {all} passed
      </chakra.span>
      <chakra.div color="soft" fontSize="12px">
        {run.current ? `on ${run.at.slice(0, 10)}` : `on ${run.at.slice(0, 10)}, changed since`}
      </chakra.div>
    </>
  );
}
