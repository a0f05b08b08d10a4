'use client';
/** The left column: the form's parts, and below them the behaviours. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { memo, useRef, type ReactNode } from 'react';
import type { Field, Form } from '@/core/form/definition';
import { cellsOf } from '@/core/form/fields';
import type { Seen } from '@/core/scenario/seen';
import { useInSight } from '../common/use-in-sight';
import { PartList } from '../common/pane-parts';
import { BareButton } from '../../kit';

export interface OutlineProps {
  form: Form;
  seen: Seen;
  said: ReadonlySet<string>;
  /** Parts at which the search has found something wrong. */
  wrong: ReadonlySet<string>;
  asked: string | null;
  /** Stands in place of the parts, while their structure is edited. */
  tree: ReactNode;
  /** Stands below the parts. */
  behaviours: ReactNode;
  onAsk: (part: string) => void;
  /** Puts the name of a part or a cell into the code. */
  onInsert: (part: string) => void;
  /** The pointer is on a part, or on none. */
  onPoint: (part: string | null) => void;
}

export function Outline(props: OutlineProps) {
  const root = useRef<HTMLDivElement>(null);
  const { asked, onAsk, onInsert, onPoint } = props;
  const row = (name: string, label: string, sort: RowProps['sort']) => (
    <PartRow
      key={name}
      name={name}
      label={label}
      sort={sort}
      off={props.seen.parts[name]?.onScreen === false}
      said={props.said.has(name)}
      wrong={props.wrong.has(name)}
      asked={asked === name}
      onAsk={onAsk}
      onInsert={onInsert}
      onPoint={onPoint}
    />
  );
  // What is asked about, or gone to from the code, comes into sight.
  useInSight(root, 'outline', asked);
  return (
    <Flex direction="column" height="100%" fontSize="13px" minH={0}>
      {props.tree ?? (
        <PartList ref={root} label="Parts of the form">
          <Caption>
            <span>Form</span>
            <span>
              <Dot said /> decided by a script
            </span>
          </Caption>
          {(props.form.tracks ?? []).map((track) => row(track.name, track.title, 'section'))}
          {props.form.pages.map((page) => (
            <Box key={page.name} mt="3px">
              {props.form.pages.length > 1 && row(page.name, page.title, 'page')}
              {page.sections.map((section) => (
                <Box key={section.name} mt="2px">
                  {row(section.name, section.title, 'section')}
                  {section.fields.map((field) => (
                    <Box key={field.name}>
                      {row(field.name, field.label, 'field')}
                      {cellsOf(field).map((cell) => (
                        <CellRow
                          key={cell.name}
                          rows={field.name}
                          cell={cell}
                          onInsert={onInsert}
                        />
                      ))}
                    </Box>
                  ))}
                </Box>
              ))}
            </Box>
          ))}
        </PartList>
      )}
      {props.behaviours}
    </Flex>
  );
}

export function Caption({ children }: { children: React.ReactNode }) {
  return (
    <Flex
      px="14px"
      pb="4px"
      color="soft"
      fontSize="12px"
      justify="space-between"
      align="center"
      flexWrap="wrap"
      columnGap="6px"
    >
      {children}
    </Flex>
  );
}

function Dot({ said }: { said: boolean }) {
  return (
    <Box
      as="span"
      display="inline-block"
      w="7px"
      h="7px"
      borderRadius="50%"
      flexShrink={0}
      bg={said ? 'said' : 'transparent'}
      aria-hidden
    />
  );
}

interface RowProps extends Pick<OutlineProps, 'onAsk' | 'onInsert' | 'onPoint'> {
  name: string;
  label: string;
  sort: 'page' | 'section' | 'field';
  off: boolean;
  said: boolean;
  wrong: boolean;
  asked: boolean;
}

/** Renders again only when it shows something else: a form may have hundreds of parts. */
const PartRow = memo(function PartRow({
  name,
  label,
  sort,
  off,
  said,
  wrong,
  asked,
  onAsk,
  onInsert,
  onPoint,
}: RowProps) {
  return (
    <Flex
      data-outline={name}
      onPointerEnter={() => onPoint(name)}
      onPointerLeave={() => onPoint(null)}
      align="center"
      pl={sort === 'field' ? '26px' : '14px'}
      pr="14px"
      gap="7px"
      lineHeight="18px"
      whiteSpace="nowrap"
      fontWeight={sort === 'section' ? 620 : 400}
      fontStyle={sort === 'page' ? 'italic' : undefined}
      bg={asked ? 'actGround' : undefined}
      color={off ? 'soft' : 'ink'}
      _hover={{ bg: 'actGround' }}
    >
      <BareButton
        display="flex"
        flex="1 1 auto"
        minW="60px"
        alignItems="center"
        gap="7px"
        py="0.5px"
        textAlign="left"
        title={`${label} (${name}): ask why it is as it is`}
        onClick={() => onAsk(name)}
      >
        <Dot said={said} />
        <chakra.span
          overflow="hidden"
          textOverflow="ellipsis"
          textDecoration={off ? 'line-through' : undefined}
        >
          {label}
        </chakra.span>
        {wrong && (
          <chakra.span color="bad" title="The search has found something wrong here">
            ×
          </chakra.span>
        )}
      </BareButton>
      <InsertName shown={name} title={`Put ${name} into the code`} onClick={() => onInsert(name)} />
    </Flex>
  );
});

const CellRow = memo(function CellRow({
  rows,
  cell,
  onInsert,
}: {
  rows: string;
  cell: Field;
  onInsert: (part: string) => void;
}) {
  return (
    <Flex
      pl="40px"
      pr="14px"
      gap="7px"
      color="soft"
      fontSize="12px"
      lineHeight="17px"
      whiteSpace="nowrap"
    >
      <chakra.span flex="1 1 auto" minW="60px" overflow="hidden" textOverflow="ellipsis">
        {cell.label}
      </chakra.span>
      <InsertName
        shown={cell.name}
        title={`Put ${rows}.${cell.name} into the code`}
        onClick={() => onInsert(`${rows}.${cell.name}`)}
      />
    </Flex>
  );
});

/** A name that goes into the code when it is pressed. */
function InsertName({
  shown,
  title,
  onClick,
}: {
  shown: string;
  title: string;
  onClick: () => void;
}) {
  return (
    <BareButton
      fontFamily="mono"
      fontSize="11.5px"
      fontWeight={400}
      color="soft"
      minW="40px"
      flexShrink={2}
      overflow="hidden"
      textOverflow="ellipsis"
      textAlign="right"
      _hover={{ color: 'act', textDecoration: 'underline' }}
      title={title}
      aria-label={title}
      onClick={onClick}
    >
      {shown}
    </BareButton>
  );
}
