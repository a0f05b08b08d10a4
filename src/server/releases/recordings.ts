/**
 * Recordings: filling-ins that were kept to be looked into, by a person, by the server when it comes to another result,
 * or from a file.
 */
import { and, desc, eq, lte, ne, sql } from 'drizzle-orm';
import * as z from 'zod';
import {
  RECORDING_BY_SERVER_BYTES,
  RECORDINGS_BY_PEOPLE,
  RECORDINGS_BY_SERVER,
  RECORDINGS_SHOWN,
} from '../../core/limits';
import type { Person } from '../../core/form/table';
import type { Values } from '../../core/form/value';
import { masked } from '../../core/scenario/masking';
import {
  Because,
  RecordingSchema,
  type Recording,
  type RecordingHead,
} from '../../core/scenario/recording';
import type { Opening, TimedStep } from '../../core/session/step';
import { database } from '../database/database';
import { Refusal } from '../http/refusal';
import type { Release } from './releases';
import { filling, recording } from '../database/schema';

/** A filling-in as it was done. */
export interface Done {
  /** Null for one that did not begin on this server. */
  filling: string | null;
  release: Pick<Release, 'number' | 'material'>;
  opening: Opening;
  steps: readonly TimedStep[];
  /** What the person saw at the end. */
  ended: Values | null;
}

/**
 * Keeps a filling-in because a person asks for it, with what they typed masked where they want that. Gives its number.
 * Throws a Refusal (409) where there are too many.
 */
export async function keepForPerson(
  done: Done,
  { says, masks }: { says: string; masks: boolean },
  by: Person,
): Promise<number> {
  const { form } = done.release.material;
  const [there] = await database()
    .select({ count: sql<number>`count(*)::int` })
    .from(recording)
    .where(and(eq(recording.form, form.name), eq(recording.because, 'asked')));
  if (there!.count >= RECORDINGS_BY_PEOPLE)
    throw new Refusal(
      409,
      `There are ${RECORDINGS_BY_PEOPLE} recordings of this form. Remove some first.`,
    );
  const what = { opening: done.opening, steps: [...done.steps], ended: done.ended };
  const kept = masks ? masked(what, done.release.material) : what;
  return insert(done.filling, by.key, {
    ...headOf(done, 'asked', says),
    masked: masks,
    ...kept,
  });
}

/**
 * Keeps what the server came upon by itself: once for each filling-in and reason, of each form the newest of them, and
 * nothing so large that it would fill the disk.
 */
export async function keepByServer(
  done: Done,
  because: Exclude<Because, 'asked'>,
  says: string,
  by: Person,
): Promise<void> {
  const content: Recording = {
    ...headOf(done, because, says.slice(0, 2000)),
    masked: false,
    opening: done.opening,
    steps: [...done.steps],
    ended: done.ended,
  };
  if (Buffer.byteLength(JSON.stringify(content)) > RECORDING_BY_SERVER_BYTES) return;
  if (done.filling !== null) {
    const same = and(eq(recording.filling, done.filling), eq(recording.because, because));
    const [known] = await database().select({ id: recording.id }).from(recording).where(same);
    if (known !== undefined) return;
  }
  await insert(done.filling, by.key, content);
  const ofServer = and(eq(recording.form, content.form), ne(recording.because, 'asked'));
  const [oldest] = await database()
    .select({ id: recording.id })
    .from(recording)
    .where(ofServer)
    .orderBy(desc(recording.id))
    .limit(1)
    .offset(RECORDINGS_BY_SERVER);
  if (oldest !== undefined)
    await database()
      .delete(recording)
      .where(and(ofServer, lte(recording.id, oldest.id)));
}

function headOf({ release }: Done, because: Because, says: string) {
  return {
    recording: 1 as const,
    form: release.material.form.name,
    release: release.number,
    keptAt: new Date().toISOString(),
    because,
    says,
  };
}

/** Keeps a recording that came as a file. */
export function bringIn(brought: Recording, by: Person): Promise<number> {
  return insert(null, by.key, brought);
}

async function insert(of: string | null, by: string, content: Recording): Promise<number> {
  const { form, because, says, release } = content;
  const [made] = await database()
    .insert(recording)
    .values({ form, filling: of, because, says, release, keptBy: by, content })
    .returning({ id: recording.id });
  return made!.id;
}

const Head = z.object({ because: Because });

/** The newest first; of one form, or of one record of it. */
export async function listRecordings(
  of: { form?: string | undefined; record?: string | undefined } = {},
): Promise<RecordingHead[]> {
  const rows = await database()
    .select({
      id: recording.id,
      form: recording.form,
      release: recording.release,
      because: recording.because,
      says: recording.says,
      keptBy: recording.keptBy,
      keptAt: recording.keptAt,
      record: filling.savedAs,
    })
    .from(recording)
    .leftJoin(filling, eq(filling.id, recording.filling))
    .where(
      and(
        of.form === undefined ? undefined : eq(recording.form, of.form),
        of.record === undefined ? undefined : eq(filling.savedAs, of.record),
      ),
    )
    .orderBy(desc(recording.id))
    .limit(RECORDINGS_SHOWN);
  return rows.map((row) => ({
    ...row,
    because: Head.parse(row).because,
    keptAt: row.keptAt.toISOString(),
  }));
}

export async function readRecording(id: number): Promise<Recording | null> {
  const [row] = await database()
    .select({ content: recording.content })
    .from(recording)
    .where(eq(recording.id, id));
  return row === undefined ? null : RecordingSchema.parse(row.content);
}

/** Whether there was one. */
export async function removeRecording(id: number, form: string): Promise<boolean> {
  const gone = await database()
    .delete(recording)
    .where(and(eq(recording.id, id), eq(recording.form, form)))
    .returning({ id: recording.id });
  return gone.length > 0;
}

/** The number that an address names; null for anything else. */
export function idOf(text: string): number | null {
  return /^[1-9]\d{0,8}$/.test(text) ? Number(text) : null;
}
