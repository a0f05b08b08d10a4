'use client';
/** The live form: the sheet with its margin, what failed and what is waited for, and the records it can turn to. */
import { useRoom } from '../../use-room';
import { SUBMISSION } from '@/core/debugging/question';
import { FORM } from '@/core/session/tree';
import { lineInWords, type Line } from '@/core/wire/line';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { useStore } from 'zustand';
import { placeAt } from '@/core/debugging/travel';
import type { ChildList, Form } from '@/core/form/definition';
import { fieldsOf, sectionsOf } from '@/core/form/fields';
import type { DateStyle } from '@/core/form/date-style';
import { textOf } from '@/core/form/reading';
import { indexOf } from '@/core/form/table-index';
import type { Value } from '@/core/form/value';
import type { Difference } from '@/core/debugging/differences';
import type { Seen } from '@/core/scenario/seen';
import type { Word } from '@/core/tape/tape';
import { ChildRecordsList, type RelatedRecords } from '../../form/child-list';
import { FormSheet } from '../../form/sheet';
import { addressHere } from '../../address';
import { useDates } from '../../writing';
import { Button, Notice, OutOfReach } from '../../kit';
import { useHeldWhilePressed } from '../../press';
import { useAnswer } from '../../server-data';
import type { Bench } from '../create-bench';
import type { BenchMaterial } from '../common/material';
import { useHeads, useMaterial } from '../common/use-bench';
import { RecordingBanner } from './recording-banner';
import { WaitingBar } from './waiting';
import type { SaidName } from '@/core/wire/aspects';
import { becameInWords, type Names } from '@/core/tape/words';

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
  words: ReadonlyMap<string, Word[]>;
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
        ? cells === 1
          ? '1 in its rows'
          : `${cells} in its rows`
        : said
            .map((word) => shortWord(word.aspect, word.to, part, material, dates.style))
            .filter(Boolean)
            .join(', ');
    return (
      <Flex direction="column" align="inherit" css={{ '[data-note=below] &': ASIDE }}>
        <chakra.button
          type="button"
          textAlign="inherit"
          cursor="pointer"
          color="said"
          width="100%"
          onClick={() => bench.tape.ask(part, cells > 0 ? null : last.aspect)}
          title="Why? (which line, under which conditions)"
        >
          {label}
        </chakra.button>
        <chakra.button
          type="button"
          textAlign="inherit"
          cursor="pointer"
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
        </chakra.button>
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
          <chakra.button
            type="button"
            aria-pressed={showsNames}
            cursor="pointer"
            onClick={() => bench.screen.showNames(!showsNames)}
            title="Show technical names (Alt+N)"
          >
            names {showsNames ? '◑' : '○'}
          </chakra.button>
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
    <chakra.button
      type="button"
      aria-label={`Why ${what}?`}
      title="Why?"
      color="act"
      cursor="pointer"
      px="3px"
      onClick={onAsk}
    >
      ?
    </chakra.button>
  );
}

/** The past is marked as such, with what has just changed and the ways out of it. */
function PastBanner({
  bench,
  at,
  names,
  changed,
}: {
  bench: Bench;
  at: number;
  names: Names;
  changed: readonly string[];
}) {
  const { standing, detailed, sites } = useStore(bench.tape.store);
  const place =
    standing?.detail == null || detailed === null ? null : placeAt(detailed, standing.detail);
  const line = place === null ? null : sites.get(place.script)?.[place.site]?.line;
  return (
    <Flex
      role="status"
      gap="10px"
      px="10px"
      py="5px"
      align="baseline"
      flexWrap="wrap"
      bg="saidGround"
      borderWidth="1px"
      borderColor="saidEdge"
      borderRadius="4px"
      fontSize="13px"
    >
      <span>
        The form as it was at {at === 0 ? 'the opening' : `step ${at}`}
        {line !== null && line !== undefined && `, line ${line}`}
        {changed.length > 0 && (
          <>
            . Just changed:{' '}
            <b>
              {changed
                .slice(0, 4)
                .map((part) => names.part(part))
                .join(', ')}
            </b>
            {changed.length > 4 && ` and ${changed.length - 4} more`}
          </>
        )}
      </span>
      <Button
        look="text"
        ml="auto"
        title="Make this the last step; the later ones can be brought back"
        onClick={() => void bench.tape.goOnFromHere()}
      >
        Go on from here
      </Button>
      <Button look="text" title="Esc" onClick={() => void bench.tape.standOn(null)}>
        To now
      </Button>
    </Flex>
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

function replayedInWords(replayed: readonly Difference[] | null): string {
  if (replayed === null) return '';
  const parts = [...new Set(replayed.map(({ part }) => part))];
  if (parts.length === 0) return 'replayed: nothing changed';
  const shown = parts.slice(0, 3).join(', ');
  return `replayed: ${shown}${parts.length > 3 ? ` and ${parts.length - 3} more` : ''} changed`;
}

/** How a part that the code points at stands out. */
const LIT = {
  '& [data-lit]': {
    bg: 'saidGround',
    outline: '2px solid var(--tavro-colors-said-edge)',
    outlineOffset: '1px',
    borderRadius: '3px',
  },
};

/** So many parts that just changed are marked; more would be the whole form. */
const MOST_MARKED = 40;

/** A bar beside each part that just changed. Cells and rows are marked by the field that they stand in. */
function changedMarks(changed: readonly string[]): Record<string, object> {
  const fields = new Set(changed.map((part) => part.replace(/[[.].*$/, '')));
  return Object.fromEntries(
    [...fields]
      .filter((part) => /^\w+$/.test(part))
      .slice(0, MOST_MARKED)
      .map((part) => [
        `& [data-part="${part}"]`,
        { boxShadow: '-5px 0 0 -1px var(--tavro-colors-said-edge)' },
      ]),
  );
}

/** Lights up what the code points at, and brings it into sight when somebody goes to it. Done to the page itself, since drawing the sheet again at each movement of the pointer would be felt. */
function useLight(bench: Bench, root: React.RefObject<HTMLDivElement | null>): void {
  useEffect(() => {
    const show = ({
      part,
      from,
      reveal,
    }: {
      part: string | null;
      from: 'code' | 'form';
      reveal: boolean;
    }) => {
      for (const lit of root.current?.querySelectorAll('[data-lit]') ?? [])
        lit.removeAttribute('data-lit');
      if (part === null || from !== 'code') return;
      const [owner, cell] = part.split('.');
      const found = [
        ...(root.current?.querySelectorAll<HTMLElement>(
          cell === undefined
            ? `[data-part="${owner}"]`
            : `[data-part="${owner}"] [data-column="${cell}"]`,
        ) ?? []),
      ];
      for (const element of found) element.setAttribute('data-lit', '');
      if (reveal) found[0]?.scrollIntoView({ block: 'center' });
    };
    const stop = bench.screen.light.subscribe(show);
    if (bench.screen.light.getState().reveal) show(bench.screen.light.getState());
    return stop;
  }, [bench, root]);
}

/** How a script spells a part. */
export function spelled(form: Form, part: string): string {
  const [owner, cell] = part.replace(/#\d+/, '').split('.');
  if (cell !== undefined) return `row.fields.${cell}`;
  if (fieldsOf(form).some(({ name }) => name === owner)) return `fields.${owner}`;
  if (sectionsOf(form).some(({ name }) => name === owner)) return `sections.${owner}`;
  if (form.pages.some(({ name }) => name === owner)) return `pages.${owner}`;
  return (form.tracks ?? []).some(({ name }) => name === owner)
    ? `tracks.${owner}`
    : `buttons.${owner}`;
}

/** Next and previous record, which asks before changes are left behind. */
function RecordTurn({
  bench,
  record,
  changed,
  frozen,
  records,
}: {
  bench: Bench;
  record: string;
  changed: boolean;
  frozen: boolean;
  records: readonly { id: string }[];
}) {
  const [asking, setAsking] = useState<'next' | 'previous' | null>(null);
  const at = records.findIndex(({ id }) => id === record);
  const turn = (way: 'next' | 'previous') => {
    setAsking(null);
    void bench.form.step(way === 'next' ? { next: true } : { previous: true });
  };
  const want = (way: 'next' | 'previous') => (changed ? setAsking(way) : turn(way));
  if (asking !== null) {
    return (
      <Flex gap="6px" align="center" role="alert">
        Changes in record {record} are not saved.
        <Button onClick={() => turn(asking)}>Go on</Button>
        <Button onClick={() => setAsking(null)}>Stay</Button>
      </Flex>
    );
  }
  return (
    <Flex gap="4px" align="center" role="group" aria-label="Records">
      <Button
        look="text"
        disabled={frozen || at <= 0}
        onClick={() => want('previous')}
        aria-label="Previous record"
      >
        ‹
      </Button>
      record {record}
      <Button
        look="text"
        disabled={frozen || at < 0 || at >= records.length - 1}
        onClick={() => want('next')}
        aria-label="Next record"
      >
        ›
      </Button>
    </Flex>
  );
}

/** The bar on the form: which behaviours failed, in the same words as in the editor and on the tape. */
function Failing({ bench, seen, names }: { bench: Bench; seen: Seen; names: Names }) {
  const heads = useHeads(bench);
  const broken = heads.filter((head) => head.broken !== null && head.runs);
  return (
    <>
      {broken.map((behaviour) => (
        <Notice key={behaviour.name} tone="error">
          {behaviour.title}, {lineInWords(behaviour.broken!.line ?? 1)}, {behaviour.broken!.says}{' '}
          The last version that worked goes on running.
        </Notice>
      ))}
      {seen.failing.map((failure, i) => (
        <Notice key={i} tone="error">
          {names.behaviour(failure.behaviour)}
          {failure.line !== null && (
            <>
              ,{' '}
              <Button
                look="text"
                color="bad"
                onClick={() => bench.code.goTo(failure.behaviour, failure.line!)}
              >
                {lineInWords(failure.line)}
              </Button>
              ,
            </>
          )}{' '}
          {failure.says}
        </Notice>
      ))}
    </>
  );
}

function Hidden({
  material,
  seen,
  onAsk,
}: {
  material: BenchMaterial;
  seen: Seen;
  onAsk: (part: string) => void;
}) {
  const sections = material.form.pages.flatMap((page) => page.sections);
  const hidden = sections.flatMap((section) => {
    if (seen.parts[section.name]?.onScreen === false)
      return [{ name: section.name, label: section.title }];
    return section.fields
      .filter((field) => seen.parts[field.name]?.onScreen === false)
      .map(({ name, label }) => ({ name, label }));
  });
  if (hidden.length === 0) return null;
  return (
    <Box
      color="soft"
      fontSize="12px"
      borderTopWidth="1px"
      borderStyle="dashed"
      borderColor="line"
      mt="8px"
      pt="4px"
    >
      {hidden.length === 1 ? '1 part is hidden: ' : `${hidden.length} parts are hidden: `}
      {hidden.map((part, i) => (
        <span key={part.name}>
          {i > 0 && ', '}
          <chakra.button
            type="button"
            textDecoration="underline"
            cursor="pointer"
            onClick={() => onAsk(part.name)}
          >
            {part.label}
          </chakra.button>
        </span>
      ))}
    </Box>
  );
}

/** Where each of several words was said, by behaviour: `Pilot details, 7, 8; Dues, 12`. */
function linesInWords(said: readonly Word[], titleOf: (behaviour: string) => string): string {
  const lines = new Map<string, Set<Line>>();
  for (const { behaviour, line } of said)
    lines.set(behaviour, (lines.get(behaviour) ?? new Set()).add(line));
  return [...lines]
    .map(([behaviour, of]) => `${titleOf(behaviour)}, ${[...of].sort(byLine).join(', ')}`)
    .join('; ');
}

/** What scripts said in the rows of a field, where nothing was said of the field itself. */
function cellsSaid(words: ReadonlyMap<string, Word[]>, part: string): Word[] | undefined {
  const said = [...words].flatMap(([name, ofPart]) => (name.startsWith(`${part}#`) ? ofPart : []));
  return said.length === 0 ? undefined : said;
}

/** What the margin has room for. */
function shortWord(
  aspect: SaidName,
  to: unknown,
  part: string,
  material: BenchMaterial,
  dates: DateStyle,
): string {
  const field = fieldsOf(material.form).find(({ name }) => name === part);
  if (aspect === 'value' && field !== undefined && to !== null) {
    return textOf(to as Value, field, {
      options: null,
      table: (name) => indexOf(material.tables.find((table) => table.name === name)!),
      dates,
    });
  }
  if (aspect !== 'options')
    return (aspect === 'hint' || aspect === 'warning' || aspect === 'problem') && to !== null
      ? aspect
      : becameInWords(aspect, to);
  if (!Array.isArray(to)) return '';
  const all =
    field?.kind === 'reference'
      ? material.tables.find((table) => table.name === field.table)?.rows.length
      : field?.kind === 'choice'
        ? field.options.length
        : undefined;
  return all === undefined ? `${to.length} options` : `${to.length} of ${all} offered`;
}

/** For each list of a form, the records that refer to one; asked for when the bench turns to another record. */
function useRelated(form: Form, record: string | null): Record<string, RelatedRecords> {
  const { data } = useAnswer<Record<string, RelatedRecords>>(
    record === null || form.children === undefined || form.children.length === 0
      ? null
      : `/api/fill/${form.name}/children?${new URLSearchParams({ record }).toString()}`,
  );
  return data ?? NONE_RELATED;
}

const NONE_RELATED: Record<string, RelatedRecords> = {};

/** Lines of the behaviour itself first. */
function byLine(a: Line, b: Line): number {
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  return typeof a === 'number' ? -1 : typeof b === 'number' ? 1 : a.localeCompare(b, 'en');
}
