'use client';
/** The records of another form that refer to the open one, with what adds one. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import type { ChildList } from '@/core/form/definition';
import { fieldsOf } from '@/core/form/fields';
import { indexOf } from '@/core/form/table-index';
import type { Table } from '@/core/form/table';
import type { FormRecords } from '@/core/scenario/opening';
import { useDates } from '../writing';
import { Button, Cell, countInWords } from '../kit';
import { idOf } from './field-block';
import { textOf } from '@/core/form/traits';

/** The newest records that refer to one, and how many there are. */
export interface RelatedRecords extends FormRecords {
  count: { count: number; more: boolean };
}

export interface ChildListProps {
  list: ChildList;
  /** How many sheets the one that it is in stands over. */
  depth?: number;
  related: RelatedRecords | undefined;
  tables: readonly Table[];
  /** Null while the record is not saved: then nothing can refer to it. */
  record: string | null;
  onAdd: () => void;
  onOpen: (record: string) => void;
}

export function ChildRecordsList(props: ChildListProps) {
  const { list, related, tables, record, onAdd, onOpen } = props;
  const note = `${idOf(list.name, props.depth)}-unsaved`;
  const fields =
    related === undefined
      ? []
      : list.columns.flatMap((name) =>
          fieldsOf(related.form).filter((field) => field.name === name),
        );
  const dates = useDates();
  const around = {
    dates: dates.style,
    options: null,
    table: (name: string) => indexOf(tables.find((table) => table.name === name)!),
  };
  const records = related?.records ?? [];
  return (
    <Box my="6px">
      <Flex align="baseline" gap="8px">
        <chakra.h4 fontSize="12.5px" fontWeight={620}>
          {list.title}
        </chakra.h4>
        <chakra.span color="soft" fontSize="12.5px">
          {countInWords(related?.count ?? { count: 0, more: false })}
          {records.length < (related?.count.count ?? 0) && `, the newest ${records.length} shown`}
        </chakra.span>
        <Button
          ml="auto"
          disabled={record === null}
          aria-describedby={record === null ? note : undefined}
          onClick={onAdd}
        >
          Add to {list.title.toLowerCase()}
        </Button>
      </Flex>
      {record === null && (
        <chakra.p id={note} color="soft" fontSize="12.5px">
          This record has to be saved first: what is added here refers to it.
        </chakra.p>
      )}
      {records.length > 0 && (
        <chakra.table width="100%" borderCollapse="collapse" fontSize="13px" mt="4px">
          <thead>
            <tr>
              {['Record', ...fields.map((field) => field.label)].map((head) => (
                <chakra.th
                  key={head}
                  scope="col"
                  textAlign="left"
                  fontWeight={400}
                  color="soft"
                  fontSize="12px"
                  borderBottomWidth="1px"
                  borderColor="line"
                >
                  {head}
                </chakra.th>
              ))}
            </tr>
          </thead>
          <tbody>
            {records.map(({ id, values }) => (
              <tr key={id}>
                <Cell>
                  <Button
                    look="text"
                    aria-label={`Open record ${id} of ${list.title}`}
                    onClick={() => onOpen(id)}
                  >
                    {id}
                  </Button>
                </Cell>
                {fields.map((field) => (
                  <Cell key={field.name}>{textOf(values[field.name] ?? null, field, around)}</Cell>
                ))}
              </tr>
            ))}
          </tbody>
        </chakra.table>
      )}
    </Box>
  );
}
