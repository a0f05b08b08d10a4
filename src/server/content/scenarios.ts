/** The scenarios of a form, and how they came out when they were last run. */
import { desc, eq, sql } from 'drizzle-orm';
import * as z from 'zod';
import { RUNS_KEPT, SCENARIOS_PER_FORM } from '../../core/limits';
import type { Scenario } from '../../core/scenario/definition';
import type { PastRun } from '../../core/workspace/past-run';
import { beginningOf } from '../../core/scenario/beginning';
import { variedOpenings } from '../../core/scenario/inputs';
import { unknownNames } from '../../core/scenario/naming';
import { NoSuchOpening } from '../../core/scenario/opening';
import { database } from '../database/database';
import { Refusal } from '../http/refusal';
import { readDocuments, removeDocument, saveDocument } from '../revisions/documents';
import * as schema from '../database/schema';
import { readForm, readHead, type StoredScenario } from './read';

/** Saves a new scenario under a name made from its title, with a number where that is taken. Throws a Refusal for names that the form or the workspace does not have. */
export async function addScenario(
  formName: string,
  scenario: Scenario,
  by: string,
): Promise<StoredScenario> {
  const others = await readDocuments('scenario', formName);
  await demandSound(formName, null, scenario, others);
  const taken = new Set(others.map(({ name }) => name));
  if (taken.size >= SCENARIOS_PER_FORM)
    throw new Refusal(422, `A form has at most ${SCENARIOS_PER_FORM} scenarios.`);
  const stem =
    scenario.title
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 50) || 'scenario';
  for (let i = 1; ; i++) {
    const name = i === 1 ? stem : `${stem}-${i}`;
    if (taken.has(name)) continue;
    const result = await saveDocument({ kind: 'scenario', form: formName, name }, scenario, 0, by);
    if (result.saved) return { name, scenario, revision: result.revision };
  }
}

/** Throws a Refusal for a scenario that names what the form, the workspace or its other scenarios do not have. */
async function demandSound(
  formName: string,
  name: string | null,
  scenario: Scenario,
  others: readonly { name: string; content: Scenario }[],
): Promise<void> {
  const [form, head] = await Promise.all([readForm(formName), readHead()]);
  if (form === null) throw new Refusal(404, `There is no form "${formName}".`);
  const [unknown] = unknownNames(scenario, form);
  if (unknown !== undefined) throw new Refusal(400, `${unknown.path.join('.')}: ${unknown.says}.`);
  // As they will be: what starts as this one may not be what this one starts as.
  const all = [
    ...others.filter((other) => other.name !== name),
    ...(name === null ? [] : [{ name, content: scenario }]),
  ].map((one) => ({ name: one.name, scenario: one.content }));
  try {
    const { open } = beginningOf(scenario, all);
    for (const { as } of variedOpenings(scenario, open))
      if (!head.people.some((person) => person.key === as))
        throw new Refusal(400, `open.as: there is no person "${as}".`);
  } catch (caught) {
    if (!(caught instanceof NoSuchOpening)) throw caught;
    throw new Refusal(400, `${caught.path.join('.')}: ${caught.message}.`);
  }
}

export type SavedScenario =
  | ({ saved: true } & StoredScenario)
  /** Somebody was faster; `content` is null where it was removed. */
  | { saved: false; says: string; theirs: { content: Scenario | null; revision: number } };

/** Saves a scenario made from revision `from`, 0 for one that was removed. */
export async function saveScenario(
  form: string,
  name: string,
  scenario: Scenario,
  from: number,
  by: string,
): Promise<SavedScenario> {
  await demandSound(form, name, scenario, await readDocuments('scenario', form));
  const result = await saveDocument({ kind: 'scenario', form, name }, scenario, from, by);
  if (result.saved) return { saved: true, name, scenario, revision: result.revision };
  return { ...result, says: 'Somebody else changed this scenario meanwhile. Reload to see it.' };
}

/** Removes a scenario at revision `from`. Throws a Refusal (409) when it was changed meanwhile; one that is gone is removed. */
export async function removeScenario(
  form: string,
  name: string,
  from: number,
  by: string,
): Promise<void> {
  const result = await removeDocument({ kind: 'scenario', form, name }, from, by);
  if (!result.saved && result.theirs.revision > 0)
    throw new Refusal(409, 'Somebody else changed this scenario meanwhile. Reload to see it.');
}

export interface ScenarioRun {
  passed: number;
  failed: number;
  /** Of which state of the form, as `stateOf` in `overview.ts` gives it. */
  of: string;
  /** Statements reached, in percent, where that was measured. */
  coverage?: number | undefined;
}

/** Keeps how the scenarios of a form came out, for the page of forms. What was reached stays until it is measured again. */
export async function keepScenarioRun(form: string, run: ScenarioRun): Promise<void> {
  const { coverage, ...rest } = run;
  const row = { ...rest, ...(coverage === undefined ? {} : { coverage }), at: new Date() };
  await database()
    .insert(schema.scenarioRun)
    .values({ form, ...row })
    .onConflictDoUpdate({ target: schema.scenarioRun.form, set: row });
}

const Failing = z.array(z.string());

/** The last runs of a form, the newest first. */
export async function pastRuns(form: string): Promise<PastRun[]> {
  const { pastRun } = schema;
  const rows = await database()
    .select()
    .from(pastRun)
    .where(eq(pastRun.form, form))
    .orderBy(desc(pastRun.id))
    .limit(RUNS_KEPT);
  return rows.map(({ passed, failed, failing, by, at }) => ({
    passed,
    failed,
    failing: Failing.parse(failing),
    by,
    at: at.toISOString(),
  }));
}

/** Puts a run behind the others; of one that came out as the last one did, it says until when. */
export async function addPastRun(
  form: string,
  run: { passed: number; failed: number; failing: string[] },
  by: string,
): Promise<void> {
  const { pastRun } = schema;
  const [last] = await pastRuns(form);
  if (
    last !== undefined &&
    last.passed === run.passed &&
    last.failed === run.failed &&
    last.failing.join('\n') === run.failing.join('\n')
  ) {
    await database().execute(
      sql`update past_run set until = clock_timestamp() where id = (select max(id) from past_run where form = ${form})`,
    );
    return;
  }
  await database()
    .insert(pastRun)
    .values({ form, ...run, by });
  await database().execute(
    sql`delete from past_run where form = ${form} and id not in (select id from past_run where form = ${form} order by id desc limit ${RUNS_KEPT})`,
  );
}
