'use client';
/** What the steps caused, as a tree: filtered, searched, drawn only where it is looked at, each entry a moment to stand on. */
import { counted } from '@/core/counted';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useStore } from 'zustand';
import { listed, type EntrySort, type Listed } from '@/core/debugging/filter';
import type { Tape } from '@/core/tape/tape';
import { entryInWords, type Names } from '@/core/tape/words';
import {
  asideOf,
  behavioursOn,
  placeAmong,
  rowEntry,
  rowsOf,
  type TreeRow as TapeRow,
} from '@/core/debugging/tree-rows';
import { BareButton, Line, Select } from '../../kit';
import type { Bench } from '../create-bench';

const SORTS: readonly { key: EntrySort; label: string }[] = [
  { key: 'events', label: 'events' },
  { key: 'runs', label: 'runs' },
  { key: 'effects', label: 'effects' },
  { key: 'calls', label: 'calls' },
  { key: 'log', label: 'log' },
  { key: 'errors', label: 'errors' },
];

/** Pixels of a row. */
const ROW = 20;

export interface TapeTreeProps {
  bench: Bench;
  /** What is listed: of one step, or of all. */
  tape: Tape;
  names: Names;
  who: string;
  asked: string | null;
}

/** The numbers of the entries in a list of rows, in order, for going from one to the next. */
export function useListed({ bench, tape, names, who }: Omit<TapeTreeProps, 'asked'>): Listed[] {
  const filter = useStore(bench.tape.store, (state) => state.filter);
  return useMemo(
    () => listed(tape, filter, (entry) => entryInWords(entry, names, who)),
    [tape, filter, names, who],
  );
}

export function TapeTree({
  bench,
  tape,
  names,
  who,
  asked,
  all,
  scope,
  onScope,
}: TapeTreeProps & {
  all: readonly Listed[];
  scope: 'step' | 'all';
  onScope: (scope: 'step' | 'all') => void;
}) {
  const { filter, standing, detailed, sites } = useStore(bench.tape.store);
  const [closed, setClosed] = useState<ReadonlySet<number>>(new Set());
  const rows = useMemo(
    () => rowsOf(all, closed, standing?.entry ?? null, detailed, sites, names),
    [all, closed, standing, detailed, sites, names],
  );
  const toggle = (entry: number) => {
    const next = new Set(closed);
    if (!next.delete(entry)) next.add(entry);
    setClosed(next);
  };
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
    getItemKey: (i) => rows[i]!.key,
  });
  const on = placeAmong(rows, standing);
  useEffect(() => {
    if (on >= 0) virtual.scrollToIndex(on, { align: 'auto' });
  }, [on, virtual]);
  return (
    <Flex direction="column" height="100%" minH={0} fontSize="12.8px">
      <Flex gap="8px" align="center" px="14px" py="4px" flexWrap="wrap" flexShrink={0}>
        <Select
          aria-label="Which steps"
          fontSize="12.5px"
          py="1px"
          value={scope}
          options={[
            { key: 'step', label: 'this step' },
            { key: 'all', label: 'all steps' },
          ]}
          onChange={({ target: { value: key } }) => onScope(key as 'step' | 'all')}
        />
        <Select
          aria-label="Which sort of entry"
          fontSize="12.5px"
          py="1px"
          value={filter.sorts[0] ?? ''}
          options={[{ key: '', label: 'everything' }, ...SORTS]}
          onChange={({ target: { value: key } }) =>
            bench.tape.filter({ sorts: key === '' ? [] : [key as EntrySort] })
          }
        />
        {filter.part !== null && (
          <Narrowed
            label={names.part(filter.part)}
            onClear={() => bench.tape.filter({ part: null })}
          />
        )}
        <Select
          aria-label="Which behaviour"
          fontSize="12.5px"
          py="1px"
          maxW="110px"
          value={filter.behaviour ?? ''}
          options={[
            { key: '', label: 'by any' },
            ...behavioursOn(tape).map((key) => ({ key, label: names.behaviour(key) })),
          ]}
          onChange={({ target: { value: key } }) =>
            bench.tape.filter({ behaviour: key === '' ? null : key })
          }
        />
        <Line
          aria-label="Find on the tape"
          placeholder="find…"
          ml="auto"
          width="92px"
          fontSize="12.5px"
          py="1px"
          value={filter.words}
          onChange={(event) => bench.tape.filter({ words: event.target.value })}
        />
      </Flex>
      <Box
        ref={scroller}
        flex="1"
        minH={0}
        overflowY="auto"
        px="10px"
        tabIndex={0}
        role="tree"
        aria-label="What this step caused"
        aria-activedescendant={on < 0 ? undefined : rowId(rows[on]!)}
        // The focus stays with the tree, so that it never rests on a row that was left by a key.
        onClick={() => scroller.current?.focus({ preventScroll: true })}
        onKeyDown={(event) => {
          const entry = on < 0 || event.target !== scroller.current ? null : rowEntry(rows[on]!);
          if (entry === null || (event.key !== ' ' && event.key !== 'Enter')) return;
          event.preventDefault();
          toggle(entry);
        }}
      >
        {rows.length === 0 && <Box color="soft">Nothing of that kind is on the tape.</Box>}
        <Box position="relative" height={`${virtual.getTotalSize()}px`}>
          {virtual.getVirtualItems().map((item) => (
            <Box
              key={item.key}
              position="absolute"
              top={0}
              left={0}
              right={0}
              height={`${ROW}px`}
              style={{ transform: `translateY(${item.start}px)` }}
            >
              <TreeRow
                row={rows[item.index]!}
                bench={bench}
                tape={tape}
                names={names}
                who={who}
                asked={asked}
                isOn={item.index === on}
                isClosed={closed.has(rowEntry(rows[item.index]!) ?? -1)}
                onClose={toggle}
              />
            </Box>
          ))}
        </Box>
      </Box>
    </Flex>
  );
}

function Narrowed({ label, onClear }: { label: string; onClear: () => void }) {
  return (
    <BareButton
      px="6px"
      borderRadius="9px"
      bg="saidGround"
      title="List everything again"
      onClick={onClear}
    >
      {label} ×
    </BareButton>
  );
}

const rowId = ({ key }: TapeRow) => `tape-row-${key}`;

function TreeRow({
  row,
  bench,
  tape,
  names,
  who,
  asked,
  isOn,
  isClosed,
  onClose,
}: {
  row: TapeRow;
  isOn: boolean;
  isClosed: boolean;
  onClose: (entry: number) => void;
} & TapeTreeProps) {
  if (row.is === 'quiet')
    return (
      <BareButton
        pl={`${row.depth * 14 + 18}px`}
        color="soft"
        onClick={() => bench.tape.filter({ quiet: true })}
      >
        {counted(row.count, 'run changed nothing', 'runs changed nothing')}
      </BareButton>
    );
  if (row.is === 'detail')
    return (
      <Flex
        id={rowId(row)}
        role="treeitem"
        aria-selected={isOn}
        pl={`${row.depth * 14 + 18}px`}
        bg={isOn ? 'saidGround' : undefined}
        lineHeight={`${ROW}px`}
        gap="8px"
      >
        <Stand
          onClick={() =>
            void bench.tape.standOn({
              entry: bench.tape.store.getState().standing!.entry,
              detail: row.at,
            })
          }
          color="soft"
        >
          {row.text}
        </Stand>
        {row.line !== null && <chakra.span color="soft">{row.line}</chakra.span>}
      </Flex>
    );
  const { entry, depth } = row.listed;
  const hasChildren = tape.childrenOf(entry).length > 0;
  const bad =
    entry.type === 'error' ||
    entry.type === 'refused' ||
    (entry.type === 'run' && entry.outcome === 'failed');
  const struck = 'struck' in entry && entry.struck === true;
  const ofAsked = asked !== null && entry.type === 'effect' && entry.part === asked;
  return (
    <Flex
      id={rowId(row)}
      role="treeitem"
      aria-selected={isOn}
      aria-level={depth + 1}
      aria-expanded={hasChildren ? !isClosed : undefined}
      gap="4px"
      pl={`${depth * 14}px`}
      lineHeight={`${ROW}px`}
      bg={isOn ? 'saidGround' : ofAsked ? 'actGround' : undefined}
      boxShadow={isOn ? 'inset 3px 0 0 {colors.saidEdge}' : undefined}
      whiteSpace="nowrap"
    >
      {hasChildren ? (
        <BareButton
          tabIndex={-1}
          width="14px"
          flexShrink={0}
          aria-label={isClosed ? 'Open' : 'Close'}
          onClick={() => onClose(entry.n)}
        >
          {isClosed ? '▸' : '▾'}
        </BareButton>
      ) : (
        <Box width="14px" flexShrink={0} />
      )}
      <Stand
        onClick={() => void bench.tape.standOn({ entry: entry.n, detail: null })}
        color={bad ? 'bad' : entry.type === 'effect' && entry.by === 'script' ? 'said' : 'ink'}
        textDecoration={struck ? 'line-through' : undefined}
      >
        {bad && '× '}
        {entryInWords(entry, names, who)}
        {entry.type === 'error' && entry.failure.cycle !== undefined && (
          <> {entry.failure.cycle.join(' → ')}</>
        )}
      </Stand>
      <chakra.span color="soft" fontSize="11.5px" flexShrink={0}>
        {asideOf(entry)}
      </chakra.span>
    </Flex>
  );
}

function Stand({
  children,
  ...props
}: React.ComponentProps<typeof chakra.button> & { children: React.ReactNode }) {
  return (
    <BareButton
      tabIndex={-1}
      flex="1"
      minW={0}
      textAlign="left"
      overflow="hidden"
      textOverflow="ellipsis"
      whiteSpace="nowrap"
      {...props}
    >
      {children}
    </BareButton>
  );
}
