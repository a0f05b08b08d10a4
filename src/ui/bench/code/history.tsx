'use client';
/** Every saved revision of a behaviour, each as its difference to the text as it stands, and bringing one back. */
import { counted } from '@/core/counted';
import { useRoom } from '../../use-room';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { readHeader } from '@/core/script/header';
import { useDates } from '../../writing';
import { BareButton, Button, Notice } from '../../kit';
import { useAnswer } from '../../server-data';
import { Comparison } from './comparison';
import type { Bench } from '../create-bench';
import { PaneHead } from '../common/pane-parts';

export interface Revision {
  revision: number;
  text: string;
  savedBy: string | null;
  savedAt: string;
}

export function HistoryPane({ bench, name }: { bench: Bench; name: string }) {
  const dates = useDates();
  const behaviour = useRoom(bench.code, ({ behaviours }) =>
    behaviours.find((one) => one.name === name)!,
  );
  const [chosen, setChosen] = useState<number | null>(null);
  const [against, setAgainst] = useState<'before' | 'now'>('before');
  const { people } = bench.core;
  const { revision } = behaviour;
  const { data: revisions, error } = useAnswer<Revision[]>(
    `${bench.core.pathOfScript(name)}/revisions`,
    revision,
  );
  if (error !== null)
    return (
      <Box p="14px">
        <Notice tone="error">{error.message}</Notice>
      </Box>
    );
  if (revisions === undefined) return <Box p="14px">Reading the revisions…</Box>;
  const at = revisions.find((one) => one.revision === (chosen ?? revisions[0]?.revision));
  const before = at === undefined ? undefined : revisions[revisions.indexOf(at) + 1];
  const [from, to] =
    against === 'now' ? [at?.text ?? '', behaviour.text] : [before?.text ?? null, at?.text ?? ''];
  return (
    <Flex direction="column" flex="1" minH={0}>
      <PaneHead>
        <chakra.span fontWeight={620}>{readHeader(behaviour).title}</chakra.span>
        <chakra.span color="soft">{counted(revisions.length, 'revision')}</chakra.span>
        <Flex ml="auto" gap="8px" role="group" aria-label="Compared with">
          <Button
            aria-pressed={against === 'before'}
            color={against === 'before' ? 'act' : 'ink'}
            onClick={() => setAgainst('before')}
          >
            What it changed
          </Button>
          <Button
            aria-pressed={against === 'now'}
            color={against === 'now' ? 'act' : 'ink'}
            onClick={() => setAgainst('now')}
          >
            What has changed since
          </Button>
          <Button onClick={() => bench.screen.showPane('code')}>Back to the code</Button>
        </Flex>
      </PaneHead>
      <Flex flex="1" minH={0}>
        <Box
          as="ul"
          width="150px"
          flexShrink={0}
          overflowY="auto"
          py="6px"
          borderRightWidth="1px"
          borderColor="line"
          listStyleType="none"
          aria-label="Revisions"
        >
          {revisions.map((one) => (
            <li key={one.revision}>
              <BareButton
                width="100%"
                textAlign="left"
                px="14px"
                py="3px"
                bg={one === at ? 'actGround' : undefined}
                aria-current={one === at || undefined}
                _hover={{ bg: 'actGround' }}
                onClick={() => setChosen(one.revision)}
              >
                <Box fontWeight={one === at ? 640 : 400}>revision {one.revision}</Box>
                <Box color="soft" fontSize="12px">
                  {dates.moment(one.savedAt)}
                  <br />
                  {people.find(({ key }) => key === one.savedBy)?.name ?? one.savedBy}
                </Box>
              </BareButton>
            </li>
          ))}
        </Box>
        <Comparison before={from} after={to} label="Difference" />
      </Flex>
      {at !== undefined && (
        <Flex
          px="14px"
          py="6px"
          gap="10px"
          align="center"
          borderTopWidth="1px"
          borderColor="line"
          color="soft"
          fontSize="13px"
        >
          <span>
            {against === 'before'
              ? before === undefined
                ? 'the first revision'
                : `revision ${before.revision} → ${at.revision}`
              : `revision ${at.revision} → as it stands`}
          </span>
          <Button
            ml="auto"
            disabled={at.text === behaviour.text}
            onClick={() => {
              bench.code.edit(name, at.text);
              bench.screen.showPane('code');
            }}
          >
            Bring back revision {at.revision}
          </Button>
        </Flex>
      )}
    </Flex>
  );
}
