'use client';
/** What is said of a recording that the bench plays, and how its form as it is today can be tried with it. */
import { chakra, Flex } from '@chakra-ui/react';
import { fieldsOf } from '@/core/form/fields';
import { equal, type Value } from '@/core/form/value';
import { seenAt, rowValues, type Seen } from '@/core/scenario/seen';
import { Button, TextLink } from '../../kit';
import { useDates } from '../../writing';
import type { OpenedRecording } from '../common/material';
import type { Bench } from '../create-bench';
import { useRoom } from '../../use-room';
import { useMaterial } from '../common/use-bench';

export function RecordingBanner({
  bench,
  recording: { id, content, release },
}: {
  bench: Bench;
  recording: OpenedRecording;
}) {
  const dates = useDates();
  const { answers, steps } = useRoom(bench.form.session, (state) => ({
    answers: state.answers,
    steps: state.steps,
  }));
  const { form } = useMaterial(bench);
  const isPlayed = answers.length === steps.length + 1 && steps === content.steps;
  const others = isPlayed
    ? endedOtherwise(form, content.ended, seenAt(answers, steps.length))
    : null;
  return (
    <Flex
      as="section"
      aria-label="Recording"
      direction="column"
      gap="3px"
      px="10px"
      py="6px"
      bg="actGround"
      borderWidth="1px"
      borderColor="act"
      borderRadius="4px"
      fontSize="13px"
    >
      <span>
        <b>Recording {id}</b>, {dates.moment(content.keptAt)},{' '}
        {release === null
          ? 'played with today’s code'
          : `played in release ${release}, which cannot be changed`}
        .{content.masked && ' Typed texts are masked.'}
      </span>
      {content.says !== '' && <span>“{content.says}”</span>}
      {others !== null && (
        <chakra.span color={others.length === 0 ? 'act' : 'bad'} role="status">
          {others.length === 0
            ? '✓ it ends as the person saw it'
            : `× it ends otherwise than the person saw it: ${others.join(', ')}`}
        </chakra.span>
      )}
      <Flex gap="2px 12px" wrap="wrap" align="center">
        {release === null ? (
          content.release !== null && (
            <TextLink href={`/bench/${form.name}?recording=${id}`}>
              Open in release {content.release}
            </TextLink>
          )
        ) : (
          <>
            <Button look="text" onClick={() => void bench.tape.compareWithToday(id)}>
              Replay with today’s code
            </Button>
            <TextLink href={`/bench/${form.name}?recording=${id}&code=today`}>
              Open with today’s code
            </TextLink>
          </>
        )}
        <TextLink href={`/bench/${form.name}`}>Leave the recording</TextLink>
      </Flex>
    </Flex>
  );
}

/** The fields that hold other values than the person saw; null where nobody knows what they saw. */
function endedOtherwise(
  form: Parameters<typeof fieldsOf>[0],
  ended: OpenedRecording['content']['ended'],
  seen: Seen,
): string[] | null {
  if (ended === null) return null;
  return fieldsOf(form).flatMap(({ name, label }) => {
    const now =
      seen.rows[name] === undefined ? (seen.parts[name]?.value ?? null) : rowValues(seen, name);
    return equal(now as Value, ended[name] ?? null) ? [] : [label];
  });
}
