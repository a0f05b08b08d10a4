'use client';
/** Earlier releases with why they were made, and putting one back. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { FormVersions } from '@/core/workspace/versions';
import { Button, Line, Notice } from '../../kit';
import { useAnswer } from '../../server-data';
import { useDates } from '../../writing';
import type { Bench } from '../create-bench';

export function EarlierReleases({ bench, onDone }: { bench: Bench; onDone: () => void }) {
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState<number | null>(null);
  const [reason, setReason] = useState('');
  const [says, setSays] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const dates = useDates();
  const { data } = useAnswer<FormVersions>(open ? bench.core.pathOf('versions') : null);
  const who = (by: string | null) =>
    by === null ? '' : ` by ${bench.core.people.find(({ key }) => key === by)?.name ?? by}`;
  const [newest, ...earlier] = data?.releases ?? [];
  const putBack = async (number: number) => {
    setBusy(true);
    const wrong = await bench.release.putBack(number, reason.trim());
    setBusy(false);
    if (wrong === null) onDone();
    else setSays(wrong);
  };
  return (
    <chakra.details mt="12px" open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <chakra.summary cursor="pointer">All releases</chakra.summary>
      {says !== null && <Notice tone="error">{says}</Notice>}
      <Box as="ul" listStyleType="none" aria-label="All releases" fontSize="13.5px">
        {(newest === undefined ? [] : [newest, ...earlier]).map(
          ({ number, at, by, reason: why, again }) => (
            <Box as="li" key={number} py="4px" borderTopWidth="1px" borderColor="line">
              <Flex gap="10px" align="baseline" wrap="wrap">
                <span>
                  release {number}, {dates.moment(at)}
                  {who(by)}
                  {again !== null && `: release ${again} put back`}
                  {why !== null && `: “${why}”`}
                </span>
                {number === newest?.number ? (
                  <chakra.span color="soft">filled in now</chakra.span>
                ) : (
                  <Button
                    look="text"
                    title="People fill it in again, as the next release; the code on the bench stays as it is"
                    onClick={() => setChosen(chosen === number ? null : number)}
                  >
                    put back release {number}…
                  </Button>
                )}
              </Flex>
              {chosen === number && (
                <chakra.form
                  display="flex"
                  gap="8px"
                  mt="4px"
                  onSubmit={(event) => {
                    event.preventDefault();
                    if (reason.trim() !== '' && !busy) void putBack(number);
                  }}
                >
                  <Line
                    autoFocus
                    flex="1"
                    aria-label="Why it is put back"
                    placeholder="Why it is put back"
                    value={reason}
                    onChange={({ target }) => setReason(target.value)}
                  />
                  <Button type="submit" look="go" disabled={busy || reason.trim() === ''}>
                    Put back
                  </Button>
                </chakra.form>
              )}
            </Box>
          ),
        )}
      </Box>
    </chakra.details>
  );
}
