'use client';
/** What a release changes for people: the last one and the form as it is, used side by side while the dialog is open. */
import { Box } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { alsoInWords, comparedInWords, toldOfDifference } from '@/core/compare/told';
import type { FormerVersion } from '@/core/workspace/release-changes';
import { counted } from '@/core/counted';
import { useMaterial, useNames } from '../common/use-bench';
import type { Bench } from '../create-bench';
import type { ComparedSoFar } from './comparing';

const NOTHING_YET: ComparedSoFar = { differences: [], sessions: 0, compared: null };

export function ForPeople({ bench, former }: { bench: Bench; former: FormerVersion }) {
  const [so, setSo] = useState(NOTHING_YET);
  const [says, setSays] = useState<string | null>(null);
  const { form, tables } = useMaterial(bench);
  const names = useNames(bench);
  useEffect(() => {
    const stop = new AbortController();
    bench.release.compare(former, setSo, stop.signal).catch((caught: unknown) => {
      if (!stop.signal.aborted) setSays(caught instanceof Error ? caught.message : String(caught));
    });
    return () => stop.abort();
  }, [bench, former]);
  const { differences, sessions, compared } = so;
  const sum =
    compared === null
      ? `using both versions: ${counted(sessions, 'session')} so far`
      : comparedInWords(compared);
  return (
    <Box as="section" aria-label="What changes for people" mt="8px">
      <Box fontWeight={620}>What changes for people</Box>
      <Box as="ul" pl="18px" mt="4px">
        {differences.map((difference) => {
          const told = toldOfDifference(difference, { form, tables }, names);
          const also = alsoInWords(difference, names);
          return (
            <li key={`${difference.part} ${difference.aspect} ${told}`}>
              {told}
              {also.length > 0 && (
                <Box as="span" color="soft">
                  {' '}
                  With it: {also.join(', ')}.
                </Box>
              )}
            </li>
          );
        })}
      </Box>
      <Box color="soft" role="status">
        {says ?? `${sum[0]!.toUpperCase()}${sum.slice(1)}.`}
      </Box>
    </Box>
  );
}
