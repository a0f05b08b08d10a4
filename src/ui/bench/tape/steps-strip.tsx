'use client';
/** The steps as a slim strip: a marker for each, what the one looked at caused in one line, and the ways along them. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useRef } from 'react';
import { useStore } from 'zustand';
import type { Answer, Step } from '@/core/session/step';
import { stepAtMarker, type Names } from '@/core/tape/words';
import { causedInWords } from '@/core/tape/did';
import { BareButton, Button } from '../../kit';
import type { Bench } from '../create-bench';

/** Pixels of the strip. */
export const STRIP = 58;

export function StepsStrip({
  bench,
  steps,
  answers,
  at,
  openedAs,
  names,
  who,
}: {
  bench: Bench;
  steps: readonly Step[];
  answers: readonly Answer[];
  at: number;
  openedAs: string;
  names: Names;
  who: string;
}) {
  const { open, dropped } = useStore(bench.tape.store);
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    list.current
      ?.querySelector('[aria-current]')
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [at]);
  const markers: [string, string][] = [
    ['opened', openedAs],
    ...steps.map((step) => stepAtMarker(step, names)),
  ];
  const look = (to: number) => {
    // Looking at a step is standing at its end; the last one is now.
    void bench.tape.standOn(null).then(() => bench.form.session.lookAt(to));
  };
  return (
    <Box height={`${STRIP}px`} flexShrink={0} bg="ground">
      <Flex px="14px" height="36px" align="center" gap="10px">
        <Flex
          ref={list}
          as="ol"
          flex="1"
          minW={0}
          overflowX="auto"
          listStyleType="none"
          aria-label="Steps"
          css={{ scrollbarWidth: 'none' }}
        >
          {markers.map(([what, how], i) => {
            const answer = answers[i];
            const bad =
              answer !== undefined && (answer.errors.length > 0 || answer.refused !== null);
            const on = i === at;
            return (
              <Box as="li" key={i} flex="none" position="relative" minW="86px" maxW="136px">
                <Box
                  position="absolute"
                  top="5px"
                  left={0}
                  right={0}
                  h="1px"
                  bg="line"
                  aria-hidden
                />
                <BareButton
                  position="relative"
                  textAlign="left"
                  width="100%"
                  pr="10px"
                  fontSize="12px"
                  lineHeight="14px"
                  color={on ? 'ink' : 'soft'}
                  fontWeight={on ? 620 : 400}
                  opacity={i > at ? 0.6 : 1}
                  aria-current={on ? 'step' : undefined}
                  title={`${what} ${how}`}
                  onClick={() => look(i)}
                >
                  <Box
                    w="10px"
                    h="10px"
                    borderRadius="50%"
                    borderWidth="1.5px"
                    mb="1px"
                    bg={on ? (bad ? 'bad' : 'act') : 'sheet'}
                    borderColor={bad ? 'bad' : on ? 'act' : 'soft'}
                  />
                  <Box overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
                    {bad && '× '}
                    {what}{' '}
                    <chakra.span fontFamily="mono" fontSize="11px" fontWeight={400}>
                      {how}
                    </chakra.span>
                  </Box>
                </BareButton>
              </Box>
            );
          })}
        </Flex>
        <Flex gap="6px" flexShrink={0}>
          <Button
            disabled={at === 0}
            onClick={() => look(at - 1)}
            title="The step before (Alt+Left)"
            aria-label="The step before"
          >
            ◂ step
          </Button>
          <Button
            disabled={at >= steps.length}
            onClick={() => look(at + 1)}
            title="The step after (Alt+Right)"
            aria-label="The step after"
          >
            step ▸
          </Button>
          <Button
            disabled={steps.length === 0 || at < steps.length}
            onClick={() => void bench.form.undo()}
            title="Take the last step off the tape and do the others again"
          >
            Undo step
          </Button>
        </Flex>
      </Flex>
      <Flex px="14px" height="22px" align="center" gap="10px" fontSize="12.5px">
        <BareButton
          aria-expanded={open}
          flex="1"
          minW={0}
          textAlign="left"
          overflow="hidden"
          textOverflow="ellipsis"
          whiteSpace="nowrap"
          title={open ? 'Close the tape (Alt+T)' : 'Open the tape (Alt+T)'}
          onClick={() => bench.tape.showDrawer(!open)}
        >
          <chakra.span color="act">{open ? '▾ tape' : '▸ tape'}</chakra.span>{' '}
          <chakra.span color="soft">{causedInWords(answers[at], names, who)}</chakra.span>
        </BareButton>
        {dropped.length > 0 && (
          <Button look="text" onClick={() => void bench.tape.bringBack()}>
            {dropped.length === 1
              ? 'Bring the later step back'
              : `Bring the ${dropped.length} later steps back`}
          </Button>
        )}
      </Flex>
    </Box>
  );
}
