'use client';
/** The records of a form, newest first, with the fields that tell them apart. */
import { Box, chakra } from '@chakra-ui/react';
import { fieldsOf, type Form } from '@/core/form/definition';
import { textOf } from '@/core/form/kinds';
import { indexOf } from '@/core/form/table-index';
import type { Person, Table } from '@/core/form/table';
import type { Values } from '@/core/form/value';
import { Cell, PageHead } from '../kit';
import { PersonSwitch } from '../person-switch';

export interface RecordsProps {
  title: string;
  people: Person[];
  person: string;
  form: Form;
  tables: Table[];
  records: { id: string; values: Values; revision: number; release: number | null; savedBy: string; savedAt: string }[];
}

/** As many columns as a page of usual width has room for. */
const COLUMNS = 7;

export function Records({ title, people, person, form, tables, records }: RecordsProps) {
  const fields = fieldsOf(form).filter((field) => field.hidden !== true && field.kind !== 'rows' && !(field.kind === 'text' && (field.lines ?? 1) > 1)).slice(0, COLUMNS);
  const indexes = new Map(tables.map((table) => [table.name, indexOf(table)]));
  const around = { options: null, table: (name: string) => indexes.get(name)! };
  return (
    <>
      <PageHead trail={[{ label: title, href: '/' }, { label: `Records of ${form.title}` }]}>
        <PersonSwitch people={people} person={person} />
      </PageHead>
      <Box as="main" px="16px" py="14px" overflowX="auto">
        <chakra.table width="100%" borderCollapse="collapse">
          <chakra.caption textAlign="left" color="soft" pb="6px">
            {records.length === 1 ? '1 record' : `${records.length} records`}
          </chakra.caption>
          <thead>
            <tr>
              {['Record', ...fields.map((field) => field.label), 'Saved'].map((head) => (
                <chakra.th key={head} scope="col" textAlign="left" fontWeight={400} color="soft" fontSize="12px" pb="4px" pr="12px" borderBottomWidth="1px" borderColor="line" whiteSpace="nowrap">
                  {head}
                </chakra.th>
              ))}
            </tr>
          </thead>
          <tbody>
            {records.map((record) => (
              <tr key={record.id}>
                <Cell>
                  {/* A plain link: each opening is handed out anew by the server. */}
                  <chakra.a color="act" textDecoration="underline" textUnderlineOffset="3px" href={`/fill/${form.name}?record=${encodeURIComponent(record.id)}`}>
                    {record.id}
                  </chakra.a>{' '}
                  <chakra.a color="soft" fontSize="12.5px" textDecoration="underline" textUnderlineOffset="3px" aria-label={`View record ${record.id}`} href={`/fill/${form.name}?record=${encodeURIComponent(record.id)}&view`}>
                    view
                  </chakra.a>
                </Cell>
                {fields.map((field) => (
                  <Cell key={field.name}>{textOf(record.values[field.name] ?? null, field, around)}</Cell>
                ))}
                <Cell>
                  {record.release === null ? 'sample' : `release ${record.release}`}, {people.find(({ key }) => key === record.savedBy)?.name ?? record.savedBy}
                </Cell>
              </tr>
            ))}
          </tbody>
        </chakra.table>
      </Box>
    </>
  );
}
