'use client';
/** The tables of the workspace, and new ones: from a CSV file, or empty. */
import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { addressHere } from '../address';
import { useState } from 'react';
import type { Table } from '@/core/form/table';
import { nameFor } from '@/core/structure/edit';
import { call } from '../api';
import { Button, Cell, Labelled, Line, ListTable, NamedLink, Notice } from '../kit';
import { PageHead } from '../page-head';
import { CsvImport } from './csv-import';

interface TablesProps {
  workspace: string;
  tables: readonly { name: string; title: string; rows: number; columns: readonly string[] }[];
}

export function Tables({ workspace, tables }: TablesProps) {
  const [adding, setAdding] = useState(tables.length === 0);
  return (
    <>
      <PageHead workspace={workspace} section="tables" title="Tables">
        <Button look="go" aria-expanded={adding} onClick={() => setAdding(!adding)}>
          New table
        </Button>
      </PageHead>
      <Box as="main" px="16px" py="14px" maxW="1000px">
        {adding && (
          <NewTable taken={tables.map(({ name }) => name)} onDone={() => setAdding(false)} />
        )}
        {tables.length === 0 ? (
          <Box color="soft" mt="10px">
            There is no table yet. Tables hold what choices offer and what scripts look up.
          </Box>
        ) : (
          <ListTable caption="Tables" heads={['Table', 'Rows', 'Columns']}>
            {tables.map(({ name, title, rows, columns }) => (
              <tr key={name}>
                <Cell>
                  <NamedLink href={`/tables/${name}`} title={title} name={name} />
                </Cell>
                <Cell>{rows.toLocaleString('en-GB')}</Cell>
                <Cell>{columns.join(', ')}</Cell>
              </tr>
            ))}
          </ListTable>
        )}
      </Box>
    </>
  );
}

function NewTable({ taken, onDone }: { taken: string[]; onDone: () => void }) {
  const [title, setTitle] = useState('');
  const [says, setSays] = useState<string | null>(null);
  const router = useRouter();
  const make = async (content: Pick<Table, 'columns' | 'key' | 'rows'>) => {
    const name = nameFor(title, new Set(taken));
    const label =
      content.columns.find((column) => column.name === 'name')?.name ??
      content.columns.find((column) => column.kind === 'text' && column.name !== content.key)
        ?.name ??
      content.key;
    const reply = await call('PUT', `/api/tables/${name}`, {
      table: { name, title: title.trim(), label, ...content },
      from: 0,
    });
    if (reply.ok) router.push(addressHere(`/tables/${name}`));
    else setSays(reply.says);
  };
  return (
    <Box
      as="section"
      aria-label="New table"
      mb="18px"
      p="12px"
      borderWidth="1px"
      borderColor="line"
      bg="sheet"
    >
      <Flex gap="8px" align="end">
        <Labelled label="Title">
          <Line
            autoFocus
            width="300px"
            value={title}
            onChange={(event) => setTitle(event.target.value)}
          />
        </Labelled>
        <Button
          disabled={title.trim() === ''}
          onClick={() =>
            void make({
              columns: [
                { name: 'code', kind: 'text', label: 'Code' },
                { name: 'name', kind: 'text', label: 'Name' },
              ],
              key: 'code',
              rows: [],
            })
          }
        >
          Begin with an empty table
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </Flex>
      {says !== null && <Notice tone="error">{says}</Notice>}
      <Box mt="10px">
        {title.trim() === '' ? (
          <Box color="soft">Give it a title, then begin empty or import a CSV file.</Box>
        ) : (
          <CsvImport
            columns={null}
            tableKey={null}
            onTake={(content) => void make(content)}
            onDone={onDone}
          />
        )}
      </Box>
    </Box>
  );
}
