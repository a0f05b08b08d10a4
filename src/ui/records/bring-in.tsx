'use client';
/** Records from a file: read, entered one after the other as by hand, and the refused lines named. */
import { counted } from '@/core/counted';
import { Box, Flex } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import { RECORDS_AT_ONCE } from '@/core/limits';
import type { RecordFormat } from '@/core/workspace/records-out';
import type { RecordsIn } from '@/core/workspace/records-in';
import { call } from '../api';
import { Button, Notice, Region } from '../kit';
import { WindowTitle } from '../window';

interface Refused {
  line: number;
  says: string;
}

type Stage =
  | { is: 'choosing'; says: string | null }
  | { is: 'read'; file: string; found: RecordsIn }
  | {
      is: 'entering' | 'done';
      entered: number;
      of: number;
      refused: Refused[];
      says: string | null;
    };

export interface BringInProps {
  form: string;
  title: string;
  onDone: (changed: boolean) => void;
}

const formatOf = (file: string): RecordFormat =>
  /\.jsonl$|\.ndjson$/i.test(file) ? 'jsonl' : /\.json$/i.test(file) ? 'json' : 'csv';

export function BringIn({ form, title, onDone }: BringInProps) {
  const input = useRef<HTMLInputElement>(null);
  const [stage, setStage] = useState<Stage>({ is: 'choosing', says: null });
  const stopped = useRef(false);

  const read = async (file: File) => {
    const reply = await call<RecordsIn>('POST', `/api/forms/${form}/records/read`, {
      text: await file.text(),
      as: formatOf(file.name),
    });
    setStage(
      reply.ok
        ? { is: 'read', file: file.name, found: reply.body }
        : { is: 'choosing', says: reply.says },
    );
  };
  const enter = async ({ records, errors }: RecordsIn) => {
    stopped.current = false;
    let entered = 0;
    const refused: Refused[] = [...errors];
    const tell = (is: 'entering' | 'done', says: string | null = null) =>
      setStage({ is, entered, of: records.length, refused: [...refused], says });
    tell('entering');
    for (let at = 0; at < records.length && !stopped.current; at += RECORDS_AT_ONCE) {
      const reply = await call<{ line: number; says: string | null }[]>(
        'POST',
        `/api/forms/${form}/records/import`,
        { records: records.slice(at, at + RECORDS_AT_ONCE) },
      );
      if (!reply.ok)
        return tell(
          'done',
          `From line ${records[at]!.line} on nothing is entered: ${reply.says} Bring those lines in again.`,
        );
      for (const { line, says } of reply.body)
        if (says === null) entered++;
        else refused.push({ line, says });
      tell('entering');
    }
    tell('done', stopped.current ? 'You stopped it; what is entered stays.' : null);
  };
  return (
    <Box p="16px">
      <WindowTitle>Bring records of {title} in</WindowTitle>
      <Box color="soft" fontSize="13px" mt="4px">
        Each line is entered as by hand, with what the behaviours do and refuse. A line with the id
        of a record changes it; one without makes a new one.
      </Box>
      <input
        ref={input}
        type="file"
        accept=".csv,.tsv,.txt,.json,.jsonl,.ndjson"
        aria-label="File with records"
        hidden
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          if (file !== undefined)
            void read(file).finally(() => {
              target.value = '';
            });
        }}
      />
      {stage.is === 'choosing' && (
        <Box mt="12px">
          {stage.says !== null && (
            <Notice tone="error" mb="8px">
              {stage.says}
            </Notice>
          )}
          <Button look="go" autoFocus onClick={() => input.current?.click()}>
            Choose CSV, JSON or JSON Lines…
          </Button>
        </Box>
      )}
      {stage.is === 'read' && (
        <Box mt="12px">
          <Box role="status">
            {stage.file}: {counted(stage.found.records.length, 'record')} can be entered
            {stage.found.errors.length > 0 && `, ${stage.found.errors.length} cannot be read`}.
          </Box>
          {stage.found.leftOut.length > 0 && (
            <Box color="soft">
              Left out, since scripts compute them: {stage.found.leftOut.join(', ')}.
            </Box>
          )}
          <Lines refused={stage.found.errors} />
          <Flex mt="10px" gap="8px">
            <Button
              look="go"
              disabled={stage.found.records.length === 0}
              onClick={() => void enter(stage.found)}
            >
              Enter {counted(stage.found.records.length, 'record')}
            </Button>
            <Button onClick={() => input.current?.click()}>Another file…</Button>
          </Flex>
        </Box>
      )}
      {(stage.is === 'entering' || stage.is === 'done') && (
        <Box mt="12px">
          <Box
            role="status"
            color={stage.is === 'done' && stage.refused.length === 0 ? 'act' : 'ink'}
          >
            {stage.is === 'done' && stage.refused.length === 0 && '✓ '}
            {stage.entered} of {counted(stage.of, 'record')} entered
            {stage.refused.length > 0 && `, ${counted(stage.refused.length, 'record')} refused`}
            {stage.is === 'entering' && '…'}
          </Box>
          {stage.says !== null && (
            <Notice tone="warning" mt="6px">
              {stage.says}
            </Notice>
          )}
          <Lines refused={stage.refused} />
        </Box>
      )}
      <Flex mt="12px">
        {stage.is === 'entering' ? (
          <Button ml="auto" onClick={() => (stopped.current = true)}>
            Stop
          </Button>
        ) : (
          <Button ml="auto" onClick={() => onDone(stage.is === 'done' && stage.entered > 0)}>
            Close
          </Button>
        )}
      </Flex>
    </Box>
  );
}

function Lines({ refused }: { refused: readonly Refused[] }) {
  if (refused.length === 0) return null;
  return (
    <Region mt="8px" maxH="40vh" aria-label="Refused lines">
      {refused.map(({ line, says }, i) => (
        <Box key={i} py="2px" borderTopWidth="1px" borderColor="line">
          line {line}: {says}
        </Box>
      ))}
    </Region>
  );
}
