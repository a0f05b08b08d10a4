/** Going back to a checkpoint and on from there is the same as never having gone on before, over sessions at random. */
import fc from 'fast-check';
import { beforeAll, expect, test } from 'vitest';
import { formWith, number, rows, text } from '../../../tests/support/forms';
import { materialFor, openingOf, type Setting } from '../../../tests/support/hosts';
import { InProcess } from '../../../tests/support/in-process';
import { thorough } from '../../../tests/support/thorough';
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
  'const met = new Map<string, number>(); keep("met", () => { met.set(String(fields.b.value), met.size); fields.a.warning = [...met.keys()].join(); });',
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

/** Steps, and for some of them what is done and gone back from before: other steps, and whether as if from an earlier checkpoint. */
const anyDetours = fc.array(
  fc.record({
    step: anyMove,
    detour: fc.option(fc.array(anyMove, { minLength: 1, maxLength: 5 })),
    /** Goes back to the checkpoint before so many steps and forward again, before going on. */
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
  const checkpoints = new Map<number, Restore>();
  const keep = (at: number) => {
    const checkpoint = winding.checkpoint();
    if (checkpoint === null) checkpoints.delete(at);
    else checkpoints.set(at, checkpoint);
    return checkpoint;
  };
  moves.forEach(({ step, detour, back }, at) => {
    const here = keep(at);
    if (here !== null && detour !== null) {
      for (const other of detour) winding.do(other);
      here();
    }
    const earlier = checkpoints.get(at - back);
    if (here !== null && earlier !== undefined) {
      earlier();
      for (let nth = at - back; nth < at; nth++)
        expect(JSON.stringify(winding.do(moves[nth]!.step))).toBe(straight[nth + 1]);
    }
    last = winding.do(step);
    expect(JSON.stringify(last)).toBe(straight[at + 1]);
  });
}

// Each compiles scripts of its own, so that few are tried where not all are.
const seeded = { seed: 20261201, numRuns: thorough ? 2000 : 30 };

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
      const checkpoint = machine.checkpoint();
      return () => checkpoint.restore();
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
    seeded,
  );
});

test('and in this engine, where scripts hold nothing themselves', () => {
  fc.assert(
    fc.property(anySession([...SCRIPTS, ...MORE]), ({ moves, ...use }) => {
      const setting = settingOf(use);
      sameWithDetours(() => here(setting), moves);
    }),
    seeded,
  );
});

const FORM = formWith([text('a'), text('c'), number('total'), rows('list', [number('n')])]);
const ONE: Setting = {
  form: FORM,
  scripts: {
    '10-s': `
on.change(fields.a, async () => { const before = fields.a.value; await after(20); fields.c.hint = before; });
keep("total", () => { fields.total.value = fields.list.sum("n"); });
on.load(() => { on.change(fields.c, () => { fields.a.hint = \`\${fields.a.hint ?? ""}+\`; }); });`,
  },
  opening: {
    records: [1, 2].map((id) => ({ id: String(id), values: {} })),
    record: { id: '1', values: {} },
  },
};

test.each([
  {
    about: 'a run that was superseded meanwhile goes on',
    before: [{ set: 'a', to: 'x' }],
    detour: [{ set: 'a', to: 'y' }, { wait: 100 }],
    on: { wait: 100 },
  },
  {
    about: 'a sum is worked out again when its column changes',
    before: [{ addRow: 'list', with: { n: 2 } }],
    detour: [{ removeRow: 'list[0]' }],
    on: { set: 'list[0].n', to: 5 },
  },
  {
    about: 'a handler tied by another record is tied once',
    before: [],
    detour: [{ next: true as const }],
    on: { set: 'c', to: 'x' },
    after: [{ next: true as const }, { set: 'c', to: 'y' }],
  },
  {
    about: 'what was submitted is not saved',
    before: [{ set: 'c', to: 'x' }],
    detour: [{ set: 'c', to: 'y' }, { submit: true as const }],
    on: { submit: true as const },
  },
] satisfies {
  about: string;
  before: TimedStep[];
  detour: TimedStep[];
  on: TimedStep;
  after?: TimedStep[];
}[])('$about', ({ before, detour, on, after = [] }) => {
  const moves = [...before, on, ...after].map((step, at) => ({
    step,
    detour: at === before.length ? detour : null,
    back: 0,
  }));
  sameWithDetours(() => inMachine(ONE), moves);
});

test('a checkpoint of former scripts is refused', () => {
  const playing = inMachine(ONE);
  playing.open();
  const restore = playing.checkpoint()!;
  inMachine({ form: FORM, scripts: { '10-s': 'keep(() => {});' } });
  expect(restore).toThrow('other scripts have been loaded');
});
