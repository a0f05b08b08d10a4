'use client';
/** The left column: the form's parts, and the behaviours with what each did. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { cellsOf, type Form } from '@/core/form/definition';
import type { Seen } from '@/core/scenario/snapshot';
import { readHeader } from '@/core/language/header';
import type { Tape } from '@/core/tape/tape';
import { Button, Line, Mono } from '../kit';
import type { Behaviour } from './store';

export interface OutlineProps {
  form: Form;
  seen: Seen;
  said: ReadonlySet<string>;
  asked: string | null;
  behaviours: readonly Behaviour[];
  active: string;
  tape: Tape;
  onAsk: (part: string) => void;
  onChoose: (behaviour: string) => void;
  onAdd: (title: string) => void;
}

export function Outline(props: OutlineProps) {
  return (
    <Flex direction="column" height="100%" fontSize="13px" minH={0}>
      <Box flex="1 1 auto" overflowY="auto" pt="8px" minH={0} tabIndex={0} role="region" aria-label="Parts of the form">
      <Caption>
        <span>Form</span>
        <span>
          <Dot said /> decided by a script
        </span>
      </Caption>
      {(props.form.tracks ?? []).map((track) => (
        <PartRow key={track.name} {...props} name={track.name} label={track.title} head />
      ))}
      {props.form.pages.flatMap((page) => page.sections).map((section) => (
        <Box key={section.name} mt="3px">
          <PartRow {...props} name={section.name} label={section.title} head />
          {section.fields.map((field) => (
            <Box key={field.name}>
              <PartRow {...props} name={field.name} label={field.label} />
              {cellsOf(field).map((cell) => (
                <chakra.div key={cell.name} pl="40px" pr="14px" color="soft" fontSize="12px" lineHeight="17px" whiteSpace="nowrap" overflow="hidden" textOverflow="ellipsis">
                  {cell.label} <Mono>each.{cell.name}</Mono>
                </chakra.div>
              ))}
            </Box>
          ))}
        </Box>
      ))}
      </Box>
      <Behaviours {...props} />
    </Flex>
  );
}

function Caption({ children }: { children: React.ReactNode }) {
  return (
    <Flex px="14px" pb="4px" color="soft" fontSize="12px" justify="space-between" align="center">
      {children}
    </Flex>
  );
}

function Dot({ said }: { said: boolean }) {
  return <Box as="span" display="inline-block" w="7px" h="7px" borderRadius="50%" flexShrink={0} bg={said ? 'said' : 'transparent'} aria-hidden />;
}

function PartRow({ name, label, head = false, ...props }: OutlineProps & { name: string; label: string; head?: boolean }) {
  const off = props.seen.parts[name]?.onScreen === false;
  return (
    <chakra.button
      type="button"
      display="flex"
      width="100%"
      alignItems="center"
      gap="7px"
      px="14px"
      pl={head ? '14px' : '26px'}
      py="0.5px"
      lineHeight="18px"
      textAlign="left"
      whiteSpace="nowrap"
      cursor="pointer"
      fontWeight={head ? 620 : 400}
      bg={props.asked === name ? 'actGround' : undefined}
      color={off ? 'soft' : 'ink'}
      _hover={{ bg: 'actGround' }}
      title={`Ask why ${label} is as it is`}
      onClick={() => props.onAsk(name)}
    >
      <Dot said={props.said.has(name)} />
      <chakra.span overflow="hidden" textOverflow="ellipsis" textDecoration={off ? 'line-through' : undefined}>
        {label}
      </chakra.span>
      <Mono ml="auto" color="soft" fontSize="11.5px" overflow="hidden" textOverflow="ellipsis" minW="40px" textAlign="right" flexShrink={2}>
        {name}
      </Mono>
    </chakra.button>
  );
}

function Behaviours(props: OutlineProps) {
  const [naming, setNaming] = useState<string | null>(null);
  const add = () => {
    if (naming !== null && naming.trim() !== '') props.onAdd(naming.trim());
    setNaming(null);
  };
  return (
    <Box flex="0 0 auto" maxH="45%" overflowY="auto" pt="8px" pb="8px" borderTopWidth="1px" borderColor="line" tabIndex={0} role="region" aria-label="Behaviours">
      <Caption>
        <span>Behaviours</span>
        <Button look="text" onClick={() => setNaming('')}>
          + new
        </Button>
      </Caption>
      {props.behaviours.map((behaviour, i) => (
        <BehaviourRow key={behaviour.name} {...props} behaviour={behaviour} place={i + 1} />
      ))}
      {naming !== null && (
        <Flex px="14px" py="4px" gap="6px">
          <Line
            aria-label="Title of the new behaviour"
            placeholder="What it is about"
            autoFocus
            flex="1"
            minW={0}
            value={naming}
            onChange={(event) => setNaming(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') add();
              if (event.key === 'Escape') setNaming(null);
            }}
          />
          <Button onClick={add}>Add</Button>
        </Flex>
      )}
    </Box>
  );
}

function BehaviourRow({ behaviour, place, ...props }: OutlineProps & { behaviour: Behaviour; place: number }) {
  const { title } = readHeader(behaviour);
  const bare = behaviour.name.replace(/\.[jt]s$/, '');
  const runs = props.tape.entries.filter((entry) => entry.type === 'run' && entry.behaviour === bare);
  const numbers = new Set(runs.map((run) => run.n));
  const steers = new Set(props.tape.entries.flatMap((entry) => (entry.type === 'effect' && entry.cause !== null && numbers.has(entry.cause) ? [entry.part] : [])));
  const on = behaviour.name === props.active;
  const failing = props.seen.failing.some((failure) => failure.behaviour === bare) || behaviour.broken !== null;
  const saving = { saved: '', waiting: ' · saving', unsaved: ' · not saved', conflict: ' · two versions' }[behaviour.saving.state];
  return (
    <chakra.button type="button" display="flex" width="100%" px="14px" py="3px" textAlign="left" cursor="pointer" bg={on ? 'sheet' : undefined} _hover={{ bg: 'sheet' }} aria-current={on || undefined} onClick={() => props.onChoose(behaviour.name)}>
      <chakra.span color="soft" width="18px" flexShrink={0}>
        {place}
      </chakra.span>
      <Box minW={0}>
        <Box fontWeight={on ? 640 : 400}>{title}</Box>
        <Box color={failing ? 'bad' : 'soft'} fontSize="12px" lineHeight="15px">
          {failing ? '× failed' : steers.size === 0 ? 'steers nothing yet' : steers.size === 1 ? `steers ${[...steers][0]}` : `steers ${steers.size} parts`}
          {runs.length > 0 && ` · ran ${runs.length === 1 ? 'once' : `${runs.length} times`}`}
          {saving}
        </Box>
      </Box>
    </chakra.button>
  );
}
