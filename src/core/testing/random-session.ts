/**
 * Random sessions, as people could have them: opened by anybody with any record, fields set to values worth trying
 * (`values.ts`), rows added, buttons pressed, sent at times. Half of them go on from a scenario, since what it takes to
 * get far is known there. The same from the same seed.
 */
import type { Form } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';
import type { Table } from '../form/table';
import type { Values } from '../form/value';
import { beginningOf, stepsOf } from '../scenario/beginning';
import { randomFrom } from '../random';
import type { Open } from '../scenario/definition';
import { NoSuchOpening, type Cast } from '../scenario/opening';
import type { Step } from '../session/step';
import { valuesFor, type Mentioned } from './values';

export interface SessionPlan {
  open: Open;
  steps: Step[];
}

export interface RandomSetting {
  form: Form;
  tables: readonly Table[];
  cast: Cast;
  mentioned: Mentioned;
}

/** Steps of one session at most, besides those of a scenario. */
const STEPS = 12;

export function randomSessions(around: RandomSetting, count: number, seed = 1): SessionPlan[] {
  const random = randomFrom(seed);
  const begun = beginnings(around.cast);
  return Array.from({ length: count }, () => {
    const from = begun.length > 0 && random() < 0.5 ? pick(begun, random)! : null;
    const open = from?.open ?? anyOpening(around, random);
    // Not always to its end: a scenario often undoes in its last steps what it did in its first.
    const before =
      from === null ? [] : from.steps.slice(0, Math.ceil(random() * from.steps.length));
    const length = 1 + Math.floor(random() * STEPS);
    const steps = Array.from({ length }, () => anyStep(around, random)).flat();
    return { open, steps: [...before, ...steps] };
  });
}

/** The scenarios of a form as far as they can be opened. */
function beginnings({ scenarios = [] }: Cast): SessionPlan[] {
  return scenarios.flatMap(({ scenario }) => {
    try {
      const { open, steps } = beginningOf(scenario, scenarios);
      return [{ open, steps: [...steps, ...stepsOf(scenario)] }];
    } catch (caught) {
      if (caught instanceof NoSuchOpening) return [];
      throw caught;
    }
  });
}

function anyOpening({ form, cast }: RandomSetting, random: () => number): Open {
  const person = pick(cast.people, random)!;
  const record = random() < 0.6 ? null : (pick(cast.records, random)?.id ?? null);
  const launch = Object.fromEntries(
    (form.launch ?? [])
      .filter(() => random() < 0.3)
      .map(({ name, kind }) => [
        name,
        kind === 'number' ? 2 : kind === 'yes_no' ? true : kind === 'date' ? '2031-05-02' : 'x',
      ]),
  );
  const services = random() < 0.15 ? failing(cast) : undefined;
  return {
    as: person.key,
    record,
    ...(Object.keys(launch).length === 0 ? {} : { launch }),
    ...(services === undefined ? {} : { services }),
  };
}

/** Services as some scenario has them. */
function failing({ scenarios = [] }: Cast): Open['services'] {
  return scenarios.find(({ scenario }) => scenario.open?.services !== undefined)?.scenario.open!
    .services;
}

function anyStep(around: RandomSetting, random: () => number): Step[] {
  const { form, tables, mentioned } = around;
  const fields = fieldsOf(form);
  const chance = random();
  const buttons = form.buttons ?? [];
  if (chance < 0.08 && buttons.length > 0) return [{ click: pick(buttons, random)!.name }];
  if (chance < 0.14) return [{ submit: true }];
  if (chance < 0.18) return [{ wait: pick([500, 2000, 60_000], random)! }];
  if (fields.length === 0) return [{ submit: true }];
  const field = pick(fields, random)!;
  if (field.kind === 'rows') {
    const values: Values = Object.fromEntries(
      cellsOf(field)
        .filter(() => random() < 0.7)
        .map((cell) => [cell.name, pick(valuesFor(cell, tables, mentioned), random)!]),
    );
    const kept = Object.fromEntries(
      Object.entries(values).filter(([, value]) => value !== undefined),
    );
    if (random() < 0.2) return [{ removeRow: `${field.name}[0]` }];
    const cell = pick(cellsOf(field), random)!;
    const value = pick(valuesFor(cell, tables, mentioned), random) ?? null;
    return random() < 0.6
      ? [{ addRow: field.name, with: kept }]
      : [{ set: `${field.name}[0].${cell.name}`, to: value }];
  }
  return [{ set: field.name, to: pick(valuesFor(field, tables, mentioned), random) ?? null }];
}

function pick<T>(from: readonly T[], random: () => number): T | undefined {
  return from[Math.floor(random() * from.length)];
}
