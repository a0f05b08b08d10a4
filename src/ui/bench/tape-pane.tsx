'use client';
/** The tape: a marker for each step, what the chosen step caused, and the answer to "why is this part like that?". */
import { lineInWords, type Line } from '@/core/wire/line';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { SaidName } from '@/core/session/aspects';
import type { Entry } from '@/core/session/entries';
import type { Answer, PartState, Step } from '@/core/session/step';
import type { Seen } from '@/core/scenario/snapshot';
import { Tape } from '@/core/tape/tape';
import { why } from '@/core/tape/why';
import { Button, Mono } from '../kit';
import { becameInWords, becauseInWords, entryInWords, stepAtMarker, type Names } from './words';

export interface TapePaneProps {
  steps: readonly Step[];
  answers: readonly Answer[];
  at: number;
  openedAs: string;
  who: string;
  names: Names;
  seen: Seen;
  tape: Tape;
  asked: { part: string; aspect: string | null } | null;
  onLookAt: (at: number) => void;
  onUndo: () => void;
  onAsk: (part: string, aspect?: string) => void;
  onGoTo: (behaviour: string, line: Line) => void;
}

export function TapePane(props: TapePaneProps) {
  return (
    <Box
      height="100%"
      display="grid"
      gridTemplateRows="auto 1fr"
      gridTemplateColumns="minmax(0, 1fr)"
      minH={0}
    >
      <Markers {...props} />
      <Box
        display="grid"
        gridTemplateColumns="minmax(0, 1fr) minmax(300px, 37%)"
        minH={0}
        borderTopWidth="1px"
        borderColor="line"
      >
        <Box overflowY="auto" px="16px" py="7px">
          <Consequences key={props.at} {...props} />
        </Box>
        <Box overflowY="auto" px="14px" py="7px" borderLeftWidth="1px" borderColor="line">
          <Why {...props} />
        </Box>
      </Box>
    </Box>
  );
}

function Markers(props: TapePaneProps) {
  const { steps, answers, at } = props;
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    list.current
      ?.querySelector('[aria-current]')
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [at]);
  const markers: [string, string][] = [
    ['opened', props.openedAs],
    ...steps.map((step) => stepAtMarker(step, props.names)),
  ];
  return (
    <Flex px="16px" minH="46px" align="center" gap="12px">
      <Flex
        ref={list}
        as="ol"
        flex="1"
        minW={0}
        overflowX="auto"
        listStyleType="none"
        position="relative"
        py="3px"
        aria-label="Steps"
      >
        {markers.map(([what, how], i) => {
          const answer = answers[i];
          const bad = answer !== undefined && (answer.errors.length > 0 || answer.refused !== null);
          const on = i === at;
          return (
            <Box as="li" key={i} flex="none" position="relative" minW="92px" maxW="150px">
              <Box position="absolute" top="6px" left={0} right={0} h="1px" bg="line" aria-hidden />
              <chakra.button
                type="button"
                position="relative"
                textAlign="left"
                width="100%"
                pr="12px"
                fontSize="12px"
                lineHeight="14px"
                cursor="pointer"
                color={on ? 'ink' : 'soft'}
                fontWeight={on ? 620 : 400}
                aria-current={on ? 'step' : undefined}
                onClick={() => props.onLookAt(i)}
              >
                <Box
                  w="11px"
                  h="11px"
                  borderRadius="50%"
                  borderWidth="1.5px"
                  mb="2px"
                  bg={on ? (bad ? 'bad' : 'act') : 'sheet'}
                  borderColor={bad ? 'bad' : on ? 'act' : 'soft'}
                />
                <Box overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
                  {bad && '× '}
                  {what}
                </Box>
                <Mono
                  display="block"
                  overflow="hidden"
                  textOverflow="ellipsis"
                  whiteSpace="nowrap"
                  fontSize="11.5px"
                  minH="14px"
                >
                  {how}
                </Mono>
              </chakra.button>
            </Box>
          );
        })}
      </Flex>
      <Flex gap="6px">
        <Button
          disabled={at === 0}
          onClick={() => props.onLookAt(at - 1)}
          title="Look at the step before (Alt+Left)"
        >
          ◂ back
        </Button>
        <Button
          disabled={at >= steps.length}
          onClick={() => props.onLookAt(at + 1)}
          title="Look at the step after (Alt+Right)"
        >
          forward ▸
        </Button>
        <Button
          disabled={steps.length === 0 || at < steps.length}
          onClick={props.onUndo}
          title="Take the last step off the tape and do the others again"
        >
          Undo step
        </Button>
      </Flex>
    </Flex>
  );
}

function Consequences(props: TapePaneProps) {
  const answer = props.answers[props.at];
  if (answer === undefined) return <Box color="soft">The form is being opened.</Box>;
  const tape = new Tape(answer.tape);
  return (
    <Box as="ul" listStyleType="none" aria-label="What this step caused">
      {tape.roots.map((root) => (
        <Branch key={root.n} {...props} of={tape} entry={root} depth={0} behaviour={null} />
      ))}
    </Box>
  );
}

function Branch({
  of,
  entry,
  depth,
  behaviour,
  ...props
}: TapePaneProps & { of: Tape; entry: Entry; depth: number; behaviour: string | null }) {
  const children = of
    .childrenOf(entry)
    .filter(
      (child) =>
        depth > 0 ||
        child.type !== 'event' ||
        of.childrenOf(child).length > 0 ||
        child.event === 'load' ||
        child.part !== null,
    );
  const [open, setOpen] = useState(true);
  const inside =
    entry.type === 'run'
      ? entry.behaviour
      : entry.type === 'error'
        ? entry.failure.behaviour
        : behaviour;
  const line =
    entry.type === 'effect' ||
    entry.type === 'run' ||
    entry.type === 'log' ||
    entry.type === 'message'
      ? entry.line
      : entry.type === 'error'
        ? entry.failure.line
        : null;
  const bad =
    entry.type === 'error' ||
    entry.type === 'refused' ||
    (entry.type === 'run' && entry.outcome === 'failed');
  const struck = 'struck' in entry && entry.struck === true;
  const asked = entry.type === 'effect' && entry.part === props.asked?.part;
  return (
    <Box as="li">
      <Flex
        gap="6px"
        align="baseline"
        fontSize="12.8px"
        lineHeight="19px"
        pl={`${depth * 16}px`}
        bg={asked ? 'saidGround' : undefined}
      >
        {children.length > 0 ? (
          <chakra.button
            type="button"
            width="14px"
            cursor="pointer"
            aria-expanded={open}
            aria-label={open ? 'Close' : 'Open'}
            onClick={() => setOpen(!open)}
          >
            {open ? '▾' : '▸'}
          </chakra.button>
        ) : (
          <Box width="14px" flexShrink={0} />
        )}
        <chakra.span
          flex="1"
          minW={0}
          color={bad ? 'bad' : entry.type === 'effect' && entry.by === 'script' ? 'said' : 'ink'}
          textDecoration={struck ? 'line-through' : undefined}
        >
          {bad && '× '}
          {entryInWords(entry, props.names, props.who)}
          {entry.type === 'error' && entry.failure.cycle !== undefined && (
            <> {entry.failure.cycle.join(' → ')}</>
          )}
        </chakra.span>
        {line !== null && line !== 0 && inside !== null && (
          <chakra.button
            type="button"
            color="soft"
            fontFamily="mono"
            fontSize="11.5px"
            cursor="pointer"
            _hover={{ color: 'act', textDecoration: 'underline' }}
            onClick={() => props.onGoTo(inside, line)}
          >
            {lineInWords(line)}
          </chakra.button>
        )}
      </Flex>
      {open && children.length > 0 && (
        <Box as="ul" listStyleType="none">
          {children.map((child) => (
            <Branch
              key={child.n}
              {...props}
              of={of}
              entry={child}
              depth={depth + 1}
              behaviour={inside}
            />
          ))}
        </Box>
      )}
    </Box>
  );
}

/** What can be asked about, in this order. */
const ASPECTS = Object.keys({
  shown: 0,
  value: 0,
  required: 0,
  locked: 0,
  options: 0,
  hint: 0,
  warning: 0,
  problem: 0,
  label: 0,
  stage: 0,
} satisfies Record<Exclude<SaidName, 'message' | 'replaced'>, 0>) as Exclude<
  SaidName,
  'message' | 'replaced'
>[];

function Why(props: TapePaneProps) {
  const { asked, names, tape, seen, who } = props;
  if (asked === null) {
    return (
      <Box color="soft">
        <b>Why?</b> Ask about any part: press ? beside its name in the form, or its label in the
        outline.
      </Box>
    );
  }
  const state = seen.parts[asked.part];
  if (state === undefined) return null;
  const life = tape.lifeOf(asked.part);
  const aspects = ASPECTS.filter(
    (aspect) =>
      state[aspect as keyof PartState] !== undefined &&
      life.some((effect) => effect.aspect === aspect),
  );
  return (
    <Box fontSize="12.8px">
      <Flex gap="6px" align="baseline" mb="2px">
        <b>{names.part(asked.part)}</b>
        <Mono color="soft">{asked.part}</Mono>
      </Flex>
      {aspects.length === 0 && (
        <Box color="soft">Nobody has said anything of it: it is as the form defines it.</Box>
      )}
      {aspects.map((aspect) => (
        <Box key={aspect} mb="6px">
          <Box fontWeight={620}>
            Why {becameInWords(aspect, state[aspect as keyof PartState] ?? null)}?
          </Box>
          <Box
            as="ol"
            listStyleType="none"
            pl="12px"
            ml="3px"
            borderLeftWidth="1px"
            borderColor="line"
          >
            {why(tape, asked.part, aspect).map((because, i) => (
              <li key={i}>
                {becauseInWords(because, names, who)}
                {(because.type === 'said' || because.type === 'withdrawn') && (
                  <>
                    {' '}
                    <Button
                      look="text"
                      fontSize="12px"
                      onClick={() =>
                        props.onGoTo(because.run.behaviour, because.effect.line ?? because.run.line)
                      }
                    >
                      go there
                    </Button>
                  </>
                )}
              </li>
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
