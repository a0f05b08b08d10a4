/** Starters that show, lock or require parts. */
import { cellsOf, fieldsOf } from '../form/fields';
import type { Value } from '../form/value';
import type { ScenarioStep } from '../scenario/definition';
import type { Step } from '../session/step';
import {
  conditionOn,
  DRIVERS,
  fieldChoices,
  fieldNamed,
  indented,
  labelOf,
  labelsOf,
  many,
  one,
  openAs,
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
  type Pick,
  type Picked,
  type Starter,
  type StarterSetting,
  type Way,
} from './starter';
import { isList, KINDS } from '../form/traits';

const set = (name: string, to: Value): Step => ({ set: name, to });

/** A field to decide by and the values it has to have; null where the form has none. */
function driverPicks(
  setting: StarterSetting,
  picked: Picked,
): { driver: string; picks: Pick[] } | null {
  const drivers = fieldChoices(setting.form, DRIVERS);
  const driver = drivers.find(({ key }) => key === picked.driver?.[0])?.key ?? drivers[0]?.key;
  return driver === undefined
    ? null
    : {
        driver,
        picks: [
          one('driver', 'Decided by', drivers),
          many('values', 'When it is', valueChoices(setting, fieldNamed(setting.form, driver))),
        ],
      };
}

const NO_DRIVER = { missing: 'The form has no choice, yes/no or reference to decide by.' };

const HELD =
  'A rule holds all the time: it needs no else and no load handler, and takes back what it no longer says.';

export const byChoice: Starter = {
  id: 'by-choice',
  need: 'Show or require parts by a choice',
  group: 'Showing',
  picks(setting, picked) {
    const decided = driverPicks(setting, picked);
    return decided === null
      ? NO_DRIVER
      : [
          ...decided.picks,
          many('targets', 'These parts', partChoices(setting.form, [decided.driver])),
          many('aspects', 'Do', STEERABLE, ['shown']),
        ];
  },
  make(setting, { driver, values, targets, aspects }) {
    const field = fieldNamed(setting.form, driver![0]!);
    const condition = conditionOn(setting, field, values!);
    const parts = labelsOf(setting.form, targets!);
    return {
      title: `${parts} by ${field.label}`,
      purpose: `${doing(aspects!)} only for ${values!.join(', ')}.`,
      code: rule(`${parts} by ${field.label}`, [
        `const applies = ${condition.code};`,
        ...steerLines(targets!, aspects!, 'applies'),
      ]),
      explanation: [`The key of ${field.label} is compared, not its label.`, HELD],
      ways: condition.all.map(({ label, value }) => ({
        when: label,
        open: openAs(setting),
        steps: [set(field.name, value)],
      })),
      watched: targets!.map(partName),
      scenarios: [
        {
          title: `${parts} by ${field.label}`,
          open: openAs(setting),
          steps: [
            set(field.name, condition.on),
            steerExpectation(targets!, aspects!, true),
            set(field.name, condition.off),
            steerExpectation(targets!, aspects!, false),
          ],
        },
      ],
    };
  },
};

function doing(aspects: readonly string[]): string {
  return aspects.join(' and ').replace(/^./, (first) => first.toUpperCase());
}

export const bySeveral: Starter = {
  id: 'by-several',
  need: 'Show or require parts by two fields',
  group: 'Showing',
  picks(setting, picked) {
    const drivers = fieldChoices(setting.form, DRIVERS);
    if (drivers.length < 2)
      return {
        missing: 'The form has fewer than two choices, yes/nos or references to decide by.',
      };
    const first = picked.first?.[0] ?? drivers[0]!.key;
    const others = drivers.filter(({ key }) => key !== first);
    const second = others.some(({ key }) => key === picked.second?.[0])
      ? picked.second![0]!
      : others[0]!.key;
    return [
      one('how', 'When', [
        { key: 'any', label: 'either holds' },
        { key: 'all', label: 'both hold' },
      ]),
      one('first', 'The first', drivers),
      many('firstValues', 'is', valueChoices(setting, fieldNamed(setting.form, first))),
      one('second', 'The second', others),
      many('secondValues', 'is', valueChoices(setting, fieldNamed(setting.form, second))),
      many('targets', 'These parts', partChoices(setting.form, [first, second])),
      many('aspects', 'Do', STEERABLE, ['shown']),
    ];
  },
  make(setting, { how, first, firstValues, second, secondValues, targets, aspects }) {
    const [a, b] = [fieldNamed(setting.form, first![0]!), fieldNamed(setting.form, second![0]!)];
    const [whenA, whenB] = [
      conditionOn(setting, a, firstValues!),
      conditionOn(setting, b, secondValues!),
    ];
    const any = how![0] === 'any';
    const parts = labelsOf(setting.form, targets!);
    const title = `${parts} by ${a.label} and ${b.label}`;
    const ways: { holds: boolean; way: Way }[] = [
      [true, true],
      [true, false],
      [false, true],
      [false, false],
    ].map(([holdsA, holdsB]) => ({
      holds: any ? holdsA! || holdsB! : holdsA! && holdsB!,
      way: {
        when: `${a.label} ${holdsA ? 'fits' : 'does not'}, ${b.label} ${holdsB ? 'fits' : 'does not'}`,
        open: openAs(setting),
        steps: [
          set(a.name, holdsA ? whenA.on : whenA.off),
          set(b.name, holdsB ? whenB.on : whenB.off),
        ],
      },
    }));
    return {
      title,
      purpose: any ? 'when either of the two fits.' : 'only when both fit.',
      code: rule(title, [
        `const first = ${whenA.code};`,
        `const second = ${whenB.code};`,
        `const applies = first ${any ? '||' : '&&'} second;`,
        ...steerLines(targets!, aspects!, 'applies'),
      ]),
      explanation: ['Both conditions are read at each run, so a change of either is heard.', HELD],
      ways: ways.map(({ way }) => way),
      watched: targets!.map(partName),
      scenarios: [
        {
          title,
          open: openAs(setting),
          steps: ways.flatMap(({ holds, way }): ScenarioStep[] => [
            ...way.steps,
            steerExpectation(targets!, aspects!, holds),
          ]),
        },
      ],
    };
  },
};

export const byRole: Starter = {
  id: 'by-role',
  need: 'Show, require or lock parts by role',
  group: 'Showing',
  picks(setting) {
    if (setting.roles.length === 0) return { missing: 'The workspace has no roles.' };
    return [
      many(
        'roles',
        'For',
        setting.roles.map(({ key, label }) => ({ key, label: `${label} (${key})` })),
      ),
      many('targets', 'These parts', partChoices(setting.form)),
      many('aspects', 'Do', STEERABLE, ['shown']),
    ];
  },
  make(setting, { roles, targets, aspects }) {
    const parts = labelsOf(setting.form, targets!);
    const title = `${parts} by role`;
    const withRole = (wanted: boolean) =>
      setting.people.filter(
        (person) => person.roles.some((role) => roles!.includes(role)) === wanted,
      );
    return {
      title,
      purpose: `${doing(aspects!)} only for ${roles!.join(', ')}.`,
      code: rule(title, [
        'const held = form.person.roles;',
        `const applies = ${roles!.map((role) => `held.includes(${JSON.stringify(role)})`).join(' || ')};`,
        ...steerLines(targets!, aspects!, 'applies'),
      ]),
      explanation: [
        'A person may have several roles, which are compared by their keys. A lock refuses people, not scripts; the server refuses them too.',
        HELD,
      ],
      ways: setting.people.map(({ key, name }) => ({
        when: name,
        open: openAs(setting, { as: key }),
        steps: [],
      })),
      watched: targets!.map(partName),
      scenarios: ([true, false] as const).flatMap((holds) => {
        const [person] = withRole(holds);
        return person === undefined
          ? []
          : [
              {
                title: `${title}: ${holds ? '' : 'not '}for ${person.name}`,
                open: openAs(setting, { as: person.key }),
                steps: [steerExpectation(targets!, aspects!, holds)],
              },
            ];
      }),
    };
  },
};

export const byFlag: Starter = {
  id: 'by-flag',
  need: 'Show or require parts by a flag of a referenced row',
  group: 'Showing',
  picks(setting, picked) {
    const drivers = fieldChoices(setting.form, ['reference']).filter(
      ({ key }) => flagsOf(setting, key).length > 0,
    );
    if (drivers.length === 0)
      return { missing: 'The form has no reference to a table with a yes/no column.' };
    const driver = picked.driver?.[0] ?? drivers[0]!.key;
    return [
      one('driver', 'The row of', drivers),
      one('flag', 'has', flagsOf(setting, driver)),
      many('targets', 'These parts', partChoices(setting.form, [driver])),
      many('aspects', 'Do', STEERABLE, ['shown']),
    ];
  },
  make(setting, { driver, flag, targets, aspects }) {
    const field = fieldNamed(setting.form, driver![0]!);
    const table = tableOf(setting, field);
    const column = flag![0]!;
    const parts = labelsOf(setting.form, targets!);
    const title = `${parts} by ${column.replace(/_/g, ' ')}`;
    return {
      title,
      purpose: `the table ${table.title} says for which ${field.label}.`,
      code: rule(title, [
        `const applies = fields.${field.name}.row?.${column} === true;`,
        ...steerLines(targets!, aspects!, 'applies'),
      ]),
      explanation: [
        `Which rows ask for it stands in the table ${table.title}, so a new row needs no code.`,
        'row is null while nothing is chosen, which ?. takes care of.',
        HELD,
      ],
      ways: table.rows.slice(0, 12).map((row) => ({
        when: String(row[table.label]),
        open: openAs(setting),
        steps: [set(field.name, String(row[table.key]))],
      })),
      watched: targets!.map(partName),
      scenarios: [
        {
          title,
          open: openAs(setting),
          steps: ([true, false] as const).flatMap((holds): ScenarioStep[] => {
            const key = rowsWith(setting, table, column, holds);
            return key === null
              ? []
              : [set(field.name, key), steerExpectation(targets!, aspects!, holds)];
          }),
        },
      ],
    };
  },
};

function flagsOf(setting: StarterSetting, driver: string) {
  return tableOf(setting, fieldNamed(setting.form, driver))
    .columns.filter(({ kind }) => kind === 'yes_no')
    .map(({ name }) => ({ key: name, label: name }));
}

export const chained: Starter = {
  id: 'chained',
  need: 'Reveal fields one after the other',
  group: 'Showing',
  picks(setting) {
    const all = fieldChoices(
      setting.form,
      KINDS.filter((kind) => !isList({ kind })),
    );
    if (all.length < 3)
      return { missing: 'The form has fewer than three fields to reveal one after the other.' };
    return [
      many(
        'chain',
        'In this order',
        all,
        all.slice(0, 3).map(({ key }) => key),
      ),
    ];
  },
  make(setting, { chain }) {
    const fields = chain!.map((name) => fieldNamed(setting.form, name));
    const title = `${labelsOf(setting.form, chain!)} one after the other`;
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
        fields
          .slice(1)
          .map(
            (field, i) =>
              `fields.${field.name}.shown = ${i === 0 ? '' : `fields.${fields[i]!.name}.shown && `}!fields.${fields[i]!.name}.empty;`,
          ),
      ),
      explanation: [
        'Each line asks whether the field before is shown and filled in, so emptying one hides all that follow.',
        HELD,
      ],
      ways: [
        { when: 'nothing filled in', open: openAs(setting), steps: [] },
        ...filled.map((_, i) => ({
          when: `${fields[i]!.label} filled in`,
          open: openAs(setting),
          steps: filled.slice(0, i + 1),
        })),
      ],
      watched: chain!.slice(1),
      scenarios: [
        {
          title,
          open: openAs(setting),
          steps: [
            ...filled.flatMap((step, i): ScenarioStep[] => [step, shown(i + 1)]),
            set(fields[0]!.name, null),
            shown(0),
          ],
        },
      ],
    };
  },
};

export const replaceForm: Starter = {
  id: 'replace-form',
  need: 'Replace the form by a message',
  group: 'Showing',
  picks(setting, picked) {
    const decided = driverPicks(setting, picked);
    return decided === null
      ? NO_DRIVER
      : [
          ...decided.picks,
          words(
            'text',
            'Say instead',
            'Nothing more is needed. Everything is known that has to be.',
          ),
        ];
  },
  make(setting, { driver, values, text }) {
    const field = fieldNamed(setting.form, driver![0]!);
    const condition = conditionOn(setting, field, values!);
    const title = `Nothing more to ask by ${field.label}`;
    return {
      title,
      purpose: `says so instead of asking on for ${values!.join(', ')}.`,
      code: rule(title, [`if (${condition.code}) form.replaceWith(${JSON.stringify(text![0])});`]),
      explanation: [
        'The message stands instead of the form and offers to start again. Once the rule no longer says it, the form is back with all that was typed.',
        HELD,
      ],
      ways: condition.all.map(({ label, value }) => ({
        when: label,
        open: openAs(setting),
        steps: [set(field.name, value)],
      })),
      watched: ['@replaced'],
      scenarios: [
        {
          title,
          open: openAs(setting),
          steps: [
            set(field.name, condition.off),
            { expect: { '@replaced': null } } as ScenarioStep,
            set(field.name, condition.on),
            { expect: { '@replaced': text![0]! } } as ScenarioStep,
          ],
        },
      ],
    };
  },
};

export const switchTrack: Starter = {
  id: 'switch-track',
  need: 'Switch a track',
  group: 'Showing',
  picks(setting, picked) {
    const decided = driverPicks(setting, picked);
    const tracks = (setting.form.tracks ?? []).map(({ name, title }) => ({
      key: name,
      label: `${title} (${name})`,
    }));
    if (tracks.length === 0) return { missing: 'The form has no track. Add one under Structure.' };
    if (decided === null) return NO_DRIVER;
    const track = picked.track?.[0] ?? tracks[0]!.key;
    return [
      ...decided.picks,
      one('track', 'Show', tracks),
      one('other', 'Otherwise', [
        { key: '', label: 'no track' },
        ...tracks.filter(({ key }) => key !== track),
      ]),
    ];
  },
  make(setting, { driver, values, track, other }): StarterResult {
    const field = fieldNamed(setting.form, driver![0]!);
    const condition = conditionOn(setting, field, values!);
    const [main, rest] = [track![0]!, other![0]!];
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
      ways: condition.all.map(({ label, value }) => ({
        when: label,
        open: openAs(setting),
        steps: [set(field.name, value)],
      })),
      watched: rest === '' ? [main] : [main, rest],
      scenarios: [
        {
          title,
          open: openAs(setting),
          steps: [
            set(field.name, condition.on),
            expected(true),
            set(field.name, condition.off),
            expected(false),
          ],
        },
      ],
    };
  },
};

export const perRow: Starter = {
  id: 'per-row',
  need: 'Show or require fields of each row',
  group: 'Rows',
  picks(setting, picked) {
    const fields = fieldsOf(setting.form).filter(
      (field) =>
        cellsOf(field).length > 1 && cellsOf(field).some(({ kind }) => DRIVERS.includes(kind)),
    );
    if (fields.length === 0)
      return {
        missing: 'The form has no rows with a choice, yes/no or reference and further columns.',
      };
    const rows = fields.find(({ name }) => name === picked.rows?.[0]) ?? fields[0]!;
    const columns = cellsOf(rows).map(({ name, label, kind }) => ({
      key: name,
      label: `${label} (${name})`,
      kind,
    }));
    const drivers = columns.filter(({ kind }) => DRIVERS.includes(kind));
    const driver = drivers.find(({ key }) => key === picked.driver?.[0]) ?? drivers[0]!;
    return [
      one(
        'rows',
        'In each row of',
        fields.map(({ name, label }) => ({ key: name, label: `${label} (${name})` })),
      ),
      one('driver', 'Decided by', drivers),
      many(
        'values',
        'When it is',
        valueChoices(setting, fieldNamed(setting.form, `${rows.name}.${driver.key}`)),
      ),
      many(
        'targets',
        'These columns',
        columns.filter(({ key }) => key !== driver.key),
      ),
      many('aspects', 'Do', STEERABLE, ['shown', 'required']),
    ];
  },
  make(setting, { rows, driver, values, targets, aspects }) {
    const [owner, column] = [rows![0]!, driver![0]!];
    const field = fieldNamed(setting.form, `${owner}.${column}`);
    const condition = conditionOn(setting, field, values!, `row.fields.${column}`);
    const cells = targets!.map((name) => `row.fields.${name}`);
    const labels = labelsOf(
      setting.form,
      targets!.map((name) => `fields.${owner}.${name}`),
    );
    const title = `${labels} by ${field.label}`;
    const address = (place: number, name: string) => `${owner}[${place}].${name}`;
    const expected = (holds: boolean[]): ScenarioStep => ({
      expect: Object.fromEntries(
        holds.flatMap((one, i) =>
          targets!.map((name) => [
            address(i, name),
            Object.fromEntries(aspects!.map((aspect) => [aspect, one])),
          ]),
        ),
      ),
    });
    return {
      title,
      purpose: `in each row of ${labelOf(setting.form, owner)} by itself.`,
      code: `keep.each(fields.${owner}, ${JSON.stringify(title)}, (row) => {\n${indented([`const applies = ${condition.code};`, ...cells.flatMap((cell) => aspects!.map((aspect) => `${cell}.${aspect} = applies;`))])}\n});\n`,
      explanation: [
        'keep.each runs once for each row and says something of that row alone; a row that moves takes its state along.',
        HELD,
      ],
      ways: condition.all.map(({ label, value }) => ({
        when: label,
        open: openAs(setting),
        steps: [{ addRow: owner }, set(address(0, column), value)],
      })),
      watched: targets!.map((name) => address(0, name)),
      scenarios: [
        {
          title,
          open: openAs(setting),
          steps: [
            { addRow: owner },
            { addRow: owner },
            set(address(0, column), condition.on),
            set(address(1, column), condition.off),
            expected([true, false]),
            set(address(0, column), condition.off),
            expected([false, false]),
          ],
        },
      ],
    };
  },
};
