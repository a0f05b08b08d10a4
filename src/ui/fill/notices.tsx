'use client';
/** What stands above a form that is filled in: what the server said, what a script said, and what has to be mended. */
import { lineInWords } from '@/core/wire/line';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { addressHere, LinkHere } from '../address';
import type { Ref } from 'react';
import type { Form } from '@/core/form/definition';
import { fieldsOf } from '@/core/form/fields';
import { equal, type Value } from '@/core/form/value';
import { LeftNotice } from '../draft/use-draft';
import { Anchor, Notice } from '../kit';
import { inIdleTime, lazily } from '../lazily';
import type { TwoVersionsProps } from './two-versions';
import type { Filling } from './use-filling';
import type { useSubmission } from './use-submission';

const loadTwoVersions = () => import('./two-versions').then((module) => module.TwoVersions);
const TwoVersions = lazily<TwoVersionsProps>(loadTwoVersions);
inIdleTime(loadTwoVersions);

export function SavedAs({ form, id }: { form: string; id: string }) {
  return (
    <Box bg="sheet" borderWidth="1px" borderColor="line" p="18px" role="status">
      <chakra.h2 fontSize="17px" fontWeight={640}>
        Saved as record {id}
      </chakra.h2>
      <Flex gap="14px" mt="10px">
        <Anchor href={addressHere(`/fill/${form}?record=${encodeURIComponent(id)}`)}>
          Open it again
        </Anchor>
        <Anchor href={addressHere(`/fill/${form}`)}>Fill in another</Anchor>
        <Anchor asChild>
          <LinkHere href={`/records/${form}`}>All records</LinkHere>
        </Anchor>
      </Flex>
    </Box>
  );
}

interface FillNoticesProps {
  ref: Ref<HTMLDivElement>;
  form: Form;
  session: Filling;
  submission: ReturnType<typeof useSubmission>;
  /** What went wrong besides the submission. */
  says: string | null;
  onTakeLeft: (take: boolean) => void;
}

export function FillNotices({
  ref,
  form,
  session,
  submission,
  says,
  onTakeLeft,
}: FillNoticesProps) {
  const { outcome, stops, send, backToFilling } = submission;
  const { seen, answer } = session;
  const label = (value: Value) =>
    value === null ? 'nothing' : typeof value === 'object' ? JSON.stringify(value) : String(value);
  return (
    <Flex ref={ref} tabIndex={-1} direction="column" gap="6px" mb="8px">
      {outcome.kind === 'refused' && (
        <Notice tone="error">{outcome.says} What you entered is still here.</Notice>
      )}
      {outcome.kind === 'sending' && <Notice tone="info">Saving…</Notice>}
      {outcome.kind === 'differs' && (
        <TwoVersions
          says={outcome.says}
          head={['Field', 'You saw', 'The server says']}
          rows={outcome.differences.map((d) => [d.label, label(d.browser), label(d.server)])}
          save="Save what the server says"
          onSave={() => void send(outcome.values, undefined)}
          onBack={() => void backToFilling('Nothing was saved.')}
        />
      )}
      {outcome.kind === 'conflict' && (
        <TwoVersions
          says={outcome.says}
          head={['Field', 'Yours', 'Saved meanwhile']}
          rows={fieldsOf(form).flatMap((field) => {
            const [mine, theirs] = [
              outcome.mine[field.name] ?? null,
              outcome.theirs.values[field.name] ?? null,
            ];
            return equal(mine, theirs) ? [] : [[field.label, label(mine), label(theirs)] as const];
          })}
          save="Save mine over it"
          onSave={() => void send(outcome.mine, outcome.theirs.revision)}
          onBack={() => void backToFilling('Nothing was saved.')}
        />
      )}
      {says !== null && <Notice tone="error">{says}</Notice>}
      {session.left !== null && (
        <LeftNotice at={session.left.at} what="entries" onTake={onTakeLeft} />
      )}
      {seen.failing.map((failure, i) => (
        <Notice key={i} tone="warning">
          A part of this form does not work at the moment ({failure.behaviour}
          {failure.line === null ? '' : `, ${lineInWords(failure.line)}`}). You can go on filling it
          in.
        </Notice>
      ))}
      {answer?.messages.map((message, i) => (
        <Notice key={i} tone={message.tone}>
          {message.text}
        </Notice>
      ))}
      {stops !== null && (
        <Notice tone="error">
          Not saved yet.{' '}
          {stops.length === 1 ? stops[0]!.says : `${stops.length} fields need attention.`}
        </Notice>
      )}
    </Flex>
  );
}
