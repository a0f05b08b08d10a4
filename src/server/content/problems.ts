/**
 * Checking a whole workspace: sources, parts and scenarios of every form, as the command line does. Each form is checked
 * off the main thread and in machines of its own, never in those that submissions use, and again only when something it
 * depends on has changed.
 */
import { SCENARIOS_ON_SERVER } from '../../core/limits';
import { availableParallelism } from 'node:os';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import type { Form } from '../../core/form/definition';
import { inWeight, problemsInScenarios, type Problem } from '../../core/problems/problems';
import { engineInThread } from '../../workers/engine-in-thread';
import { compiledScripts, compiledServices } from '../machines/compiled';
import { database } from '../database/database';
import { untilDone, wasCutShort } from '../../core/sandbox/cut-short';
import { CutShort, Refusal } from '../http/refusal';
import * as schema from '../database/schema';
import { savedNow } from '../revisions/documents';
import { task } from '../machines/tasks';
import { perWorkspace } from '../database/current-workspace';
import { stateOf } from './overview';
import {
  readScripts,
  readCast,
  formsUsing,
  readForms,
  readHead,
  readScenarios,
  readServices,
  readShared,
  readTables,
} from './read';
import { keepScenarioRun } from './scenarios';

export interface Checking {
  /** Found so far, the weightiest first. */
  problems: Problem[];
  /** Forms checked, of how many. */
  done: number;
  of: number;
  /** Those that are checked. */
  forms: { name: string; title: string }[];
  /** Those whose check was cut short, with the reason: nothing is known of them, and they are checked again when asked. */
  cutShort: { name: string; title: string; says: string }[];
}

/** Forms checked at once. */
const AT_ONCE = Math.max(1, availableParallelism() - 1);

/** What was found in a form, with what it was found in. */
const kept = perWorkspace(
  'checks',
  () => new Map<string, { of: string; problems: Problem[]; state: string | null }>(),
);
/** What is being checked, by the script whose forms are; the empty text for all. */
const running = perWorkspace('checks that go on', () => new Map<string, Running>());

/**
 * What is wrong in the workspace, or in the forms that use a shared script. Where checking takes longer than `patience`
 * milliseconds, what was found so far, while it goes on.
 */
export async function workspaceProblems(
  patience: number,
  script: string | null = null,
): Promise<Checking & { over: boolean }> {
  const mine = running();
  const key = script ?? '';
  const saved = await savedNow();
  const found = mine.get(key) ?? begin(script, saved);
  if (!mine.has(key)) {
    mine.set(key, found);
    // Whoever asks is told what went wrong; nobody need ask any more.
    void found.over.catch(() => undefined).finally(() => mine.delete(key));
  }
  let through = false;
  await Promise.race([
    found.over.then(() => {
      through = true;
    }),
    new Promise((resolve) => setTimeout(resolve, patience)),
  ]);
  const { checking } = found;
  return {
    ...checking,
    problems: inWeight(checking.problems),
    // One that began before something was saved says what was there before: whoever asks again has it done again.
    over: through && found.saved === saved,
  };
}

interface Running {
  /** What was saved when it began. */
  saved: string;
  checking: Checking;
  over: Promise<void>;
}

function begin(script: string | null, saved: string): Running {
  const checking: Checking = { problems: [], done: 0, of: 0, forms: [], cutShort: [] };
  return { saved, checking, over: checkAll(checking, script) };
}

async function checkAll(checking: Checking, script: string | null): Promise<void> {
  const forms = script === null ? await readForms() : await formsUsing(script);
  checking.forms = forms.map(({ name, title }) => ({ name, title }));
  checking.of = forms.length;
  await checkShared(forms).then(
    (problems) => void checking.problems.push(...problems),
    (caught: unknown) => {
      if (!(caught instanceof CutShort)) throw caught;
      checking.cutShort.push({ name: '', title: 'Shared code', says: caught.message });
    },
  );
  const left = [...forms];
  const work = async () => {
    for (let form = left.shift(); form !== undefined; form = left.shift()) {
      try {
        checking.problems.push(...(await checkForm(form)));
      } catch (caught) {
        if (caught instanceof CutShort || caught instanceof NotToItsEnd)
          checking.cutShort.push({
            name: form.name,
            title: form.title,
            says: caught.message,
          });
        else checking.problems.push(...unchecked(form, caught));
      }
      checking.done++;
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
}

/** The code that forms share, apart from what each of them finds in it. */
async function checkShared(forms: readonly Form[]): Promise<Problem[]> {
  const shared = await readShared();
  const [{ roles }, tables, services] = await Promise.all([
    readHead(),
    readTables(),
    readServices(),
  ]);
  if (shared.length === 0 && services.length === 0) return [];
  const asked = {
    shared: shared.map(({ name, text }) => ({ name, text })),
    forms: [...forms],
    tables,
    services,
    roles,
  };
  const of = createHash('sha1').update(JSON.stringify(asked)).digest('hex');
  const known = kept().get('');
  if (known?.of === of) return known.problems;
  const problems = await task('checkShared', asked);
  kept().set('', { of, problems, state: null });
  return problems;
}

/** A form that cannot be checked is a problem too, and no reason to leave the others unchecked. */
function unchecked(form: Form, caught: unknown): Problem[] {
  if (!(caught instanceof Refusal)) console.error(caught);
  const says = caught instanceof Error ? caught.message : 'something went wrong';
  return [
    {
      form: form.name,
      at: { is: 'form' },
      sort: 'types',
      severity: 'error',
      says: `This form could not be checked to its end: ${says}`,
      code: 'unchecked',
    },
  ];
}

/** Scenarios take more work than the server does for one form; how they would come out is not known. */
export class NotToItsEnd extends Error {
  constructor() {
    super(
      `The scenarios of this form take more than ${SCENARIOS_ON_SERVER / 1000} s of work and were not run to their end on the server. Run them with tavro test, or let some go.`,
    );
  }
}

/** Forgets what was found, so that everything is checked anew; of one form, or of all. */
export function forgetChecks(form?: string): void {
  if (form === undefined) kept().clear();
  else kept().delete(form);
}

/** A bench has found out how the scenarios of a form come out: where that is not what was found here, it is checked again. */
export function takeOver(
  form: string,
  { passed, failed }: { passed: number; failed: number },
): void {
  const known = kept().get(form);
  if (known === undefined) return;
  const failing = new Set(
    known.problems.flatMap(({ at }) => (at.is === 'scenario' ? [at.name] : [])),
  ).size;
  if (failing !== failed || passed + failed === 0) forgetChecks(form);
}

/**
 * What is wrong with a form, from what was worked out before where nothing has changed. Throws CutShort where the server
 * was too busy, and NotToItsEnd; neither is kept.
 */
export async function checkForm(form: Form): Promise<Problem[]> {
  const [head, tables, services, sources, scenarios, state] = await Promise.all([
    readHead(),
    readTables(),
    readServices(),
    readScripts(form),
    readScenarios(form.name),
    stateOf(form.name),
  ]);
  const cast = await readCast(form.name, scenarios);
  // Not the state, which changes with any shared script, whether this form uses it or not.
  const of = createHash('sha1')
    .update(JSON.stringify({ form, head, tables, services, sources, scenarios, cast }))
    .digest('hex');
  const known = kept().get(form.name);
  if (known?.of === of) {
    if (state !== null && known.state !== state) {
      known.state = state;
      await keepOutcome(form.name, known.problems, scenarios.length, state);
    }
    return known.problems;
  }
  const problems = await task('check', {
    form,
    tables,
    services,
    roles: head.roles,
    sources: sources.map(({ name, text }) => ({ name, text })),
  });
  const [compiled, answering] = await Promise.all([
    compiledScripts(sources, 'untraced'),
    compiledServices(services),
  ]);
  const engine = engineInThread(join(process.cwd(), 'dist/engine.thread.mjs'));
  try {
    await untilDone(() =>
      engine.load({ form, tables, services, answering, ...compiled, traced: false }),
    );
    const found = await problemsInScenarios(
      form,
      scenarios,
      { tables },
      { people: head.people, ...cast, scenarios },
      (opening, steps) => {
        if (engine.worked > SCENARIOS_ON_SERVER) throw new NotToItsEnd();
        return untilDone(() => engine.play(opening, steps));
      },
    );
    problems.push(...found);
    if (state !== null) await keepOutcome(form.name, problems, scenarios.length, state);
  } catch (caught) {
    if (!wasCutShort(caught)) throw caught;
    throw new CutShort(
      10,
      'The server was too busy to run the scenarios of this form to their end.',
    );
  } finally {
    engine.close();
  }
  kept().set(form.name, { of, problems, state });
  return problems;
}

/** Keeps how the scenarios came out and how much else was found, for the page of forms. */
async function keepOutcome(
  form: string,
  problems: readonly Problem[],
  scenarios: number,
  state: string,
): Promise<void> {
  const failed = new Set(problems.flatMap(({ at }) => (at.is === 'scenario' ? [at.name] : [])))
    .size;
  await Promise.all([
    keepScenarioRun(form, { passed: scenarios - failed, failed, of: state }),
    keepCheck(form, problems, state),
  ]);
}

/** Keeps how much was found, for the page of forms. */
async function keepCheck(form: string, problems: readonly Problem[], of: string): Promise<void> {
  const found = problems.filter(({ sort }) => sort !== 'scenario');
  const errors = found.filter(({ severity }) => severity === 'error').length;
  const row = { errors, warnings: found.length - errors, of };
  await database()
    .insert(schema.formCheck)
    .values({ form, ...row })
    .onConflictDoUpdate({ target: schema.formCheck.form, set: row });
}
