/** The commands of the bench, by their keys and by the list. */
import { act, fireEvent, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { benchOf } from '../../../tests/support/bench';
import { drawn } from '../../../tests/support/drawn';
import { Window } from '../window';
import {
  behaviourCommands,
  CommandList,
  commandsOf,
  useCommandKeys,
  type Command,
} from './commands';
import type { Bench } from './create-bench';

beforeEach(() => {
  vi.stubGlobal('requestAnimationFrame', (then: () => void) => void then());
});
afterEach(() => vi.unstubAllGlobals());

function Keys({ bench, show }: { bench: Bench; show: (dialog: string) => void }) {
  useCommandKeys(bench, show);
  return (
    <main>
      <section aria-label="Outline">
        <button type="button">outline</button>
      </section>
      <section aria-label="Code">
        <button type="button">before the editor</button>
        <button type="button" className="cm-content">
          code
        </button>
      </section>
      <section aria-label="Live form">
        <button type="button" disabled>
          first
        </button>
        <div data-part="vessel">
          <input aria-label="Vessel" />
        </div>
      </section>
      <section aria-label="Tape">
        <button type="button">tape</button>
      </section>
    </main>
  );
}

function keysOf() {
  const { bench } = benchOf({ behaviours: { '10-a.ts': '/** Arrival: x */', '20-b.ts': '' } });
  const show = vi.fn();
  drawn(<Keys bench={bench} show={show} />);
  return { bench, show };
}
const focused = () => document.activeElement?.textContent;

test('F6 goes from pane to pane and round, Shift+F6 back, from elsewhere to the code', () => {
  keysOf();
  const next = (more: object = {}) => fireEvent.keyDown(window, { key: 'F6', ...more });
  next();
  expect(focused()).toBe('code');
  expect(next()).toBe(false);
  expect(document.activeElement).toBe(screen.getByLabelText('Vessel'));
  next();
  expect(focused()).toBe('tape');
  next();
  expect(focused()).toBe('outline');
  next({ shiftKey: true });
  expect(focused()).toBe('tape');
  for (const more of [{ altKey: true }, { ctrlKey: true }]) expect(next(more)).toBe(true);
  expect(focused()).toBe('tape');
});

test('a command is done by Alt and its key, and by no other keys with it', () => {
  const { bench, show } = keysOf();
  const names = () => bench.screen.store.getState().names;
  const before = names();
  for (const more of [
    {},
    { altKey: true, ctrlKey: true },
    { altKey: true, metaKey: true },
    { altKey: true, shiftKey: true },
  ])
    expect(fireEvent.keyDown(window, { key: 'n', ...more })).toBe(true);
  expect(names()).toBe(before);
  expect(fireEvent.keyDown(window, { key: 'n', altKey: true })).toBe(false);
  expect(names()).toBe(!before);
  fireEvent.keyDown(window, { key: 'N', altKey: true });
  expect(names()).toBe(before);
  expect(fireEvent.keyDown(window, { key: 'q', altKey: true })).toBe(true);
  fireEvent.keyDown(window, { key: 'Enter', altKey: true });
  fireEvent.keyDown(window, { key: 'k', altKey: true });
  expect(show.mock.calls).toEqual([['commands']]);
});

test('why is asked of the field that has the focus; without one it is said what to do', () => {
  const { bench } = keysOf();
  const why = () => fireEvent.keyDown(window, { key: 'y', altKey: true });
  why();
  expect(bench.screen.store.getState().notice?.text).toContain('Put the focus into a field');
  act(() => screen.getByLabelText('Vessel').focus());
  const asked = vi.spyOn(bench.tape, 'ask');
  why();
  expect(asked.mock.calls).toEqual([['vessel']]);
});

test('no two commands have the same name or key', () => {
  const { bench } = benchOf();
  const commands = commandsOf(bench, () => undefined);
  for (const of of ['name', 'key'] as const) {
    const all = commands.flatMap((one) => one[of] ?? []);
    expect(new Set(all).size).toBe(all.length);
  }
});

test.each([
  ['Problems', 'problems'],
  ['Search all scripts', 'search'],
  ['Go to behaviour …', 'behaviours'],
  ['New behaviour for a need', 'starter'],
  ['How the form is opened', 'opening'],
  ['Keep as scenario', 'keep'],
  ['Make a release', 'release'],
])('%s opens its window', (name, dialog) => {
  const show = vi.fn();
  commandsOf(benchOf().bench, show)
    .find((one) => one.name === name)!
    .run();
  expect(show).toHaveBeenCalledExactlyOnceWith(dialog);
});

test.each([
  ['Structure of the form', 'structure'],
  ['Map of the form', 'map'],
  ['History of the behaviour', 'history'],
  ['Scenarios', 'tests'],
])('%s shows its pane', (name, pane) => {
  const { bench } = benchOf({ behaviours: { '10-a.ts': '' } });
  commandsOf(bench, () => undefined)
    .find((one) => one.name === name)!
    .run();
  expect(bench.screen.store.getState().pane).toBe(pane);
});

test('the tape and the handbook open and close by the same command', () => {
  const { bench } = benchOf();
  const run = (name: string) =>
    commandsOf(bench, () => undefined)
      .find((one) => one.name === name)!
      .run();
  const state = () => [bench.tape.store.getState().open, bench.screen.store.getState().side];
  const before = state();
  for (const name of ['Open or close the tape', 'Handbook']) run(name);
  expect(state()).toEqual([!before[0], 'handbook']);
  for (const name of ['Open or close the tape', 'Handbook']) run(name);
  expect(state()).toEqual(before);
});

test('a behaviour is gone to by its title, and has the focus', () => {
  const { bench } = keysOf();
  const [first, second] = behaviourCommands(bench);
  expect(first!.name).toBe('Arrival');
  act(() => second!.run());
  expect(bench.code.store.getState().active).toBe('20-b.ts');
  expect(focused()).toBe('code');
});

async function listOf(byNumber = false, count = 12) {
  const done: string[] = [];
  const commands: Command[] = Array.from({ length: count }, (_, i) => ({
    name: `Command ${String.fromCharCode(97 + i)}`,
    ...(i === 0
      ? { key: 'ArrowLeft' }
      : i === 1
        ? { key: 't' }
        : i === 2
          ? { inEditor: 'F2' }
          : {}),
    run: () => done.push(String.fromCharCode(97 + i)),
  }));
  const onDone = vi.fn(() => done.push('closed'));
  drawn(
    <Window open onClose={onDone}>
      <CommandList commands={commands} byNumber={byNumber} onDone={onDone} />
    </Window>,
  );
  const line = await screen.findByRole<HTMLInputElement>('combobox');
  return {
    done,
    line,
    press: (key: string, more: object = {}) => fireEvent.keyDown(line, { key, ...more }),
    search: (text: string) => fireEvent.change(line, { target: { value: text } }),
    selected: () => screen.queryByRole('option', { selected: true })?.textContent,
    shown: () => screen.queryAllByRole('option').map((one) => one.textContent),
  };
}

test('the list is gone through with the arrow keys, and Enter does what is chosen once it is closed', async () => {
  const { done, press, selected, line } = await listOf();
  expect(selected()).toBe('Command aAlt+←');
  press('ArrowUp');
  expect(selected()).toBe('Command aAlt+←');
  press('ArrowDown');
  expect(selected()).toBe('Command bAlt+T');
  expect(line.getAttribute('aria-activedescendant')).toBe('command-1');
  press('ArrowDown');
  expect(selected()).toBe('Command cF2');
  for (let i = 0; i < 20; i++) press('ArrowDown');
  expect(selected()).toBe('Command l');
  press('ArrowUp');
  expect(press('Enter')).toBe(false);
  expect(done).toEqual(['closed', 'k']);
  expect(press('a')).toBe(true);
});

test('it is narrowed by what is typed, whatever the capitals, and begins at the top again', async () => {
  const { done, press, search, selected, shown } = await listOf();
  press('ArrowDown');
  search('COMMAND E');
  expect([shown(), selected()]).toEqual([['Command e'], 'Command e']);
  search('nothing like it');
  expect(shown()).toEqual([]);
  expect(screen.getByText('Nothing is called that.')).toBeTruthy();
  press('Enter');
  expect(done).toEqual([]);
});

test('the first nine can be chosen by their digit as long as nothing is typed', async () => {
  const { done, press, search, shown } = await listOf(true);
  expect(shown()[8]).toBe('9 Command i');
  expect(shown()[9]).toBe('Command j');
  press('2', { altKey: true });
  search('a');
  press('2');
  expect(shown()[0]).toMatch(/^Command a/);
  search('');
  press('0');
  expect(done).toEqual([]);
  press('2');
  expect(done).toEqual(['closed', 'b']);
});

test('without numbers a digit is typed', async () => {
  const { done, press } = await listOf(false);
  expect(press('2')).toBe(true);
  expect(done).toEqual([]);
});

test('a press does it too', async () => {
  const { done } = await listOf();
  fireEvent.click(screen.getByText('Command d'));
  expect(done).toEqual(['closed', 'd']);
});
