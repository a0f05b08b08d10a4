'use client';
/** A new table: from a CSV file, or empty. */
import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Table } from '@/core/form/table';
import { nameFor } from '@/core/structure/edit';
import { call } from '../api';
import { Button, Labelled, Line, Notice, PageHead } from '../kit';
import { CsvImport } from './csv-import';

export function NewTable({ workspace, taken }: { workspace: string; taken: string[] }) {
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
    if (reply.ok) router.push(`/tables/${name}`);
    else setSays(reply.says);
  };
  return (
    <>
      <PageHead trail={[{ label: workspace, href: '/' }, { label: 'New table' }]} />
      <Box as="main" px="16px" py="14px" maxW="1000px">
        <Labelled label="Title">
          <Line
            autoFocus
            width="300px"
            value={title}
            onChange={(event) => setTitle(event.target.value)}
          />
        </Labelled>
        {says !== null && <Notice tone="error">{says}</Notice>}
        <Flex gap="8px" my="12px">
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
        </Flex>
        {title.trim() === '' ? (
          <Box color="soft">Give it a title, then begin empty or import a CSV file.</Box>
        ) : (
          <CsvImport
            columns={null}
            tableKey={null}
            onTake={(content) => void make(content)}
            onDone={() => router.push('/')}
          />
        )}
      </Box>
    </>
  );
}
