'use client';
/**
 * Filling a release in. The session runs in the browser at once and on the server again when it is submitted; what the
 * server says counts, and a refusal loses nothing that was typed.
 */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { addressHere } from '../address';
import { useState } from 'react';
import type { Form } from '@/core/form/definition';
import { fieldsOf } from '@/core/form/fields';
import type { Person } from '@/core/form/table';
import type { RelatedRecords } from '../form/child-list';
import { Button, Notice } from '../kit';
import { PageHead } from '../page-head';
import { PersonSwitch } from '../person-switch';
import { FilledForm } from './filled-form';
import type { HandedOut } from './handed-out';

export interface FillProps extends HandedOut {
  workspace: string;
  people: Person[];
  /** The records before and after this one; null at the ends and for a new entry. */
  neighbours: { previous: string | null; next: string | null };
  /** For each list of the form, the records that refer to this one. */
  related: Record<string, RelatedRecords>;
}

export function Fill(props: FillProps) {
  const { form } = props.material;
  const { opening } = props.handout;
  const router = useRouter();
  const [changed, setChanged] = useState(false);
  /** Where to go once the person has said what becomes of the changes. */
  const [leaving, setLeaving] = useState<string | null>(null);
  const pathOf = (record: string) =>
    `/fill/${form.name}?record=${encodeURIComponent(record)}${opening.viewing === true ? '&view' : ''}`;
  const go = (record: string | null) => {
    if (record === null) return;
    if (changed) setLeaving(record);
    else router.push(addressHere(pathOf(record)));
  };
  return (
    <>
      <PageHead
        workspace={props.workspace}
        section="forms"
        title={form.title}
        form={{ name: form.name, room: 'fill' }}
      >
        <chakra.span color="soft">
          release {props.number} ·{' '}
          {opening.record === null ? 'new entry' : `record ${opening.record.id}`}
          {opening.viewing === true && ' · only viewing'}
        </chakra.span>
        {opening.record !== null && (
          <Flex gap="4px" role="group" aria-label="Other records">
            <Button
              disabled={props.neighbours.previous === null}
              onClick={() => go(props.neighbours.previous)}
            >
              Previous
            </Button>
            <Button
              disabled={props.neighbours.next === null}
              onClick={() => go(props.neighbours.next)}
            >
              Next
            </Button>
          </Flex>
        )}
        <PersonSwitch people={props.people} person={opening.person.key} />
      </PageHead>
      <Box as="main" maxW={hasGrid(form) ? '900px' : '720px'} mx="auto" px="16px" py="16px">
        {leaving !== null && (
          <Box mb="8px">
            <Notice tone="warning">
              What you changed in this record is not saved.
              <Flex gap="8px" mt="6px">
                <Button look="go" onClick={() => setLeaving(null)}>
                  Stay here
                </Button>
                <Button onClick={() => router.push(addressHere(pathOf(leaving)))}>
                  Go without saving
                </Button>
              </Flex>
            </Notice>
          </Box>
        )}
        <FilledForm {...props} onChanged={setChanged} />
      </Box>
    </>
  );
}

function hasGrid(form: Form): boolean {
  return fieldsOf(form).some((field) => field.kind === 'rows' && field.display !== 'stack');
}
