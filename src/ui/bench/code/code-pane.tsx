'use client';
/** The code of one behaviour: tabs above, the editor, and below it what is wrong with it and how it is saved. */
import { counted } from '@/core/counted';
import { useRoom } from '../../use-room';
import { isOwn } from '@/core/script/script-name';
import { OtherForms } from './other-forms';
import { lineInWords } from '@/core/wire/line';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { readHeader } from '@/core/script/header';
import type { Diagnostic } from '@/core/language/answers';
import type { Seen } from '@/core/scenario/seen';
import type { linesOf } from '@/core/tape/lines';
import { ConflictNotice, SavingLine } from '../../draft/saving';
import { BareButton, Button, Line } from '../../kit';
import { lazily } from '../../lazily';
import { isForThis } from '../common/core';
import type { Bench } from '../create-bench';
import { useFoundIn } from '../common/use-found';
import type { ScreenState } from '../common/screen';
import type { Behaviour } from './state';
import { useHeads } from '../common/use-bench';
import { Window, WindowTitle } from '../../window';

const Editor = lazily(
  () => import('./editor').then((module) => module.default),
  () => <Box p="14px">Opening the editor…</Box>,
);

const PANES: readonly { key: ScreenState['pane']; label: string }[] = [
  { key: 'structure', label: 'Structure' },
  { key: 'map', label: 'Map' },
  { key: 'tests', label: 'Tests' },
];

/** Structure and map of the form, then the behaviours. */
export function Tabs({
  bench,
  active,
  pane,
}: {
  bench: Bench;
  active: string;
  pane: ScreenState['pane'];
}) {
  const heads = useHeads(bench);
  return (
    <Flex
      role="tablist"
      aria-label="Behaviours"
      gap="2px"
      px="10px"
      pt="6px"
      bg="ground"
      borderBottomWidth="1px"
      borderColor="line"
      overflowX="auto"
      flexShrink={0}
      css={{ scrollbarWidth: 'none' }}
      onKeyDown={moveAmongTabs}
    >
      {(bench.core.isReleased ? [] : PANES).map(({ key, label }) => (
        <Tab
          key={key}
          on={pane === key || (key === 'tests' && pane === 'beside')}
          fontStyle="italic"
          onClick={() => bench.screen.showPane(key)}
        >
          {label}
        </Tab>
      ))}
      {heads.map(({ name, title, off, saving }) => (
        <Tab
          key={name}
          on={name === active && (pane === 'code' || pane === 'history')}
          onClick={() => bench.code.open(name)}
        >
          <chakra.span textDecoration={off ? 'line-through' : undefined}>{title}</chakra.span>
          {saving !== 'saved' && <span title="not saved yet"> •</span>}
        </Tab>
      ))}
    </Flex>
  );
}

/** Arrows go along the tabs and open them (WAI-ARIA Authoring Practices, tabs). */
function moveAmongTabs(event: React.KeyboardEvent<HTMLElement>): void {
  const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
  if (by === undefined || event.altKey) return;
  const tabs = [...event.currentTarget.querySelectorAll<HTMLElement>('[role=tab]')];
  const at = tabs.indexOf(document.activeElement as HTMLElement);
  const next = tabs[(at + by + tabs.length) % tabs.length];
  next?.focus();
  next?.click();
  event.preventDefault();
}

function Tab({
  on,
  children,
  fontStyle,
  onClick,
}: {
  on: boolean;
  children: React.ReactNode;
  fontStyle?: string;
  onClick: () => void;
}) {
  const shown = useRef<HTMLButtonElement>(null);
  // The one that is open is in sight, however many there are.
  useEffect(() => {
    if (on) shown.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [on]);
  return (
    <BareButton
      role="tab"
      aria-selected={on}
      tabIndex={on ? 0 : -1}
      ref={shown}
      px="12px"
      py="4px"
      whiteSpace="nowrap"
      borderWidth="1px"
      borderBottomWidth={0}
      borderRadius="5px 5px 0 0"
      borderColor={on ? 'line' : 'transparent'}
      bg={on ? 'sheet' : undefined}
      color={on ? 'ink' : 'soft'}
      fontStyle={fontStyle}
      mb="-1px"
      onClick={onClick}
    >
      {children}
    </BareButton>
  );
}

export function Code({
  bench,
  name,
  seen,
  notes,
  standing,
  goTo,
}: {
  bench: Bench;
  name: string;
  seen: Seen;
  /** The line that is stood on, while somebody stands in a run of this script. */
  standing: number | null;
  notes: ReturnType<typeof linesOf>;
  goTo: { line: number; takesFocus: boolean; count: number } | null;
}) {
  const behaviour = useRoom(bench.code, ({ behaviours }) =>
    behaviours.find((one) => one.name === name)!,
  );
  const checked = useRoom(bench.code, (state) => state.checked);
  const found = useFoundIn(bench, name);
  const { saving, diagnostics, broken } = behaviour;
  const [renaming, setRenaming] = useState<{ old: string; apply: (to: string) => void } | null>(
    null,
  );
  const first = diagnostics.find(({ severity }) => severity === 'error') ?? diagnostics[0];
  const { off } = readHeader(behaviour);
  const isForThisForm = useRoom(bench.core, ({ material }) => isForThis(behaviour, material.form));
  return (
    <>
      {saving.state === 'conflict' && (
        <Box p="10px" borderBottomWidth="1px" borderColor="line">
          <ConflictNotice
            {...(saving.theirs.revision === 0
              ? {
                  says: 'Somebody else removed or moved this behaviour meanwhile. What you typed is in the editor.',
                  mine: 'Keep mine as a new one',
                  theirs: 'Let it go',
                }
              : {
                  says: 'Somebody else saved this behaviour meanwhile. Yours is in the editor, theirs is below. Nothing is overwritten until you choose.',
                })}
            onSettle={(take) => bench.behaviours.settleConflict(behaviour.name, take)}
          >
            {saving.theirs.revision > 0 && (
              <chakra.pre
                aria-label="Their version"
                tabIndex={0}
                fontFamily="mono"
                fontSize="12px"
                mt="6px"
                maxH="160px"
                overflow="auto"
                bg="sheet"
                p="6px"
              >
                {saving.theirs.content}
              </chakra.pre>
            )}
          </ConflictNotice>
        </Box>
      )}
      <Box flex="1" minH={0}>
        <Editor
          key={behaviour.name}
          name={behaviour.name}
          text={behaviour.text}
          diagnostics={diagnostics}
          found={found}
          notes={notes}
          standing={standing}
          goTo={goTo}
          bench={bench}
          valueNow={(part) => valueNow(seen, part)}
          onRename={(old, apply) => setRenaming({ old, apply })}
        />
      </Box>
      <Box
        px="14px"
        py="5px"
        borderTopWidth="1px"
        borderColor="line"
        color="soft"
        fontSize="13px"
        role="status"
        flexShrink={0}
      >
        {broken !== null ? (
          <Box>
            <chakra.span color="bad">× {lineInWords(broken.line ?? 1)}</chakra.span> {broken.says}{' '}
            {behaviour.running?.code != null && 'The last version that worked goes on running.'}
          </Box>
        ) : (
          first !== undefined && <FirstProblem bench={bench} behaviour={behaviour} first={first} />
        )}
        {!isOwn(name) && <OtherForms bench={bench} script={behaviour} />}
        <Flex gap="14px" minH="22px" align="center">
          <span>
            {!isForThisForm
              ? 'not for this form: @forms in its first comment names others'
              : off
                ? 'turned off: it takes no part in the form'
                : diagnostics.length === 0
                  ? checked
                    ? 'no problems'
                    : 'checking…'
                  : counted(diagnostics.length, 'problem')}
            {found.length > 0 && (
              <>
                ,{' '}
                <Button look="text" onClick={() => bench.tests.open('faults')}>
                  {counted(found.length, 'fault')} found
                </Button>
              </>
            )}
          </span>
          <Button
            look="text"
            ml="auto"
            onClick={() => bench.code.editor('format')}
            title="Set the script in the common way (Shift+Alt+F)"
          >
            Format
          </Button>
          <Button
            look="text"
            onClick={() => bench.screen.showPane('history')}
            title="Every saved revision and its difference"
          >
            History
          </Button>
          <SavingLine
            saving={saving}
            saved={bench.core.isReleased ? 'as released' : `saved, revision ${behaviour.revision}`}
          />
        </Flex>
      </Box>
      <Window open={renaming !== null} onClose={() => setRenaming(null)} size="sm">
        {renaming !== null && <NewName {...renaming} onDone={() => setRenaming(null)} />}
      </Window>
    </>
  );
}

/** The first thing that is wrong, with what would mend it. */
function FirstProblem({
  bench,
  behaviour,
  first,
}: {
  bench: Bench;
  behaviour: Behaviour;
  first: Diagnostic;
}) {
  const page =
    first.code.startsWith('TS') || first.code === 'top-level' ? null : `mistakes/${first.code}`;
  return (
    <Box>
      <chakra.span color={first.severity === 'error' ? 'bad' : 'said'}>
        {first.severity === 'error' ? '×' : '!'}{' '}
      </chakra.span>
      <Button look="text" onClick={() => bench.code.goTo(behaviour.name, first.line)}>
        line {first.line}
      </Button>
      : <chakra.span color="ink">{first.says}</chakra.span>{' '}
      {first.fixes.map((fix) => (
        <Button
          key={fix.title}
          look="text"
          mr="8px"
          onClick={() => bench.code.mend(behaviour.name, first, fix)}
          title="Mend it (Ctrl+. in its line)"
        >
          {fix.title}
        </Button>
      ))}
      {page !== null && (
        <Button
          look="text"
          onClick={() => bench.screen.openHandbook(page)}
          aria-label={`Read on about ${first.code}`}
        >
          Read on
        </Button>
      )}
    </Box>
  );
}

function NewName({
  old,
  apply,
  onDone,
}: {
  old: string;
  apply: (to: string) => void;
  onDone: () => void;
}) {
  const [to, setTo] = useState(old);
  const sound = /^[A-Za-z_$][\w$]*$/.test(to);
  const done = () => {
    if (!sound) return;
    if (to !== old) apply(to);
    onDone();
  };
  return (
    <Box p="14px">
      <WindowTitle>Rename {old}</WindowTitle>
      <Line
        autoFocus
        aria-label="New name"
        width="100%"
        mt="8px"
        fontFamily="mono"
        value={to}
        onChange={(event) => setTo(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && done()}
      />
      <Flex mt="10px" gap="8px">
        <Button look="go" disabled={!sound} onClick={done}>
          Rename
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </Flex>
    </Box>
  );
}

/** The value of a field as a script would read it now; null for what has none. */
function valueNow(seen: Seen, part: string): string | null {
  const rows = seen.rows[part];
  const value =
    rows === undefined ? seen.parts[part]?.value : rows.order.map((id) => rows.byId[id]!.values);
  return value === undefined ? null : JSON.stringify(value);
}
