/**
 * Making a release on purpose: what it would change is shown before, and it is refused while a scenario fails unless
 * somebody says why it is made all the same. The scenarios are run here; nobody's word is taken for it.
 */
import { counted } from '../../core/counted';
import type { Form } from '../../core/form/definition';
import type { Problem } from '../../core/problems/problems';
import type { Scenario } from '../../core/scenario/definition';
import { differences } from '../../core/workspace/difference';
import { gridCellsChanged, type ReleaseChanges } from '../../core/workspace/release-changes';
import type { Workspace } from '../../core/workspace/workspace';
import { CutShort, Refusal } from '../http/refusal';
import {
  CannotRelease,
  ChangedMeanwhile,
  makeRelease,
  newestRelease,
  releaseAgain,
} from './releases';
import { stateOf } from '../content/overview';
import { checkForm, NotToItsEnd } from '../content/problems';
import { existingForm } from '../content/forms';
import { readScenarios, readScripts, readTables } from '../content/read';
import { releasedVersion } from './versions';

/** What differs from the newest release, and what fails. Throws a Refusal where there is no such form. */
export async function changesSinceRelease(name: string): Promise<ReleaseChanges> {
  const form = await existingForm(name);
  const [last, sources, scenarios, tables, failing] = await Promise.all([
    newestRelease(name),
    readScripts(form),
    readScenarios(name),
    readTables(),
    failingOf(form),
  ]);
  const now = workspaceOf(form, sources, scenarios, tables);
  // Of a release made before scenarios were kept, these say nothing.
  const then =
    last === null
      ? null
      : workspaceOf(last.material.form, last.sources, last.scenarios ?? scenarios, [
          ...last.material.tables,
        ]);
  const texts = (of: readonly { name: string; text: string }[]) =>
    new Map(of.map((one) => [one.name, one.text]));
  const [before, after] = [texts(last?.sources ?? []), texts(sources)];
  return {
    next: (last?.number ?? 0) + 1,
    last:
      last === null
        ? null
        : {
            number: last.number,
            madeBy: last.madeBy,
            reason: last.reason,
            failing: last.failing,
            again: last.again,
          },
    former: last === null ? null : releasedVersion(last),
    differences:
      then === null
        ? []
        : [...differences(then, now), ...gridCellsChanged(name, last!.scenarios ?? [], scenarios)],
    scripts: [...new Set([...before.keys(), ...after.keys()])]
      .filter((one) => last !== null && before.get(one) !== after.get(one))
      .map((one) => ({
        name: one,
        before: before.get(one) ?? null,
        after: after.get(one) ?? null,
      })),
    failing,
  };
}

function workspaceOf(
  form: Form,
  scripts: readonly { name: string; text: string }[],
  scenarios: readonly { name: string; scenario: Scenario }[],
  tables: Workspace['tables'],
): Workspace {
  return {
    title: '',
    roles: [],
    people: [],
    tables,
    services: [],
    shared: [],
    forms: [
      {
        form,
        behaviours: scripts.map(({ name, text }) => ({ name, text })),
        scenarios: scenarios.map(({ name, scenario }) => ({ name, scenario })),
        records: [],
      },
    ],
  };
}

/** The scenarios that fail, in words. */
async function failingOf(form: Form): Promise<string[]> {
  let problems: readonly Problem[];
  try {
    problems = await checkForm(form);
  } catch (caught) {
    // What takes more work than the server does for it has not passed.
    if (caught instanceof NotToItsEnd) return [caught.message];
    throw caught;
  }
  return problems.flatMap(({ at, says }) => (at.is === 'scenario' ? [`${at.title}: ${says}`] : []));
}

/**
 * Makes the next release, of exactly what was checked. Throws a Refusal: 409 while something fails and no reason is given
 * and where somebody saves meanwhile, 422 where a behaviour does not compile, 503 where the server is too busy to check.
 */
export async function releaseForm(
  name: string,
  reason: string | null,
  by: string,
): Promise<{ number: number }> {
  // Before anything is read: what is saved from here on was not checked.
  const state = await stateOf(name);
  const form = await existingForm(name);
  const failing = await failingOf(form).catch((caught: unknown) => {
    if (caught instanceof CutShort && reason !== null) return [caught.message];
    throw caught;
  });
  if (failing.length > 0 && reason === null)
    throw new Refusal(
      409,
      `${counted(failing.length, 'scenario fails', 'scenarios fail')}. Say why the release is made all the same: ${failing[0]}`,
    );
  try {
    return await makeRelease(
      name,
      { by, reason: failing.length > 0 ? reason : null, failing },
      state ?? undefined,
    );
  } catch (caught) {
    if (caught instanceof ChangedMeanwhile)
      throw new Refusal(
        409,
        'Something of this form was saved while its scenarios were run, so no release was made. Make it again.',
      );
    throw caught instanceof CannotRelease ? new Refusal(422, caught.message) : caught;
  }
}

/** Puts an earlier release back as the next one, so that people fill it in again. Throws a Refusal (404). */
export async function putBack(
  name: string,
  again: number,
  reason: string,
  by: string,
): Promise<{ number: number }> {
  await existingForm(name);
  try {
    return await releaseAgain(name, again, { by, reason });
  } catch (caught) {
    throw caught instanceof CannotRelease ? new Refusal(404, caught.message) : caught;
  }
}
