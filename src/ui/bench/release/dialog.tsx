'use client';
/** Making a release: what it changes since the last one, what fails, and why it is made all the same. */
import { counted } from '@/core/counted';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { ReleaseChanges } from '@/core/workspace/release-changes';
import { Button, Line, Mono, Notice } from '../../kit';
import { lazily } from '../../lazily';
import { WindowTitle } from '../../window';
import type { Bench } from '../create-bench';
import { EarlierReleases } from './earlier';

const ForPeople = lazily(
  () => import('../changes/for-people').then((module) => module.ForPeople),
  () => <Box>Comparing…</Box>,
);
const Comparison = lazily(
  () => import('../code/comparison').then((module) => module.Comparison),
  () => <Box>Comparing…</Box>,
);

export function ReleaseDialog({ bench, onDone }: { bench: Bench; onDone: () => void }) {
  const [changes, setChanges] = useState<ReleaseChanges | null>(null);
  const [says, setSays] = useState<string | null>(null);
  const [reason, setReason] = useState('');
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    let here = true;
    void bench.release.changes().then((came) => {
      if (!here) return;
      if ('next' in came) setChanges(came);
      else setSays(came.says);
    });
    return () => {
      here = false;
    };
  }, [bench]);
  const failing = changes?.failing ?? [];
  const make = async () => {
    setBusy(true);
    const wrong = await bench.release.make(failing.length === 0 ? null : reason.trim());
    setBusy(false);
    if (wrong === null) onDone();
    else setSays(wrong);
  };
  const { last, differences = [], scripts = [] } = changes ?? {};
  const shown = new Set(scripts.map(({ name }) => name));
  // What is shown as a comparison of texts is not said in words as well.
  const inWords = differences.filter(
    ({ file }) => ![...shown].some((name) => file.endsWith(`/${name}`) || file === name),
  );
  return (
    <Box p="16px" minW={{ base: 'auto', md: '520px' }}>
      <WindowTitle>
        {changes === null ? 'Make a release' : `Make release ${changes.next}`}
      </WindowTitle>
      {says !== null && (
        <Notice tone="error" mt="8px">
          {says}
        </Notice>
      )}
      {changes === null && says === null && (
        <Box mt="8px">Running the scenarios and comparing…</Box>
      )}
      {changes !== null && (
        <>
          {last === null || last === undefined ? (
            <Box mt="8px">It is the first release of this form.</Box>
          ) : (
            <Box mt="8px" fontWeight={620}>
              Since release {last.number}
            </Box>
          )}
          {last?.reason != null && (
            <Box color="soft">
              Release {last.number}{' '}
              {last.again !== null
                ? `puts release ${last.again} back: “${last.reason}”`
                : `was made by ${last.madeBy} although ${
                    last.failing.length === 1 ? 'a scenario' : `${last.failing.length} scenarios`
                  } failed: “${last.reason}”`}
            </Box>
          )}
          {changes.former !== null && (differences.length > 0 || scripts.length > 0) && (
            <ForPeople
              bench={bench}
              number={changes.next - 1}
              former={changes.former}
              onLeave={onDone}
            />
          )}
          {last != null && differences.length === 0 && scripts.length === 0 && (
            <Box>Nothing has changed.</Box>
          )}
          <Box as="ul" pl="18px" mt="4px">
            {inWords.slice(0, 40).map(({ file, says: what }) => (
              <li key={`${file} ${what}`}>
                {what} <Mono color="soft">{file.replace(/^forms\/[^/]+\//, '')}</Mono>
              </li>
            ))}
          </Box>
          {inWords.length > 40 && <Box color="soft">and {inWords.length - 40} more</Box>}
          {scripts.map(({ name, before, after }) => (
            <chakra.details key={name} mt="4px">
              <chakra.summary cursor="pointer">
                <Mono>{name}</Mono>{' '}
                {before === null ? 'is new' : after === null ? 'is gone' : 'changed'}
              </chakra.summary>
              <Box mt="4px" maxH="260px" overflow="auto" borderWidth="1px" borderColor="line">
                <Comparison
                  before={before ?? ''}
                  after={after ?? ''}
                  label={`What changed in ${name}`}
                />
              </Box>
            </chakra.details>
          ))}
          {failing.length === 0 ? (
            <Box mt="8px" color="act">
              ✓ all scenarios pass
            </Box>
          ) : (
            <Notice tone="warning" mt="8px">
              {counted(failing.length, 'scenario fails', 'scenarios fail')}:
              <Box as="ul" pl="18px">
                {failing.slice(0, 8).map((one) => (
                  <li key={one}>{one}</li>
                ))}
              </Box>
              <chakra.label display="block" mt="6px">
                Why it is released all the same
                <Line
                  display="block"
                  width="100%"
                  value={reason}
                  onChange={(event) => setReason(event.target.value)}
                />
              </chakra.label>
            </Notice>
          )}
        </>
      )}
      <Flex mt="12px" gap="8px">
        <Button
          look="go"
          disabled={changes === null || busy || (failing.length > 0 && reason.trim() === '')}
          onClick={() => void make()}
        >
          {changes === null ? 'Make the release' : `Make release ${changes.next}`}
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </Flex>
      {changes?.last != null && <EarlierReleases bench={bench} onDone={onDone} />}
    </Box>
  );
}
