'use client';
/** Finding one record among however many there are. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Form } from '@/core/form/definition';
import { listedFields } from '@/core/form/listing';
import { indexOf } from '@/core/form/table-index';
import type { Table } from '@/core/form/table';
import { useDates } from '../writing';
import { BareButton, Button, countInWords, Labelled, Line, Notice, Region } from '../kit';
import { useRecords, type ListedRecord } from './use-records';
import { textOf } from '@/core/form/traits';

/** Columns that tell records apart in a narrow list. */
const COLUMNS = 3;

export function RecordPicker({
  form,
  tables,
  onPick,
}: {
  form: Form;
  tables: readonly Table[];
  onPick: (record: ListedRecord) => void;
}) {
  const [search, setSearch] = useState('');
  const found = useRecords(form.name, { search }, null);
  const dates = useDates();
  const around = {
    dates: dates.style,
    options: null,
    table: (name: string) => indexOf(tables.find((table) => table.name === name)!),
  };
  const fields = listedFields(form).slice(0, COLUMNS);
  return (
    <Box>
      <Labelled label={`Records of ${form.title}: a number, or three letters of what is in them`}>
        <Line
          autoFocus
          width="100%"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
      </Labelled>
      {found.says !== null && (
        <Box mt="6px">
          <Notice tone="info">{found.says}</Notice>
        </Box>
      )}
      <Box mt="6px" color="soft" fontSize="12.5px" role="status">
        {found.loading ? 'Searching…' : found.total !== null && countInWords(found.total)}
      </Box>
      <Region maxH="300px" mt="4px" aria-label="Records found">
        {found.records.map((record) => (
          <BareButton
            key={record.id}
            display="block"
            width="100%"
            textAlign="left"
            px="6px"
            py="4px"
            borderTopWidth="1px"
            borderColor="line"
            _hover={{ bg: 'actGround' }}
            onClick={() => onPick(record)}
          >
            <chakra.b fontWeight={620}>{record.id}</chakra.b>{' '}
            <chakra.span color="soft">
              {fields
                .map((field) => textOf(record.values[field.name] ?? null, field, around))
                .filter(Boolean)
                .join(' · ')}
            </chakra.span>
          </BareButton>
        ))}
      </Region>
      {found.more && (
        <Flex mt="6px">
          <Button disabled={found.loading} onClick={found.loadMore}>
            Show more
          </Button>
        </Flex>
      )}
    </Box>
  );
}
