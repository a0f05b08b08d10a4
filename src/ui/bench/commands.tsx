'use client';
/** Everything that can be done on the bench, with its name and keys: one table for the keyboard and for the command list. */
import { Box } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { SUBMISSION } from '@/core/debugging/question';
import { readHeader } from '@/core/script/header';
import { FORM } from '@/core/session/tree';
import { Line, Mono } from '../kit';
import type { Bench } from './create-bench';
import { WindowTitle } from '../window';

export interface Command {
  name: string;
  /** Together with Alt; as `KeyboardEvent.key` says it. */
  key?: string;
  /** The keys by which the editor does it, as people read them. */
  inEditor?: string;
  run: () => void;
}

export type BenchDialog =
  'release' | 'keep' | 'commands' | 'behaviours' | 'opening' | 'problems' | 'search' | 'starter';

export function commandsOf(bench: Bench, show: (dialog: BenchDialog) => void): Command[] {
  const { session } = bench.form;
  const screen = bench.screen.store.getState;
  const active = () => bench.code.store.getState().active;
  return [
    {
      name: 'Look at the step before',
      key: 'ArrowLeft',
      run: () => session.lookAt(session.state.at - 1),
    },
    {
      name: 'Look at the step after',
      key: 'ArrowRight',
      run: () => session.lookAt(session.state.at + 1),
    },
    {
      name: 'Open or close the tape',
      key: 't',
      run: () => bench.tape.showDrawer(!bench.tape.store.getState().open),
    },
    { name: 'Why this field', key: 'y', run: () => askWhyHere(bench) },
    { name: 'Why the submission came out so', run: () => bench.tape.ask(SUBMISSION) },
    { name: 'Why this page is open', run: () => bench.tape.ask(FORM, 'page') },
    { name: 'Back to now', run: () => void bench.tape.standOn(null) },
    { name: 'Go on from the step that is looked at', run: () => void bench.tape.goOnFromHere() },
    { name: 'Next error on the tape', run: () => void bench.tape.goNearest({ is: 'error' }, true) },
    { name: 'Watches and breakpoints', run: () => bench.tape.showDrawer(true, 'watches') },
    {
      name: 'The same steps under other conditions',
      run: () => bench.tape.showDrawer(true, 'compare'),
    },
    { name: 'What scripts cost', run: () => bench.tape.showDrawer(true, 'cost') },
    { name: 'Undo the last step', key: 'u', run: () => void bench.form.undo() },
    { name: 'Start again', key: 'r', run: () => void bench.form.reopen() },
    { name: 'How the form is opened', key: 'o', run: () => show('opening') },
    { name: 'Next record', run: () => void bench.form.step({ next: true }) },
    { name: 'Previous record', run: () => void bench.form.step({ previous: true }) },
    { name: 'Submit the form', key: 'Enter', run: () => void bench.form.step({ submit: true }) },
    {
      name: 'Show or hide technical names',
      key: 'n',
      run: () => bench.screen.showNames(!screen().names),
    },
    { name: 'Structure of the form', key: 'f', run: () => bench.screen.showPane('structure') },
    { name: 'Map of the form', key: 'm', run: () => bench.screen.showPane('map') },
    { name: 'Undo the last edit of the structure', run: bench.structure.undo },
    { name: 'Problems', key: 'p', run: () => show('problems') },
    { name: 'Search all scripts', key: 'g', run: () => show('search') },
    {
      name: 'Handbook',
      key: 'h',
      run: () =>
        screen().side === 'handbook' ? bench.screen.showForm() : bench.screen.openHandbook(),
    },
    { name: 'Go to behaviour …', key: 'b', run: () => show('behaviours') },
    { name: 'New empty behaviour', key: 'e', run: () => bench.behaviours.askForTitle(true) },
    { name: 'New behaviour for a need', key: 'w', run: () => show('starter') },
    { name: 'Next pane', inEditor: 'F6', run: () => goToPane(1) },
    { name: 'Previous pane', inEditor: 'Shift+F6', run: () => goToPane(-1) },
    { name: 'Go to what a name means', inEditor: 'F12', run: () => bench.code.editor('define') },
    { name: 'Uses of a name', inEditor: 'Shift+F12', run: () => bench.code.editor('uses') },
    { name: 'Rename what a name means', inEditor: 'F2', run: () => bench.code.editor('rename') },
    {
      name: 'Mend what is wrong in this line',
      inEditor: 'Ctrl+.',
      run: () => bench.code.editor('fix'),
    },
    { name: 'Format the script', inEditor: 'Shift+Alt+F', run: () => bench.code.editor('format') },
    { name: 'History of the behaviour', run: () => bench.screen.showPane('history') },
    { name: 'Turn the behaviour on or off', run: () => bench.behaviours.turn(active()) },
    { name: 'Behaviour earlier', run: () => void bench.behaviours.move(active(), -1) },
    { name: 'Behaviour later', run: () => void bench.behaviours.move(active(), 1) },
    { name: 'Duplicate the behaviour', run: () => bench.behaviours.duplicate(active()) },
    { name: 'Delete the behaviour', run: () => void bench.behaviours.remove(active()) },
    { name: 'Bring the deleted behaviour back', run: bench.behaviours.restore },
    { name: 'Scenarios', key: 's', run: () => bench.tests.open('scenarios') },
    { name: 'Outcome grid', run: () => bench.tests.open('grid') },
    { name: 'Faults that the search has found', run: () => bench.tests.open('faults') },
    { name: 'What changed for people', run: () => bench.tests.open('changes') },
    { name: 'Both versions side by side', run: () => void bench.changes.openBoth() },
    { name: 'Mutation: try the scenarios', run: () => bench.tests.open('mutation') },
    { name: 'Coverage of the scenarios', run: () => bench.tests.open('coverage') },
    { name: 'Run all scenarios', run: () => void bench.tests.run() },
    { name: 'Keep as scenario', key: 'c', run: () => show('keep') },
    { name: 'Make a release', run: () => show('release') },
    ...behaviourCommands(bench).map(({ name, run }) => ({ name: `Go to ${name}`, run })),
    { name: 'Commands', key: 'k', run: () => show('commands') },
  ];
}

/** Asks about the part that has the focus in the live form. */
function askWhyHere(bench: Bench): void {
  const part = document.activeElement?.closest<HTMLElement>('[data-part]')?.dataset.part;
  if (part === undefined)
    bench.screen.say('Put the focus into a field of the live form, then ask again.');
  else bench.tape.ask(part);
}

/** A command for each behaviour, to go to it. */
export function behaviourCommands(bench: Bench): Command[] {
  return bench.code.store.getState().behaviours.map((behaviour) => ({
    name: readHeader(behaviour).title,
    run: () => {
      bench.code.open(behaviour.name);
      // What is chosen is drawn first.
      requestAnimationFrame(() => focusPane('Code'));
    },
  }));
}

const PANES_IN_ORDER = ['Outline', 'Code', 'Live form', 'Handbook', 'Tape'];

const paneCalled = (label: string) =>
  document.querySelector<HTMLElement>(`main [aria-label="${label}"]`);

/** The editor of the code, else the first thing in a pane that takes the focus. */
function focusPane(label: string): void {
  const pane = paneCalled(label);
  (
    pane?.querySelector<HTMLElement>('.cm-content') ??
    pane?.querySelector<HTMLElement>(
      'input:not([disabled]), select:not([disabled]), textarea, button:not([disabled]), [tabindex="0"]',
    )
  )?.focus();
}

/** Moves the focus to the next pane, or the one before; from outside of all to the code. */
function goToPane(by: 1 | -1): void {
  const panes = PANES_IN_ORDER.filter((label) => paneCalled(label) !== null);
  const at = panes.findIndex((label) => paneCalled(label)!.contains(document.activeElement));
  focusPane(at < 0 ? 'Code' : panes[(at + by + panes.length) % panes.length]!);
}

/** Runs commands by their keys. */
export function useCommandKeys(bench: Bench, show: (dialog: BenchDialog) => void): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key === 'F6' && !event.altKey && !event.ctrlKey) {
        event.preventDefault();
        goToPane(event.shiftKey ? -1 : 1);
        return;
      }
      if (!event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) return;
      const command = commandsOf(bench, show).find(
        ({ key }) => key === event.key || key === event.key.toLowerCase(),
      );
      if (command === undefined) return;
      event.preventDefault();
      command.run();
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  }, [bench, show]);
}

const KEY_NAMES: Record<string, string> = { ArrowLeft: '←', ArrowRight: '→', Enter: 'Enter' };

export function CommandList({
  commands,
  title = 'Commands',
  find = 'Find a command',
  byNumber = false,
  onDone,
}: {
  commands: readonly Command[];
  title?: string;
  find?: string;
  /** Whether the first nine are numbered, and chosen by their digit. */
  byNumber?: boolean;
  onDone: () => void;
}) {
  const [wanted, setWanted] = useState('');
  const [at, setAt] = useState(0);
  const found = commands.filter(({ name }) => name.toLowerCase().includes(wanted.toLowerCase()));
  const run = (command: Command | undefined) => {
    if (command === undefined) return;
    onDone();
    command.run();
  };
  return (
    <Box p="12px">
      <WindowTitle>{title}</WindowTitle>
      <Line
        autoFocus
        role="combobox"
        aria-expanded
        aria-controls="commands"
        aria-activedescendant={found[at] === undefined ? undefined : `command-${at}`}
        aria-label={find}
        placeholder={find}
        width="100%"
        mt="6px"
        value={wanted}
        onChange={(event) => {
          setWanted(event.target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown') setAt(Math.min(at + 1, found.length - 1));
          else if (event.key === 'ArrowUp') setAt(Math.max(at - 1, 0));
          else if (event.key === 'Enter') run(found[at]);
          else if (byNumber && wanted === '' && /^[1-9]$/.test(event.key) && !event.altKey)
            run(found[Number(event.key) - 1]);
          else return;
          event.preventDefault();
        }}
      />
      <Box id="commands" role="listbox" aria-label={title} mt="6px" maxH="320px" overflowY="auto">
        {found.map((command, i) => (
          <Box
            key={command.name}
            id={`command-${i}`}
            role="option"
            aria-selected={i === at}
            display="flex"
            justifyContent="space-between"
            px="9px"
            py="3px"
            cursor="pointer"
            bg={i === at ? 'actGround' : undefined}
            _hover={{ bg: 'actGround' }}
            onClick={() => run(command)}
          >
            <span>
              {byNumber && wanted === '' && i < 9 && <Mono color="soft">{i + 1} </Mono>}
              {command.name}
            </span>
            {command.key !== undefined && (
              <Mono color="soft">Alt+{KEY_NAMES[command.key] ?? command.key.toUpperCase()}</Mono>
            )}
            {command.inEditor !== undefined && <Mono color="soft">{command.inEditor}</Mono>}
          </Box>
        ))}
        {found.length === 0 && (
          <Box px="9px" py="3px" color="soft">
            Nothing is called that.
          </Box>
        )}
      </Box>
    </Box>
  );
}
