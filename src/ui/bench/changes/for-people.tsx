'use client';
/** What a release changes for people: the last one and the form as it is, used side by side while the dialog is open. */
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Difference } from '@/core/compare/difference';
import { comparedInWords, toldOfDifference } from '@/core/compare/told';
import type { FormerVersion } from '@/core/workspace/release-changes';
import { counted } from '@/core/counted';
import { capital } from '@/core/debugging/pieces';
import { Button, ProgressBar } from '../../kit';
import { useDates } from '../../writing';
import { useMaterial, useNames } from '../common/use-bench';
import type { Bench } from '../create-bench';
import type { ComparedSoFar, ReplayedSoFar } from './comparing';
import { Differences, SideBySide } from './list';
import { useAccepted } from './use-accepted';

const NOTHING_YET: ComparedSoFar = { differences: [], sessions: 0, compared: null };

export function ForPeople({
  bench,
  number,
  former,
  onLeave,
}: {
  bench: Bench;
  /** Of the last release. */
  number: number;
  former: FormerVersion;
  onLeave: () => void;
}) {
  const [so, setSo] = useState(NOTHING_YET);
  const [replayed, setReplayed] = useState<ReplayedSoFar | null>(null);
  const [says, setSays] = useState<string | null>(null);
  const acceptedBy = useAccepted(bench);
  useEffect(() => {
    const stop = new AbortController();
    bench.changes
      .beforeRelease({ number, former }, setSo, setReplayed, stop.signal)
      .catch((caught: unknown) => {
        if (!stop.signal.aborted)
          setSays(caught instanceof Error ? caught.message : String(caught));
      });
    return () => stop.abort();
  }, [bench, number, former]);
  const { differences, sessions, compared } = so;
  const sum =
    compared === null
      ? `using both versions: ${counted(sessions, 'session')} so far`
      : comparedInWords(compared);
  const isMeant = (one: Difference) => acceptedBy(one) !== null;
  const open = differences.filter((one) => !isMeant(one));
  const meant = differences.filter(isMeant);
  return (
    <Box as="section" aria-label="What changes for people" mt="8px">
      <Box fontWeight={620}>What changes for people</Box>
      <Differences
        bench={bench}
        differences={open}
        label="Differences"
        actions={SideBySide}
        onOpen={onLeave}
      />
      {meant.length > 0 && (
        <chakra.details mt="4px">
          <chakra.summary cursor="pointer">{meant.length} accepted as meant</chakra.summary>
          <Differences
            bench={bench}
            differences={meant}
            label="Accepted"
            actions={SideBySide}
            onOpen={onLeave}
          />
        </chakra.details>
      )}
      <Box color="soft" role="status" mt="4px">
        {says ?? `${capital(sum)}.`}
      </Box>
      {replayed !== null && <WhatPeopleDid bench={bench} replayed={replayed} />}
    </Box>
  );
}

/** Filling-ins that end differently, each with what differs. */
const LISTED = 20;

function WhatPeopleDid({ bench, replayed }: { bench: Bench; replayed: ReplayedSoFar }) {
  const { form, tables } = useMaterial(bench);
  const names = useNames(bench);
  const dates = useDates();
  const { done, all, differing, isOver } = replayed;
  if (isOver && done === 0) return null;
  const count = differing.length;
  return (
    <Box mt="8px">
      <Box fontWeight={620}>What people did</Box>
      <Box color="soft" role="status">
        {isOver
          ? `Of the last ${counted(done, 'filling-in')}, ${count === 0 ? 'none ends' : count === 1 ? '1 ends' : `${count} end`} differently.`
          : `Replaying filling-ins: ${done} of ${all}${count === 0 ? '' : `, ${count} of which end differently`}.`}
      </Box>
      {!isOver && <ProgressBar done={done} of={all} what="filling-ins replayed" />}
      <Box as="ul" listStyleType="none" aria-label="Filling-ins that end differently">
        {differing.slice(0, LISTED).map(({ filling, differences }) => (
          <Box as="li" key={filling.id} py="4px" borderTopWidth="1px" borderColor="line">
            <Button
              look="text"
              title="As a recording, in the release that it was done in"
              onClick={() => void bench.changes.openFilling(filling)}
            >
              record {filling.record}
            </Button>
            , {dates.moment(filling.at)}:{' '}
            {toldOfDifference(differences[0]!, { form, tables }, names, 'Whoever did this')}
            {differences.length > 1 && ` ${counted(differences.length - 1, 'more difference')}.`}
          </Box>
        ))}
      </Box>
      {count > LISTED && <Box color="soft">and {count - LISTED} more</Box>}
    </Box>
  );
}
