'use client';
/** The live form: the sheet with its margin, what failed and what is waited for, and the records it can turn to. */
import { useRoom } from '../../use-room';
import { SUBMISSION } from '@/core/debugging/question';
import { FORM } from '@/core/session/tree';
import { lineInWords } from '@/core/wire/line';
import { chakra, Flex } from '@chakra-ui/react';
import { useRef } from 'react';
import { useStore } from 'zustand';
import type { ChildList } from '@/core/form/definition';
import type { Seen } from '@/core/scenario/seen';
import type { Claim } from '@/core/tape/tape';
import { ChildRecordsList } from '../../form/child-list';
import { FormSheet } from '../../form/sheet';
import { addressHere } from '../../address';
import { useDates } from '../../writing';
import { BareButton, Button, Notice, OutOfReach } from '../../kit';
import { useHeldWhilePressed } from '../../press';
import type { Bench } from '../create-bench';
import { useMaterial } from '../common/use-bench';
import { RecordingBanner } from './recording-banner';
import { WaitingBar } from './waiting';
import type { Names } from '@/core/tape/words';
import { PastBanner } from './past-banner';
import { cellsSaid, linesInWords, replayedInWords, shortWord } from '@/core/debugging/margin-words';
import { spelled } from '@/core/script/spelled';
import { changedMarks, LIT, useLight } from './lit';
import { RecordTurn } from './record-turn';
import { Failing } from './failing';
import { Hidden } from './hidden';
import { useRelated } from './related';

/** Under a part, what was decided and where stand in one line. */
const ASIDE = {
  flexDirection: 'row',
  flexWrap: 'wrap',
  columnGap: '8px',
  '& > button': { width: 'auto' },
};

export function LiveForm({
  bench,
  names,
  ...now
}: {
  bench: Bench;
  seen: Seen;
  words: ReadonlyMap<string, Claim[]>;
  names: Names;
  /** Parts that differ from the moment before, while somebody stands in the past. */
  changed: readonly string[];
}) {
  const seen = useHeldWhilePressed(now.seen);
  const words = useHeldWhilePressed(now.words);
  const changed = useHeldWhilePressed(now.changed);
  const material = useHeldWhilePressed(useMaterial(bench));
  const { answers, at, steps, listens, open } = useHeldWhilePressed(
    useRoom(bench.form.session, (state) => ({
      answers: state.answers,
      at: state.at,
      steps: state.steps,
      listens: state.listens,
      open: state.open,
    })),
  );
  const asked = useHeldWhilePressed(useRoom(bench.form, (state) => state.asked));
  const showsNames = useHeldWhilePressed(useRoom(bench.screen, (state) => state.names));
  const unanswered = useRoom(
    bench.form.session,
    (state) => state.answers.length <= state.steps.length,
  );
  const standing = useStore(bench.tape.store, (debug) => debug.standing);
  const past = at < steps.length || standing !== null;
  const marked = new Map(
    [...words].map(([part, said]) => [part, said.map(({ aspect }) => aspect)]),
  );
  const root = useRef<HTMLDivElement>(null);
  useLight(bench, root);

  const saidOf = (part: string) => words.get(part) ?? cellsSaid(words, part);
  const marginKey = (part: string) =>
    JSON.stringify(saidOf(part)?.map((word) => [word, names.behaviour(word.behaviour)]) ?? null);
  const dates = useDates();
  const margin = (part: string) => {
    const said = saidOf(part);
    if (said === undefined) return null;
    const last = said.at(-1)!;
    const cells = words.has(part) ? 0 : said.length;
    const label =
      cells > 0
        ? `${cells} in its rows`
        : said
            .map((word) => shortWord(word.aspect, word.to, part, material, dates.style))
            .filter(Boolean)
            .join(', ');
    return (
      <Flex direction="column" align="inherit" css={{ '[data-note=below] &': ASIDE }}>
        <BareButton
          textAlign="inherit"
          color="said"
          width="100%"
          onClick={() => bench.tape.ask(part, cells > 0 ? null : last.aspect)}
          title="Why? (which line, under which conditions)"
        >
          {label}
        </BareButton>
        <BareButton
          textAlign="inherit"
          color="soft"
          width="100%"
          overflow="hidden"
          textOverflow="ellipsis"
          onClick={() => bench.code.goTo(last.behaviour, last.line)}
          title={`To the line: ${said
            .map((word) => `${names.behaviour(word.behaviour)}, ${lineInWords(word.line)}`)
            .join('; ')}`}
        >
          {cells > 0
            ? `${names.behaviour(last.behaviour)}, ${last.line}`
            : linesInWords(said, names.behaviour)}
        </BareButton>
      </Flex>
    );
  };

  // Time that passes after it does not take the outcome away.
  const lastDone = steps.slice(0, at).findLast((step) => !('wait' in step));
  const unreleased = useRoom(bench.release, (state) => state.newest === null);
  const submittedLast = lastDone !== undefined && 'submit' in lastDone;

  const related = useRelated(material.form, seen.record);
  const drawList = (list: ChildList) => {
    const goTo = (query: Record<string, string>) =>
      window.open(
        addressHere(`/bench/${list.form}?${new URLSearchParams(query).toString()}`),
        '_blank',
        'noopener',
      );
    return (
      <ChildRecordsList
        list={list}
        related={related[list.name]}
        tables={material.tables}
        record={seen.record}
        onAdd={() =>
          goTo({
            parent: `${material.form.name}/${seen.record}`,
            [`launch.${list.launch}`]: seen.record!,
          })
        }
        onOpen={(record) => goTo({ record, parent: `${material.form.name}/${seen.record}` })}
      />
    );
  };

  return (
    <Flex
      ref={root}
      css={{ ...LIT, ...changedMarks(changed) }}
      direction="column"
      height="100%"
      width="100%"
      overflowY="auto"
      position="relative"
      px="8px"
      py="10px"
      gap="8px"
    >
      {/* What has failed stays in sight however far the form is scrolled. */}
      <Flex
        direction="column"
        gap="6px"
        position="sticky"
        top="-10px"
        zIndex={2}
        bg="ground"
        mx="-8px"
        px="8px"
        my="-4px"
        py="6px"
        flexShrink={0}
      >
        <Flex gap="14px" color="soft" fontSize="13px" flexWrap="wrap" align="center">
          <span>
            <chakra.b color="ink" fontWeight={620}>
              Live form
            </chakra.b>{' '}
            after step {at} of {steps.length}
          </span>
          {seen.record !== null && (
            <RecordTurn
              bench={bench}
              record={seen.record}
              changed={now.seen.changed || unanswered}
              frozen={past}
              records={material.records}
            />
          )}
          <Replayed bench={bench} />
          <BareButton
            aria-pressed={showsNames}
            onClick={() => bench.screen.showNames(!showsNames)}
            title="Show technical names (Alt+N)"
          >
            names {showsNames ? '◑' : '○'}
          </BareButton>
        </Flex>
        <CannotStart bench={bench} />
        <Failing bench={bench} seen={seen} names={names} />
        <WaitingBar bench={bench} seen={seen} frozen={past} />
      </Flex>
      {material.recording !== null && (
        <RecordingBanner bench={bench} recording={material.recording} />
      )}
      {past && <PastBanner bench={bench} at={at} names={names} changed={changed} />}
      {answers[at]?.refused != null && (
        <Notice tone="warning">That step was refused: {answers[at].refused}.</Notice>
      )}
      {answers[at]?.messages.map((message, i) => (
        <Notice key={i} tone={message.tone}>
          {message.text}{' '}
          {i === answers[at]!.messages.length - 1 && (
            <WhyMark what="this message" onAsk={() => bench.tape.ask(FORM, 'messages')} />
          )}
        </Notice>
      ))}
      {answers.length > 0 && (
        <FormSheet
          form={material.form}
          tables={material.tables}
          seen={seen}
          listens={listens}
          zone={open.zone ?? 'UTC'}
          frozen={past}
          names={showsNames}
          margin={margin}
          marginKey={marginKey}
          marked={marked}
          asked={asked?.part ?? null}
          onAsk={bench.tape.ask}
          onInsert={(part) => bench.code.insert(spelled(material.form, part))}
          onPoint={(part) => bench.screen.shine(part, 'form')}
          onStep={(step) => void bench.form.step(step)}
          childList={drawList}
        >
          <Hidden material={material} seen={seen} onAsk={bench.tape.ask} />
          <Flex mt="12px" gap="10px" align="center">
            {seen.replaced === null && (
              <Button
                look="go"
                disabled={past}
                onClick={() => void bench.form.step({ submit: true })}
              >
                Submit
              </Button>
            )}
            {seen.submit !== null && submittedLast && (
              <chakra.span role="status" color={seen.submit.saved ? 'act' : 'bad'}>
                {seen.submit.saved
                  ? '✓ would be saved'
                  : `× not saved: ${seen.submit.stops[0]?.says ?? ''}`}{' '}
                <WhyMark what="what submitting came to" onAsk={() => bench.tape.ask(SUBMISSION)} />
              </chakra.span>
            )}
            {seen.submit?.saved === true && submittedLast && unreleased && (
              <Button
                title="Until the form has a release, samples are made here"
                onClick={() => void bench.form.keepSample()}
              >
                Keep as a sample record
              </Button>
            )}
          </Flex>
        </FormSheet>
      )}
    </Flex>
  );
}

/** Asks why something is as it is that is no part with a name beside it. */
function WhyMark({ what, onAsk }: { what: string; onAsk: () => void }) {
  return (
    <BareButton aria-label={`Why ${what}?`} title="Why?" color="act" px="3px" onClick={onAsk}>
      ?
    </BareButton>
  );
}

function CannotStart({ bench }: { bench: Bench }) {
  const { session } = bench.form;
  if (!useRoom(session, ({ cannotStart }) => cannotStart)) return null;
  return (
    <OutOfReach
      what="What the form runs in could not be loaded"
      onAgain={() => session.tryAgain()}
    />
  );
}

/** What the last replay brought; by itself, since it says something at every edit and the sheet mostly does not. */
function Replayed({ bench }: { bench: Bench }) {
  const busy = useRoom(bench.form.session, (state) => state.busy && !state.cannotStart);
  const replayed = useRoom(bench.form, (state) => state.replayed);
  return (
    <chakra.span ml="auto" role="status">
      {busy ? 'replaying…' : replayedInWords(replayed)}
    </chakra.span>
  );
}
