/**
 * Turning what was clicked into a scenario: the steps as done, and after them expectations on what they changed, so
 * that a passing scenario says what mattered and nothing more.
 */
import type { Form } from '../form/definition';
import { equal } from '../form/value';
import type { Answer, RowsChange, Step } from '../session/step';
import { changedAspects } from './aspects';
import type { Expectation, Open, Scenario, ScenarioStep } from './definition';
import { NOTHING_SEEN, partSeen, seenAfter, type Seen } from './seen';

/**
 * `answers` holds the opening's answer and one for each step. With `nothingElse` each expectation, and one at the end,
 * says that nothing changed besides.
 */
export function recordScenario(
  title: string,
  open: Open,
  form: Form,
  steps: readonly Step[],
  answers: readonly Answer[],
  { nothingElse }: { nothingElse: boolean } = { nothingElse: true },
): Scenario {
  let before = seenAfter(NOTHING_SEEN, answers[0]!);
  const recorded: ScenarioStep[] = [];
  steps.forEach((step, i) => {
    const answer = answers[i + 1]!;
    const after = seenAfter(before, answer);
    recorded.push(step);
    const expect = expectationOf(step, form, before, after, answer);
    if (Object.keys(expect).length > 0 || (nothingElse && i === steps.length - 1))
      recorded.push({
        expect: nothingElse ? ({ ...expect, '@nothingElse': true } as Expectation) : expect,
      });
    before = after;
  });
  return { title, open, steps: recorded };
}

/** What a step changed, as an expectation. */
export function expectationOf(
  step: Step,
  form: Form,
  before: Seen,
  after: Seen,
  answer: Answer,
): Expectation {
  const expect: Record<string, unknown> = {};
  for (const name of Object.keys(answer.changes)) {
    const changed = changedAspects(before.parts[name], after.parts[name]!);
    // That a field has the value just entered goes without saying.
    if ('set' in step && step.set === name && equal(changed.value ?? null, step.to))
      delete changed.value;
    if (Object.keys(changed).length > 0) expect[name] = changed;
  }
  for (const [name, change] of Object.entries(answer.rows))
    expectRows(name, change, form, step, before, after, expect);
  if (before.page !== after.page) expect['@page'] = after.page;
  if (before.replaced?.text !== after.replaced?.text)
    expect['@replaced'] = after.replaced?.text ?? null;
  if (before.notice?.text !== after.notice?.text)
    expect['@notice'] = after.notice && { text: after.notice.text, tone: after.notice.tone };
  if (answer.messages.length > 0)
    expect['@messages'] = answer.messages.map(({ text, tone }) => ({ text, tone }));
  if (answer.toParent.length > 0) expect['@parent'] = answer.toParent;
  if (answer.refused !== null) expect['@refused'] = [{ why: answer.refused }];
  if (answer.errors.length > 0)
    expect['@errors'] = answer.errors.map(({ behaviour, line }) => ({
      behaviour,
      ...(line === null ? {} : { line }),
    }));
  if (answer.submit !== null)
    expect['@submit'] = { saved: answer.submit.saved, stoppedBy: answer.submit.stoppedBy };
  return expect as Expectation;
}

/** Rows are named by their place after the step; those that a person has just added or filled in go without saying. */
function expectRows(
  name: string,
  change: RowsChange,
  form: Form,
  step: Step,
  before: Seen,
  after: Seen,
  expect: Record<string, unknown>,
): void {
  const rows = after.rows[name]!;
  if (
    change.order !== undefined &&
    before.rows[name] !== undefined &&
    !('addRow' in step) &&
    !('removeRow' in step) &&
    !('moveRow' in step)
  ) {
    expect[name] = { ...(expect[name] as object | undefined), count: rows.order.length };
  }
  for (const [id, row] of Object.entries(change.rows)) {
    const place = rows.order.indexOf(id);
    const columns = new Set([...Object.keys(row.values ?? {}), ...Object.keys(row.cells ?? {})]);
    const had = before.rows[name]?.order.indexOf(id) ?? -1;
    for (const column of columns) {
      const address = `${name}[${place}].${column}`;
      const changed = changedAspects(
        had < 0 ? undefined : partSeen(before, form, `${name}[${had}].${column}`),
        partSeen(after, form, address)!,
      );
      if ('set' in step && step.set === address && equal(changed.value ?? null, step.to))
        delete changed.value;
      if (had < 0)
        for (const aspect of Object.keys(changed))
          if (aspect === 'value' || row.cells?.[column]?.[aspect as never] === undefined)
            delete changed[aspect as 'value'];
      if (Object.keys(changed).length > 0) expect[address] = changed;
    }
  }
}
