'use client';
/** What the search finds, while it goes on: what is wrong, what may be, what is answered in the code, what was covered. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { counted } from '@/core/counted';
import { keyOf, type Finding } from '@/core/explore/finding';
import { outdatedInWords, type Meant } from '@/core/explore/meant';
import { told } from '@/core/explore/told';
import { KIND_LABELS, wayInWords } from '@/core/explore/words';
import { Button, Line, Notice, ProgressBar } from '../../kit';
import { useHeldWhilePressed } from '../../press';
import { useRoom } from '../../use-room';
import { useMaterial, useNames } from '../common/use-bench';
import type { Bench } from '../create-bench';
import { ROUNDS, type FaultsState } from './faults';
import { placeInWords } from '../common/use-found';

export function FaultsTab({ bench }: { bench: Bench }) {
  const state = useHeldWhilePressed(useRoom(bench.faults, (all) => all));
  const { findings, meant, outdated, says, isOld } = state;
  const isThorough = state.rounds >= ROUNDS.length;
  const wrong = findings.filter(({ level }) => level === 'wrong');
  const hints = findings.filter(({ level }) => level === 'may');
  return (
    <>
      <Box color="soft" mb="6px">
        The form is used over and over, beside what you do: every field there and back, in every
        order, on saved records, with late answers. What is listed ends another way than it has to.
      </Box>
      <Searching bench={bench} state={state} />
      {says !== null && (
        <Notice tone="error" mt="6px">
          {says}
        </Notice>
      )}
      <Box as="ul" listStyleType="none" mt="8px" aria-label="Wrong" opacity={isOld ? 0.6 : 1}>
        {wrong.map((finding) => (
          <FindingItem key={keyOf(finding)} bench={bench} finding={finding} />
        ))}
      </Box>
      {hints.length > 0 && (
        <chakra.details mt="10px">
          <chakra.summary cursor="pointer">
            {counted(hints.length, 'hint')}, which may well be meant
          </chakra.summary>
          <Box as="ul" listStyleType="none">
            {hints.map((finding) => (
              <FindingItem key={keyOf(finding)} bench={bench} finding={finding} />
            ))}
          </Box>
        </chakra.details>
      )}
      {/* A short search may well miss what is answered. */}
      {(isThorough ? outdated : []).map((answer) => (
        <OutdatedLine key={`${answer.behaviour}:${answer.line}`} bench={bench} answer={answer} />
      ))}
      {meant.length > 0 && (
        <chakra.details mt="10px">
          <chakra.summary cursor="pointer">
            {meant.length} answered in the code: meant
          </chakra.summary>
          <Box as="ul" listStyleType="none">
            {meant.map(({ finding, reason }) => (
              <FindingItem key={keyOf(finding)} bench={bench} finding={finding} reason={reason} />
            ))}
          </Box>
        </chakra.details>
      )}
      <Covered state={state} bench={bench} />
    </>
  );
}

/** How far it is, and what stops it or makes it go on. */
function Searching({ bench, state }: { bench: Bench; state: FaultsState }) {
  const { underway, sessions, stopped, isOld, findings, rounds } = state;
  const wrong = findings.filter(({ level }) => level === 'wrong').length;
  const done = sessions + (underway?.sessions ?? 0);
  const found = wrong === 0 ? 'nothing wrong' : `${wrong} wrong`;
  return (
    <Flex gap="10px" align="center" wrap="wrap" minH="30px">
      <Box role="status">
        {isOld
          ? 'The code has changed: looking at these again…'
          : done === 0
            ? stopped
              ? 'Stopped.'
              : 'Begins once nobody types or uses the form.'
            : `${done.toLocaleString('en')} sessions: ${found}${underway === null ? '' : ' so far'}.`}
      </Box>
      {underway !== null && (
        <ProgressBar done={underway.sessions} of={underway.of} what="sessions of this round" />
      )}
      {stopped || (underway === null && rounds > 0) ? (
        <Button onClick={() => bench.faults.search()}>
          {stopped && done === 0 ? 'Search' : 'Search on'}
        </Button>
      ) : (
        <Button
          title="It stays stopped, on other forms too, until you search again"
          onClick={() => bench.faults.stop()}
        >
          Stop
        </Button>
      )}
    </Flex>
  );
}

function FindingItem({
  bench,
  finding,
  reason,
}: {
  bench: Bench;
  finding: Finding;
  /** Why it is meant, where that was answered. */
  reason?: string;
}) {
  const { form, tables } = useMaterial(bench);
  const names = useNames(bench);
  const [answering, setAnswering] = useState(false);
  const { kind, other, way } = finding;
  const text = told(finding, { form, tables }, names);
  const at = bench.faults.placeOf(finding);
  return (
    <Box as="li" py="7px" borderTopWidth="1px" borderColor="line">
      <Box>
        <chakra.span color={finding.level === 'wrong' ? 'bad' : 'said'} fontWeight={620}>
          {KIND_LABELS[kind]}
        </chakra.span>{' '}
        {at === null ? (
          <chakra.span color="soft">{placeInWords(finding, names)}</chakra.span>
        ) : (
          <Button look="text" onClick={() => bench.code.goTo(at.name, at.line)}>
            {placeInWords(finding, names)}
          </Button>
        )}
      </Box>
      <Box my="2px">{text}</Box>
      <Box fontSize="12.5px" color="soft">
        {wayInWords(way, names, ' → ')}
      </Box>
      {reason !== undefined && <Box fontSize="13px">Meant: {reason}</Box>}
      <Flex gap="14px" mt="3px" wrap="wrap" fontSize="13px">
        <Button
          look="text"
          aria-label={`Open: ${text}`}
          onClick={() => void bench.faults.open(finding)}
        >
          open
        </Button>
        {other !== null && (
          <Button
            look="text"
            aria-label={`Open what it is compared with: ${text}`}
            onClick={() => void bench.faults.open(finding, 'other')}
          >
            open what it is compared with
          </Button>
        )}
        {reason === undefined && finding.level === 'wrong' && (
          <Button
            look="text"
            title="It fails until the fault is mended"
            aria-label={`Keep as a scenario: ${text}`}
            onClick={() => void bench.faults.keep(finding)}
          >
            keep as a scenario
          </Button>
        )}
        {reason === undefined && at !== null && (
          <Button
            look="text"
            title="Writes the answer above the line, for whoever reads the code"
            aria-label={`This is meant: ${text}`}
            onClick={() => setAnswering(!answering)}
          >
            this is meant…
          </Button>
        )}
        <Button
          look="text"
          onClick={() => bench.screen.openHandbook(`findings/${kind}`)}
          aria-label={`Read on about ${KIND_LABELS[kind]}`}
        >
          read on
        </Button>
      </Flex>
      {answering && (
        <Reason
          onDone={(given) => {
            setAnswering(false);
            if (given !== null) bench.faults.mean(finding, given);
          }}
        />
      )}
    </Box>
  );
}

/** Why it is meant; null where somebody thinks better of it. */
function Reason({ onDone }: { onDone: (reason: string | null) => void }) {
  const [reason, setReason] = useState('');
  return (
    <chakra.form
      display="flex"
      gap="8px"
      mt="5px"
      alignItems="center"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim() !== '') onDone(reason);
      }}
    >
      <Line
        autoFocus
        flex="1"
        maxW="420px"
        placeholder="Why it is meant"
        aria-label="Why it is meant"
        value={reason}
        onChange={(event) => setReason(event.target.value)}
      />
      <Button type="submit" look="go" disabled={reason.trim() === ''}>
        Write it into the code
      </Button>
      <Button onClick={() => onDone(null)}>Cancel</Button>
    </chakra.form>
  );
}

function OutdatedLine({ bench, answer }: { bench: Bench; answer: Meant }) {
  const name = useRoom(
    bench.code,
    ({ behaviours }) =>
      behaviours.find((one) => one.name.replace(/\.[jt]s$/, '') === answer.behaviour)?.name,
  );
  return (
    <Box mt="8px">
      <chakra.span color="said">!</chakra.span>{' '}
      <Button look="text" onClick={() => name !== undefined && bench.code.goTo(name, answer.line)}>
        {answer.behaviour}, line {answer.line}
      </Button>
      : {outdatedInWords(answer)}.
    </Box>
  );
}

/** What the sessions reached, and what they did not. */
function Covered({ state: { reached }, bench }: { state: FaultsState; bench: Bench }) {
  const names = useNames(bench);
  if (reached === null) return null;
  const { fields, filled, conditions, bothWays, unseen } = reached;
  return (
    <Box mt="12px" fontSize="13px" color="soft">
      {filled} of {counted(fields, 'field')} filled in, {bothWays} of{' '}
      {counted(conditions, 'condition')} met both ways.
      {unseen.length > 0 && ` Never on screen: ${unseen.map(names.part).join(', ')}.`}
    </Box>
  );
}
