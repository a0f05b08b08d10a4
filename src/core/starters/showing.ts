/** Starters that show, lock or require parts. */
import { cellsOf, fieldsOf } from '../form/fields';
import type { Value } from '../form/value';
import type { ScenarioStep } from '../scenario/definition';
import type { Step } from '../session/step';
import {
  chosen,
  conditionOn,
  DRIVERS,
  fieldChoices,
  fieldNamed,
  indented,
  labelOf,
  labelsOf,
  many,
  one,
  partChoices,
  partName,
  rowsWith,
  rule,
  sampleValue,
  STEERABLE,
  steerExpectation,
  steerLines,
  tableOf,
  valueChoices,
  words,
  type StarterResult,
  type Picked,
  starter,
  type StarterSetting,
  type Way,
  way,
  scenario,
  asChoice,
} from './starter';
import { isList, KINDS } from '../form/traits';

const set = (name: string, to: Value): Step => ({ set: name, to });

/** A field to decide by and the values it has to have; null where the form has none. */
function driverPicks(setting: StarterSetting, picked: Picked) {
  const drivers = fieldChoices(setting.form, DRIVERS);
  const driver = chosen(drivers, picked.driver)?.key;
  return driver === undefined
    ? null
    : {
        driver,
        picks: {
          driver: one('Decided by', drivers),
          values: many('When it is', valueChoices(setting, fieldNamed(setting.form, driver))),
        },
      };
}

const NO_DRIVER = 'The form has no choice, yes/no or reference to decide by.';

const HELD =
  'A rule holds all the time: it needs no else and no load handler, and takes back what it no longer says.';

export const byChoice = starter({
  id: 'by-choice',
  need: 'Show or require parts by a choice',
  group: 'Showing',
  picks(setting, picked) {
    const decided = driverPicks(setting, picked);
    return decided === null
      ? NO_DRIVER
      : {
          ...decided.picks,
          targets: many('These parts', partChoices(setting.form, [decided.driver])),
          aspects: many('Do', STEERABLE, ['shown']),
        };
  },
  make(setting, { driver, values, targets, aspects }) {
    const field = fieldNamed(setting.form, driver);
    const condition = conditionOn(setting, field, values);
    const parts = labelsOf(setting.form, targets);
    return {
      title: `${parts} by ${field.label}`,
      purpose: `${doing(aspects)} only for ${values.join(', ')}.`,
      code: rule(`${parts} by ${field.label}`, [
        `const applies = ${condition.code};`,
        ...steerLines(targets, aspects, 'applies'),
      ]),
      explanation: [`The key of ${field.label} is compared, not its label.`, HELD],
      ways: condition.all.map(({ label, value }) => way(setting, label, [set(field.name, value)])),
      watched: targets.map(partName),
      scenarios: [
        scenario(setting, `${parts} by ${field.label}`, [
          set(field.name, condition.on),
          steerExpectation(targets, aspects, true),
          set(field.name, condition.off),
          steerExpectation(targets, aspects, false),
        ]),
      ],
    };
  },
});

function doing(aspects: readonly string[]): string {
  return aspects.join(' and ').replace(/^./, (first) => first.toUpperCase());
}

export const bySeveral = starter({
  id: 'by-several',
  need: 'Show or require parts by two fields',
  group: 'Showing',
  picks(setting, picked) {
    const drivers = fieldChoices(setting.form, DRIVERS);
    const first = chosen(drivers, picked.first)?.key;
    const others = drivers.filter((driver) => driver.key !== first);
    const second = chosen(others, picked.second)?.key;
    if (first === undefined || second === undefined)
      return 'The form has fewer than two choices, yes/nos or references to decide by.';
    return {
      how: one('When', { any: 'either holds', all: 'both hold' }),
      first: one('The first', drivers),
      firstValues: many('is', valueChoices(setting, fieldNamed(setting.form, first))),
      second: one('The second', others),
      secondValues: many('is', valueChoices(setting, fieldNamed(setting.form, second))),
      targets: many('These parts', partChoices(setting.form, [first, second])),
      aspects: many('Do', STEERABLE, ['shown']),
    };
  },
  make(setting, { how, first, firstValues, second, secondValues, targets, aspects }) {
    const [a, b] = [fieldNamed(setting.form, first), fieldNamed(setting.form, second)];
    const [whenA, whenB] = [
      conditionOn(setting, a, firstValues),
      conditionOn(setting, b, secondValues),
    ];
    const any = how === 'any';
    const parts = labelsOf(setting.form, targets);
    const title = `${parts} by ${a.label} and ${b.label}`;
    const ways: { holds: boolean; way: Way }[] = (
      [
        [true, true],
        [true, false],
        [false, true],
        [false, false],
      ] as const
    ).map(([holdsA, holdsB]) => ({
      holds: any ? holdsA || holdsB : holdsA && holdsB,
      way: way(
        setting,
        `${a.label} ${holdsA ? 'fits' : 'does not'}, ${b.label} ${holdsB ? 'fits' : 'does not'}`,
        [set(a.name, holdsA ? whenA.on : whenA.off), set(b.name, holdsB ? whenB.on : whenB.off)],
      ),
    }));
    return {
      title,
      purpose: any ? 'when either of the two fits.' : 'only when both fit.',
      code: rule(title, [
        `const first = ${whenA.code};`,
        `const second = ${whenB.code};`,
        `const applies = first ${any ? '||' : '&&'} second;`,
        ...steerLines(targets, aspects, 'applies'),
      ]),
      explanation: ['Both conditions are read at each run, so a change of either is heard.', HELD],
      ways: ways.map(({ way }) => way),
      watched: targets.map(partName),
      scenarios: [
        scenario(
          setting,
          title,
          ways.flatMap(({ holds, way }): ScenarioStep[] => [
            ...way.steps,
            steerExpectation(targets, aspects, holds),
          ]),
        ),
      ],
    };
  },
});

export const byRole = starter({
  id: 'by-role',
  need: 'Show, require or lock parts by role',
  group: 'Showing',
  picks(setting) {
    if (setting.roles.length === 0) return 'The workspace has no roles.';
    return {
      roles: many(
        'For',
        setting.roles.map(({ key, label }) => ({ key, label: `${label} (${key})` })),
      ),
      targets: many('These parts', partChoices(setting.form)),
      aspects: many('Do', STEERABLE, ['shown']),
    };
  },
  make(setting, { roles, targets, aspects }) {
    const parts = labelsOf(setting.form, targets);
    const title = `${parts} by role`;
    const withRole = (wanted: boolean) =>
      setting.people.filter(
        (person) => person.roles.some((role) => roles.includes(role)) === wanted,
      );
    return {
      title,
      purpose: `${doing(aspects)} only for ${roles.join(', ')}.`,
      code: rule(title, [
        'const held = form.person.roles;',
        `const applies = ${roles.map((role) => `held.includes(${JSON.stringify(role)})`).join(' || ')};`,
        ...steerLines(targets, aspects, 'applies'),
      ]),
      explanation: [
        'A person may have several roles, which are compared by their keys. A lock refuses people, not scripts; the server refuses them too.',
        HELD,
      ],
      ways: setting.people.map(({ key, name }) => way(setting, name, [], { as: key })),
      watched: targets.map(partName),
      scenarios: ([true, false] as const).flatMap((holds) => {
        const [person] = withRole(holds);
        return person === undefined
          ? []
          : [
              scenario(
                setting,
                `${title}: ${holds ? '' : 'not '}for ${person.name}`,
                [steerExpectation(targets, aspects, holds)],
                { as: person.key },
              ),
            ];
      }),
    };
  },
});

export const byFlag = starter({
  id: 'by-flag',
  need: 'Show or require parts by a flag of a referenced row',
  group: 'Showing',
  picks(setting, picked) {
    const drivers = fieldChoices(setting.form, ['reference']).filter(
      ({ key }) => flagsOf(setting, key).length > 0,
    );
    const driver = chosen(drivers, picked.driver)?.key;
    if (driver === undefined) return 'The form has no reference to a table with a yes/no column.';
    return {
      driver: one('The row of', drivers),
      flag: one('has', flagsOf(setting, driver)),
      targets: many('These parts', partChoices(setting.form, [driver])),
      aspects: many('Do', STEERABLE, ['shown']),
    };
  },
  make(setting, { driver, flag, targets, aspects }) {
    const field = fieldNamed(setting.form, driver);
    const table = tableOf(setting, field);
    const column = flag;
    const parts = labelsOf(setting.form, targets);
    const title = `${parts} by ${column.replace(/_/g, ' ')}`;
    return {
      title,
      purpose: `the table ${table.title} says for which ${field.label}.`,
      code: rule(title, [
        `const applies = fields.${field.name}.row?.${column} === true;`,
        ...steerLines(targets, aspects, 'applies'),
      ]),
      explanation: [
        `Which rows ask for it stands in the table ${table.title}, so a new row needs no code.`,
        'row is null while nothing is chosen, which ?. takes care of.',
        HELD,
      ],
      ways: table.rows
        .slice(0, 12)
        .map((row) =>
          way(setting, String(row[table.label]), [set(field.name, String(row[table.key]))]),
        ),
      watched: targets.map(partName),
      scenarios: [
        scenario(
          setting,
          title,
          ([true, false] as const).flatMap((holds): ScenarioStep[] => {
            const key = rowsWith(setting, table, column, holds);
            return key === null
              ? []
              : [set(field.name, key), steerExpectation(targets, aspects, holds)];
          }),
        ),
      ],
    };
  },
});

function flagsOf(setting: StarterSetting, driver: string) {
  return tableOf(setting, fieldNamed(setting.form, driver))
    .columns.filter(({ kind }) => kind === 'yes_no')
    .map(({ name }) => ({ key: name, label: name }));
}

export const chained = starter({
  id: 'chained',
  need: 'Reveal fields one after the other',
  group: 'Showing',
  picks(setting) {
    const all = fieldChoices(
      setting.form,
      KINDS.filter((kind) => !isList({ kind })),
    );
    if (all.length < 3)
      return 'The form has fewer than three fields to reveal one after the other.';
    return {
      chain: many(
        'In this order',
        all,
        all.slice(0, 3).map(({ key }) => key),
      ),
    };
  },
  make(setting, { chain }) {
    const fields = chain.map((name) => fieldNamed(setting.form, name));
    const title = `${labelsOf(setting.form, chain)} one after the other`;
    const filled = fields.slice(0, -1).map((field) => set(field.name, sampleValue(setting, field)));
    const shown = (upTo: number): ScenarioStep => ({
      expect: Object.fromEntries(
        fields.slice(1).map((field, i) => [field.name, { shown: i < upTo }]),
      ),
    });
    return {
      title,
      purpose: 'each is asked once the one before it is filled in.',
      code: rule(
        title,
        fields.flatMap((before, i) => {
          const next = fields[i + 1];
          const shown = i === 0 ? '' : `fields.${before.name}.shown && `;
          return next === undefined
            ? []
            : [`fields.${next.name}.shown = ${shown}!fields.${before.name}.empty;`];
        }),
      ),
      explanation: [
        'Each line asks whether the field before is shown and filled in, so emptying one hides all that follow.',
        HELD,
      ],
      ways: [
        way(setting, 'nothing filled in', []),
        ...fields
          .slice(0, filled.length)
          .map(({ label }, i) => way(setting, `${label} filled in`, filled.slice(0, i + 1))),
      ],
      watched: chain.slice(1),
      scenarios: [
        scenario(setting, title, [
          ...filled.flatMap((step, i): ScenarioStep[] => [step, shown(i + 1)]),
          ...fields.slice(0, 1).map((field) => set(field.name, null)),
          shown(0),
        ]),
      ],
    };
  },
});

export const replaceForm = starter({
  id: 'replace-form',
  need: 'Replace the form by a message',
  group: 'Showing',
  picks(setting, picked) {
    const decided = driverPicks(setting, picked);
    return decided === null
      ? NO_DRIVER
      : {
          ...decided.picks,
          text: words('Say instead', 'Nothing more is needed. Everything is known that has to be.'),
        };
  },
  make(setting, { driver, values, text }) {
    const field = fieldNamed(setting.form, driver);
    const condition = conditionOn(setting, field, values);
    const title = `Nothing more to ask by ${field.label}`;
    return {
      title,
      purpose: `says so instead of asking on for ${values.join(', ')}.`,
      code: rule(title, [`if (${condition.code}) form.replaceWith(${JSON.stringify(text)});`]),
      explanation: [
        'The message stands instead of the form and offers to start again. Once the rule no longer says it, the form is back with all that was typed.',
        HELD,
      ],
      ways: condition.all.map(({ label, value }) => way(setting, label, [set(field.name, value)])),
      watched: ['@replaced'],
      scenarios: [
        scenario(setting, title, [
          set(field.name, condition.off),
          { expect: { '@replaced': null } } as ScenarioStep,
          set(field.name, condition.on),
          { expect: { '@replaced': text } } as ScenarioStep,
        ]),
      ],
    };
  },
});

export const switchTrack = starter({
  id: 'switch-track',
  need: 'Switch a track',
  group: 'Showing',
  picks(setting, picked) {
    const decided = driverPicks(setting, picked);
    const tracks = (setting.form.tracks ?? []).map(({ name, title }) => ({
      key: name,
      label: `${title} (${name})`,
    }));
    const track = chosen(tracks, picked.track)?.key;
    if (track === undefined) return 'The form has no track. Add one under Structure.';
    if (decided === null) return NO_DRIVER;
    return {
      ...decided.picks,
      track: one('Show', tracks),
      other: one('Otherwise', [
        { key: '', label: 'no track' },
        ...tracks.filter((other) => other.key !== track),
      ]),
    };
  },
  make(setting, { driver, values, track, other }): StarterResult {
    const field = fieldNamed(setting.form, driver);
    const condition = conditionOn(setting, field, values);
    const [main, rest] = [track, other];
    const title = `${labelOf(setting.form, main)} by ${field.label}`;
    const expected = (holds: boolean): ScenarioStep => ({
      expect: { [main]: { shown: holds }, ...(rest === '' ? {} : { [rest]: { shown: !holds } }) },
    });
    return {
      title,
      purpose: `which track is shown follows ${field.label}.`,
      code: rule(title, [
        `const applies = ${condition.code};`,
        `tracks.${main}.shown = applies;`,
        ...(rest === '' ? [] : [`tracks.${rest}.shown = !applies;`]),
      ]),
      explanation: ['Both tracks are said in one rule, so never both and never neither.', HELD],
      ways: condition.all.map(({ label, value }) => way(setting, label, [set(field.name, value)])),
      watched: rest === '' ? [main] : [main, rest],
      scenarios: [
        scenario(setting, title, [
          set(field.name, condition.on),
          expected(true),
          set(field.name, condition.off),
          expected(false),
        ]),
      ],
    };
  },
});

export const perRow = starter({
  id: 'per-row',
  need: 'Show or require fields of each row',
  group: 'Rows',
  picks(setting, picked) {
    const fields = fieldsOf(setting.form).filter(
      (field) =>
        cellsOf(field).length > 1 && cellsOf(field).some(({ kind }) => DRIVERS.includes(kind)),
    );
    const rows = chosen(fields, picked.rows);
    const columns = (rows === undefined ? [] : cellsOf(rows)).map(({ name, label, kind }) => ({
      key: name,
      label: `${label} (${name})`,
      kind,
    }));
    const drivers = columns.filter(({ kind }) => DRIVERS.includes(kind));
    const driver = chosen(drivers, picked.driver);
    if (rows === undefined || driver === undefined)
      return 'The form has no rows with a choice, yes/no or reference and further columns.';
    return {
      rows: one('In each row of', fields.map(asChoice)),
      driver: one('Decided by', drivers),
      values: many(
        'When it is',
        valueChoices(setting, fieldNamed(setting.form, `${rows.name}.${driver.key}`)),
      ),
      targets: many(
        'These columns',
        columns.filter(({ key }) => key !== driver.key),
      ),
      aspects: many('Do', STEERABLE, ['shown', 'required']),
    };
  },
  make(setting, { rows, driver, values, targets, aspects }) {
    const [owner, column] = [rows, driver];
    const field = fieldNamed(setting.form, `${owner}.${column}`);
    const condition = conditionOn(setting, field, values, `row.fields.${column}`);
    const cells = targets.map((name) => `row.fields.${name}`);
    const labels = labelsOf(
      setting.form,
      targets.map((name) => `fields.${owner}.${name}`),
    );
    const title = `${labels} by ${field.label}`;
    const address = (place: number, name: string) => `${owner}[${place}].${name}`;
    const expected = (holds: boolean[]): ScenarioStep => ({
      expect: Object.fromEntries(
        holds.flatMap((one, i) =>
          targets.map((name) => [
            address(i, name),
            Object.fromEntries(aspects.map((aspect) => [aspect, one])),
          ]),
        ),
      ),
    });
    return {
      title,
      purpose: `in each row of ${labelOf(setting.form, owner)} by itself.`,
      code: `keep.each(fields.${owner}, ${JSON.stringify(title)}, (row) => {\n${indented([`const applies = ${condition.code};`, ...cells.flatMap((cell) => aspects.map((aspect) => `${cell}.${aspect} = applies;`))])}\n});\n`,
      explanation: [
        'keep.each runs once for each row and says something of that row alone; a row that moves takes its state along.',
        HELD,
      ],
      ways: condition.all.map(({ label, value }) =>
        way(setting, label, [{ addRow: owner }, set(address(0, column), value)]),
      ),
      watched: targets.map((name) => address(0, name)),
      scenarios: [
        scenario(setting, title, [
          { addRow: owner },
          { addRow: owner },
          set(address(0, column), condition.on),
          set(address(1, column), condition.off),
          expected([true, false]),
          set(address(0, column), condition.off),
          expected([false, false]),
        ]),
      ],
    };
  },
});
