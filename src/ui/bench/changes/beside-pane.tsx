'use client';
/** The former version beside the live form: the same steps in both, and what differs here marked in either. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useMemo, useRef } from 'react';
import { counted } from '@/core/counted';
import { containersOf } from '@/core/form/outline';
import { seenAt } from '@/core/scenario/seen';
import { differingInWords, toldOfDifference } from '@/core/compare/told';
import { FormSheet } from '../../form/sheet';
import { Button, Notice, OutOfReach, Region } from '../../kit';
import { useHeldWhilePressed } from '../../press';
import { useRoom } from '../../use-room';
import { PaneHead } from '../common/pane-parts';
import { useMaterial, useNames } from '../common/use-bench';
import type { Bench } from '../create-bench';
import { changedMarks } from '../form/lit';
import type { Beside } from './beside';
import { KeepEither, sinceInWords } from './pane';
import { useDifferingNow } from './use-differing';

export function BesidePane({ bench }: { bench: Bench }) {
  const beside = useRoom(bench.changes, (state) => state.beside);
  const since = useRoom(bench.changes, (state) => state.since);
  if (beside === null || since === null)
    return (
      <Box p="14px">
        <Button onClick={() => bench.screen.showPane('tests')}>Back</Button>
      </Box>
    );
  return <Both bench={bench} beside={beside} of={sinceInWords(since)} />;
}

/** Differences told of one by one; the marks show the others. */
const TOLD = 5;

function Both({ bench, beside, of }: { bench: Bench; beside: Beside; of: string }) {
  const { form, tables } = useMaterial(bench);
  const names = useNames(bench);
  const { answers, at, listens, open, cannotStart, busy } = useHeldWhilePressed(
    useRoom(beside.session, (state) => state),
  );
  const seen = useMemo(() => seenAt(answers, at), [answers, at]);
  const isPast = useRoom(bench.form.session, (state) => state.at < state.steps.length);
  const differing = useDifferingNow(bench, beside);
  const marks = useMemo(
    () => changedMarks(differing.map(({ part }) => beside.formerly(part))),
    [differing, beside],
  );
  const { difference } = beside;
  const root = useRef<HTMLDivElement>(null);
  const isThere = answers.length > 0;
  // What was opened comes into sight, as it does in the live form.
  useEffect(() => {
    if (!isThere || difference === null) return;
    const part = beside.formerly(difference.part).replace(/[[.].*$/, '');
    // What is off screen there would stand in its section.
    const near = [part, ...containersOf(beside.former.form, part)]
      .map((name) => root.current?.querySelector(`[data-part="${name}"]`))
      .find((element) => element != null);
    near?.scrollIntoView({ block: 'center' });
  }, [beside, difference, isThere]);
  const told = difference === null ? null : toldOfDifference(difference, { form, tables }, names);
  return (
    <Flex as="section" aria-label="The former version" direction="column" flex="1" minH={0}>
      <PaneHead>
        <chakra.span fontWeight={620}>As it was: {of}</chakra.span>
        <chakra.span color="soft">the form as it is stands to the right</chakra.span>
        <Button ml="auto" onClick={() => bench.changes.closeBoth()}>
          Close
        </Button>
      </PaneHead>
      {/* What is told stays in sight however far the form is scrolled. */}
      <Box flexShrink={0} maxH="40%" overflowY="auto" px="14px" pt="8px">
        {told !== null && difference !== null && (
          <Box mb="8px">
            <Box>{told}</Box>
            <Flex gap="14px" mt="3px" wrap="wrap" fontSize="13px">
              <Button
                look="text"
                title="It is not listed again until the next release"
                onClick={() => {
                  void bench.changes.accept(difference);
                  bench.changes.closeBoth();
                }}
              >
                accept as meant
              </Button>
              <KeepEither bench={bench} difference={difference} told={told} />
            </Flex>
          </Box>
        )}
        <Box role="status" mb="8px" color="soft" fontSize="13px">
          {busy
            ? 'Doing the same steps…'
            : differing.length === 0
              ? 'Nothing differs here. What you do in one form is done in the other too.'
              : `${counted(differing.length, 'difference')} here, marked in both forms.`}
          <Box as="ul" pl="18px">
            {differing.slice(0, TOLD).map((one) => (
              <li key={`${one.part} ${one.aspect}`}>
                {differingInWords(one, { form, tables }, names)}
              </li>
            ))}
          </Box>
          {differing.length > TOLD && `and ${differing.length - TOLD} more`}
        </Box>
      </Box>
      <Region flex="1" minH={0} px="10px" py="8px" aria-label="The fields as they were">
        {cannotStart && (
          <OutOfReach
            what="What the form runs in could not be loaded"
            onAgain={() => beside.session.tryAgain()}
          />
        )}
        {answers[at]?.refused != null && (
          <Notice tone="warning" mb="8px">
            The former version refuses that step: {answers[at].refused}.
          </Notice>
        )}
        {seen.failing.map(({ behaviour, says }) => (
          <Notice key={behaviour} tone="error" mb="8px">
            {names.behaviour(behaviour)}: {says}
          </Notice>
        ))}
        {answers[at]?.messages.map((message, i) => (
          <Notice key={i} tone={message.tone} mb="8px">
            {message.text}
          </Notice>
        ))}
        {isThere && (
          <Box ref={root} css={marks}>
            <FormSheet
              form={beside.former.form}
              tables={beside.former.tables}
              seen={seen}
              listens={listens}
              zone={open.zone ?? 'UTC'}
              frozen={isPast}
              depth={1}
              onStep={(step) => beside.step(step)}
            >
              <Flex mt="12px" gap="10px" align="center">
                {seen.replaced === null && (
                  <Button disabled={isPast} onClick={() => beside.step({ submit: true })}>
                    Submit both
                  </Button>
                )}
                {seen.submit !== null && (
                  <chakra.span role="status" color={seen.submit.saved ? 'act' : 'bad'}>
                    {seen.submit.saved
                      ? '✓ would be saved'
                      : `× not saved: ${seen.submit.stops[0]?.says ?? ''}`}
                  </chakra.span>
                )}
              </Flex>
            </FormSheet>
          </Box>
        )}
      </Region>
    </Flex>
  );
}
