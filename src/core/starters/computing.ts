/** Starters that compute: from fields, from rows, between numbers and dates, texts put together, dependent options. */
import { Temporal } from 'temporal-polyfill';
import type { Field, Form } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';
import { round } from '../form/round';
import type { Table } from '../form/table';
import type { Value } from '../form/value';
import type { ScenarioStep } from '../scenario/definition';
import type { Step } from '../session/step';
import {
  chosen,
  named,
  fieldChoices,
  fieldNamed,
  labelOf,
  labelsOf,
  listed,
  many,
  one,
  rule,
  sampleValue,
  tableOf,
  valueChoices,
  words,
  type Picked,
  starter,
  type StarterSetting,
  way,
  scenario,
  asChoice,
} from './starter';
import { isNumeric, KINDS, traitsOf } from '../form/traits';

const set = (name: string, to: Value): Step => ({ set: name, to });
const expectValue = (name: string, value: Value): ScenarioStep => ({
  expect: { [name]: { value } },
});

const NUMBERS = KINDS.filter((kind) => traitsOf({ kind }).isNumber);
const LETTERS: readonly string[] = [...'abcdefghij'];
const COMPUTED =
  'People can still change the result: mark the field as written by scripts only under Structure if they should not.';
const DECIMALS = 2;

/** What is left of the decimals of a sum of doubles is rounded away. */
const rounded = (code: string) => `round(${code}, ${DECIMALS})`;

export const computeFromFields = starter({
  id: 'compute-from-fields',
  need: 'Compute a number from other fields',
  group: 'Computing',
  picks({ form }, picked) {
    const all = fieldChoices(form, NUMBERS);
    const last = all.at(-1)?.key;
    if (all.length < 3 || last === undefined)
      return 'The form has fewer than three numbers: two to compute from and one to hold the result.';
    const target = picked.target?.[0] ?? last;
    return {
      target: one('The result goes into', all, [last]),
      how: one('It is', {
        sum: 'the sum',
        product: 'the product',
        difference: 'the first less the others',
      }),
      of: many(
        'of',
        all.filter(({ key }) => key !== target),
        all
          .filter(({ key }) => key !== target)
          .slice(0, 2)
          .map(({ key }) => key),
      ),
    };
  },
  make(setting, { target, how, of }) {
    const [goal, sign] = [
      target,
      { sum: '+', product: '*', difference: '-' }[how as 'sum' | 'product' | 'difference'],
    ];
    const label = labelOf(setting.form, goal);
    const values = of.map(
      (name, i) => sampleValue(setting, fieldNamed(setting.form, name), i) as number,
    );
    const result = (given: readonly number[]) =>
      round(
        given.reduce((a, b) => (sign === '+' ? a + b : sign === '*' ? a * b : a - b)),
        DECIMALS,
      );
    const entered = of.map((name, i) => set(name, values[i] ?? null));
    const title = `${label} from ${labelsOf(
      setting.form,
      of.map((name) => `fields.${name}`),
    )}`;
    return {
      title,
      purpose: 'empty as long as one of them is.',
      code: rule(title, [
        ...of.map((name, i) => `const ${LETTERS[i]} = fields.${name}.value;`),
        `if (${of.map((_, i) => `${LETTERS[i]} === null`).join(' || ')}) fields.${goal}.value = null;`,
        `else fields.${goal}.value = ${rounded(of.map((_, i) => LETTERS[i]).join(` ${sign} `))};`,
      ]),
      explanation: [
        'Empty is not nought: while something is missing, the result is empty too.',
        `round(…, ${DECIMALS}) takes away what doubles leave behind the decimals.`,
        COMPUTED,
      ],
      ways: [
        way(setting, `${listed(values.map(String))} entered`, entered),
        way(setting, 'one of them empty', entered.slice(1)),
      ],
      watched: [goal],
      scenarios: [
        scenario(setting, title, [
          ...entered,
          expectValue(goal, result(values)),
          ...of.slice(0, 1).map((name) => set(name, null)),
          expectValue(goal, null),
        ]),
      ],
    };
  },
});

export const computeFromRows = starter({
  id: 'compute-from-rows',
  need: 'Compute a number from rows',
  group: 'Computing',
  picks({ form }, picked) {
    const withNumbers = fieldsOf(form).filter((field) => cellsOf(field).some(isNumeric));
    const targets = fieldChoices(form, NUMBERS);
    const rows = chosen(withNumbers, picked.rows);
    if (rows === undefined) return 'The form has no rows with a column of numbers.';
    if (targets.length === 0) return 'The form has no number to hold the result.';
    return {
      rows: one('Over the rows of', withNumbers.map(asChoice)),
      how: one('Take', { sum: 'the sum', largest: 'the largest', average: 'the average' }),
      column: one('of', cellsOf(rows).filter(isNumeric).map(asChoice)),
      target: one('The result goes into', targets),
    };
  },
  make(setting, { rows, how, column, target }) {
    const [owner, cell, goal] = [rows, column, target];
    const field = fieldNamed(setting.form, `${owner}.${cell}`);
    const [a, b] = [
      sampleValue(setting, field, 0) as number,
      sampleValue(setting, field, 3) as number,
    ];
    const sum = `fields.${owner}.sum(${JSON.stringify(cell)})`;
    const code = {
      sum,
      average: `${sum} / fields.${owner}.count`,
      largest: `Math.max(...fields.${owner}.rows.map((row) => row.fields.${cell}.value ?? 0))`,
    }[how as 'sum'];
    const result = (given: readonly number[]) =>
      round(
        {
          sum: given.reduce((x, y) => x + y),
          average: given.reduce((x, y) => x + y) / given.length,
          largest: Math.max(...given),
        }[how as 'sum'],
        DECIMALS,
      );
    const title = `${labelOf(setting.form, goal)} from the rows of ${labelOf(setting.form, owner)}`;
    const add = (n: number): Step => ({ addRow: owner, with: { [cell]: n } });
    return {
      title,
      purpose: `the ${how} of ${field.label}; empty without rows.`,
      code: rule(title, [
        `if (fields.${owner}.count === 0) fields.${goal}.value = null;`,
        `else fields.${goal}.value = ${rounded(code)};`,
      ]),
      explanation: [
        'Cells that are empty count nothing. The rule runs again when a row comes, goes or changes.',
        COMPUTED,
      ],
      ways: [
        way(setting, 'no rows', []),
        way(setting, `one row with ${a}`, [add(a)]),
        way(setting, `rows with ${a} and ${b}`, [add(a), add(b)]),
      ],
      watched: [goal],
      scenarios: [
        scenario(setting, title, [
          add(a),
          add(b),
          expectValue(goal, result([a, b])),
          { removeRow: `${owner}[1]` },
          expectValue(goal, result([a])),
          { removeRow: `${owner}[0]` },
          expectValue(goal, null),
        ]),
      ],
    };
  },
});

const UNITS = { days: 'days', weeks: 'weeks', months: 'months', years: 'years' } as const;
type Unit = keyof typeof UNITS;

/** Two dates and a number, and the date that is picked to begin with. */
function datesAndNumbers(form: Form, picked: Picked) {
  const dates = fieldChoices(form, ['date']);
  const numbers = fieldChoices(form, ['number']);
  const from = chosen(dates, picked.from)?.key;
  return from === undefined || dates.length < 2 || numbers.length === 0
    ? null
    : { dates, numbers, from };
}

const NO_DATES = 'The form needs two dates and a number for that.';

export const dateFromNumber = starter({
  id: 'date-from-number',
  need: 'A date from a date and a number',
  group: 'Computing',
  picks({ form }, picked) {
    const found = datesAndNumbers(form, picked);
    if (found === null) return NO_DATES;
    const { dates, numbers, from } = found;
    return {
      from: one('From', dates),
      number: one('Number', numbers),
      unit: one('Unit', UNITS),
      target: one(
        'Result goes into',
        dates.filter(({ key }) => key !== from),
      ),
    };
  },
  make(setting, { from, number, unit, target }) {
    const [start, count, goal] = [from, number, target];
    const title = `${labelOf(setting.form, goal)} from ${labelOf(setting.form, start)} and ${labelOf(setting.form, count)}`;
    const day = sampleValue(setting, fieldNamed(setting.form, start)) as string;
    const many = sampleValue(setting, fieldNamed(setting.form, count)) as number;
    const whole = Math.trunc(many);
    return {
      title,
      purpose: `counted in ${unit}.`,
      code: rule(title, [
        `const from = fields.${start}.value;`,
        `const count = fields.${count}.value;`,
        `if (from === null || count === null) fields.${goal}.value = null;`,
        `else fields.${goal}.value = Temporal.PlainDate.from(from).add({ ${unit}: Math.trunc(count) }).toString();`,
      ]),
      explanation: [
        'Temporal counts calendar days and months as they are, leap years included; a month after 31 January is the last day of February.',
        'Dates are texts such as 2031-05-02, which .toString() gives.',
        COMPUTED,
      ],
      ways: [
        way(setting, `${day} and ${many}`, [set(start, day), set(count, many)]),
        way(setting, 'no number', [set(start, day)]),
      ],
      watched: [goal],
      scenarios: [
        scenario(setting, title, [
          set(start, day),
          set(count, many),
          expectValue(
            goal,
            Temporal.PlainDate.from(day)
              .add({ [unit as Unit]: whole })
              .toString(),
          ),
          set(count, null),
          expectValue(goal, null),
        ]),
      ],
    };
  },
});

export const numberFromDates = starter({
  id: 'number-from-dates',
  need: 'A number from two dates',
  group: 'Computing',
  picks({ form }, picked) {
    const found = datesAndNumbers(form, picked);
    if (found === null) return NO_DATES;
    const { dates, numbers, from } = found;
    return {
      from: one('From', dates),
      to: one(
        'to',
        dates.filter(({ key }) => key !== from),
      ),
      unit: one('in whole', UNITS),
      count: one('The last day', { out: 'is not counted', in: 'is counted' }),
      target: one('goes into', numbers),
    };
  },
  make(setting, { from, to, unit, count, target }) {
    const [start, end, goal, of] = [from, to, target, unit as Unit];
    const title = `${labelOf(setting.form, goal)} from ${labelOf(setting.form, start)} to ${labelOf(setting.form, end)}`;
    const [a, b] = ['2031-05-03', '2031-06-14'];
    const last = count === 'in';
    const until = Temporal.PlainDate.from(a).until(
      Temporal.PlainDate.from(b).add({ days: last ? 1 : 0 }),
      { largestUnit: of },
    )[of];
    return {
      title,
      purpose: `whole ${of}${last ? ', the last day counted' : ''}; empty while a day is missing or they are the wrong way round.`,
      code: rule(title, [
        `const from = fields.${start}.value;`,
        `const to = fields.${end}.value;`,
        `if (from === null || to === null || to < from) fields.${goal}.value = null;`,
        `else fields.${goal}.value = Temporal.PlainDate.from(from).until(${last ? 'Temporal.PlainDate.from(to).add({ days: 1 })' : 'to'}, { largestUnit: "${of}" }).${of};`,
      ]),
      explanation: ['Dates compare as texts, since 2031-05-02 sorts as it counts.', COMPUTED],
      ways: [
        way(setting, `${a} to ${b}`, [set(start, a), set(end, b)]),
        way(setting, 'the wrong way round', [set(start, b), set(end, a)]),
      ],
      watched: [goal],
      scenarios: [
        scenario(setting, title, [
          set(start, a),
          set(end, b),
          expectValue(goal, until),
          set(end, '2031-05-01'),
          expectValue(goal, null),
        ]),
      ],
    };
  },
});

export const composeText = starter({
  id: 'compose-text',
  need: 'Copy or put texts together without piling up',
  group: 'Computing',
  picks({ form }, picked) {
    const targets = fieldChoices(form, ['text']);
    const last = targets.at(-1)?.key;
    if (last === undefined) return 'The form has no text to write into.';
    const target = picked.target?.[0] ?? last;
    const sources = fieldChoices(form, ['text', 'choice', 'reference', 'date', 'number'], [target]);
    if (sources.length === 0) return 'The form has no other field to copy from.';
    return {
      target: one('Write into', targets, [last]),
      sources: many(
        'the texts of',
        sources,
        sources.slice(0, 2).map(({ key }) => key),
      ),
      between: words('with between them', ', '),
    };
  },
  make(setting, { target, sources, between }) {
    const goal = target;
    const fields = sources.map((name) => fieldNamed(setting.form, name));
    const title = `${labelOf(setting.form, goal)} from ${labelsOf(
      setting.form,
      sources.map((name) => `fields.${name}`),
    )}`;
    const spelled = (field: Field) =>
      field.kind === 'choice' || field.kind === 'reference'
        ? `fields.${field.name}.optionLabel`
        : field.kind === 'number'
          ? `fields.${field.name}.value?.toString() ?? null`
          : `fields.${field.name}.value`;
    const entered = fields.map((field, i) => set(field.name, sampleValue(setting, field, i)));
    const read = (field: Field, i: number): string => textOf(setting, field, i);
    const texts = fields.map(read);
    return {
      title,
      purpose: 'made whole from its sources each time, so nothing piles up.',
      code: rule(title, [
        `const texts = [${fields.map(spelled).join(', ')}];`,
        `fields.${goal}.value = texts.filter((text) => text !== null).join(${JSON.stringify(between ?? '')}) || null;`,
      ]),
      explanation: [
        'The whole text is built again at each run: adding to what is there would repeat it.',
        'Empty sources are left out, and with none the text is empty: null, not "".',
      ],
      ways: [
        way(setting, 'all filled in', entered),
        way(setting, 'only the first', entered.slice(0, 1)),
        way(setting, 'nothing filled in', []),
      ],
      watched: [goal],
      scenarios: [
        scenario(setting, title, [
          ...entered,
          expectValue(goal, texts.join(between ?? '')),
          ...fields.slice(0, 1).map((field) => set(field.name, null)),
          ...entered.slice(0, 1),
          expectValue(goal, texts.join(between ?? '')),
          ...fields.map((field) => set(field.name, null)),
          expectValue(goal, null),
        ]),
      ],
    };
  },
});

/** How the sample value of a field reads in the text. */
function textOf(setting: StarterSetting, field: Field, n: number): string {
  const value = sampleValue(setting, field, n);
  if (field.kind === 'choice') return field.options.find(({ key }) => key === value)?.label ?? '';
  if (field.kind !== 'reference') return String(value);
  const { rows, key, label } = tableOf(setting, field);
  return String(rows.find((row) => row[key] === value)?.[label] ?? value);
}

export const dependentOptions = starter({
  id: 'dependent-options',
  need: 'Offer only the options that fit',
  group: 'Options',
  picks(setting, picked) {
    const targets = fieldChoices(setting.form, ['reference']).filter(
      ({ key }) => fitting(setting, key).length > 0,
    );
    const target = chosen(targets, picked.target)?.key;
    const columns = target === undefined ? [] : fitting(setting, target);
    const column = chosen(columns, picked.column);
    if (target === undefined || column === undefined)
      return 'The form has no reference to a table with a column that another field could be compared with.';
    return {
      target: one('Of the options of', targets),
      column: one('offer those whose', columns),
      how: one(
        'is',
        column.kind === 'number'
          ? [
              { key: '>=', label: 'at least' },
              { key: '<=', label: 'at most' },
              { key: '===', label: 'the same as' },
            ]
          : [{ key: '===', label: 'the same as' }],
      ),
      driver: one('the field', driversFor(setting, column.key, target)),
    };
  },
  make(setting, { target, column, how, driver }) {
    const field = fieldNamed(setting.form, target);
    const table = tableOf(setting, field);
    const [name, sign, by] = [column, how, driver];
    const title = `${field.label} that fit ${labelOf(setting.form, by)}`;
    const number = named(table.columns, name).kind === 'number';
    const middle = table.rows[Math.floor(table.rows.length / 2)]?.[name] ?? null;
    const fits = (row: Table['rows'][number], wanted: Value) =>
      sign === '==='
        ? row[name] === wanted
        : row[name] !== null &&
          row[name] !== undefined &&
          (sign === '>='
            ? (row[name] as number) >= (wanted as number)
            : (row[name] as number) <= (wanted as number));
    const keys = (rows: readonly Table['rows'][number][]) =>
      rows.map((row) => String(row[table.key]));
    const values = [...new Set(table.rows.map((row) => row[name] ?? null))]
      .filter((value) => value !== null)
      .slice(0, 5) as Value[];
    return {
      title,
      purpose: `from the table ${table.title}, by its column ${name}.`,
      code: rule(title, [
        `const wanted = fields.${by}.value;`,
        `fields.${field.name}.options = wanted === null ? tables.${table.name}.rows : tables.${table.name}.rows.filter((row) => ${number && sign !== '===' ? `row.${name} !== null && row.${name} ${sign} wanted` : `row.${name} === wanted`});`,
        `fields.${field.name}.hint = fields.${field.name}.options.length > 0 ? null : "Nothing fits.";`,
      ]),
      explanation: [
        'Rows of a table can be assigned as options as they are: their keys are stored, their labels shown.',
        'A value that is no longer offered is emptied by the form when the step is over. One that a record brought stays and is marked.',
        'With the driving field empty all are offered.',
      ],
      ways: values.map((value) =>
        way(setting, `${labelOf(setting.form, by)} ${String(value)}`, [set(by, value)]),
      ),
      watched: [field.name],
      scenarios: [
        scenario(setting, title, [
          set(by, middle as Value),
          {
            expect: {
              [field.name]: {
                options: keys(table.rows.filter((row) => fits(row, middle as Value))),
              },
            },
          },
          set(by, null),
          { expect: { [field.name]: { options: keys(table.rows) } } },
        ]),
      ],
    };
  },
});

/** Columns that a field of the form can be compared with; measures and flags before texts, and never the key itself. */
function fitting(setting: StarterSetting, target: string) {
  const table = tableOf(setting, fieldNamed(setting.form, target));
  return table.columns
    .filter(
      ({ name }) =>
        name !== table.key && name !== table.label && driversFor(setting, name, target).length > 0,
    )
    .toSorted((a, b) => Number(a.kind === 'text') - Number(b.kind === 'text'))
    .map(({ name, kind }) => ({ key: name, label: name, kind }));
}

/** Fields that a column can be compared with; keys only where the column holds some of them. */
function driversFor(setting: StarterSetting, column: string, target: string) {
  const table = tableOf(setting, fieldNamed(setting.form, target));
  const { kind } = named(table.columns, column);
  if (kind !== 'text')
    return fieldChoices(setting.form, kind === 'number' ? NUMBERS : [kind], [target]);
  const held = new Set(table.rows.map((row) => row[column]));
  return fieldChoices(setting.form, ['text', 'choice', 'reference'], [target]).filter(({ key }) => {
    const field = fieldNamed(setting.form, key);
    return (
      field.kind === 'text' || valueChoices(setting, field).some((choice) => held.has(choice.key))
    );
  });
}
