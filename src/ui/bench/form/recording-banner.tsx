'use client';
/** What is said of a recording that the bench plays, and how its form as it is today can be tried with it. */
import { chakra, Flex } from '@chakra-ui/react';
import { seenAt } from '@/core/scenario/seen';
import { endedOtherwise } from '@/core/scenario/recorded';
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
