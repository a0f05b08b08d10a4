/** Going back to a moment and on from there is the same as never having gone on before, over sessions at random. */
import fc from 'fast-check';
import { beforeAll, expect, test } from 'vitest';
import { materialFor, openingOf, type Setting } from '../../../tests/support/hosts';
import { InProcess } from '../../../tests/support/in-process';
import { shareOf } from '../../../tests/support/thorough';
import { anyForm, anyStep, SCRIPTS } from '../../../tests/support/uses';
import { Host } from '../sandbox/host';
import { startModule } from '../sandbox/quickjs';
import { Sandbox } from '../sandbox/sandbox';
import type { Restore } from './checkpoint';
import { Session } from './session';
import type { Answer, TimedStep } from './step';

/** What a session does and how it stands is more than what fields show: messages, ties, chance, what is saved, what waits. */
const MORE = [
  'on.change(fields.a, () => { fields.b.hint = String(Math.random()); form.message("changed"); });',
  'on.load(() => { fields.a.hint = "opened"; on.change(fields.c, () => { fields.a.hint = "tied"; }); });',
  'on.submit((event) => { if (fields.a.value === null) event.stop("a is missing", fields.a); });',
  'on.saved(({ id }) => { fields.b.hint = id; });',
  'on.change(fields.b, ({ previous }) => { fields.c.hint = String(previous); log(fields.b.initial, form.isNew); });',
  'on.change(fields.a, async () => { const before = fields.a.value; await after(20); await after(20); fields.b.hint = String(before); });',
];

/** Scripts with a memory of their own, which only a machine can be put back. */
const WITH_MEMORY = [
  'let times = 0; on.change(fields.a, () => { times++; fields.c.hint = `${times} times`; });',
  'const met = new Map<string, number>(); keep("met", () => { met.set(String(fields.b.value), met.size); fields.a.placeholder = [...met.keys()].join(); });',
];

const RECORDS = ['1', '2', '3'].map((id, nth) => ({
  id,
  values: { a: null, b: null, c: null, list: [{ x: null, y: null, n: nth }], total: nth },
}));

const anyMove: fc.Arbitrary<TimedStep> = fc.oneof(
  { weight: 9, arbitrary: anyStep },
  {
    weight: 1,
    arbitrary: fc.constantFrom<TimedStep>({ next: true }, { previous: true }, { focus: 'a' }),
  },
  { weight: 1, arbitrary: fc.constantFrom<TimedStep>({ input: 'a', to: 'ab' }, { blur: 'a' }) },
);

/** Steps, and for some of them what is done and gone back from before: other steps, and whether as if from an earlier moment. */
const anyDetours = fc.array(
  fc.record({
    step: anyMove,
    detour: fc.option(fc.array(anyMove, { minLength: 1, maxLength: 5 })),
    /** Goes back to the moment before so many steps and forward again, before going on. */
    back: fc.nat(3),
  }),
  { minLength: 1, maxLength: 12 },
);

const anySession = (scripts: readonly string[]) =>
  fc.record({
    form: anyForm,
    chosen: fc.subarray([...scripts], { minLength: 1 }),
    record: fc.option(fc.constantFrom(...RECORDS)),
    moves: anyDetours,
  });

interface Playing {
  open(): Answer;
  do(step: TimedStep): Answer;
  /** Null where the host cannot go back to how things stand. */
  checkpoint(): Restore | null;
}

function settingOf({
  form,
  chosen,
  record,
}: {
  form: Setting['form'];
  chosen: string[];
  record: (typeof RECORDS)[number] | null;
}): Setting {
  return {
    form,
    scripts: Object.fromEntries(chosen.map((source, i) => [`${10 + i}-s`, source])),
    opening: { record, records: RECORDS },
  };
}

/** Whether an answer leaves a run open. */
const isOpen = ({ waiting }: Answer) => waiting.length > 0;

function sameWithDetours(
  playing: () => Playing,
  moves: readonly { step: TimedStep; detour: TimedStep[] | null; back: number }[],
): void {
  const plain = playing();
  const straight = [plain.open(), ...moves.map(({ step }) => plain.do(step))].map((answer) =>
    JSON.stringify(answer),
  );
  const winding = playing();
  let last = winding.open();
  expect(JSON.stringify(last)).toBe(straight[0]);
  /** By how many steps had been done then. */
  const moments = new Map<number, Restore>();
  const keep = (at: number) => {
    const moment = winding.checkpoint();
    if (moment === null) moments.delete(at);
    else moments.set(at, moment);
    return moment;
  };
  moves.forEach(({ step, detour, back }, at) => {
    const here = keep(at);
    if (here !== null && detour !== null) {
      for (const other of detour) winding.do(other);
      here();
    }
    const earlier = moments.get(at - back);
    if (here !== null && earlier !== undefined) {
      earlier();
      for (let nth = at - back; nth < at; nth++)
        expect(JSON.stringify(winding.do(moves[nth]!.step))).toBe(straight[nth + 1]);
    }
    last = winding.do(step);
    expect(JSON.stringify(last)).toBe(straight[at + 1]);
  });
}

const seeded = (numRuns: number) => ({ seed: 20261201, numRuns: shareOf(numRuns) });

let machine: Sandbox;

beforeAll(async () => {
  machine = new Sandbox(await startModule(), { temporal: false });
});

function inMachine(setting: Setting): Playing {
  machine.load(materialFor(setting, true));
  return {
    open: () => machine.open(openingOf(setting)),
    do: (step) => machine.step(step),
    checkpoint() {
      const moment = machine.checkpoint();
      return () => moment.restore();
    },
  };
}

/** This engine keeps what scripts hold, so that it can go back where they hold nothing and no run is open. */
function here(setting: Setting): Playing {
  const material = materialFor(setting, true);
  const host = new Host(new InProcess(), null);
  const session = new Session(material, host.load(material, false), host, openingOf(setting));
  let last: Answer;
  return {
    open: () => (last = session.open()),
    do: (step) => (last = session.do(step)),
    checkpoint: () => (isOpen(last) ? null : session.checkpoint()),
  };
}

test('back and on again is the same as never gone, in the machine, whatever scripts hold and wait for', () => {
  fc.assert(
    fc.property(anySession([...SCRIPTS, ...MORE, ...WITH_MEMORY]), ({ moves, ...use }) => {
      const setting = settingOf(use);
      sameWithDetours(() => inMachine(setting), moves);
    }),
    seeded(2000),
  );
});

test('and in this engine, where scripts hold nothing themselves', () => {
  fc.assert(
    fc.property(anySession([...SCRIPTS, ...MORE]), ({ moves, ...use }) => {
      const setting = settingOf(use);
      sameWithDetours(() => here(setting), moves);
    }),
    seeded(2000),
  );
});
