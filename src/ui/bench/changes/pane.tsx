'use client';
/** What changed for people since a former version, while it is found: each difference with what can be done about it. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Difference } from '@/core/compare/difference';
import { comparedInWords } from '@/core/compare/told';
import { counted } from '@/core/counted';
import { capital } from '@/core/debugging/pieces';
import type { FormVersions } from '@/core/workspace/versions';
import { lineInWords } from '@/core/wire/line';
import { scriptAt } from '@/core/explore/finding';
import { Button, Notice, Select } from '../../kit';
import { useHeldWhilePressed } from '../../press';
import { useAnswer } from '../../server-data';
import { useRoom } from '../../use-room';
import { useDates } from '../../writing';
import { useHeads, useNames } from '../common/use-bench';
import type { Bench } from '../create-bench';
import type { Since } from './changes';
import { useAccepted } from './use-accepted';
import { Differences, SideBySide, type ActionsProps } from './list';

export function ChangesTab({ bench }: { bench: Bench }) {
  const state = useHeldWhilePressed(useRoom(bench.changes, (all) => all));
  const { since, differences, isOld, says } = state;
  const acceptedBy = useAccepted(bench);
  const isAccepted = (one: Difference) => acceptedBy(one) !== null;
  const open = differences.filter((one) => !isAccepted(one));
  const meant = differences.filter(isAccepted);
  return (
    <>
      <Box color="soft" mb="6px">
        The same is done in both versions, over and over. What is listed is what people meet
        differently.
      </Box>
      <ChooseSince bench={bench} since={since} />
      <Progress bench={bench} />
      <NotCompiling bench={bench} />
      {says !== null && (
        <Notice tone="error" mt="6px">
          {says}
        </Notice>
      )}
      <Box mt="8px" opacity={isOld ? 0.6 : 1}>
        <Differences
          bench={bench}
          differences={open}
          label="What changed for people"
          actions={OpenActions}
        />
      </Box>
      {meant.length > 0 && (
        <chakra.details mt="10px">
          <chakra.summary cursor="pointer">{meant.length} accepted as meant</chakra.summary>
          <Differences
            bench={bench}
            differences={meant}
            label="Accepted as meant"
            actions={TakeBack}
          />
        </chakra.details>
      )}
      <Unreached bench={bench} />
    </>
  );
}

function OpenActions({ bench, difference, told }: ActionsProps) {
  return (
    <>
      <SideBySide bench={bench} difference={difference} told={told} />
      <Deciding bench={bench} difference={difference} />
      <Button
        look="text"
        title="It is not listed again until the next release"
        aria-label={`Accept as meant: ${told}`}
        onClick={() => void bench.changes.accept(difference)}
      >
        accept as meant
      </Button>
      <KeepEither bench={bench} difference={difference} told={told} />
    </>
  );
}

/** To the line that decides it in the code as it is. */
function Deciding({ bench, difference }: { bench: Bench; difference: Difference }) {
  const names = useNames(bench);
  const { after, before } = difference.lines;
  if (after === null)
    return before === null ? null : (
      <chakra.span color="soft">
        formerly decided by {names.behaviour(scriptAt(before).script)}
      </chakra.span>
    );
  const { script, line } = scriptAt(after);
  return (
    <Button look="text" onClick={() => bench.code.goTo(script, line)}>
      {names.behaviour(script)}, {lineInWords(line)}
    </Button>
  );
}

export function KeepEither({ bench, difference, told }: ActionsProps) {
  return (
    <>
      <Button
        look="text"
        title="A scenario that expects what the form does now"
        aria-label={`Keep as it is now: ${told}`}
        onClick={() => void bench.changes.keep(difference, 'after')}
      >
        keep as it is now
      </Button>
      <Button
        look="text"
        title="A scenario that expects what the former version did: it fails until the form does that again"
        aria-label={`Keep as it was: ${told}`}
        onClick={() => void bench.changes.keep(difference, 'before')}
      >
        keep as it was
      </Button>
    </>
  );
}

function TakeBack({ bench, difference, told }: ActionsProps) {
  const dates = useDates();
  const by = useAccepted(bench)(difference);
  if (by === null) return null;
  const who = bench.core.people.find(({ key }) => key === by.by)?.name ?? by.by;
  return (
    <>
      <chakra.span color="soft">
        by {who}, {dates.moment(by.at)}
      </chakra.span>
      <SideBySide bench={bench} difference={difference} told={told} />
      <Button
        look="text"
        aria-label={`Take back: ${told}`}
        onClick={() => void bench.changes.takeBack(by)}
      >
        take back
      </Button>
    </>
  );
}

const keyOfSince = (since: Since) =>
  since.is === 'release' ? `release ${since.number}` : `${since.is} ${since.at}`;

const KINDS: Readonly<Record<string, string>> = {
  form: 'the definition',
  table: 'table',
  service: 'service',
  shared: '',
  behaviour: '',
};

function ChooseSince({ bench, since }: { bench: Bench; since: Since | null }) {
  const dates = useDates();
  const [turn, setTurn] = useState(0);
  const { data } = useAnswer<FormVersions>(bench.core.pathOf('versions'), turn);
  const { people } = bench.core;
  const who = (by: string | null) => people.find(({ key }) => key === by)?.name ?? by ?? '';
  const choices: { since: Since; label: string }[] = [
    ...(data?.releases ?? []).map(({ number, at }) => ({
      since: { is: 'release', number } as const,
      label: `release ${number}, ${dates.moment(at)}`,
    })),
    ...(data?.right == null
      ? []
      : [
          {
            since: { is: 'right', at: data.right } as const,
            label: `the last time all scenarios passed, ${dates.moment(data.right)}`,
          },
        ]),
    ...(data?.revisions ?? []).map(({ at, kind, name, by }) => ({
      since: { is: 'moment', at } as const,
      label: `${dates.moment(at)}, when ${who(by)} saved ${`${KINDS[kind] ?? kind} ${kind === 'form' ? '' : name}`.trim()}`,
    })),
  ];
  const chosen = since === null ? '' : keyOfSince(since);
  const isThere = choices.some((one) => keyOfSince(one.since) === chosen);
  return (
    <Flex gap="8px" align="center" wrap="wrap">
      <chakra.label display="flex" gap="8px" alignItems="center">
        Since
        <Select
          maxW="420px"
          value={chosen}
          options={[
            ...(since === null ? [{ key: '', label: 'choose a version' }] : []),
            // Until the list has come, or where what was chosen is no longer among it.
            ...(since !== null && !isThere ? [{ key: chosen, label: sinceInWords(since) }] : []),
            ...choices.map((one) => ({ key: keyOfSince(one.since), label: one.label })),
          ]}
          onFocus={() => setTurn(turn + 1)}
          onChange={({ target }) => {
            const next = choices.find((one) => keyOfSince(one.since) === target.value);
            if (next !== undefined) bench.changes.choose(next.since);
          }}
        />
      </chakra.label>
      {since !== null && (
        <Button onClick={() => void bench.changes.openBoth()}>Both side by side</Button>
      )}
    </Flex>
  );
}

export function sinceInWords(since: Since): string {
  if (since.is === 'release') return `release ${since.number}`;
  return since.is === 'right' ? 'the last time all scenarios passed' : since.at;
}

/** What does not compile takes part as it was when it did. */
function NotCompiling({ bench }: { bench: Bench }) {
  const broken = useHeads(bench).filter((head) => head.broken !== null && head.runs);
  if (broken.length === 0) return null;
  return (
    <Notice tone="warning" mt="6px">
      {broken.map(({ title }) => title).join(', ')}{' '}
      {broken.length === 1 ? 'does not compile, so its' : 'do not compile, so their'} last version
      that worked is compared.
    </Notice>
  );
}

/** How far it is, or what it came to. */
function Progress({ bench }: { bench: Bench }) {
  const { since, underway, sessions, compared, isOld, says } = useRoom(bench.changes, (all) => all);
  const sum =
    since === null
      ? 'The form has no release yet. Choose what to compare it with.'
      : compared !== null
        ? `${capital(comparedInWords(compared))}.`
        : underway
          ? `Using both versions: ${counted(sessions, 'session')} so far.`
          : !bench.spare.goesOn
            ? 'Not compared yet.'
            : isOld
              ? 'The code has changed: compared again once nobody types or uses the form.'
              : 'Compared once nobody types or uses the form.';
  return (
    <Flex gap="10px" align="center" wrap="wrap" minH="30px" mt="4px">
      <Box role="status">{sum}</Box>
      {since !== null && !underway && (compared === null || says !== null) && (
        <Button onClick={() => bench.changes.go()}>Compare now</Button>
      )}
    </Flex>
  );
}

/** Changed lines that no session came to: what they change is not known. */
function Unreached({ bench }: { bench: Bench }) {
  const names = useNames(bench);
  const compared = useRoom(bench.changes, (state) => state.compared);
  const lines = (compared?.lines ?? []).filter(
    ({ isReached, in: which }) => !isReached && which === 'after',
  );
  if (lines.length === 0) return null;
  return (
    <Box mt="12px" fontSize="13px" color="soft">
      No session reached{' '}
      {lines.map(({ script, line }, i) => (
        <span key={`${script} ${line}`}>
          {i > 0 && ', '}
          <Button look="text" fontSize="13px" onClick={() => bench.code.goTo(script, line)}>
            {names.behaviour(script)}, {lineInWords(line)}
          </Button>
        </span>
      ))}
      : what {lines.length === 1 ? 'it changes' : 'they change'} is not known.
    </Box>
  );
}
