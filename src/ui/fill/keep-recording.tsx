'use client';
/** Keeping what was done in a form as a recording, for those who look into what went wrong. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Form } from '@/core/form/definition';
import { fieldsOf } from '@/core/form/fields';
import type { Values } from '@/core/form/value';
import { call } from '../api';
import { Button, Checkbox, Notice, TextArea } from '../kit';
import { WindowTitle } from '../window';
import type { Filling } from './use-filling';

export interface KeepRecordingProps {
  form: Form;
  session: Filling;
  onDone: () => void;
}

export function KeepRecording({ form, session, onDone }: KeepRecordingProps) {
  const [says, setSays] = useState('');
  const [masks, setMasks] = useState(false);
  const [failed, setFailed] = useState<string | null>(null);
  const [kept, setKept] = useState<number | null>(null);
  const keep = async () => {
    const filling = await session.begin().catch((caught: Error) => caught);
    if (filling instanceof Error) return setFailed(filling.message);
    const reply = await call<{ recording: number }>('POST', `/api/fill/${form.name}/recordings`, {
      filling,
      steps: session.steps(),
      ended: valuesNow(form, session),
      says: says.trim(),
      masks,
    });
    if (reply.ok) setKept(reply.body.recording);
    else setFailed(reply.says);
  };
  if (kept !== null)
    return (
      <Box p="16px">
        <WindowTitle>Kept as recording {kept}</WindowTitle>
        <Box mt="6px">Whoever looks after this form can now see what happened. You can go on.</Box>
        <Button mt="12px" onClick={onDone}>
          Close
        </Button>
      </Box>
    );
  return (
    <Box p="16px">
      <WindowTitle>Keep a recording</WindowTitle>
      <Box color="soft" mt="4px">
        How the form was opened and everything you did in it is kept on this server, so that it can
        be played again step by step. Nothing is submitted.
      </Box>
      <chakra.label display="block" mt="10px">
        What surprised you?
        <TextArea
          autoFocus
          rows={3}
          maxLength={2000}
          px="8px"
          py="4px"
          bg="sheet"
          value={says}
          onChange={(event) => setSays(event.target.value)}
        />
      </chakra.label>
      <Checkbox
        mt="8px"
        label="Replace the letters and digits of the texts I typed"
        on={masks}
        onSet={setMasks}
      />
      {failed !== null && (
        <Box mt="8px">
          <Notice tone="error">{failed}</Notice>
        </Box>
      )}
      <Flex mt="12px" gap="8px">
        <Button look="go" onClick={() => void keep()}>
          Keep
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </Flex>
    </Box>
  );
}

/** What the person sees in the fields. */
function valuesNow(form: Form, { seen }: Filling): Values {
  return Object.fromEntries(
    fieldsOf(form).map(({ name }) => {
      const rows = seen.rows[name];
      return [
        name,
        rows === undefined
          ? (seen.parts[name]?.value ?? null)
          : rows.order.map((id) => rows.byId[id]!.values),
      ];
    }),
  ) as Values;
}
