'use client';
/** The behaviours in the order in which they run, with what each did; moved by drag and keyboard, turned off, copied, deleted. */
import { counted } from '@/core/counted';
import { useRoom } from '../../use-room';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { Menu } from '@chakra-ui/react/menu';
import { Portal } from '@chakra-ui/react/portal';
import { arrayMove, useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useEffect, useRef, useState } from 'react';
import type { Seen } from '@/core/scenario/seen';
import type { Tape } from '@/core/tape/tape';
import { baseName, isModule, isOwn } from '@/core/script/script-name';
import { didInWords } from '@/core/tape/did';
import { BareButton, Button, Labelled, Line, Region, Select } from '../../kit';
import { Caption } from '../form/outline';
import { SortableList } from '../common/sortable-list';
import { StarterDialog } from './starter-window';
import type { Bench } from '../create-bench';
import { useHeads, type BehaviourHead } from '../common/use-bench';
import { Window, WindowTitle } from '../../window';

export function BehaviourList({ bench, seen, tape }: { bench: Bench; seen: Seen; tape: Tape }) {
  const heads = useHeads(bench);
  const active = useRoom(bench.code, (state) => state.active);
  const adding = useRoom(bench.behaviours, (state) => state.adding);
  const [starting, setStarting] = useState(false);
  const opener = useRef<HTMLButtonElement>(null);
  const modules = heads.filter(({ name }) => isModule(name));
  const behaviours = heads.filter(({ name }) => !isModule(name));
  const names = behaviours.map(({ name }) => name);
  const move = (from: number, to: number) =>
    void bench.behaviours.reorder(arrayMove(names, from, to));
  const dropped = (name: string, over: string) => move(names.indexOf(name), names.indexOf(over));
  return (
    <Region
      flex="0 0 auto"
      maxH="45%"
      pt="8px"
      pb="8px"
      borderTopWidth="1px"
      borderColor="line"
      aria-label="Behaviours"
    >
      <Caption>
        <span>Behaviours</span>
        <Flex gap="6px" hidden={bench.core.isReleased}>
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
            onClick={() => bench.behaviours.askForTitle(true)}
          >
            + new
          </Button>
        </Flex>
      </Caption>
      <SortableList id="behaviours" items={names} onDrop={dropped}>
        {behaviours.map((head, i) => (
          <BehaviourRow
            key={head.name}
            bench={bench}
            head={head}
            place={i}
            count={behaviours.length}
            on={head.name === active}
            seen={seen}
            tape={tape}
            onMove={(to) => move(i, to)}
          />
        ))}
      </SortableList>
      {modules.length > 0 && (
        <>
          <Caption>
            <span>Shared modules</span>
          </Caption>
          <Box as="ul" listStyleType="none">
            {modules.map((head) => (
              <ModuleRow key={head.name} bench={bench} head={head} on={head.name === active} />
            ))}
          </Box>
        </>
      )}
      {adding && (
        <NewBehaviour
          bench={bench}
          onCancel={() => {
            bench.behaviours.askForTitle(false);
            opener.current?.focus();
          }}
        />
      )}
      <StarterDialog bench={bench} open={starting} onDone={() => setStarting(false)} />
    </Region>
  );
}

/** What a new script can be, and the words for it. */
const SORTS = [
  { key: 'ts', label: 'for this form' },
  { key: 'js', label: 'for this form, in JavaScript' },
  { key: 'several', label: 'for several forms' },
  { key: 'module', label: 'shared module' },
] as const;
type Sort = (typeof SORTS)[number]['key'];

function NewBehaviour({ bench, onCancel }: { bench: Bench; onCancel: () => void }) {
  const [title, setTitle] = useState('');
  const [sort, setSort] = useState<Sort>('ts');
  const add = () => {
    if (title.trim() === '') return onCancel();
    bench.behaviours.askForTitle(false);
    if (sort === 'ts' || sort === 'js') bench.behaviours.add(title.trim(), undefined, sort);
    else bench.behaviours.addShared(sort, title.trim());
  };
  return (
    <Flex px="14px" py="4px" gap="6px" flexWrap="wrap">
      <Line
        aria-label="Title of the new behaviour"
        placeholder="What it is about"
        autoFocus
        flex="1 0 100%"
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
        aria-label="What it is for"
        flex="1"
        minW={0}
        value={sort}
        options={[...SORTS]}
        onChange={(event) => setSort(event.target.value as Sort)}
      />
      <Button onClick={add}>Add</Button>
    </Flex>
  );
}

/** A shared module: chosen, described, looked up, deleted; it has no place in an order and is never off. */
function ModuleRow({ bench, head, on }: { bench: Bench; head: BehaviourHead; on: boolean }) {
  const { name, title, purpose, errors } = head;
  const [describing, setDescribing] = useState(false);
  const row = useRef<HTMLDivElement>(null);
  // The list is short, and modules stand at its end.
  useEffect(() => {
    if (on) row.current?.scrollIntoView({ block: 'nearest' });
  }, [on]);
  const choose = (what: string) => {
    if (what === 'describe') setDescribing(true);
    else if (what === 'history') {
      bench.code.open(name);
      bench.screen.showPane('history');
    } else void bench.behaviours.remove(name);
  };
  const bad = errors > 0 || head.broken !== null;
  return (
    <Flex
      ref={row}
      as="li"
      bg={on ? 'sheet' : undefined}
      _hover={{ bg: 'sheet' }}
      data-module={name}
    >
      <BareButton
        flex="1"
        minW={0}
        py="3px"
        pl="34px"
        textAlign="left"
        aria-current={on || undefined}
        title={purpose === '' ? undefined : purpose}
        onClick={() => bench.code.open(name)}
      >
        <Box fontWeight={on ? 640 : 400}>{title}</Box>
        <Box color={bad ? 'bad' : 'soft'} fontSize="12px" lineHeight="15px">
          {bad ? `× ${errors <= 1 ? '1 error' : `${errors} errors`}` : baseName(name)}
          {SAVING[head.saving]}
        </Box>
      </BareButton>
      <Choices title={title} onSelect={choose}>
        <Item value="describe">Title and purpose…</Item>
        <Item value="history">History</Item>
        <Item value="delete">Delete</Item>
      </Choices>
      <Window open={describing} onClose={() => setDescribing(false)} size="sm">
        <Describe bench={bench} head={head} onDone={() => setDescribing(false)} />
      </Window>
    </Flex>
  );
}

const SAVING: Readonly<Record<BehaviourHead['saving'], string>> = {
  saved: '',
  waiting: ' · saving',
  unsaved: ' · not saved',
  conflict: ' · two versions',
};

/** What can be done with a script, behind a button. */
function Choices({
  title,
  onSelect,
  children,
}: {
  title: string;
  onSelect: (what: string) => void;
  children: React.ReactNode;
}) {
  return (
    <Menu.Root onSelect={({ value }) => onSelect(value)} positioning={{ placement: 'bottom-end' }}>
      <Menu.Trigger asChild>
        <BareButton
          aria-label={`What to do with ${title}`}
          px="9px"
          py="3px"
          color="soft"
          _hover={{ color: 'ink' }}
        >
          ⋯
        </BareButton>
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
            {children}
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}

interface RowProps {
  bench: Bench;
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
    disabled: { draggable: !isOwn(name) },
  });
  const [describing, setDescribing] = useState(false);
  const failing =
    seen.failing.some((failure) => failure.behaviour === baseName(name)) || head.broken !== null;
  const saving = SAVING[head.saving];
  // One for several forms has its place by its file, which a form cannot change for the others.
  const own = isOwn(name);
  const choose = (what: string) => {
    if (what === 'describe') setDescribing(true);
    else if (what === 'off') bench.behaviours.describe(name, { off: !off });
    else if (what === 'up') onMove(place - 1);
    else if (what === 'down') onMove(place + 1);
    else if (what === 'duplicate') bench.behaviours.duplicate(name);
    else if (what === 'history') {
      bench.code.open(name);
      bench.screen.showPane('history');
    } else void bench.behaviours.remove(name);
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
      <BareButton
        {...attributes}
        {...listeners}
        aria-label={`Move ${title}`}
        title={
          own
            ? 'Drag, or press Space and use the arrow keys'
            : 'It is for several forms, and its file says its place'
        }
        disabled={!own}
        cursor={own ? 'grab' : 'default'}
        color="soft"
        pl="14px"
        pr="4px"
        py="3px"
        touchAction="none"
        minW="34px"
        textAlign="left"
      >
        {place + 1}
      </BareButton>
      <BareButton
        flex="1"
        minW={0}
        py="3px"
        textAlign="left"
        aria-current={on || undefined}
        title={purpose === '' ? undefined : purpose}
        onClick={() => bench.code.open(name)}
      >
        <Box fontWeight={on ? 640 : 400} textDecoration={off ? 'line-through' : undefined}>
          {title}
          {!own && (
            <chakra.span color="soft" fontSize="12px">
              {' '}
              several forms
            </chakra.span>
          )}
        </Box>
        <Box
          color={failing || errors > 0 ? 'bad' : 'soft'}
          fontSize="12px"
          lineHeight="15px"
          whiteSpace="nowrap"
          overflow="hidden"
          textOverflow="ellipsis"
        >
          {!head.forThis
            ? 'not for this form'
            : off
              ? 'turned off'
              : failing
                ? '× failed'
                : errors > 0
                  ? `× ${counted(errors, 'error')}`
                  : didInWords(baseName(name), tape)}
          {saving}
        </Box>
      </BareButton>
      <Choices title={title} onSelect={choose}>
        <Item value="describe">Title and purpose…</Item>
        <Item value="off">{off ? 'Turn on' : 'Turn off'}</Item>
        <Item value="up" disabled={!own || place === 0}>
          Earlier
        </Item>
        <Item value="down" disabled={!own || place === count - 1}>
          Later
        </Item>
        <Item value="duplicate">Duplicate</Item>
        <Item value="history">History</Item>
        <Item value="delete">Delete</Item>
      </Choices>
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

function Describe({
  bench,
  head,
  onDone,
}: {
  bench: Bench;
  head: BehaviourHead;
  onDone: () => void;
}) {
  const [title, setTitle] = useState(head.title);
  const [purpose, setPurpose] = useState(head.purpose);
  const done = () => {
    if (title.trim() === '') return;
    bench.behaviours.describe(head.name, { title, purpose });
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
