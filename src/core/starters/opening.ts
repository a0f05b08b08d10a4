/** Starters about how a form begins and ends: prefilled, cleared, checked, asked beyond itself, handed to a parent. */
import type { Field } from '../form/definition';
import { fieldsOf } from '../form/fields';
import type { Service, ServiceFunction } from '../form/service';
import type { Value } from '../form/value';
import type { Scenario, ScenarioStep } from '../scenario/definition';
import type { Step } from '../session/step';
import {
  chosen,
  fieldChoices,
  fieldNamed,
  labelOf,
  listed,
  many,
  one,
  openAs,
  rule,
  sampleValue,
  words,
  type Choice,
  starter,
  type StarterSetting,
  way,
  scenario,
} from './starter';

const set = (name: string, to: Value): Step => ({ set: name, to });

const ORDERED = ['date', 'number', 'money', 'time', 'datetime'] as const;

export const prefill = starter({
  id: 'prefill',
  need: 'Prefill and lock from the launch or the person',
  group: 'Opening',
  picks({ form }) {
    const targets = fieldChoices(form, ['text']);
    const [first] = targets;
    if (first === undefined) return 'The form has no text to prefill.';
    return {
      target: one('Fill', targets),
      from: one('from', {
        launch: 'a launch parameter',
        name: 'the name of the person',
        key: 'the key of the person',
      }),
      parameter: words('Launch parameter', first.key),
      lock: one('and', { yes: 'lock it', no: 'leave it open' }),
    };
  },
  make(setting, { target, from, parameter, lock }) {
    const goal = target;
    const field = fieldNamed(setting.form, goal);
    const launch = from === 'launch';
    const name = (parameter ?? '').replace(/\W/g, '_') || goal;
    const locks = lock === 'yes';
    const value = launch
      ? sampleValue(setting, field)
      : (setting.people[0]?.[from as 'name'] ?? '');
    const title = `${field.label} from ${launch ? 'the launch' : 'the person'}`;
    const lines = launch
      ? [
          `const given = form.launch.${name};`,
          'if (!form.isNew || typeof given !== "string") return;',
          `fields.${goal}.value = given;`,
          ...(locks ? [`fields.${goal}.locked = true;`] : []),
        ]
      : [
          'if (!form.isNew) return;',
          `fields.${goal}.value = form.person.${from};`,
          ...(locks ? [`fields.${goal}.locked = true;`] : []),
        ];
    const expected = (filled: boolean): ScenarioStep => ({
      expect: { [goal]: { value: filled ? value : null, ...(locks ? { locked: filled } : {}) } },
    });
    const given = openAs(setting, launch ? { launch: { [name]: value } } : {});
    const without = openAs(setting);
    return {
      title,
      purpose: `${locks ? 'filled and locked' : 'filled'} in new entries; saved records stay as they are.`,
      code: `on.load(() => {\n${lines.map((line) => `  ${line}`).join('\n')}\n});\n`,
      explanation: [
        'on.load runs once for each record that is opened, before the rules.',
        ...(launch
          ? ['Launch parameters come from outside and can be anything: only a text is taken.']
          : []),
        ...(locks ? ['Locked refuses people, not scripts.'] : []),
      ],
      ways: launch
        ? [
            { when: `launched with ${name}`, open: given, steps: [] },
            { when: 'without it', open: without, steps: [] },
          ]
        : setting.people.map(({ key, name: called }) => way(setting, called, [], { as: key })),
      watched: [goal],
      scenarios: launch
        ? [
            { title: `${title}: given`, open: given, steps: [expected(true)] },
            { title: `${title}: not given`, open: without, steps: [expected(false)] },
          ]
        : setting.people.slice(0, 2).map((one): Scenario =>
            scenario(
              setting,
              `${title}: ${one.name}`,
              [
                {
                  expect: {
                    [goal]: { value: one[from as 'name'], ...(locks ? { locked: true } : {}) },
                  },
                },
              ],
              { as: one.key },
            ),
          ),
    };
  },
});

export const clearAll = starter({
  id: 'clear-all',
  need: 'Clear the whole form by a button',
  group: 'Opening',
  picks({ form }) {
    const buttons = (form.buttons ?? []).map(({ name, label }) => ({
      key: name,
      label: `${label} (${name})`,
    }));
    return buttons.length === 0
      ? 'The form has no button. Add one under Structure.'
      : { button: one('When this is pressed', buttons) };
  },
  make(setting, { button }) {
    const name = button;
    const field = fieldsOf(setting.form).find(
      (one) =>
        one.hidden !== true &&
        one.locked !== true &&
        one.scriptOnly !== true &&
        ['text', 'number', 'choice', 'date'].includes(one.kind) &&
        !('default' in one && one.default !== undefined) &&
        !('defaultFrom' in one && one.defaultFrom !== undefined),
    );
    const title = `${labelOf(setting.form, name)} clears the form`;
    const value = field === undefined ? null : sampleValue(setting, field);
    return {
      title,
      purpose: 'every field goes back to its default.',
      code: `on.click(buttons.${name}, () => form.clear());\n`,
      explanation: [
        'Fields go back to their defaults, or to empty without one. Each that really changes fires change, so everything that follows from it is done too.',
        'What handlers said of parts (shown, locked) stays; rules run again.',
      ],
      ways:
        field === undefined
          ? []
          : [
              way(setting, 'something filled in', [set(field.name, value)]),
              way(setting, 'then pressed', [set(field.name, value), { click: name }]),
            ],
      watched: field === undefined ? [] : [field.name],
      scenarios:
        field === undefined
          ? []
          : [
              scenario(setting, title, [
                set(field.name, value),
                { expect: { [field.name]: { value } } },
                { click: name },
                { expect: { [field.name]: { value: null } } },
              ]),
            ],
    };
  },
});

export const validateAcross = starter({
  id: 'validate-across',
  need: 'Check one field against another',
  group: 'Checking',
  picks({ form }, picked) {
    const all = fieldsOf(form).filter(({ kind }) => (ORDERED as readonly string[]).includes(kind));
    const firsts = all.filter((field) =>
      all.some((other) => other !== field && other.kind === field.kind),
    );
    const choices = firsts.map(({ name, label }): Choice => ({
      key: name,
      label: `${label} (${name})`,
    }));
    const first = chosen(firsts, picked.first);
    if (first === undefined) return 'The form has no two dates, times or numbers to compare.';
    const seconds = all
      .filter((field) => field !== first && field.kind === first.kind)
      .map(({ name, label }): Choice => ({ key: name, label: `${label} (${name})` }));
    return {
      first: one('The field', choices),
      how: one('must not be', [
        { key: '>', label: 'after, or more than' },
        { key: '<', label: 'before, or less than' },
      ]),
      second: one('the field', seconds),
      says: words('Otherwise say', 'These two do not go together.'),
    };
  },
  make(setting, { first, how, second, says }) {
    const [a, b] = [fieldNamed(setting.form, first), fieldNamed(setting.form, second)];
    const after = how === '>';
    const title = `${a.label} against ${b.label}`;
    const [low, high] = [sampleValue(setting, a, 0), sampleValue(setting, a, 3)];
    const right: Step[] = after
      ? [set(a.name, low), set(b.name, high)]
      : [set(a.name, high), set(b.name, low)];
    const wrong: Step[] = after
      ? [set(a.name, high), set(b.name, low)]
      : [set(a.name, low), set(b.name, high)];
    return {
      title,
      purpose: `${a.label} must not be ${after ? 'after' : 'before'} ${b.label}.`,
      code: rule(title, [
        `const first = fields.${a.name}.value;`,
        `const second = fields.${b.name}.value;`,
        `const wrong = first !== null && second !== null && first ${how} second;`,
        `fields.${a.name}.problem = wrong ? ${JSON.stringify(says)} : null;`,
      ]),
      explanation: [
        'A problem stands at the field and stops a submission while the field is on screen.',
        'Both fields are read, so mending either takes the problem away. Nothing is said while one is empty.',
      ],
      ways: [
        way(setting, 'the right way round', right),
        way(setting, 'the wrong way round', wrong),
      ],
      watched: [a.name],
      scenarios: [
        scenario(setting, title, [
          ...wrong,
          { expect: { [a.name]: { problem: says } } },
          ...right,
          { expect: { [a.name]: { problem: null } } },
        ]),
      ],
    };
  },
});

export const warnFuture = starter({
  id: 'warn-future',
  need: 'Warn of a date in the future',
  group: 'Checking',
  picks({ form }) {
    const dates = fieldChoices(form, ['date']);
    return dates.length === 0
      ? 'The form has no date.'
      : {
          date: one('When', dates),
          how: one('lies ahead,', { warning: 'warn', problem: 'refuse it' }),
          says: words('and say', 'This day is still to come.'),
        };
  },
  make(setting, { date, how, says }) {
    const field = fieldNamed(setting.form, date);
    const aspect = how;
    const title = `${field.label} in the future`;
    const open = openAs(setting, { clock: '2031-05-10T09:00:00Z' });
    const on = (day: string, said: boolean): ScenarioStep[] => [
      set(field.name, day),
      { expect: { [field.name]: { [aspect]: said ? says : null } } } as ScenarioStep,
    ];
    return {
      title,
      purpose: aspect === 'warning' ? 'a warning that stops nobody.' : 'such a day is refused.',
      code: rule(title, [
        `const day = fields.${field.name}.value;`,
        'const today = Temporal.Now.plainDateISO().toString();',
        `fields.${field.name}.${aspect} = day !== null && day > today ? ${JSON.stringify(says)} : null;`,
      ]),
      explanation: [
        'Today is the day of the session’s clock, which the bench and scenarios can set.',
        aspect === 'warning'
          ? 'A warning stands out at the field and stops nothing.'
          : 'A problem stops a submission while the field is on screen.',
      ],
      ways: [
        { when: 'a day before', open, steps: [set(field.name, '2031-05-09')] },
        { when: 'today', open, steps: [set(field.name, '2031-05-10')] },
        { when: 'a day ahead', open, steps: [set(field.name, '2031-05-11')] },
      ],
      watched: [field.name],
      scenarios: [{ title, open, steps: [...on('2031-05-11', true), ...on('2031-05-10', false)] }],
    };
  },
});

/** A function of one parameter whose answer can be taken over. */
interface Callable {
  key: string;
  label: string;
  service: Service;
  name: string;
  made: ServiceFunction;
  parameter: ServiceFunction['parameters'][number];
}

/** Something that an answer holds; null for the answer itself, where a script gives but one value. */
interface Answered {
  name: string | null;
  kind: keyof typeof KINDS;
}

/** What the answer of a function holds: the columns of a row, or the members of what a script gives. */
function answered({ answers }: ServiceFunction, tables: StarterSetting['tables']): Answered[] {
  if (answers.from === 'table')
    return answers.many === true
      ? []
      : (tables.find(({ name }) => name === answers.table)?.columns ?? []).map(
          ({ name, kind }) => ({
            name,
            kind,
          }),
        );
  const kindOf = (type: string): string | undefined =>
    GIVEN[type.replace(/\s*\|\s*null\b/g, '').trim()];
  const whole = kindOf(answers.gives);
  if (whole !== undefined) return [{ name: null, kind: whole }];
  // One object of plain members, as services declare them; of any other type nothing is known.
  const members = /^\{([^{}[\]()]*)\}(?:\s*\|\s*null)?$/.exec(answers.gives.trim())?.[1];
  return (members ?? '').split(/[;,]/).flatMap((member): Answered[] => {
    const [, name, type] = /^\s*(?:readonly\s+)?(\w+)\??\s*:\s*(.+?)\s*$/.exec(member) ?? [];
    const kind = type === undefined ? undefined : kindOf(type);
    return kind === undefined || name === undefined ? [] : [{ name, kind }];
  });
}

/** Kinds by the types that scripts of services give. */
const GIVEN: Readonly<Record<string, string>> = {
  string: 'text',
  number: 'number',
  boolean: 'yes_no',
};

function callables({ services, tables: tablesOf }: StarterSetting): Callable[] {
  return services.flatMap((service) =>
    Object.entries(service.functions).flatMap(([name, made]) => {
      const [parameter, ...more] = made.parameters;
      return parameter !== undefined && more.length === 0 && answered(made, tablesOf).length > 0
        ? [
            {
              key: `${service.name}.${name}`,
              label: `${service.title}: ${made.title ?? name}`,
              service,
              name,
              made,
              parameter,
            },
          ]
        : [];
    }),
  );
}

const KINDS: Readonly<Record<string, readonly Field['kind'][]>> = {
  text: ['text'],
  number: ['number', 'money'],
  date: ['date'],
  yes_no: ['yes_no'],
};

export const fetchFrom = starter({
  id: 'fetch',
  need: 'Fetch from a service',
  group: 'Beyond the form',
  picks(setting, picked) {
    // First those that some field of the form could ask, and whose answer some field could take.
    const fits = (one: Callable) => {
      const [asking] = askingFields(setting, one);
      return asking !== undefined && fillsOf(setting, one, asking.key).length > 0;
    };
    const calls = callables(setting);
    const call = chosen(
      calls.toSorted((x, y) => Number(fits(y)) - Number(fits(x))),
      picked.call,
    );
    if (call === undefined)
      return 'The workspace has no service with a function of one parameter that answers with a row, a value or an object of values.';
    const drivers = askingFields(setting, call);
    const driver = chosen(drivers, picked.driver)?.key;
    if (driver === undefined)
      return `The form has no ${call.parameter.kind} to ask ${call.service.title} about.`;
    const fills = fillsOf(setting, call, driver);
    if (fills.length === 0) return 'No column of the answer fits a field of the form.';
    const same = fills.filter(({ key }) => key.split('>')[0] === key.split('>')[1]);
    return {
      driver: one('When this changes', drivers),
      call: one('ask', calls, [call.key]),
      fills: many(
        'and fill',
        fills,
        (same.length > 0 ? same : fills.slice(0, 1)).map(({ key }) => key),
      ),
    };
  },
  make(setting, { driver, call, fills }) {
    const found = callables(setting).find((one) => one.key === call);
    if (found === undefined) throw new Error(`there is no "${call}"`);
    const { service, name, made, parameter } = found;
    const by = driver;
    const pairs = fills.map((fill) => fill.split('>') as [string, string]);
    const member = (from: string) => (from === '' ? 'found' : `found?.${from}`);
    const title = `${listed(pairs.map(([, field]) => labelOf(setting.form, field)))} from ${service.title}`;
    const table = setting.tables.find(
      (one) => made.answers.from === 'table' && one.name === made.answers.table,
    );
    const column = made.answers.from === 'table' ? (Object.keys(made.answers.where)[0] ?? '') : '';
    const row = table?.rows.find(
      (one) =>
        one[column] !== null &&
        pairs.every(([from]) => one[from] !== null && one[from] !== undefined),
    );
    // What a script answers is known only once it runs.
    const asked =
      table === undefined ? sampleValue(setting, fieldNamed(setting.form, by)) : row?.[column];
    const wait: Step = { wait: 30_000 };
    const filled = (empty: boolean): ScenarioStep => ({
      expect: Object.fromEntries(
        pairs.map(([from, to]) => [to, { value: (empty ? null : (row?.[from] ?? null)) as Value }]),
      ),
    });
    const known = asked === undefined ? [] : [set(by, asked as Value), wait];
    return {
      title,
      purpose: `asks when ${labelOf(setting.form, by)} changes, and says when there is no answer.`,
      code: `on.change(fields.${by}, async ({ value }) => {
  fields.${by}.hint = null;
  if (value === null) return;
  try {
    const found = await services.${service.name}.${name}({ ${parameter.name}: value });
    if (found === null) fields.${by}.hint = "${service.title} does not know it.";
${pairs.map(([from, to]) => `    fields.${to}.value = ${member(from)} ?? null;`).join('\n')}
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    fields.${by}.hint = "${service.title} does not answer. Fill it in by hand.";
  }
});
`,
      explanation: [
        'While it waits the form can be used. When the field changes again meanwhile, the earlier run is superseded: its late answer changes nothing.',
        'A service that finds nothing answers null; one that fails rejects with ServiceError, which is said instead of failing the form.',
      ],
      ways: [
        way(setting, 'known', known),
        way(setting, 'not answering', known, {
          services: { [service.name]: { fails: 'no answer' } },
        }),
      ],
      watched: [by, ...pairs.map(([, to]) => to)],
      scenarios:
        asked === undefined
          ? []
          : [
              ...(row === undefined ? [] : [scenario(setting, title, [...known, filled(false)])]),
              scenario(
                setting,
                `${title}: not answering`,
                [
                  ...known,
                  {
                    expect: {
                      [by]: { hint: `${service.title} does not answer. Fill it in by hand.` },
                    },
                  },
                  filled(true),
                ],
                { services: { [service.name]: { fails: 'no answer' } } },
              ),
            ],
    };
  },
});

/** Fields of the kind that a function is asked about. */
function askingFields({ form }: StarterSetting, { parameter }: Callable): Choice[] {
  return fieldChoices(form, KINDS[parameter.kind] ?? []);
}

function fillsOf(setting: StarterSetting, { made }: Callable, driver: string): Choice[] {
  return answered(made, setting.tables).flatMap((one) =>
    fieldsOf(setting.form).flatMap((field) =>
      field.name !== driver && KINDS[one.kind]?.includes(field.kind) === true
        ? [
            {
              key: `${one.name ?? ''}>${field.name}`,
              label: `${field.label} (${field.name}) with ${one.name ?? 'the answer'}`,
            },
          ]
        : [],
    ),
  );
}

export const handToParent = starter({
  id: 'hand-to-parent',
  need: "Hand a new child's id to the parent",
  group: 'Beyond the form',
  picks({ forms }) {
    const parents = forms.filter(({ form }) => fieldsOf(form).some(({ kind }) => kind === 'text'));
    if (parents.length === 0)
      return 'No form lists records of this one, so it has no parent. Add such a list under the Structure of the parent.';
    // A field that only scripts write is there for just that.
    const targets = parents.flatMap(({ form }) =>
      fieldsOf(form)
        .filter(({ kind }) => kind === 'text')
        .toSorted((x, y) => Number(y.scriptOnly === true) - Number(x.scriptOnly === true))
        .map(({ name, label }) => ({
          key: `${form.name}.${name}`,
          label: `${label} (${name}) of ${form.title}`,
        })),
    );
    return { target: one('Write the id of the saved record into', targets) };
  },
  make(setting, { target }) {
    const [parent, field] = target.split('.') as [string, string];
    const from = setting.forms.find(({ form }) => form.name === parent);
    if (from === undefined) throw new Error(`there is no form "${parent}"`);
    const title = `Its id to ${labelOf(from.form, field)}`;
    // A saved sample is complete; without one the fields that have to be filled in are.
    const sample = setting.records[0];
    const needed =
      sample !== undefined
        ? []
        : fieldsOf(setting.form)
            .filter(
              (one) =>
                one.required === true &&
                one.hidden !== true &&
                one.locked !== true &&
                one.scriptOnly !== true,
            )
            .map((one) => set(one.name, sampleValue(setting, one)));
    const record = from.records[0];
    const opened =
      record === undefined
        ? null
        : openAs(setting, {
            record: sample?.id ?? null,
            parent: { form: parent, record: record.id },
          });
    const byItself = openAs(setting, { record: sample?.id ?? null });
    const steps = (handed: boolean): ScenarioStep[] => [
      ...needed,
      { submit: true },
      {
        expect: {
          '@submit': { saved: true },
          '@parent': handed ? [{ set: field, to: sample?.id ?? 'new' }] : [],
        },
      } as unknown as ScenarioStep,
    ];
    return {
      title,
      purpose: `${from.form.title} learns of the newest record when it is saved.`,
      code: `on.saved(({ id }) => parent?.set(${JSON.stringify(field)}, id));\n`,
      explanation: [
        'saved runs once the record has its id. Opened by itself the form has no parent, and ?. leaves it at that.',
        'The parent applies it as a step by a script, with everything that follows from it.',
      ],
      ways: [
        ...(opened === null
          ? []
          : [
              {
                when: `opened from ${from.form.title}`,
                open: opened,
                steps: [...needed, { submit: true } as Step],
              },
            ]),
        { when: 'opened by itself', open: byItself, steps: [...needed, { submit: true } as Step] },
      ],
      watched: ['@parent'],
      scenarios: [
        ...(opened === null ? [] : [{ title, open: opened, steps: steps(true) }]),
        { title: `${title}: without a parent`, open: byItself, steps: steps(false) },
      ],
    };
  },
});
