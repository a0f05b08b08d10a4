/**
 * Checking a whole workspace: sources, parts and scenarios of every form, as the command line does. Each form is checked
 * off the main thread and in machines of its own, never in those that submissions use, and again only when something it
 * depends on has changed.
 */
import { availableParallelism } from 'node:os';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import type { Form } from '../../core/form/definition';
import { inWeight, problemsInScenarios, type Problem } from '../../core/problems/problems';
import { engineInThread } from '../../workers/engine-in-thread';
import { compiledBehaviours, compiledServices } from '../compiled';
import { database } from '../database';
import { Refusal } from '../http/refusal';
import * as schema from '../schema';
import { task } from '../tasks';
import { perWorkspace } from '../workspaces/current';
import { stateOf } from './overview';
import {
  readBehaviours,
  readCast,
  readForms,
  readHead,
  readScenarios,
  readServices,
  readTables,
} from './read';
import { keepScenarioRun } from './scenarios';

export interface Checking {
  /** Found so far, the weightiest first. */
  problems: Problem[];
  /** Forms checked, of how many. */
  done: number;
  of: number;
}

/** Forms checked at once. */
const AT_ONCE = Math.max(1, availableParallelism() - 1);

/** What was found in a form, with what it was found in. */
const kept = perWorkspace(() => new Map<string, { of: string; problems: Problem[] }>());
const running = perWorkspace((): { now: Running | null } => ({ now: null }));

/** What is wrong in the workspace. Where checking takes longer than `patience` milliseconds, what was found so far, while it goes on. */
export async function workspaceProblems(patience: number): Promise<Checking> {
  const { checking, over } = (running().now ??= begin());
  await Promise.race([over, new Promise((resolve) => setTimeout(resolve, patience))]);
  return { ...checking, problems: inWeight(checking.problems) };
}

interface Running {
  checking: Checking;
  over: Promise<void>;
}

function begin(): Running {
  const checking: Checking = { problems: [], done: 0, of: 0 };
  const mine = running();
  const over = checkAll(checking).finally(() => {
    mine.now = null;
  });
  return { checking, over };
}

async function checkAll(checking: Checking): Promise<void> {
  const forms = await readForms();
  checking.of = forms.length;
  const left = [...forms];
  const work = async () => {
    for (let form = left.shift(); form !== undefined; form = left.shift()) {
      checking.problems.push(
        ...(await checkForm(form).catch((caught: unknown) => unchecked(form, caught))),
      );
      checking.done++;
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
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

async function checkForm(form: Form): Promise<Problem[]> {
  const [head, tables, services, behaviours, scenarios, state] = await Promise.all([
    readHead(),
    readTables(),
    readServices(),
    readBehaviours(form.name),
    readScenarios(form.name),
    stateOf(form.name),
  ]);
  const cast = await readCast(form.name, scenarios);
  const of = createHash('sha1')
    .update(`${state} ${JSON.stringify(cast)}`)
    .digest('hex');
  const known = kept().get(form.name);
  if (known?.of === of) return known.problems;
  const problems = await task('check', {
    form,
    tables,
    services,
    roles: head.roles,
    sources: behaviours.map(({ name, text }) => ({ name, text })),
  });
  const [scripts, answering] = await Promise.all([
    compiledBehaviours(behaviours, 'untraced'),
    compiledServices(services),
  ]);
  const engine = engineInThread(join(process.cwd(), 'dist/engine.thread.mjs'));
  try {
    await engine.load({ form, tables, services, answering, scripts, traced: false });
    const found = await problemsInScenarios(
      form,
      scenarios,
      { tables },
      { people: head.people, ...cast },
      (opening, steps) => engine.play(opening, steps),
    );
    problems.push(...found);
    const failed = new Set(
      found.map((problem) => (problem.at.is === 'scenario' ? problem.at.name : '')),
    ).size;
    if (state !== null)
      await Promise.all([
        keepScenarioRun(form.name, { passed: scenarios.length - failed, failed, of: state }),
        keepCheck(form.name, problems, state),
      ]);
  } finally {
    engine.close();
  }
  kept().set(form.name, { of, problems });
  return problems;
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
