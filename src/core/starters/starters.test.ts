/** Every starter makes a behaviour without a fault whose scenarios pass with it and fail without it. */
import { describe, expect, test } from 'vitest';
import { demo, foundIn, languageOf } from '../../../tests/support/demo-language';
import { direct } from '../../../tests/support/hosts';
import type { Form } from '../form/definition';
import { ScenarioSchema } from '../scenario/definition';
import { runScenario } from '../scenario/run-scenario';
import { listsChildren } from '../form/fields';
import type { Step } from '../session/step';
import { made, starters } from '.';
import { isMissing, type Picked, type Starter, type StarterSetting } from './starter';

function settingOf(form: string): StarterSetting {
  const entry = demo.forms.find((one) => one.form.name === form)!;
  const parents = demo.forms.filter(({ form: other }) => listsChildren(other, form));
  return {
    ...demo,
    form: entry.form,
    records: [],
    forms: parents.map(({ form: other, records }) => ({ form: other, records })),
  };
}

const settings = demo.forms.map(({ form }) => settingOf(form.name));
const byId = (id: string): Starter => starters.find((starter) => starter.id === id)!;

async function missesOf(
  form: Form,
  text: string,
  scenarios: readonly unknown[],
  records: StarterSetting['records'] = [],
): Promise<string[]> {
  const all = await Promise.all(
    scenarios.map((scenario) =>
      runScenario(
        ScenarioSchema.parse(scenario),
        form,
        demo,
        { people: demo.people, records, forms: demo.forms },
        (opening, steps) => {
          const use = direct({
            form,
            tables: demo.tables,
            services: demo.services,
            scripts: { made: text },
            opening,
          });
          return Promise.resolve([use.opened, ...steps.map((step: Step) => use.do(step))]);
        },
      ),
    ),
  );
  return all.flatMap(({ misses }) => misses.map(({ says }) => says));
}

test('there is one for each need', () => {
  expect(starters.map(({ id }) => id)).toEqual([
    'by-choice',
    'by-several',
    'by-role',
    'by-flag',
    'chained',
    'replace-form',
    'switch-track',
    'dependent-options',
    'compute-from-fields',
    'compute-from-rows',
    'date-from-number',
    'number-from-dates',
    'compose-text',
    'prefill',
    'clear-all',
    'validate-across',
    'warn-future',
    'per-row',
    'fetch',
    'hand-to-parent',
  ]);
});

/** Picks that make sense on a form of the demo; what is not named is as it stands at first. */
const picks: Record<string, { form: string; picked: Picked }[]> = {
  'by-choice': [
    {
      form: 'berth_visit',
      picked: {
        driver: ['pilot_choice'],
        values: ['own', 'harbour_pilot'],
        targets: ['sections.pilot', 'fields.pilot_licence'],
        aspects: ['shown', 'required'],
      },
    },
    {
      form: 'waste_declaration',
      picked: {
        driver: ['wastes'],
        values: ['sewage'],
        targets: ['fields.sewage_volume'],
        aspects: ['shown'],
      },
    },
    {
      form: 'waste_declaration',
      picked: {
        driver: ['keeps_some'],
        values: ['true'],
        targets: ['fields.next_port'],
        aspects: ['required', 'shown'],
      },
    },
  ],
  'by-several': [
    {
      form: 'berth_visit',
      picked: {
        how: ['any'],
        first: ['pilot_choice'],
        firstValues: ['own'],
        second: ['shore_power'],
        secondValues: ['true'],
        targets: ['fields.contact'],
        aspects: ['required'],
      },
    },
    {
      form: 'berth_visit',
      picked: {
        how: ['all'],
        first: ['pilot_choice'],
        firstValues: ['own'],
        second: ['shore_power'],
        secondValues: ['true'],
        targets: ['fields.contact'],
        aspects: ['required', 'locked'],
      },
    },
  ],
  'by-role': [
    {
      form: 'waste_declaration',
      picked: { roles: ['agent'], targets: ['sections.reception'], aspects: ['locked'] },
    },
  ],
  'by-flag': [
    {
      form: 'berth_visit',
      picked: {
        driver: ['vessel_kind'],
        flag: ['carries_cargo'],
        targets: ['sections.cargo_part'],
        aspects: ['shown'],
      },
    },
  ],
  chained: [{ form: 'vessel', picked: { chain: ['imo', 'call_sign', 'name', 'length'] } }],
  'replace-form': [
    { form: 'works_permit', picked: { driver: ['works_kind'], values: ['inspection'] } },
  ],
  'switch-track': [
    {
      form: 'works_permit',
      picked: {
        driver: ['works_kind'],
        values: ['hot', 'diving'],
        track: ['full'],
        other: ['short'],
      },
    },
  ],
  'dependent-options': [
    {
      form: 'berth_visit',
      picked: { target: ['berth'], column: ['length'], how: ['>='], driver: ['length'] },
    },
    {
      form: 'berth_visit',
      picked: { target: ['berth'], column: ['shore_power'], how: ['==='], driver: ['shore_power'] },
    },
  ],
  'compute-from-fields': [
    {
      form: 'crew_change',
      picked: { target: ['after'], how: ['difference'], of: ['on_board', 'minimum'] },
    },
    {
      form: 'waste_declaration',
      picked: { target: ['fee'], how: ['product'], of: ['oily_volume', 'residue_volume'] },
    },
  ],
  'compute-from-rows': (['sum', 'largest', 'average'] as const).map((how) => ({
    form: 'berth_visit',
    picked: { rows: ['cargo'], how: [how], column: ['weight'], target: ['length'] },
  })),
  'date-from-number': (['days', 'months', 'years'] as const).map((unit) => ({
    form: 'vessel',
    picked: { from: ['surveyed'], number: ['draught'], unit: [unit], target: ['survey_due'] },
  })),
  'number-from-dates': [
    {
      form: 'berth_visit',
      picked: {
        from: ['arrival'],
        to: ['departure'],
        unit: ['days'],
        count: ['in'],
        target: ['draught'],
      },
    },
    {
      form: 'berth_visit',
      picked: {
        from: ['arrival'],
        to: ['departure'],
        unit: ['weeks'],
        count: ['out'],
        target: ['draught'],
      },
    },
  ],
  'compose-text': [
    {
      form: 'berth_visit',
      picked: {
        target: ['refusal_reason'],
        sources: ['vessel', 'vessel_kind', 'draught'],
        between: [' · '],
      },
    },
  ],
  prefill: [
    {
      form: 'berth_visit',
      picked: { target: ['vessel'], from: ['launch'], parameter: ['ship'], lock: ['yes'] },
    },
    {
      form: 'berth_visit',
      picked: { target: ['vessel'], from: ['name'], parameter: [''], lock: ['no'] },
    },
  ],
  'clear-all': [{ form: 'berth_visit', picked: { button: ['start_over'] } }],
  'validate-across': [
    {
      form: 'berth_visit',
      picked: {
        first: ['arrival'],
        how: ['>'],
        second: ['departure'],
        says: ['She leaves before she comes.'],
      },
    },
    { form: 'berth_visit', picked: { first: ['draught'], how: ['<'], second: ['length'] } },
  ],
  'warn-future': [
    { form: 'vessel', picked: { date: ['surveyed'], how: ['warning'] } },
    { form: 'vessel', picked: { date: ['surveyed'], how: ['problem'] } },
  ],
  'per-row': [
    {
      form: 'berth_visit',
      picked: {
        rows: ['cargo'],
        driver: ['goods_class'],
        values: ['class_2'],
        targets: ['un_number', 'flash_point'],
        aspects: ['shown', 'required'],
      },
    },
  ],
  fetch: [
    {
      form: 'vessel',
      picked: {
        driver: ['imo'],
        call: ['ship_register.find'],
        fills: ['name>name', 'length>length'],
      },
    },
    {
      form: 'berth_visit',
      picked: { driver: ['arrival'], call: ['tide_gauge.level'], fills: ['level>draught'] },
    },
  ],
  'hand-to-parent': [{ form: 'berth_visit', picked: { target: ['vessel.latest_visit'] } }],
};

/** The form with nothing that another behaviour of the demo would have to unlock or show. */
function open(form: Form): Form {
  const copy = JSON.parse(JSON.stringify(form)) as Form;
  for (const page of copy.pages) {
    for (const section of page.sections) {
      delete section.hidden;
      for (const field of section.fields) {
        delete field.hidden;
        delete field.locked;
        delete field.scriptOnly;
      }
    }
  }
  return copy;
}

describe.each(
  Object.entries(picks).flatMap(([id, all]) =>
    all.map(({ form, picked }) => ({ id, form, picked })),
  ),
)('$id on $form with $picked', ({ id, form, picked }) => {
  const setting = settingOf(form);
  const result = made(byId(id), { ...setting, form: open(setting.form) }, picked)!;

  test('takes what was picked', () => {
    expect(result.picked).toMatchObject(
      Object.fromEntries(Object.entries(picked).filter(([, values]) => values[0] !== '')),
    );
  });

  test('has no fault', () => {
    expect(foundIn(form, result.text)).toEqual([]);
  });

  test('its scenarios pass with it and fail without it', async () => {
    expect(result.scenarios.length).toBeGreaterThan(0);
    expect(await missesOf(open(setting.form), result.text, result.scenarios)).toEqual([]);
    expect(await missesOf(open(setting.form), '', result.scenarios)).not.toEqual([]);
  });

  test('says what it does, and shows ways that come out differently', () => {
    expect(result.explanation.length).toBeGreaterThan(0);
    expect(result.watched.length).toBeGreaterThan(0);
    expect(result.ways.length).toBeGreaterThan(1);
  });
});

test('where there is a saved sample, the proof for a parent opens it instead of filling the form in', async () => {
  const entry = demo.forms.find(({ form }) => form.name === 'berth_visit')!;
  const sound = entry.records.slice(0, 1);
  const result = made(byId('hand-to-parent'), { ...settingOf('berth_visit'), records: sound }, {})!;
  expect(result.picked).toEqual({ target: ['vessel.latest_visit'] });
  expect(result.scenarios.map(({ open, steps }) => [open?.record, steps.length])).toEqual([
    [sound[0]!.id, 2],
    [sound[0]!.id, 2],
  ]);
  expect(await missesOf(entry.form, result.text, result.scenarios, sound)).toEqual([]);
});

test('on every form of the demo each starter says what is missing or makes something sound of what stands there first', () => {
  for (const setting of settings) {
    languageOf(setting.form.name);
    for (const starter of starters) {
      const offered = starter.picks(setting, {});
      const result = made(starter, setting, {});
      if (isMissing(offered)) {
        expect(offered).toMatch(/\.$/);
        expect(result).toBeNull();
      } else
        expect({
          form: setting.form.name,
          starter: starter.id,
          found: foundIn(setting.form.name, result!.text).map(({ says }) => says),
        }).toMatchObject({ found: [] });
    }
  }
});
