/**
 * Submitting: the steps of a filling-in are done again in a machine of the server's, under the same
 * release, and what came out of that is saved. Nothing that a browser or a behaviour says is believed.
 */
import { CLOCK_AHEAD, STEPS_PER_SESSION } from '../../core/limits';
import * as z from 'zod';
import type { Form } from '../../core/form/definition';
import { fieldsOf } from '../../core/form/fields';
import type { Person } from '../../core/form/table';
import { equal, type Value, type Values } from '../../core/form/value';
import type { BriefAnswer } from '../../core/sandbox/reply';
import { TimedStepSchema, ValuesSchema } from '../../core/session/schema';
import type { SubmitOutcome, TimedStep } from '../../core/session/step';
import { ask, atOnce } from '../database/database';
import { missingFile } from './files';
import { Revision } from '../http/numbers';
import { CutShort } from '../http/refusal';
import { CannotStart, TookTooLong } from '../../core/sandbox/cut-short';
import { currentWorkspace } from '../database/current-workspace';
import { lineInWords } from '../../core/wire/line';
import type { Because } from '../../core/scenario/recording';
import { keepByServer, type Done } from '../releases/recordings';
import { machines } from '../machines/server-pool';
import { readRecord, type StoredRecord } from '../records/read';
import { readHead } from '../content/read';
import {
  askedByChildren,
  fillingAtOnce,
  ownFilling,
  readFilling,
  type Filling,
  type ToParent,
} from './handing-out';
import { keepFilling } from './kept';
import { stepsFrom } from './values-as-steps';

export const SubmissionSchema = z
  .strictObject({
    filling: z
      .uuid()
      .optional()
      .describe('The filling-in that was begun; left out by clients that send only values.'),
    steps: z.array(TimedStepSchema).max(STEPS_PER_SESSION).optional(),
    values: ValuesSchema.optional().describe(
      'Instead of steps: they are made from these in the order of the definition.',
    ),
    record: z.string().optional().describe('With values: the record to change.'),
    shown: ValuesSchema.optional().describe(
      'What the browser showed; where the server comes to another result, nothing is saved yet.',
    ),
    overRevision: Revision.optional().describe(
      'The revision of the other saving that was seen and is to be replaced.',
    ),
  })
  .refine((submission) => (submission.steps === undefined) !== (submission.values === undefined), {
    message: 'send either steps or values',
  });
export type Submission = z.infer<typeof SubmissionSchema>;

export interface ValueDifference {
  field: string;
  label: string;
  browser: Value;
  server: Value;
}

export type SubmissionResult =
  | { status: 201; kind: 'saved'; id: string; revision: number; values: Values; toParent: ToParent }
  | { status: 409; kind: 'differs'; says: string; differences: ValueDifference[]; values: Values }
  | { status: 409; kind: 'conflict'; says: string; theirs: StoredRecord; mine: Values }
  | { status: 422; kind: 'stopped'; says: string; outcome: SubmitOutcome }
  | { status: 404 | 422; kind: 'refused'; says: string };

const refused = (says: string, status: 404 | 422 = 422): SubmissionResult => ({
  status,
  kind: 'refused',
  says,
});

/** Does a submission. Throws a Refusal for a filling-in that is not the person's, and 503 when too many wait or it could not be done in time. */
export async function submit(
  form: string,
  submission: Submission,
  person: Person,
): Promise<SubmissionResult> {
  const filling =
    submission.filling === undefined
      ? await fillingAtOnce(form, submission.record, person)
      : await ownFilling(form, submission.filling, person);
  if (filling.savedAs !== null) return savedBefore(form, filling);
  const made =
    submission.steps === undefined
      ? stepsFrom(submission.values!, filling)
      : timed(submission.steps, filling);
  if (typeof made === 'string') return refused(made);
  const foreign = await foreignSet(filling.id, made);
  if (foreign !== null) return refused(`No form opened from here set "${foreign}" to that.`);
  const done: Done = {
    filling: filling.id,
    release: filling.release,
    opening: filling.opening,
    steps: made,
    ended: submission.shown ?? null,
  };
  /** What went otherwise here is kept, to be looked into; that it could not be is no reason to fail. */
  const keep = (because: Exclude<Because, 'asked'>, says: string) =>
    keepByServer(done, because, says, person).catch(console.error);
  const answers = await doAgain(filling, made).catch(async (caught: unknown) => {
    if (!(caught instanceof TookTooLong)) throw caught;
    await keep('too long', caught.message);
    throw new CutShort(
      10,
      'The server did not get through what was entered in time. Nothing was saved. Try again in a few seconds.',
    );
  });
  const refusal = answers.findIndex((answer) => answer.refused !== null);
  if (refusal >= 0) {
    const says = `Step ${refusal} could not be done by ${person.name}: ${answers[refusal]!.refused}.`;
    await keep('refused', says);
    return refused(says);
  }
  const failure = answers.flatMap((answer) => answer.errors)[0];
  if (failure !== undefined)
    await keep(
      'failed',
      `${failure.behaviour}${failure.line === null ? '' : `, ${lineInWords(failure.line)}`}: ${failure.says}`,
    );
  const outcome = answers.at(-1)?.submit ?? null;
  if (outcome === null) return refused('The steps do not end with the submission.');
  if (!outcome.saved)
    return {
      status: 422,
      kind: 'stopped',
      says: outcome.stops[0]?.says ?? 'The form was not saved.',
      outcome,
    };
  const { form: definition } = filling.release.material;
  const differences = differencesOf(definition, submission.shown, outcome.values);
  if (differences.length > 0) {
    const fields = differences.map(({ label }) => label).join(', ');
    await keep('differs', `The server worked out other values of ${fields}.`);
    return {
      status: 409,
      kind: 'differs',
      says: 'The server worked out other values. Nothing is saved yet.',
      differences,
      values: outcome.values,
    };
  }
  const lost = await missingFile(
    definition,
    filling.id,
    filling.opening.record?.id ?? null,
    outcome.values,
  );
  if (lost !== null)
    return refused(`The content of ${lost.name} has not arrived. Choose the file again.`);
  const toParent = answers.flatMap((answer) => answer.toParent);
  const result = await save(
    form,
    filling,
    outcome.values,
    toParent,
    person,
    submission.overRevision,
  );
  if (result.kind === 'saved') await keepFilling(done, result.id).catch(console.error);
  return result;
}

async function savedBefore(form: string, filling: Filling): Promise<SubmissionResult> {
  const record = await readRecord(form, filling.savedAs!);
  if (record === null) return refused('This was saved before and has since been removed.');
  return {
    status: 201,
    kind: 'saved',
    id: record.id,
    revision: record.revision,
    values: record.values,
    toParent: filling.toParent,
  };
}

/** Steps with times that can be: in order, and none in the future. */
function timed(steps: readonly TimedStep[], filling: Filling): TimedStep[] | string {
  const most = Date.now() - filling.opening.clock + CLOCK_AHEAD;
  let last = 0;
  for (const [i, step] of steps.entries()) {
    const at = step.at ?? last;
    if (at < last) return `Step ${i + 1} is earlier than the one before it.`;
    if (at > most) return `Step ${i + 1} lies in the future.`;
    last = at;
  }
  return [...steps];
}

/** The first value said to come from a child that no form opened from this filling-in asked for. */
async function foreignSet(filling: string, steps: readonly TimedStep[]): Promise<string | null> {
  const sets = steps.filter(
    (step): step is TimedStep & { fromChild: string; to: Value } => 'fromChild' in step,
  );
  if (sets.length === 0) return null;
  const asked = await askedByChildren(filling);
  return (
    sets.find((step) => !asked.some(({ set, to }) => set === step.fromChild && equal(to, step.to)))
      ?.fromChild ?? null
  );
}

async function doAgain(filling: Filling, steps: TimedStep[]): Promise<BriefAnswer[]> {
  try {
    const { id, material } = filling.release;
    const { schema } = currentWorkspace();
    const playable = { id: `${schema}:${id}`, form: `${schema}:${material.form.name}`, material };
    return await machines().play(playable, filling.opening, steps);
  } catch (caught) {
    if (caught instanceof CannotStart) {
      console.error(caught);
      throw new CutShort(10, 'The server is busy. Nothing was saved. Try again in a few seconds.');
    }
    throw caught;
  }
}

function differencesOf(form: Form, shown: Values | undefined, values: Values): ValueDifference[] {
  if (shown === undefined) return [];
  return fieldsOf(form).flatMap(({ name, label }) => {
    const [browser, server] = [shown[name] ?? null, values[name] ?? null];
    return equal(browser, server) ? [] : [{ field: name, label, browser, server }];
  });
}

const Outcome = z.object({
  before: z.string().nullable(),
  saved: z.boolean(),
  revision: z.int().nullable(),
});

/**
 * Saves what came out, in one statement (`tavro_submit`, drizzle/0004_saving.sql). The id is the filling-in's own,
 * whatever the machine says. What was saved is found by the filling-in or the record, so doing it again saves nothing twice.
 */
async function save(
  form: string,
  filling: Filling,
  values: Values,
  toParent: ToParent,
  person: Person,
  overRevision: number | undefined,
): Promise<SubmissionResult> {
  const { opening, release } = filling;
  const id = opening.record?.id ?? opening.newId;
  const row = {
    id: filling.id,
    release: release.id,
    opening,
    record_revision: filling.recordRevision,
    saved_as: id,
    clock: opening.clock,
    parent: filling.parent,
    to_parent: toParent,
  };
  const from = overRevision ?? filling.recordRevision ?? 0;
  const [came] = await atOnce(() =>
    ask('submit', 'select * from tavro_submit($1, $2, $3, $4, $5, $6)', [
      JSON.stringify(row),
      form,
      JSON.stringify(values),
      from,
      person.key,
      release.number,
    ]),
  );
  const { before, saved, revision } = Outcome.parse(came);
  if (before !== null) return savedBefore(form, (await readFilling(filling.id))!);
  if (!saved) return conflict(form, id, values);
  return { status: 201, kind: 'saved', id, revision: revision!, values, toParent };
}

async function conflict(form: string, id: string, mine: Values): Promise<SubmissionResult> {
  const theirs = await readRecord(form, id);
  if (theirs === null) return refused('The record has been removed meanwhile.', 404);
  const { people } = await readHead();
  const who = people.find(({ key }) => key === theirs.savedBy)?.name ?? theirs.savedBy;
  return {
    status: 409,
    kind: 'conflict',
    says: `${who} saved this record meanwhile. Nothing of yours is saved yet.`,
    theirs,
    mine,
  };
}
