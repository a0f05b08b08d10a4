/**
 * Steps per second: a form with its scripts in their machine, untraced and traced, against the same session with its
 * scripts in bare V8, and against jsdom with user-event and with fireEvent on a shared document, doing the same form's same steps by hand-written
 * listeners. All in one run, so that the ratios hold whatever the machine is doing.
 */
import { availableParallelism, loadavg } from 'node:os';
import { fireEvent } from '@testing-library/dom';
import userEvent from '@testing-library/user-event';
import { JSDOM } from 'jsdom';
import { materialOf } from '../src/core/language/material';
import { startModule } from '../src/core/sandbox/quickjs';
import { Host } from '../src/core/sandbox/host';
import { Sandbox } from '../src/core/sandbox/sandbox';
import { Session } from '../src/core/session/session';
import type { Material } from '../src/core/session/material';
import type { Opening, TimedStep } from '../src/core/session/step';
import { InProcess } from '../tests/support/in-process';
import { readFolder } from '../src/workers/files';
import { readWorkspace } from '../src/core/workspace/workspace';

const workspace = readWorkspace(readFolder('demo'));
const entry = workspace.forms[0]!;
const pilot = entry.behaviours.filter((behaviour) => behaviour.name === '20-pilot.ts');
const material = (mode: 'traced' | 'untraced'): Material =>
  materialOf(entry.form, workspace, pilot, mode);
const opening: Opening = {
  person: { key: 'mira', name: 'Mira Oldane', roles: ['clerk'] },
  record: null,
  launch: {},
  clock: 0,
  seed: 1,
  newId: 'new',
};
const CHOICES = ['harbour_pilot', 'own', 'none'];
const KINDS = ['tanker', 'tug'];
const step = (i: number): TimedStep =>
  i % 2 === 0
    ? { set: 'pilot_choice', to: CHOICES[(i / 2) % 3]! }
    : { set: 'vessel_kind', to: KINDS[((i - 1) / 2) % 2]! };

interface Case {
  name: string;
  steps: number;
  run: (steps: number) => void | Promise<void>;
}

async function inMachine(mode: 'traced' | 'untraced'): Promise<Case> {
  const sandbox = new Sandbox(await startModule(), { temporal: false });
  sandbox.load(material(mode));
  const opened = sandbox.open(opening);
  if (opened.errors.length > 0) throw new Error('the bench form does not open');
  return {
    name: `machine, ${mode}`,
    steps: mode === 'traced' ? 5000 : 10_000,
    run: (steps) => {
      for (let i = 0; i < steps; i++) sandbox.step(step(i));
    },
  };
}

function bare(): Case {
  const host = new Host(new InProcess(), null);
  const its = material('untraced');
  const session = new Session(its, host.load(its, false), host, opening);
  session.open();
  return {
    name: 'the same session in bare V8',
    steps: 20_000,
    run: (steps) => {
      for (let i = 0; i < steps; i++) session.do(step(i));
    },
  };
}

/** The same form as a page, with the same behaviour written by hand against the document. */
function page(): { window: JSDOM['window']; choose: (field: string) => HTMLSelectElement } {
  const fields = entry.form.pages.flatMap((p) => p.sections);
  const table = workspace.tables.find(({ name }) => name === 'vessel_kinds')!;
  const options = (keys: { key: string; label: string }[]) =>
    `<option></option>${keys.map((o) => `<option value="${o.key}">${o.label}</option>`).join('')}`;
  const body = fields
    .map(
      (section) =>
        `<fieldset id="${section.name}"><legend>${section.title}</legend>${section.fields.map((f) => `<div id="${f.name}-box"><label for="${f.name}">${f.label}</label>${f.kind === 'choice' ? `<select id="${f.name}">${options(f.options)}</select>` : f.kind === 'reference' ? `<select id="${f.name}">${options(f.table === 'vessel_kinds' ? table.rows.map((r) => ({ key: String(r.code), label: String(r.name) })) : [])}</select>` : `<input id="${f.name}">`}<p></p></div>`).join('')}</fieldset>`,
    )
    .join('');
  const { window } = new JSDOM(`<!doctype html><body><form>${body}</form></body>`);
  const { document } = window;
  const get = <T extends HTMLElement>(id: string) => document.getElementById(id) as unknown as T;
  const needsPilot = new Map(table.rows.map((row) => [row.code, row.pilot_required]));
  const details = () => {
    const { value } = get<HTMLSelectElement>('pilot_choice');
    get('pilot').hidden = value !== 'harbour_pilot' && value !== 'own';
    get<HTMLSelectElement>('pilot_boarding').required = value === 'harbour_pilot';
    get('pilot_licence-box').hidden = value !== 'own';
    get<HTMLInputElement>('pilot_licence').required = value === 'own';
  };
  const reason = () => {
    const needed = needsPilot.get(get<HTMLSelectElement>('vessel_kind').value) === true;
    const without = needed && get<HTMLSelectElement>('pilot_choice').value === 'none';
    get('pilot_choice-box').querySelector('p')!.textContent = needed
      ? 'This kind of vessel takes a pilot.'
      : '';
    get('refusal_reason-box').hidden = !without;
    get<HTMLInputElement>('refusal_reason').required = without;
  };
  get('pilot_choice').addEventListener('change', () => {
    details();
    reason();
    const { value } = get<HTMLSelectElement>('pilot_choice');
    const boarding = get<HTMLSelectElement>('pilot_boarding');
    if (value === 'harbour_pilot' && boarding.value === '') boarding.value = 'fairway_buoy';
  });
  get('vessel_kind').addEventListener('change', reason);
  details();
  reason();
  return { window, choose: (field) => get<HTMLSelectElement>(field) };
}

function withFireEvent(): Case {
  const { choose } = page();
  return {
    name: 'jsdom with fireEvent, one document',
    steps: 1000,
    run: (steps) => {
      for (let i = 0; i < steps; i++) {
        const done = step(i) as { set: string; to: string };
        fireEvent.change(choose(done.set), { target: { value: done.to } });
      }
    },
  };
}

function withUserEvent(): Case {
  const { window, choose } = page();
  const user = userEvent.setup({ document: window.document, delay: null });
  return {
    name: 'jsdom with user-event',
    steps: 40,
    run: async (steps) => {
      for (let i = 0; i < steps; i++) {
        const done = step(i) as { set: string; to: string };
        await user.selectOptions(choose(done.set), done.to);
      }
    },
  };
}

const ROUNDS = 9;
const [before] = loadavg() as [number];
const cases = [
  await inMachine('untraced'),
  await inMachine('traced'),
  bare(),
  withFireEvent(),
  withUserEvent(),
];
const rates = new Map<string, number[]>(cases.map(({ name }) => [name, []]));
for (let round = -1; round < ROUNDS; round++) {
  // Each round does every case, so that a slow moment of the machine falls on all of them.
  for (const { name, steps, run } of cases) {
    const start = performance.now();
    await run(steps);
    const rate = (steps * 1000) / (performance.now() - start);
    if (round >= 0) rates.get(name)!.push(rate);
  }
}

const median = (numbers: readonly number[]) =>
  [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)]!;
const middle = (name: string) => median(rates.get(name)!);
const untraced = middle('machine, untraced');
const ratio = (by: number) => Number((untraced / by).toPrecision(3));
console.log(
  `load ${before.toFixed(1)} before, ${loadavg()[0]!.toFixed(1)} after, on ${availableParallelism()} cores`,
);
console.table({
  'untraced against fireEvent on a shared document (aim: 3 and more)': {
    ratio: ratio(middle('jsdom with fireEvent, one document')),
  },
  'untraced against user-event (aim: 300 and more)': {
    ratio: ratio(middle('jsdom with user-event')),
  },
  'the same session in bare V8 against untraced (aim: 3 and less)': {
    ratio: Number((middle('the same session in bare V8') / untraced).toPrecision(3)),
  },
  'untraced against traced': { ratio: ratio(middle('machine, traced')) },
});
console.table(
  cases.map(({ name }) => {
    const all = rates.get(name)!;
    return {
      name,
      'steps a second, median': Math.round(middle(name)),
      best: Math.round(Math.max(...all)),
      noise: `${Math.round((100 * (Math.max(...all) - Math.min(...all))) / middle(name))} %`,
    };
  }),
);
