'use client';
/** The states in which a record was saved, each as what it changed. */
import { counted } from '@/core/counted';
import { Box, chakra, Flex } from '@chakra-ui/react';
import type { Field, Form } from '@/core/form/definition';
import { fieldsOf } from '@/core/form/fields';
import type { DateStyle } from '@/core/form/date-style';
import type { TableIndex } from '@/core/form/table-index';
import type { Person } from '@/core/form/table';
import { equal, type Value, type Values } from '@/core/form/value';
import { useDates } from '../writing';
import { Button, Notice, Region } from '../kit';
import { useAnswer } from '../server-data';
import type { ListedRecord } from './use-records';
import { Window, WindowTitle } from '../window';
import { textOf } from '@/core/form/traits';

interface Revision {
  revision: number;
  values: Values | null;
  release: number | null;
  savedBy: string;
  savedAt: string;
}

export interface RecordHistoryProps {
  form: Form;
  record: ListedRecord;
  people: readonly Person[];
  around: { options: null; table: (name: string) => TableIndex; dates: DateStyle };
  onDone: () => void;
}

export function RecordHistory({ form, record, people, around, onDone }: RecordHistoryProps) {
  const dates = useDates();
  const { data, error } = useAnswer<Revision[]>(
    `/api/forms/${form.name}/records/${encodeURIComponent(record.id)}/revisions`,
  );
  const revisions = data ?? [];
  return (
    <Window open onClose={() => onDone()}>
      <Box p="16px">
        <WindowTitle>
          Record {record.id} of {form.title}:{' '}
          {data === undefined
            ? 'its revisions'
            : data.length === 1
              ? 'saved once'
              : `saved ${data.length} times`}
        </WindowTitle>
        {data === undefined && error === null && <Box role="status">Reading the revisions…</Box>}
        {error !== null && <Notice tone="error">{error.message}</Notice>}
        <Region maxH="60vh" mt="8px" aria-label="Revisions">
          {revisions.map((revision, i) => (
            <Box key={revision.revision} borderTopWidth="1px" borderColor="line" py="6px">
              <Box fontWeight={620}>
                Revision {revision.revision}
                <chakra.span fontWeight={400} color="soft">
                  , {people.find(({ key }) => key === revision.savedBy)?.name ?? revision.savedBy},{' '}
                  {dates.moment(revision.savedAt)}
                  {revision.release === null ? '' : `, release ${revision.release}`}
                </chakra.span>
              </Box>
              <Changes
                form={form}
                before={revisions[i + 1]?.values ?? null}
                after={revision.values}
                around={around}
              />
            </Box>
          ))}
        </Region>
        <Flex mt="12px">
          <Button ml="auto" onClick={onDone}>
            Close
          </Button>
        </Flex>
      </Box>
    </Window>
  );
}

const rowsInWords = (value: Value) => counted(Array.isArray(value) ? value.length : 0, 'row');

function Changes({
  form,
  before,
  after,
  around,
}: {
  form: Form;
  before: Values | null;
  after: Values | null;
  around: RecordHistoryProps['around'];
}) {
  if (after === null) return <Box>The record was removed.</Box>;
  const changed = fieldsOf(form).filter(
    (field) => !equal(before?.[field.name] ?? null, after[field.name] ?? null),
  );
  const text = (field: Field, value: Value) =>
    field.kind === 'rows' ? rowsInWords(value) : textOf(value, field, around);
  if (changed.length === 0) return <Box color="soft">No field changed.</Box>;
  return (
    <chakra.table fontSize="13px">
      <tbody>
        {changed.map((field) => (
          <tr key={field.name}>
            <chakra.th
              scope="row"
              textAlign="left"
              fontWeight={400}
              color="soft"
              pr="12px"
              verticalAlign="top"
            >
              {field.label}
            </chakra.th>
            <td>
              {before !== null && (
                <>
                  <chakra.del color="bad">
                    {text(field, before[field.name] ?? null) || 'nothing'}
                  </chakra.del>{' '}
                  →{' '}
                </>
              )}
              {text(field, after[field.name] ?? null) || 'nothing'}
            </td>
          </tr>
        ))}
      </tbody>
    </chakra.table>
  );
}
