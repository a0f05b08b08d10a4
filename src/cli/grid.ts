/** `tavro grid`: what comes of each combination of what varies. */
import { untilDone } from '../core/sandbox/cut-short';
import { writeFileSync } from 'node:fs';
import type { Form } from '../core/form/definition';
import { fieldsOf } from '../core/form/fields';
import type { Table } from '../core/form/table';
import type { Value } from '../core/form/value';
import { AxisSchema, type Axis, type Scenario } from '../core/scenario/definition';
import {
  combinationsOf,
  folded,
  playGrid,
  TooManyCombinations,
  type Combination,
} from '../core/scenario/grid';
import {
  columnName,
  gridAsCsv,
  gridAsPage,
  gridTable,
  gridWords,
} from '../core/scenario/grid-table';
import { unknownNames } from '../core/scenario/naming';
import { readWritten, SPELLED, spellingOf } from '../core/scenario/written';
import { namesFor } from '../core/tape/words';
import { spread } from '../core/testing/spread';
import { valuesFor } from '../core/testing/values';
import type { Workspace, WorkspaceForm } from '../core/workspace/workspace';
import { Cache } from './cache';
import {
  castOf,
  enginesFor,
  formOf,
  InvalidCall,
  load,
  open,
  withEngines,
  type Call,
  type Command,
} from './call';
import { progress } from './progress-line';
import { print } from './print';
import { isPicked } from '../core/form/traits';

/** Combinations that one engine takes at a time. */
const AT_ONCE = 50;

async function run(call: Call): Promise<number> {
  const workspace = open(call);
  const entry = formOf(call, workspace);
  if (call.axes === undefined)
    throw new InvalidCall(
      `say with --axes what varies, such as --axes ${fieldsOf(entry.form)[0]?.name ?? 'kind'},@as.`,
    );
  const axes = call.axes.split(',').map((text) => axisOf(text.trim(), entry, workspace));
  const strength = strengthOf(call.strength);
  const parts = call.part === undefined ? null : call.part.split(',');
  const { all, tried, strength: thinned } = combinations(axes, strength);
  const scenario = scenarioOf(call, workspace, entry);
  refuseUnknown(
    { ...scenario, grid: { axes, parts: parts ?? [], accepted: NOTHING } },
    entry,
    workspace,
  );
  const pieces = Array.from({ length: Math.ceil(tried.length / AT_ONCE) }, (_, i) =>
    tried.slice(i * AT_ONCE, (i + 1) * AT_ONCE),
  );
  const shown = progress('combinations', pieces.length);
  const ground = { form: entry.form, source: workspace, cast: castOf(workspace, entry) };
  const played = await withEngines(enginesFor(pieces.length), async (engines) => {
    await Promise.all(
      engines.map((engine) => load(engine, new Cache(), workspace, entry, 'untraced')),
    );
    const each = await spread(engines, pieces, (engine, piece): Promise<Combination[]> => {
      shown.at(`${piece.length}`);
      return playGrid(scenario, { axes, parts }, piece, ground, (opening, steps) =>
        untilDone(() => engine.play(opening, steps)),
      );
    });
    return each.flat();
  });
  shown.end();
  const accepted = folded(played);
  const notes =
    thinned === null
      ? [`All ${all} combinations.`]
      : [
          `${tried.length} of ${all} combinations: any ${thinned} values of different inputs meet. ${all - tried.length} combinations are left out.`,
        ];
  const names = namesFor(
    entry.form,
    entry.behaviours.map(({ name }) => ({ name, title: name })),
    workspace.people,
  );
  const words = gridWords(entry.form, names.part, workspace);
  if (call.csv !== undefined) writeFileSync(call.csv, gridAsCsv(axes, accepted));
  if (call.html !== undefined)
    writeFileSync(call.html, gridAsPage(scenario.title, axes, accepted, words, notes));
  if (call.accept !== undefined) {
    const test: Scenario = {
      ...scenario,
      grid: {
        axes,
        ...(thinned === null ? {} : { strength: thinned }),
        ...(parts === null ? {} : { parts }),
        accepted,
      },
    };
    writeFileSync(call.accept, `${JSON.stringify(test, null, 2)}\n`);
  }
  const table = gridTable(axes, accepted);
  const lines = table.rows.map(
    ({ values, outcome }) =>
      `${values.map((some, i) => `${words.part(axes[i]!.input)}: ${some.length === axes[i]!.values.length ? 'any' : some.map((value) => words.value(axes[i]!.input, value)).join(' or ')}`).join(' · ')}\n${table.columns
        .map(
          (column) =>
            `    ${[column, ...(table.sameAs.get(columnName(column)) ?? [])].map(({ part }) => words.part(part)).join(', ')} ${column.aspect}: ${words.value(column.part, outcome[column.part]?.[column.aspect] ?? null)}`,
        )
        .join('\n')}`,
  );
  print(`${notes.join('\n')}\n\n${lines.join('\n')}\n`);
  return 0;
}

const NOTHING = { base: {}, outcomes: [], rows: [] };

/** Throws InvalidCall for the first part, launch parameter or service that is not there. */
function refuseUnknown(
  scenario: Scenario & { grid: { axes: readonly Axis[] } },
  { form }: WorkspaceForm,
  { services }: Workspace,
): void {
  const [unknown] = unknownNames(scenario, form);
  if (unknown !== undefined) throw new InvalidCall(`${unknown.says}.`);
  for (const { input } of scenario.grid.axes) {
    const [, service] = /^@fails\.(\w+)/.exec(input) ?? [];
    if (service !== undefined && !services.some(({ name }) => name === service))
      throw new InvalidCall(`there is no service "${service}".`);
  }
}

function combinations(axes: readonly Axis[], strength: 2 | 3 | null) {
  try {
    return combinationsOf(axes, strength);
  } catch (caught) {
    throw caught instanceof TooManyCombinations ? new InvalidCall(caught.message) : caught;
  }
}

function strengthOf(text: string | undefined): 2 | 3 | null {
  if (text === undefined) return null;
  if (text !== '2' && text !== '3') throw new InvalidCall('--strength is 2 or 3.');
  return text === '2' ? 2 : 3;
}

/** `name` with all values that it can have, or `name=a|b` with these. */
function axisOf(
  text: string,
  { form, records }: WorkspaceForm,
  { tables, people }: Workspace,
): Axis {
  const [input, given] = text.split('=', 2) as [string, string?];
  const values =
    given === undefined
      ? usualValues(input, form, tables, people, records)
      : given.split('|').map((value) => readValue(value, input, form));
  if (values.length === 0)
    throw new InvalidCall(`say which values of ${input} are tried: --axes ${input}=a|b.`);
  const axis = AxisSchema.safeParse({ input, values });
  if (!axis.success) throw new InvalidCall(`${input} ${axis.error.issues[0]!.message}.`);
  return axis.data;
}

function usualValues(
  input: string,
  form: Form,
  tables: readonly Table[],
  people: Workspace['people'],
  records: WorkspaceForm['records'],
): Value[] {
  if (input === '@as') return people.map(({ key }) => key);
  if (input === '@record') return [null, ...records.map(({ id }) => id)];
  if (input.startsWith('@fails.')) return [false, true];
  if (input.startsWith('@')) return [];
  const field = fieldsOf(form).find(({ name }) => name === input);
  if (field === undefined) throw new InvalidCall(`the form ${form.name} has no field "${input}".`);
  return isPicked(field) ? valuesFor(field, tables, { numbers: [], texts: [] }) : [];
}

/** As the field's kind has it; nothing is empty. */
function readValue(text: string, input: string, form: Form): Value {
  const spelling = spellingOf(form, input, 'value');
  const value = readWritten(text, spelling);
  if (value === undefined)
    throw new InvalidCall(`"${text}" is no value of ${input}, which takes ${SPELLED[spelling]}.`);
  return value;
}

/** The scenario that comes before each combination: the one named, or a form that is only opened. */
function scenarioOf(call: Call, { people }: Workspace, entry: WorkspaceForm): Scenario {
  const title = call.title ?? `${entry.form.title}: ${call.axes}`;
  if (call.scenario === undefined) return { title, open: { as: people[0]!.key }, steps: [] };
  if (!entry.scenarios.some(({ name }) => name === call.scenario))
    throw new InvalidCall(`there is no scenario "${call.scenario}".`);
  return { title, startsAs: call.scenario, steps: [] };
}

export const grid: Command = {
  says: 'Tries each combination of what varies and prints what comes of it.',
  options: {
    form: { value: 'FORM', says: 'which form; may be left out where there is one' },
    axes: {
      value: 'LIST',
      says: 'what varies: fields, @as, @record, @launch.X, @fails.SERVICE, each with its values (kind=bulk|oil) or all that it has',
    },
    part: { value: 'LIST', says: 'only these parts are looked at' },
    scenario: { value: 'NAME', says: 'each combination starts as this scenario' },
    strength: { value: 'N', says: '2 or 3: only so many combinations that any N values meet' },
    title: { value: 'TITLE', says: 'what it is called where it is kept' },
    csv: { value: 'FILE', says: 'writes all combinations as CSV' },
    html: { value: 'FILE', says: 'writes a page to read and sign' },
    accept: { value: 'FILE', says: 'writes it as a scenario that later differences fail' },
  },
  run,
};
