/** Handing forms out to be filled in, and the filling-ins that come of it. */
import { randomInt, randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import * as z from 'zod';
import { asParent } from '../../core/scenario/opening';
import { readLaunch } from '../../core/form/launch';
import type { Person } from '../../core/form/table';
import type { Value, Values } from '../../core/form/value';
import { OpeningSchema, ValueSchema } from '../../core/session/schema';
import type { Opening } from '../../core/session/step';
import { ask, database } from '../database/database';
import { Refusal } from '../http/refusal';
import { readRecord, readRecordAt, type StoredRecord } from '../records/read';
import { newestRelease, releaseById, type Release } from '../releases/releases';
import * as schema from '../database/schema';
import { nextNumber, NextNumber } from './record-number';
import { readTicket, signed, type Ticket } from './ticket';

/** How a form is opened, besides by whom and with which record. */
export interface HowOpened {
  launch: Values;
  viewing?: boolean;
  /** The filling-in this one is opened from. */
  parent?: string | null;
}

/** A form as it goes to a browser. The opening's `newId` is not known before something is entered. */
export interface Handout {
  ticket: string;
  opening: Opening;
}

/** What was asked for cannot be opened; says why. */
export class CannotOpen extends Error {}

/** Hands a form out: the opening is the server's word for who, what and when. Saves nothing. Throws CannotOpen. */
export async function handOut(
  release: Release,
  person: Person,
  record: StoredRecord | null,
  how: HowOpened,
): Promise<Handout> {
  const ticket = ticketFor(release, person, record, how);
  return {
    ticket: await signed(ticket),
    opening: await openingFor(ticket, person, record?.values ?? null, record?.id ?? ''),
  };
}

function ticketFor(
  release: Release,
  person: Person,
  record: StoredRecord | null,
  how: HowOpened,
): Ticket {
  const launch = readLaunch(release.material.form, how.launch);
  if ('says' in launch)
    throw new CannotOpen(`This form cannot be opened like that: ${launch.says}.`);
  return {
    release: release.id,
    person: person.key,
    record: record === null ? null : { id: record.id, revision: record.revision },
    launch: launch.launch,
    clock: Date.now(),
    seed: randomInt(2 ** 31),
    viewing: how.viewing === true,
    parent: how.parent ?? null,
    filling: randomUUID(),
  };
}

async function openingFor(
  ticket: Ticket,
  person: Person,
  values: Values | null,
  newId: string,
): Promise<Opening> {
  const parent = ticket.parent === null ? null : await parentOf(ticket.parent);
  return {
    person: { key: person.key, name: person.name, roles: person.roles },
    record: ticket.record === null ? null : { id: ticket.record.id, values: values! },
    launch: ticket.launch,
    clock: ticket.clock,
    seed: ticket.seed,
    newId,
    ...(ticket.viewing ? { viewing: true } : {}),
    ...(parent === null ? {} : { parent }),
  };
}

/** What a form opened from a filling-in may read: the values of its record as saved. Null when it is not saved yet. */
export async function parentOf(filling: string): Promise<NonNullable<Opening['parent']> | null> {
  const parent = await readFilling(filling);
  if (parent === null) return null;
  const { form } = parent.release.material;
  const id = parent.opening.record?.id ?? parent.savedAs;
  const record = id === null ? null : await readRecord(form.name, id);
  return record === null ? null : asParent(form, record);
}

export interface Filling {
  id: string;
  release: Release;
  opening: Opening;
  recordRevision: number | null;
  /** The filling-in it was opened from. */
  parent: string | null;
  savedAs: string | null;
  /** What it asked its parent to set when it was saved. */
  toParent: ToParent;
}

const ToParentSchema = z.array(z.strictObject({ set: z.string(), to: ValueSchema }));
export type ToParent = { set: string; to: Value }[];

/**
 * Begins the filling-in of a form that was handed out: now something is entered. Beginning it again gives the same one.
 * Throws a Refusal when the ticket is none of this server's, or somebody else's.
 */
export async function beginFilling(form: string, text: string, person: Person): Promise<Filling> {
  const ticket = await readTicket(text);
  const release = ticket === null ? null : await releaseById(ticket.release);
  if (ticket === null || release === null || release.material.form.name !== form)
    throw new Refusal(404, 'This form was not handed out by this server. Open it again.');
  if (ticket.person !== person.key)
    throw new Refusal(403, 'This form was opened by somebody else. Open it again as yourself.');
  const known = await readFilling(ticket.filling);
  if (known !== null) return known;
  const values =
    ticket.record === null
      ? null
      : await readRecordAt(form, ticket.record.id, ticket.record.revision);
  if (ticket.record !== null && values === null)
    throw new Refusal(404, `There is no record ${ticket.record.id} any more.`);
  const newId = ticket.record?.id ?? (await nextNumber(form));
  const filling = await fillingOf(ticket, release, person, values, newId);
  const made = await database()
    .insert(schema.filling)
    .values({
      id: filling.id,
      release: release.id,
      opening: filling.opening,
      recordRevision: filling.recordRevision,
      clock: filling.opening.clock,
      parent: filling.parent,
    })
    .onConflictDoNothing()
    .returning({ id: schema.filling.id });
  // Somebody who began the same at the same moment has it.
  return made.length > 0 ? filling : (await readFilling(filling.id))!;
}

/**
 * A filling-in of the newest release for a client that sends everything in one go; it is stored when it is saved.
 * `id` is the record to change. Throws a Refusal (404) when there is no such record, or no release.
 */
export async function fillingAtOnce(
  form: string,
  id: string | undefined,
  person: Person,
): Promise<Filling> {
  const { release, record, newId } =
    id === undefined ? { ...(await newEntry(form)), record: null } : await change(form, id);
  if (release === null)
    throw new Refusal(404, 'This form has no release, so it cannot be filled in.');
  return fillingOf(
    ticketFor(release, person, record, { launch: {} }),
    release,
    person,
    record?.values ?? null,
    newId,
  );
}

async function change(form: string, id: string) {
  const [release, record] = await Promise.all([newestRelease(form), readRecord(form, id)]);
  if (record === null) throw new Refusal(404, `There is no record ${id}.`);
  return { release, record, newId: id };
}

const NewEntry = NextNumber.extend({ release: z.int().nullable() });

/** The same with the newest release, for callers that send a whole submission at once. */
async function newEntry(form: string): Promise<{ release: Release | null; newId: string }> {
  const [came] = await ask(
    'new entry',
    'select tavro_next_number($1) as number, (select id from release where form = $1 order by number desc limit 1) as release',
    [form],
  );
  const { number, release } = NewEntry.parse(came);
  return { release: release === null ? null : await releaseById(release), newId: String(number) };
}

async function fillingOf(
  ticket: Ticket,
  release: Release,
  person: Person,
  values: Values | null,
  newId: string,
): Promise<Filling> {
  return {
    id: ticket.filling,
    release,
    opening: await openingFor(ticket, person, values, newId),
    recordRevision: ticket.record?.revision ?? null,
    parent: ticket.parent,
    savedAs: null,
    toParent: [],
  };
}

export async function readFilling(id: string): Promise<Filling | null> {
  const [row] = await database().select().from(schema.filling).where(eq(schema.filling.id, id));
  if (row === undefined) return null;
  const release = await releaseById(row.release);
  return release === null
    ? null
    : {
        id,
        release,
        opening: OpeningSchema.parse(row.opening),
        recordRevision: row.recordRevision,
        parent: row.parent,
        savedAs: row.savedAs,
        toParent: ToParentSchema.parse(row.toParent ?? []),
      };
}

/** A filling-in of this form that this person began. Throws a Refusal (404) for any other. */
export async function ownFilling(form: string, id: string, person: Person): Promise<Filling> {
  const filling = await readFilling(id);
  if (
    filling === null ||
    filling.release.material.form.name !== form ||
    filling.opening.person.key !== person.key
  ) {
    throw new Refusal(404, 'This form was not handed out to you. Open it again.');
  }
  return filling;
}

/** What forms opened from a filling-in asked to be set in it, when they were saved. */
export async function askedByChildren(filling: string): Promise<ToParent> {
  const rows = await database()
    .select({ toParent: schema.filling.toParent })
    .from(schema.filling)
    .where(eq(schema.filling.parent, filling))
    .limit(1000);
  return rows.flatMap((row) => ToParentSchema.parse(row.toParent ?? []));
}
