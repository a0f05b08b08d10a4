/**
 * Turning what was clicked into a scenario: the steps as done, and after them expectations on what they changed, so
 * that a passing scenario says what mattered and nothing more.
 */
import { equal, type Value } from '../form/value';
import type { Answer, PartState, Step } from '../session/step';
import type { Expectation, Open, PartExpectation, Scenario, ScenarioStep } from './definition';
import { NOTHING_SEEN, seenAfter, type Seen } from './snapshot';

const ASPECTS = ['value', 'shown', 'locked', 'required', 'options', 'hint', 'problem', 'label'] as const;

/** `answers` holds the opening's answer and one for each step. */
export function recordScenario(title: string, open: Open, steps: readonly Step[], answers: readonly Answer[]): Scenario {
  let before = seenAfter(NOTHING_SEEN, answers[0]!);
  const recorded: ScenarioStep[] = [];
  steps.forEach((step, i) => {
    const answer = answers[i + 1]!;
    const after = seenAfter(before, answer);
    recorded.push(step);
    const expect = expectationOf(step, before, after, answer, recorded.length - 1);
    if (Object.keys(expect).length > 0) recorded.push({ expect });
    before = after;
  });
  return { title, open, steps: recorded };
}

function expectationOf(step: Step, before: Seen, after: Seen, answer: Answer, place: number): Expectation {
  const expect: Record<string, unknown> = {};
  for (const name of Object.keys(answer.changes)) {
    const changed = changedAspects(before.parts[name], after.parts[name]!);
    // That a field has the value just entered goes without saying.
    if ('set' in step && step.set === name && equal(changed.value ?? null, step.to)) delete changed.value;
    if (Object.keys(changed).length > 0) expect[name] = changed;
  }
  if (before.page !== after.page) expect['@page'] = after.page;
  if (before.replaced !== after.replaced) expect['@replaced'] = after.replaced;
  if (answer.messages.length > 0) expect['@messages'] = answer.messages.map(({ text, tone }) => ({ text, tone }));
  if (answer.refused !== null) expect['@refused'] = [{ step: place, why: answer.refused }];
  if (answer.errors.length > 0) expect['@errors'] = answer.errors.map(({ behaviour, line }) => ({ behaviour, ...(line === null ? {} : { line }) }));
  if (answer.submit !== null) expect['@submit'] = { saved: answer.submit.saved, stoppedBy: answer.submit.stoppedBy };
  return expect as Expectation;
}

function changedAspects(before: PartState | undefined, after: PartState): PartExpectation {
  const changed: Record<string, Value> = {};
  for (const aspect of ASPECTS) {
    const now = after[aspect] as Value | undefined;
    if (now === undefined || equal(now, before?.[aspect])) continue;
    if (aspect === 'options') {
      if (after.options != null) changed.options = after.options.map((option) => option.key);
    } else changed[aspect] = now;
  }
  return changed as PartExpectation;
}
