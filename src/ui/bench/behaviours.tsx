'use client';
/** The behaviours in the order in which they run, with what each did; moved by drag and keyboard, turned off, copied, deleted. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { Menu } from '@chakra-ui/react/menu';
import { Portal } from '@chakra-ui/react/portal';
import { arrayMove, useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useRef, useState } from 'react';
import { useStore } from 'zustand';
import type { Seen } from '@/core/scenario/snapshot';
import type { Tape } from '@/core/tape/tape';
import type { ScriptLanguage } from '@/core/structure/behaviours';
import { Button, Labelled, Line, Select } from '../kit';
import { Caption } from './outline';
import { SortableList } from './sortable-list';
import { StarterDialog } from './starter-window';
import type { BenchStore } from './store';
import { useHeads, type BehaviourHead } from './use-bench';
import { Window, WindowTitle } from '../window';

export function BehaviourList({
  bench,
  seen,
  tape,
}: {
  bench: BenchStore;
  seen: Seen;
  tape: Tape;
}) {
  const heads = useHeads(bench);
  const active = useStore(bench.store, (state) => state.active);
  const adding = useStore(bench.store, (state) => state.adding);
  const [starting, setStarting] = useState(false);
  const opener = useRef<HTMLButtonElement>(null);
  const names = heads.map(({ name }) => name);
  const move = (from: number, to: number) => void bench.reorder(arrayMove(names, from, to));
  const dropped = (name: string, over: string) => move(names.indexOf(name), names.indexOf(over));
  return (
    <Box
      flex="0 0 auto"
      maxH="45%"
      overflowY="auto"
      pt="8px"
      pb="8px"
      borderTopWidth="1px"
      borderColor="line"
      tabIndex={0}
      role="region"
      aria-label="Behaviours"
    >
      <Caption>
        <span>Behaviours</span>
        <Flex gap="6px">
          <Button
            look="text"
            fontSize="12.5px"
            onClick={() => setStarting(true)}
            title="From a daily need to code with the real names"
          >
            + for a need
          </Button>
          <Button
            look="text"
            fontSize="12.5px"
            ref={opener}
            title="An empty one (Alt+E)"
            onClick={() => bench.askForBehaviour(true)}
          >
            + new
          </Button>
        </Flex>
      </Caption>
      <SortableList id="behaviours" items={names} onDrop={dropped}>
        {heads.map((head, i) => (
          <BehaviourRow
            key={head.name}
            bench={bench}
            head={head}
            place={i}
            count={heads.length}
            on={head.name === active}
            seen={seen}
            tape={tape}
            onMove={(to) => move(i, to)}
          />
        ))}
      </SortableList>
      {adding && (
        <NewBehaviour
          bench={bench}
          onCancel={() => {
            bench.askForBehaviour(false);
            opener.current?.focus();
          }}
        />
      )}
      <StarterDialog bench={bench} open={starting} onDone={() => setStarting(false)} />
    </Box>
  );
}

function NewBehaviour({ bench, onCancel }: { bench: BenchStore; onCancel: () => void }) {
  const [title, setTitle] = useState('');
  const [language, setLanguage] = useState<ScriptLanguage>('ts');
  const add = () => {
    if (title.trim() === '') return onCancel();
    bench.askForBehaviour(false);
    bench.addBehaviour(title.trim(), undefined, language);
  };
  return (
    <Flex px="14px" py="4px" gap="6px">
      <Line
        aria-label="Title of the new behaviour"
        placeholder="What it is about"
        autoFocus
        flex="1"
        minW={0}
        value={title}
        onChange={(event) => setTitle(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            // The editor has the focus by then, and would take the key as well.
            event.preventDefault();
            add();
          }
          if (event.key === 'Escape') onCancel();
        }}
      />
      <Select
        aria-label="Language of the new behaviour"
        width="52px"
        value={language}
        options={[
          { key: 'ts', label: 'ts' },
          { key: 'js', label: 'js' },
        ]}
        title="TypeScript or JavaScript"
        onChange={(event) => setLanguage(event.target.value as ScriptLanguage)}
      />
      <Button onClick={add}>Add</Button>
    </Flex>
  );
}

interface RowProps {
  bench: BenchStore;
  head: BehaviourHead;
  place: number;
  count: number;
  on: boolean;
  seen: Seen;
  tape: Tape;
  onMove: (to: number) => void;
}

function BehaviourRow({ bench, head, place, count, on, seen, tape, onMove }: RowProps) {
  const { name, title, purpose, off, errors } = head;
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: name,
  });
  const [describing, setDescribing] = useState(false);
  const failing =
    seen.failing.some((failure) => `${failure.behaviour}.` === name.replace(/[jt]s$/, '')) ||
    head.broken !== null;
  const saving = {
    saved: '',
    waiting: ' · saving',
    unsaved: ' · not saved',
    conflict: ' · two versions',
  }[head.saving];
  const choose = (what: string) => {
    if (what === 'describe') setDescribing(true);
    else if (what === 'off') bench.describe(name, { off: !off });
    else if (what === 'up') onMove(place - 1);
    else if (what === 'down') onMove(place + 1);
    else if (what === 'duplicate') bench.duplicate(name);
    else if (what === 'history') {
      bench.choose(name);
      bench.showPane('history');
    } else void bench.remove(name);
  };
  return (
    <Flex
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition: transition ?? undefined }}
      align="flex-start"
      bg={isDragging ? 'saidGround' : on ? 'sheet' : undefined}
      _hover={{ bg: isDragging ? 'saidGround' : 'sheet' }}
      position="relative"
      zIndex={isDragging ? 2 : undefined}
      data-behaviour={name}
    >
      <chakra.button
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move ${title}`}
        title="Drag, or press Space and use the arrow keys"
        cursor="grab"
        color="soft"
        pl="14px"
        pr="4px"
        py="3px"
        touchAction="none"
        minW="34px"
        textAlign="left"
      >
        {place + 1}
      </chakra.button>
      <chakra.button
        type="button"
        flex="1"
        minW={0}
        py="3px"
        textAlign="left"
        cursor="pointer"
        aria-current={on || undefined}
        title={purpose === '' ? undefined : purpose}
        onClick={() => bench.choose(name)}
      >
        <Box fontWeight={on ? 640 : 400} textDecoration={off ? 'line-through' : undefined}>
          {title}
        </Box>
        <Box
          color={failing || errors > 0 ? 'bad' : 'soft'}
          fontSize="12px"
          lineHeight="15px"
          whiteSpace="nowrap"
          overflow="hidden"
          textOverflow="ellipsis"
        >
          {off
            ? 'turned off'
            : failing
              ? '× failed'
              : errors > 0
                ? `× ${errors === 1 ? '1 error' : `${errors} errors`}`
                : didInWords(name, tape)}
          {saving}
        </Box>
      </chakra.button>
      <Menu.Root onSelect={({ value }) => choose(value)} positioning={{ placement: 'bottom-end' }}>
        <Menu.Trigger asChild>
          <chakra.button
            type="button"
            aria-label={`What to do with ${title}`}
            px="9px"
            py="3px"
            color="soft"
            cursor="pointer"
            _hover={{ color: 'ink' }}
          >
            ⋯
          </chakra.button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content
              bg="sheet"
              color="ink"
              borderWidth="1px"
              borderColor="line"
              borderRadius="4px"
              minW="180px"
            >
              <Item value="describe">Title and purpose…</Item>
              <Item value="off">{off ? 'Turn on' : 'Turn off'}</Item>
              <Item value="up" disabled={place === 0}>
                Earlier
              </Item>
              <Item value="down" disabled={place === count - 1}>
                Later
              </Item>
              <Item value="duplicate">Duplicate</Item>
              <Item value="history">History</Item>
              <Item value="delete">Delete</Item>
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
      <Window open={describing} onClose={() => setDescribing(false)} size="sm">
        <Describe bench={bench} head={head} onDone={() => setDescribing(false)} />
      </Window>
    </Flex>
  );
}

function Item({
  value,
  disabled = false,
  children,
}: {
  value: string;
  disabled?: boolean;
  children: React.ReactNode;
}) {
  return (
    <Menu.Item
      value={value}
      disabled={disabled}
      px="12px"
      py="4px"
      cursor="pointer"
      fontSize="13.5px"
      _highlighted={{ bg: 'actGround' }}
      _disabled={{ opacity: 0.5 }}
    >
      {children}
    </Menu.Item>
  );
}

/** What a behaviour steered and how often it ran, in the session on the bench. */
function didInWords(name: string, tape: Tape): string {
  const bare = name.replace(/\.[jt]s$/, '');
  const runs = tape.entries.filter((entry) => entry.type === 'run' && entry.behaviour === bare);
  const numbers = new Set(runs.map(({ n }) => n));
  const steers = new Set(
    tape.entries.flatMap((entry) =>
      entry.type === 'effect' && entry.cause !== null && numbers.has(entry.cause)
        ? [entry.part]
        : [],
    ),
  );
  const what =
    steers.size === 0
      ? 'steers nothing yet'
      : steers.size === 1
        ? `steers ${[...steers][0]}`
        : `steers ${steers.size} parts`;
  return runs.length === 0
    ? what
    : `${what} · ran ${runs.length === 1 ? 'once' : `${runs.length} times`}`;
}

function Describe({
  bench,
  head,
  onDone,
}: {
  bench: BenchStore;
  head: BehaviourHead;
  onDone: () => void;
}) {
  const [title, setTitle] = useState(head.title);
  const [purpose, setPurpose] = useState(head.purpose);
  const done = () => {
    if (title.trim() === '') return;
    bench.describe(head.name, { title, purpose });
    onDone();
  };
  return (
    <Box p="14px">
      <WindowTitle>Title and purpose</WindowTitle>
      <Box color="soft" fontSize="13px">
        They stand in the comment that the script begins with.
      </Box>
      <Flex direction="column" gap="8px" mt="8px">
        <Labelled label="Title">
          <Line
            autoFocus
            width="100%"
            value={title}
            onChange={(event) => setTitle(event.target.value)}
            onKeyDown={(event) => event.key === 'Enter' && done()}
          />
        </Labelled>
        <Labelled label="Purpose">
          <Line
            width="100%"
            value={purpose}
            onChange={(event) => setPurpose(event.target.value)}
            onKeyDown={(event) => event.key === 'Enter' && done()}
          />
        </Labelled>
      </Flex>
      <Flex mt="12px" gap="8px">
        <Button look="go" disabled={title.trim() === ''} onClick={done}>
          Write it
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </Flex>
    </Box>
  );
}
