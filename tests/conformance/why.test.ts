/**
 * Answers to "why" and "why not" held against experiments. A cause is what makes a difference (Lewis, "Causation",
 * Journal of Philosophy 70, 1973; from memory): so what was named is changed, and the outcome has to change with at
 * least one other value; what was not named is changed to every other value, and what the line says has to stay.
 */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { decide, questionOf, type Cause, type Decision } from '../../src/core/debugging/decision';
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
  /** Inputs named as causes, and those of them that make a difference alone, or with other named ones changed. */
  named: number;
  alone: number;
  together: number;
  unnamed: number;
  none: number;
}

/** So many settings of the other named inputs are tried, for what makes a difference only together with them. */
const SETTINGS = 40;

test('what is named makes a difference, and what is not named makes none: 500 sessions', async () => {
  const share: Share = { named: 0, alone: 0, together: 0, unnamed: 0, none: 0 };
  const wrong: string[] = [];
  const vain: string[] = [];
  for (const { script, steps } of fc.sample(anySession, { seed, numRuns: Number(process.env.SESSIONS ?? 500) })) {
    const setting = { form, scripts: { '10-x': script } };
    const ground = groundOf(setting, steps);
    const ended = after(setting, steps);
    for (const target of TARGETS) {
      const decision = await decide(ground, { ...target, before: null });
      if (decision.decided !== 'said') continue;
      expect(decision.value).toEqual(valueOf(ended, target));
      const named = await inputsBehind(ground, decision);
      /** Whether the line still says the same after other steps; another line that speaks over it is no change of it. */
      const says = async (done: readonly TimedStep[], strictly: boolean): Promise<boolean> => {
        const same = valueOf(after(setting, done), target) === decision.value;
        if (same && !strictly) return true;
        const now = await decide(groundOf(setting, done), { ...target, before: null });
        const isSame = now.decided === 'said' && now.line === decision.line;
        return strictly ? isSame && same : isSame ? same : now.decided === 'said';
      };
      for (const [input, values] of Object.entries(INPUTS)) {
        const others = values.filter((to) => to !== lastOf(steps, input));
        if (!named.has(input)) {
          share.unnamed++;
          let none = true;
          for (const to of others) none &&= await says(entered(steps, input, to), false);
          if (none) share.none++;
          else
            wrong.push(
              `${JSON.stringify(target)} depends on ${input}:\n${script}\n${JSON.stringify(steps)}`,
            );
          continue;
        }
        share.named++;
        const differs = async (from: readonly TimedStep[]) => {
          for (const to of others) if (!(await says(entered(from, input, to), true))) return true;
          return false;
        };
        if (await differs(steps)) share.alone++;
        else if (await differsTogether(setting, steps, target, input, [...named])) share.together++;
        else if (vain.length < 40) vain.push(`${JSON.stringify(target)} ${input} line ${decision.line} ${decision.statement} ${JSON.stringify(decision.conditions.map((c) => c.text))} ${JSON.stringify(decision.causes)}`);
      }
    }
  }
  console.log(share, vain.slice(0, 12).join('\n'));
  expect(wrong.slice(0, 3)).toEqual([]);
  expect(share.none).toBe(share.unnamed);
  expect(share.alone + share.together).toBeGreaterThanOrEqual(0.95 * share.named);
}, 600_000);

function after(setting: Setting, steps: readonly TimedStep[]): Use {
  const use = direct(setting);
  for (const step of steps) use.do(step);
  return use;
}

function valueOf(use: Use, { part, aspect }: { part: string; aspect: string }): Value {
  return use.part(part)[aspect as 'hint'] as Value;
}

function lastOf(steps: readonly TimedStep[], input: string): Value {
  const last = steps.findLast((step) => 'set' in step && step.set === input);
  return last === undefined || !('set' in last) ? null : last.to;
}

/**
 * Whether an input makes a difference once other causes are set otherwise, as one of two that are each enough does
 * (Halpern and Pearl, "Causes and explanations", British Journal for the Philosophy of Science 56, 2005; from memory).
 */
async function differsTogether(
  setting: Setting,
  steps: readonly TimedStep[],
  target: { part: string; aspect: string },
  input: string,
  named: readonly string[],
): Promise<boolean> {
  const others = named.filter((one) => one !== input && Object.hasOwn(INPUTS, one));
  if (others.length === 0) return false;
  const settings = fc.sample(fc.tuple(...others.map((one) => fc.constantFrom(...INPUTS[one]!))), {
    seed,
    numRuns: SETTINGS,
  });
  for (const values of settings) {
    const from = others.reduce<TimedStep[]>(
      (now, one, i) => entered(now, one, values[i]!),
      [...steps],
    );
    const seen = new Set<string>();
    for (const to of INPUTS[input]!) {
      const done = entered(from, input, to);
      const now = await decide(groundOf(setting, done), { ...target, before: null });
      seen.add(JSON.stringify([valueOf(after(setting, done), target), now.decided, now.line]));
    }
    if (seen.size > 1) return true;
  }
  return false;
}

test('what is named as in the way is: with it the other way round the line is reached', async () => {
  const sessions = fc.sample(anySession, { seed: seed + 1, numRuns: 500 });
  const share = { kept: 0, reached: 0, unexplained: 0 };
  for (const { script, steps } of sessions) {
    const setting = { form, scripts: { '10-x': script } };
    const ground = groundOf(setting, steps);
    const { material } = detailedMaterial(setting);
    const writers = writersOf([{ name: '10-x.ts', text: script }]);
    for (const { part, aspect } of TARGETS) {
      for (const { writer, run, outcome } of await whyNot(ground, writers, form, {
        part,
        aspect,
        before: null,
      })) {
        if (outcome.is === 'not reached') share.unexplained++;
        if (outcome.is !== 'kept' || outcome.by.some(({ wanted }) => wanted === null)) continue;
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
  expect(share.kept).toBeGreaterThan(500);
  expect(share.reached).toBe(share.kept);
}, 300_000);
