/**
 * Answers to "why" and "why not" held against experiments. A cause is what makes a difference (Lewis, "Causation",
 * Journal of Philosophy 70, 1973; from memory): so what was named is changed, and the outcome has to change with at
 * least one other value; what was not named is changed to every other value, and what the line says has to stay.
 */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { decide, questionOf } from '../../src/core/debugging/decide';
import type { Cause, Decision } from '../../src/core/debugging/decision';
import { whyNot } from '../../src/core/debugging/why-not';
import { writersOf } from '../../src/core/language/writers';
import type { Ground } from '../../src/core/debugging/ground';
import type { Value } from '../../src/core/form/value';
import type { TimedStep } from '../../src/core/session/step';
import { anySession, form, INPUTS } from '../support/random-behaviours';
import {
  detailedMaterial,
  direct,
  groundOf,
  inspectedHere,
  type Setting,
  type Use,
} from '../support/hosts';
import { shareOf } from '../support/thorough';

const TARGETS = ['one', 'two'].flatMap((part) =>
  ['shown', 'required', 'hint', 'warning'].map((aspect) => ({ part, aspect })),
);

/** All that people entered on which a decision depends, asked in turn. */
async function inputsBehind(ground: Ground, decision: Decision): Promise<Set<string>> {
  const inputs = new Set<string>();
  const seen = new Set<string>();
  const follow = async (cause: Cause, of: Decision): Promise<void> => {
    if (cause.is === 'event' && cause.part !== null) inputs.add(cause.part);
    const question = questionOf(cause, of);
    if (question === null || seen.has(JSON.stringify(question))) return;
    seen.add(JSON.stringify(question));
    if (Object.hasOwn(INPUTS, question.part)) return void inputs.add(question.part);
    const next = await decide(ground, question);
    for (const one of next.causes) await follow(one, next);
  };
  for (const cause of decision.causes) await follow(cause, decision);
  return inputs;
}

/** The steps with the last value of an input replaced; one that was never entered is entered first. */
function entered(steps: readonly TimedStep[], input: string, to: Value): TimedStep[] {
  const at = steps.findLastIndex((step) => 'set' in step && step.set === input);
  return at < 0 ? [{ set: input, to }, ...steps] : steps.with(at, { set: input, to });
}

const seed = 20310502;

interface Share {
  /** Inputs named as causes, and those of them that make a difference alone, or once other inputs are set otherwise. */
  named: number;
  alone: number;
  together: number;
  unnamed: number;
  none: number;
}

/** So many settings of the other inputs are tried, for what makes a difference only together with them. */
const SETTINGS = 150;

test('what is named makes a difference, and what is not named makes none', async () => {
  const share: Share = { named: 0, alone: 0, together: 0, unnamed: 0, none: 0 };
  const wrong: string[] = [];
  const contradicted: string[] = [];
  for (const { script, steps } of fc.sample(anySession, { seed, numRuns: shareOf(500) })) {
    const experiment = new Experiment(script);
    for (const target of TARGETS) {
      const decision = await experiment.decide(steps, target);
      if (decision.decided !== 'said') continue;
      expect(decision.value).toEqual(experiment.value(steps, target));
      const named = await inputsBehind(experiment.ground(steps), decision);
      const about = (input: string) =>
        `${JSON.stringify(target)} and ${input}:\n${script}\n${JSON.stringify(steps)}`;
      for (const input of Object.keys(INPUTS)) {
        if (named.has(input)) {
          share.named++;
          if (await makesDifference(experiment, steps, target, input, decision)) share.alone++;
          else if (await makesDifferenceTogether(experiment, steps, target, input))
            share.together++;
          else contradicted.push(about(input));
        } else {
          share.unnamed++;
          if (await makesNone(experiment, steps, target, input, decision)) share.none++;
          else wrong.push(about(input));
        }
      }
    }
  }
  console.log(share);
  expect(wrong.slice(0, 3)).toEqual([]);
  expect(share.none).toBe(share.unnamed);
  // What was looked at and yet can never matter is named too: `a && b` where an outer condition has ruled out `b`.
  expect(share.alone + share.together, contradicted[0]).toBeGreaterThan(0.98 * share.named);
}, 600_000);

interface Target {
  part: string;
  aspect: string;
}

/** Sessions of one form and script, each played once. */
class Experiment {
  readonly #setting: Setting;
  readonly #uses = new Map<string, Use>();
  readonly #grounds = new Map<string, Ground>();
  readonly #decisions = new Map<string, Promise<Decision>>();

  constructor(script: string) {
    this.#setting = { form, scripts: { '10-x': script } };
  }

  value(steps: readonly TimedStep[], { part, aspect }: Target): Value {
    return kept(this.#uses, steps, () => after(this.#setting, steps)).part(part)[
      aspect as 'hint'
    ] as Value;
  }

  ground(steps: readonly TimedStep[]): Ground {
    return kept(this.#grounds, steps, () => groundOf(this.#setting, steps));
  }

  decide(steps: readonly TimedStep[], target: Target): Promise<Decision> {
    return kept(this.#decisions, [steps, target], () =>
      decide(this.ground(steps), { ...target, before: null }),
    );
  }
}

function kept<T>(all: Map<string, T>, of: unknown, make: () => T): T {
  const key = JSON.stringify(of);
  const known = all.get(key) ?? make();
  all.set(key, known);
  return known;
}

/** The steps with other values of an input, and without it having been touched. */
function otherwise(steps: readonly TimedStep[], input: string): TimedStep[][] {
  const last = lastOf(steps, input);
  const untouched = steps.filter((step) => !('set' in step && step.set === input));
  return [
    ...INPUTS[input]!.filter((to) => to !== last).map((to) => entered(steps, input, to)),
    ...(untouched.length < steps.length ? [untouched] : []),
  ];
}

/** Whether the line would not have said the same with another value of an input, or without it. */
async function makesDifference(
  experiment: Experiment,
  steps: readonly TimedStep[],
  target: Target,
  input: string,
  decision: Decision,
): Promise<boolean> {
  for (const done of otherwise(steps, input)) {
    if (experiment.value(done, target) !== decision.value) return true;
    const now = await experiment.decide(done, target);
    if (now.decided !== 'said' || now.line !== decision.line) return true;
  }
  return false;
}

/**
 * Whether an input makes a difference once others are set otherwise, as one of two that are each enough does (Halpern
 * and Pearl, "Causes and explanations", British Journal for the Philosophy of Science 56, 2005; from memory).
 */
async function makesDifferenceTogether(
  experiment: Experiment,
  steps: readonly TimedStep[],
  target: Target,
  input: string,
): Promise<boolean> {
  const others = Object.keys(INPUTS).filter((one) => one !== input);
  const settings = fc.sample(fc.tuple(...others.map((one) => fc.constantFrom(...INPUTS[one]!))), {
    seed,
    numRuns: SETTINGS,
  });
  for (const [i, values] of settings.entries()) {
    const set = others.reduce<TimedStep[]>(
      (now, one, k) => entered(now, one, values[k]!),
      [...steps],
    );
    const value = experiment.value(set, target);
    if (otherwise(set, input).some((done) => experiment.value(done, target) !== value)) return true;
    // That another line decides the same takes longer to see.
    if (i >= 20) continue;
    const decision = await experiment.decide(set, target);
    if (await makesDifference(experiment, set, target, input, decision)) return true;
  }
  return false;
}

/** Whether the line says the same with every other value of an input; another line that speaks over it may. */
async function makesNone(
  experiment: Experiment,
  steps: readonly TimedStep[],
  target: Target,
  input: string,
  decision: Decision,
): Promise<boolean> {
  for (const to of INPUTS[input]!) {
    const done = entered(steps, input, to);
    if (experiment.value(done, target) === decision.value) continue;
    const now = await experiment.decide(done, target);
    if (now.decided === 'said' && now.line === decision.line) return false;
    if (now.decided !== 'said') return false;
  }
  return true;
}

function after(setting: Setting, steps: readonly TimedStep[]): Use {
  const use = direct(setting);
  for (const step of steps) use.do(step);
  return use;
}

function lastOf(steps: readonly TimedStep[], input: string): Value {
  const last = steps.findLast((step) => 'set' in step && step.set === input);
  return last === undefined || !('set' in last) ? null : last.to;
}

test('what is named as in the way is: with it the other way round the line is reached', async () => {
  const sessions = fc.sample(anySession, { seed: seed + 1, numRuns: shareOf(500) });
  const share = { kept: 0, reached: 0, unexplained: 0 };
  for (const { script, steps } of sessions) {
    const setting = { form, scripts: { '10-x': script } };
    const ground = groundOf(setting, steps);
    const { material } = detailedMaterial(setting);
    const writers = writersOf([{ name: '10-x.ts', text: script }]);
    for (const { part, aspect } of TARGETS) {
      for (const { writer, run, outcome } of await whyNot(ground, writers, {
        part,
        aspect,
        before: null,
      })) {
        if (outcome.is === 'not reached') share.unexplained++;
        if (outcome.is !== 'kept' || outcome.by.some(({ needs }) => needs === null)) continue;
        share.kept++;
        const turned = outcome.by.map(({ script: of, site }) => ({ script: of, site }));
        const again = inspectedHere(
          setting,
          steps,
          { runs: [run!], turned, answers: false },
          material,
        );
        const said = again.runs[0]!.details.some(
          (one) =>
            one.is === 'said' &&
            one.part === part &&
            one.aspect === aspect &&
            one.line === writer.line,
        );
        if (said) share.reached++;
      }
    }
  }
  console.log(share);
  expect(share.kept).toBeGreaterThan(shareOf(500));
  expect(share.reached).toBe(share.kept);
}, 300_000);
