/**
 * Filling in and submitting (semantics 26). The server hands out the opening and keeps it; a submission brings the
 * steps, which the server does again in the same sandbox under the same release, and saves what came out of that.
 */
import { join } from 'node:path';
import { and, eq, sql } from 'drizzle-orm';
import * as z from 'zod';
import { fieldsOf, type FieldOf, type Form } from '../core/form/definition';
import { readLaunch } from '../core/form/launch';
import { equal, type Value, type Values } from '../core/form/value';
import type { Engine } from '../core/sandbox/engine';
import { OpeningSchema, TimedStepSchema, ValueSchema, ValuesSchema } from '../core/session/schema';
import type { Answer, Opening, SubmitOutcome, TimedStep } from '../core/session/step';
import type { Person } from '../core/form/table';
import { engineInThread } from '../workers/engine-in-thread';
import { database } from './database';
import { missingFile } from './files';
import { newestRelease, releaseById, type Release } from './releases';
import * as schema from './schema';
import { readHead, readRecord, type StoredRecord } from './store';

/** How many steps one filling-in may take. */
const MOST_STEPS = 5000;
/** How far a browser's clock may run ahead of the server's, in milliseconds. */
const CLOCK_SLACK = 60_000;

export const SubmissionSchema = z
  .strictObject({
    filling: z.uuid().optional().meta({ description: 'The filling-in handed out with the form; left out by clients that send only values.' }),
    steps: z.array(TimedStepSchema).max(MOST_STEPS).optional(),
    values: ValuesSchema.optional().meta({ description: 'Instead of steps: they are made from these in the order of the definition.' }),
    record: z.string().optional().meta({ description: 'With values: the record to change.' }),
    shown: ValuesSchema.optional().meta({ description: 'What the browser showed; where the server comes to another result, nothing is saved yet.' }),
    overRevision: z.number().int().optional().meta({ description: 'The revision of the other saving that was seen and is to be replaced.' }),
  })
  .refine((submission) => (submission.steps === undefined) !== (submission.values === undefined), { message: 'send either steps or values' });
export type Submission = z.infer<typeof SubmissionSchema>;

export interface Difference {
  field: string;
  label: string;
  browser: Value;
  server: Value;
}

export type SubmissionResult =
  | { status: 201; kind: 'saved'; id: string; revision: number; values: Values; toParent: { set: string; to: Value }[] }
  | { status: 409; kind: 'differs'; says: string; differences: Difference[]; values: Values }
  | { status: 409; kind: 'conflict'; says: string; theirs: StoredRecord; mine: Values }
  | { status: 422; kind: 'stopped'; says: string; outcome: SubmitOutcome }
  | { status: 404 | 422; kind: 'refused'; says: string };

/** How a form is opened, besides by whom and with which record. */
export interface HowOpened {
  launch: Values;
  viewing?: boolean;
  /** The filling-in this one is opened from, with what the child may read of its record. */
  parent?: { filling: string; opening: NonNullable<Opening['parent']> } | null;
}

/** What a form opened from a filling-in may read: the values of its record as saved. Null when it is not saved yet. */
export async function parentOf(filling: string): Promise<HowOpened['parent']> {
  const parent = await readFilling(filling);
  if (parent === null) return null;
  const { form } = parent.release.material;
  const id = parent.opening.record?.id ?? parent.savedAs;
  const record = id === null ? null : await readRecord(form.name, id);
  return record === null ? null : { filling, opening: { form: form.name, record: record.id, fields: fieldsOf(form), values: record.values } };
}

export interface Handout {
  filling: string;
  opening: Opening;
}

/** What was asked for cannot be opened; says why. */
export class CannotOpen extends Error {}

/** Hands a form out to be filled in: the opening is the server's word for who, what and when. */
export async function handOut(release: Release, person: Person, record: StoredRecord | null, how: HowOpened): Promise<Handout> {
  const form = release.material.form.name;
  const launch = readLaunch(release.material.form, how.launch);
  if ('says' in launch) throw new CannotOpen(`This form cannot be opened like that: ${launch.says}.`);
  const opening: Opening = {
    person: { key: person.key, name: person.name, roles: person.roles },
    record: record === null ? null : { id: record.id, values: record.values },
    launch: launch.launch,
    clock: Date.now(),
    seed: Math.floor(Math.random() * 2 ** 31),
    newId: record?.id ?? (await nextRecordId(form)),
    ...(how.viewing === true ? { viewing: true } : {}),
    ...(how.parent == null ? {} : { parent: how.parent.opening }),
  };
  const [row] = await database()
    .insert(schema.filling)
    .values({ release: release.id, opening, recordRevision: record?.revision ?? null, clock: opening.clock, parent: how.parent?.filling ?? null })
    .returning({ id: schema.filling.id });
  return { filling: row!.id, opening };
}

async function nextRecordId(form: string): Promise<string> {
  const [row] = await database()
    .insert(schema.recordNumber)
    .values({ form, next: 2 })
    .onConflictDoUpdate({ target: schema.recordNumber.form, set: { next: sql`${schema.recordNumber.next} + 1` } })
    .returning({ next: schema.recordNumber.next });
  return String(row!.next - 1);
}

const kept = globalThis as { tavroEngine?: Engine };

/** The server's sandbox, in a thread of its own. */
export function engine(): Engine {
  return (kept.tavroEngine ??= engineInThread(join(process.cwd(), 'dist/engine.thread.mjs')));
}

interface Filling {
  id: string;
  release: Release;
  opening: Opening;
  recordRevision: number | null;
  savedAs: string | null;
  /** What it asked its parent to set when it was saved. */
  toParent: { set: string; to: Value }[];
}

const refused = (says: string, status: 404 | 422 = 422): SubmissionResult => ({ status, kind: 'refused', says });

export async function submit(form: string, submission: Submission, person: Person): Promise<SubmissionResult> {
  const filling = submission.filling === undefined ? await handOutFor(form, submission, person) : await readFilling(submission.filling);
  if (filling === null) return refused('This form was not handed out by this server. Open it again.', 404);
  if (filling.release.material.form.name !== form) return refused(`This was handed out for the form "${filling.release.material.form.name}", not for "${form}".`);
  if (filling.opening.person.key !== person.key) return refused(`This form was opened by ${filling.opening.person.name}. Open it again as yourself.`);
  if (filling.savedAs !== null) return savedBefore(form, filling.savedAs, filling.toParent);
  const made = submission.steps === undefined ? stepsFrom(submission.values!, filling) : timed(submission.steps, filling);
  if (typeof made === 'string') return refused(made);
  const foreign = await foreignSet(filling.id, made);
  if (foreign !== null) return refused(`No form opened from here set "${foreign}" to that.`);
  const answers = await doAgain(filling, made);
  const refusal = answers.findIndex((answer) => answer.refused !== null);
  if (refusal >= 0) return refused(`Step ${refusal} could not be done by ${person.name}: ${answers[refusal]!.refused}.`);
  const outcome = answers.at(-1)?.submit ?? null;
  if (outcome === null) return refused('The steps do not end with the submission.');
  if (!outcome.saved) return { status: 422, kind: 'stopped', says: outcome.stops[0]?.says ?? 'The form was not saved.', outcome };
  const differences = differencesOf(filling.release.material.form, submission.shown, outcome.values);
  if (differences.length > 0) {
    return { status: 409, kind: 'differs', says: 'The server worked out other values. Nothing is saved yet.', differences, values: outcome.values };
  }
  const lost = await missingFile(filling.release.material.form, filling.id, filling.opening.record?.id ?? null, outcome.values);
  if (lost !== null) return refused(`The content of ${lost.name} has not arrived. Choose the file again.`);
  const toParent = answers.flatMap((answer) => answer.toParent);
  return save(form, filling, { ...outcome, toParent }, person, submission.overRevision);
}

/** The first value said to come from a child that no form opened from this filling-in asked for. */
async function foreignSet(filling: string, steps: readonly TimedStep[]): Promise<string | null> {
  const sets = steps.filter((step): step is TimedStep & { fromChild: string; to: Value } => 'fromChild' in step);
  if (sets.length === 0) return null;
  const rows = await database().select({ toParent: schema.filling.toParent }).from(schema.filling).where(eq(schema.filling.parent, filling));
  const asked = rows.flatMap((row) => ToParent.parse(row.toParent ?? []));
  return sets.find((step) => !asked.some(({ set, to }) => set === step.fromChild && equal(to, step.to)))?.fromChild ?? null;
}

const ToParent = z.array(z.strictObject({ set: z.string(), to: ValueSchema }));

/** A client that sends only values gets a filling-in of its own. */
async function handOutFor(form: string, submission: Submission, person: Person): Promise<Filling | null> {
  const release = await newestRelease(form);
  if (release === null) return null;
  const record = submission.record === undefined ? null : await readRecord(form, submission.record);
  if (submission.record !== undefined && record === null) return null;
  const { filling } = await handOut(release, person, record, { launch: {} });
  return readFilling(filling);
}

/** Whether a filling-in was handed out for this form to this person. */
export async function ownFilling(form: string, id: string, person: Person): Promise<boolean> {
  const filling = await readFilling(id);
  return filling !== null && filling.release.material.form.name === form && filling.opening.person.key === person.key;
}

async function readFilling(id: string): Promise<Filling | null> {
  const [row] = await database().select().from(schema.filling).where(eq(schema.filling.id, id));
  if (row === undefined) return null;
  const release = await releaseById(row.release);
  return release === null ? null : { id, release, opening: OpeningSchema.parse(row.opening), recordRevision: row.recordRevision, savedAs: row.savedAs, toParent: ToParent.parse(row.toParent ?? []) };
}

async function savedBefore(form: string, id: string, toParent: Filling['toParent']): Promise<SubmissionResult> {
  const record = await readRecord(form, id);
  if (record === null) return refused('This was saved before and has since been removed.');
  return { status: 201, kind: 'saved', id, revision: record.revision, values: record.values, toParent };
}

/** Steps with times that can be: in order, and none in the future. */
function timed(steps: readonly TimedStep[], filling: Filling): TimedStep[] | string {
  const most = Date.now() - filling.opening.clock + CLOCK_SLACK;
  let last = 0;
  for (const [i, step] of steps.entries()) {
    const at = step.at ?? last;
    if (at < last) return `Step ${i + 1} is earlier than the one before it.`;
    if (at > most) return `Step ${i + 1} lies in the future.`;
    last = at;
  }
  return [...steps];
}

function stepsFrom(values: Values, filling: Filling): TimedStep[] | string {
  const { form } = filling.release.material;
  const fields = new Set(fieldsOf(form).map((field) => field.name));
  const unknown = Object.keys(values).find((name) => !fields.has(name));
  if (unknown !== undefined) return `The form has no field "${unknown}".`;
  const sets = fieldsOf(form).flatMap((field): TimedStep[] => {
    const value = values[field.name];
    const same = value === undefined || equal(value, filling.opening.record?.values[field.name] ?? null);
    if (same) return [];
    if (field.kind !== 'rows') return [{ set: field.name, to: value }];
    return rowSteps(field, value, filling.opening.record?.values[field.name] ?? null);
  });
  return [...sets, { submit: true }];
}

/** Rows as steps: cells by place, then rows added or removed at the end. */
function rowSteps(field: FieldOf<'rows'>, value: Value, before: Value): TimedStep[] {
  const wanted = (Array.isArray(value) ? value : []) as readonly Values[];
  const had = (Array.isArray(before) ? before : []) as readonly Values[];
  const cells = wanted.slice(0, had.length).flatMap((row, place) =>
    field.fields.flatMap(({ name }): TimedStep[] => (row[name] === undefined || equal(row[name], had[place]![name] ?? null) ? [] : [{ set: `${field.name}[${place}].${name}`, to: row[name] }])),
  );
  const removed = had.slice(wanted.length).map((_, i): TimedStep => ({ removeRow: `${field.name}[${had.length - 1 - i}]` }));
  const added = wanted.slice(had.length);
  return [...cells, ...removed, ...(added.length === 0 ? [] : [{ addRow: field.name, with: added }])];
}

async function doAgain(filling: Filling, steps: TimedStep[]): Promise<Answer[]> {
  const server = engine();
  // The two calls queue directly behind one another, so that no other submission comes between them.
  const [, answers] = await Promise.all([server.load(filling.release.material), server.play(filling.opening, steps)]);
  return answers;
}

function differencesOf(form: Form, shown: Values | undefined, values: Values): Difference[] {
  if (shown === undefined) return [];
  return fieldsOf(form).flatMap(({ name, label }) => {
    const [browser, server] = [shown[name] ?? null, values[name] ?? null];
    return equal(browser, server) ? [] : [{ field: name, label, browser, server }];
  });
}

async function save(form: string, filling: Filling, outcome: SubmitOutcome & { toParent: { set: string; to: Value }[] }, person: Person, overRevision: number | undefined): Promise<SubmissionResult> {
  const id = outcome.id!;
  const row = { values: outcome.values, release: filling.release.number, savedBy: person.key, savedAt: new Date() };
  const where = and(eq(schema.record.form, form), eq(schema.record.id, id));
  return database().transaction(async (tx): Promise<SubmissionResult> => {
    const [again] = await tx.select().from(schema.filling).where(eq(schema.filling.id, filling.id)).for('update');
    const [now] = await tx.select().from(schema.record).where(where).for('update');
    if (again?.savedAs != null && now !== undefined) return { status: 201, kind: 'saved', id, revision: now.revision, values: ValuesSchema.parse(now.values), toParent: filling.toParent };
    const expected = overRevision ?? filling.recordRevision;
    if ((now?.revision ?? null) !== expected) {
      const theirs = await readRecord(form, id);
      if (theirs === null) return refused('The record has been removed meanwhile.', 404);
      const { people } = await readHead();
      const who = people.find(({ key }) => key === theirs.savedBy)?.name ?? theirs.savedBy;
      return { status: 409, kind: 'conflict', says: `${who} saved this record meanwhile. Nothing of yours is saved yet.`, theirs, mine: outcome.values };
    }
    const revision = (now?.revision ?? 0) + 1;
    if (now === undefined) await tx.insert(schema.record).values({ form, id, revision, ...row });
    else await tx.update(schema.record).set({ revision, ...row }).where(where);
    await tx.update(schema.filling).set({ savedAs: id, toParent: outcome.toParent }).where(eq(schema.filling.id, filling.id));
    await tx.update(schema.fileContent).set({ record: id }).where(eq(schema.fileContent.filling, filling.id));
    return { status: 201, kind: 'saved', id, revision, values: outcome.values, toParent: outcome.toParent };
  });
}
