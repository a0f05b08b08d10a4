/**
 * Standing on an entry of the tape shows the form as it was there. Held against two things that know nothing of looking
 * back: the session done up to that step and no further, and the tape itself, whose effects say what became of what.
 */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { equal, type Value } from '../../src/core/form/value';
import type { Effect } from '../../src/core/tape/tape';
import type { Entry } from '../../src/core/session/entries';
import type { TimedStep } from '../../src/core/session/step';
import { anySession, form } from '../support/random-behaviours';
import { detailedMaterial, direct, inspectedHere, type Setting } from '../support/hosts';
import { shareOf } from '../support/thorough';

const seed = 20310504;
const SESSIONS = fc.sample(anySession, { seed, numRuns: shareOf(200) });

const ASPECTS = ['shown', 'required', 'locked', 'hint', 'warning', 'problem', 'value'] as const;
type Looked = Readonly<Record<string, Readonly<Record<string, unknown>>>>;

/** The aspects of all parts, without those that follow from others. */
function aspectsOf(parts: Looked): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(parts).flatMap(([part, state]) =>
      ASPECTS.filter((aspect) => state[aspect] !== undefined).map((aspect) => [
        `${part}.${aspect}`,
        state[aspect],
      ]),
    ),
  );
}

/** What stands after so many entries, from the definition and the effects on the tape alone. */
function fromTape(start: Record<string, unknown>, entries: readonly Entry[]): typeof start {
  const now = { ...start };
  for (const entry of entries) {
    if (entry.type !== 'effect') continue;
    const { part, aspect, to, covered } = entry as Effect;
    const key = `${part}.${aspect}`;
    if (covered !== true && key in now) now[key] = to;
  }
  return now;
}

/** As the definition has it, before anything ran. */
function atStart(): Record<string, unknown> {
  const bare: Setting = { form, scripts: {} };
  return aspectsOf(direct(bare).seen.parts as never as Looked);
}

function each(
  work: (setting: Setting, steps: readonly TimedStep[], of: ReturnType<typeof looksOf>) => void,
): void {
  for (const { script, steps } of SESSIONS) {
    const setting: Setting = { form, scripts: { '10-x': script } };
    work(setting, steps, looksOf(setting, steps));
  }
}

/** A look at every entry of the tape. */
function looksOf(setting: Setting, steps: readonly TimedStep[]) {
  const { material } = detailedMaterial(setting);
  const { answers } = inspectedHere(setting, steps, { runs: [] }, material);
  const entries = answers.flatMap(({ tape }) => tape);
  const moments = entries.map(({ n }) => ({ entry: n, detail: null }));
  const { looks } = inspectedHere(setting, steps, { runs: [], moments }, material);
  return { answers, entries, looks };
}

test('the last entry of each step looks as the session that went no further', () => {
  let compared = 0;
  each((setting, steps, { answers, entries, looks }) => {
    const use = direct(setting);
    answers.forEach((answer, step) => {
      if (step > 0) use.do(steps[step - 1]!);
      const last = answer.tape.at(-1);
      if (last === undefined) return;
      const look = looks[entries.indexOf(last)]!;
      expect(aspectsOf(look.parts as never as Looked)).toEqual(
        aspectsOf(use.seen.parts as never as Looked),
      );
      expect(look.page).toBe(use.seen.page);
      compared++;
    });
  });
  expect(compared).toBeGreaterThan(shareOf(800));
});

test('every entry looks as the effects up to it make it', () => {
  const start = atStart();
  let compared = 0;
  each((_setting, _steps, { entries, looks }) => {
    entries.forEach((entry, i) => {
      const told = aspectsOf(looks[i]!.parts as never as Looked);
      const expected = fromTape(start, entries.slice(0, i + 1));
      for (const [key, value] of Object.entries(expected))
        if (!equal(told[key] as Value, value as Value))
          expect.fail(
            `entry ${entry.n} (${entry.type}), ${key}: ${JSON.stringify(told[key])}, by the tape ${JSON.stringify(value)}`,
          );
      compared++;
    });
  });
  expect(compared).toBeGreaterThan(shareOf(3500));
});
