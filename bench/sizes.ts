/**
 * What size costs: one cell edit among 10, 1,000 and 10,000 rows that each have rules of their own, and one step in a form
 * of 20 fields against one of 300 fields and 80 rules, where one rule depends on the field. In the machine, untraced, all
 * in one run.
 */
import type { Field, Form } from '../src/core/form/definition';
import { materialOf } from '../src/core/language/material';
import { startModule } from '../src/core/sandbox/quickjs';
import { Sandbox } from '../src/core/sandbox/sandbox';
import type { Opening, TimedStep } from '../src/core/session/step';

const opening = (values: Opening['record']): Opening => ({
  person: { key: 'mira', name: 'Mira Oldane', roles: ['clerk'] },
  record: values,
  launch: {},
  clock: 0,
  seed: 1,
  newId: 'new',
});

const cells: Field[] = [
  { kind: 'text', name: 'goods', label: 'Goods' },
  { kind: 'number', name: 'weight', label: 'Weight' },
  {
    kind: 'choice',
    name: 'class',
    label: 'Class',
    options: [
      { key: 'none', label: 'None' },
      { key: 'three', label: 'Three' },
    ],
  },
  { kind: 'text', name: 'un', label: 'UN number', hidden: true },
];
const rowsForm: Form = {
  name: 'rows',
  title: 'Rows',
  pages: [
    {
      name: 'main',
      title: 'Main',
      sections: [
        {
          name: 'one',
          title: 'One',
          fields: [{ kind: 'rows', name: 'cargo', label: 'Cargo', fields: cells as never }],
        },
      ],
    },
  ],
};
const ROW_RULES = `keep.each(fields.cargo, "UN number", (row) => { row.fields.un.shown = row.fields.class.value === "three"; });
keep.each(fields.cargo, "heavy", (row) => { row.fields.weight.problem = (row.fields.weight.value ?? 0) > 1000 ? "Too heavy." : null; });`;

function wide(fields: number, rules: number): { form: Form; script: string } {
  const all = Array.from({ length: fields }, (_, i): Field => ({
    kind: 'number',
    name: `f${i}`,
    label: `Field ${i}`,
  }));
  const sections = Array.from({ length: Math.ceil(fields / 20) }, (_, i) => ({
    name: `s${i}`,
    title: `Section ${i}`,
    fields: all.slice(i * 20, i * 20 + 20),
  }));
  // Each rule depends on a field of its own.
  const script = Array.from(
    { length: rules },
    (_, i) =>
      `keep("rule ${i}", () => { fields.f${(2 * i + 1) % fields}.hint = (fields.f${(2 * i) % fields}.value ?? 0) > 5 ? "more than five" : null; });`,
  ).join('\n');
  return {
    form: { name: 'wide', title: 'Wide', pages: [{ name: 'main', title: 'Main', sections }] },
    script,
  };
}

interface Case {
  name: string;
  sandbox: Sandbox;
  opening: Opening;
  step: (i: number) => TimedStep;
  edits: number[];
  loads: number[];
}

async function made(
  name: string,
  form: Form,
  script: string,
  record: Opening['record'],
  step: Case['step'],
): Promise<Case> {
  const sandbox = new Sandbox(await startModule(512 * 1024 * 1024), {
    temporal: false,
    limits: { polls: Infinity },
  });
  sandbox.load(
    materialOf(form, { tables: [], services: [] }, [{ name: 'a.ts', text: script }], 'untraced'),
  );
  return { name, sandbox, opening: opening(record), step, edits: [], loads: [] };
}

const rows = (n: number) => ({
  id: '1',
  values: {
    cargo: Array.from({ length: n }, (_, i) => ({
      goods: `lot ${i}`,
      weight: i % 90,
      class: i % 9 === 0 ? 'three' : 'none',
      un: null,
    })),
  },
});
const editCell =
  (n: number) =>
  (i: number): TimedStep =>
    i % 2 === 0
      ? { set: `cargo[${(i * 7) % n}].weight`, to: 100 + i }
      : { set: `cargo[${(i * 7) % n}].class`, to: i % 4 === 1 ? 'three' : 'none' };
const [small, large] = [wide(20, 5), wide(300, 80)];
const cases = [
  await made('10 rows', rowsForm, ROW_RULES, rows(10), editCell(10)),
  await made('1,000 rows', rowsForm, ROW_RULES, rows(1000), editCell(1000)),
  await made('10,000 rows', rowsForm, ROW_RULES, rows(10_000), editCell(10_000)),
  await made('20 fields, 5 rules', small.form, small.script, null, (i) => ({
    set: 'f4',
    to: i % 12,
  })),
  await made(
    '20 fields, 5,000 handlers',
    small.form,
    'for (let i = 0; i < 5000; i++) on.change(fields.f5, () => undefined);',
    null,
    (i) => ({ set: 'f4', to: i % 12 }),
  ),
  await made('300 fields, 80 rules', large.form, large.script, null, (i) => ({
    set: 'f4',
    to: i % 12,
  })),
];

const ROUNDS = 5;
const EDITS = 60;
for (let round = -1; round < ROUNDS; round++) {
  for (const one of cases) {
    const start = performance.now();
    one.sandbox.open(one.opening);
    const opened = performance.now();
    for (let i = 0; i < EDITS; i++) {
      const answer = one.sandbox.step(one.step(i));
      if (answer.refused !== null || answer.errors.length > 0)
        throw new Error(`${one.name}: ${answer.refused ?? answer.errors[0]!.says}`);
    }
    const done = performance.now();
    if (round < 0) continue;
    one.loads.push(opened - start);
    one.edits.push((done - opened) / EDITS);
  }
}

const median = (numbers: readonly number[]) =>
  [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)]!;
const against = (i: number) => median(cases[i < 3 ? 0 : 3]!.edits);
console.table(
  cases.map(({ name, edits, loads }, i) => ({
    name,
    'one edit, ms': Number(median(edits).toPrecision(3)),
    'times the smallest': Number((median(edits) / against(i)).toPrecision(3)),
    noise: `${Math.round((100 * (Math.max(...edits) - Math.min(...edits))) / median(edits))} %`,
    'opening, ms': Number(median(loads).toPrecision(3)),
  })),
);
