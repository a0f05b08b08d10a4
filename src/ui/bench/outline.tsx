'use client';
/** The left column: the form's parts, and below them the behaviours. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useRef, type ReactNode } from 'react';
import { cellsOf, type Form } from '@/core/form/definition';
import type { Seen } from '@/core/scenario/snapshot';
import { Mono } from '../kit';

export interface OutlineProps {
  form: Form;
  seen: Seen;
  said: ReadonlySet<string>;
  asked: string | null;
  /** Stands below the parts. */
  behaviours: ReactNode;
  onAsk: (part: string) => void;
}

export function Outline(props: OutlineProps) {
  const root = useRef<HTMLDivElement>(null);
  const { asked } = props;
  // What is asked about, or gone to from the code, comes into sight.
  useEffect(() => {
    if (asked !== null) root.current?.querySelector(`[data-outline="${CSS.escape(asked)}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [asked]);
  return (
    <Flex direction="column" height="100%" fontSize="13px" minH={0}>
      <Box ref={root} flex="1 1 auto" overflowY="auto" pt="8px" minH={0} tabIndex={0} role="region" aria-label="Parts of the form">
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
      {props.behaviours}
    </Flex>
  );
}

export function Caption({ children }: { children: React.ReactNode }) {
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
      data-outline={name}
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
