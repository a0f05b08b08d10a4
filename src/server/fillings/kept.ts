/** The steps of filling-ins that were saved, as long and as many as the workspace keeps. */
import { and, desc, eq, lt, sql } from 'drizzle-orm';
import { KEPT_FILLING_BYTES } from '../../core/limits';
import {
  withoutTimes,
  type KeptFilling,
  type KeptFillingsPage,
} from '../../core/scenario/kept-steps';
import { KeptStepsSchema } from '../../core/scenario/kept-steps-schema';
import { masked } from '../../core/scenario/masking';
import type { Person } from '../../core/form/table';
import type { KeptFillings } from '../../core/workspace/head';
import { existingForm } from '../content/forms';
import { readHead } from '../content/read';
import { database, type Database } from '../database/database';
import { keptFilling, recording } from '../database/schema';
import { Refusal } from '../http/refusal';
import { bringIn, type Done } from '../releases/recordings';

/** Keeps what was done, where the workspace keeps such things; the oldest of the form go for it. */
export async function keepFilling(done: Done, record: string): Promise<void> {
  const { fillings: how } = await readHead();
  if (how === undefined) return;
  const { release } = done;
  const form = release.material.form.name;
  const what = { opening: done.opening, steps: [...done.steps], ended: null };
  const { opening, steps } = how.masked ? masked(what, release.material) : what;
  const content = JSON.stringify({ opening, steps });
  if (Buffer.byteLength(content) > KEPT_FILLING_BYTES) return;
  await database().insert(keptFilling).values({
    form,
    record,
    release: release.number,
    masked: how.masked,
    content: { opening, steps },
  });
  await forgetBeyond(form, how);
}

async function forgetBeyond(form: string, { most, days }: KeptFillings): Promise<void> {
  await database().execute(sql`
    delete from kept_filling where form = ${form} and (id <= (
      select id from kept_filling where form = ${form} order by id desc offset ${most} limit 1
    ) or at < now() - make_interval(days => ${days}))`);
}

/** Lets go of what is too old, of each form what is too many, and of all where nothing is kept. */
export async function tidyKept(on: Database, how: KeptFillings | undefined): Promise<void> {
  if (how === undefined) {
    await on.delete(keptFilling);
    return;
  }
  await on.execute(sql`
    delete from kept_filling where at < now() - make_interval(days => ${how.days}) or id in (
      select id from (select id, row_number() over (partition by form order by id desc) as place from kept_filling) as placed
      where place > ${how.most})`);
}

/** Those of a form before the one of a number, the newest first. Throws a Refusal where there is no such form. */
export async function keptFillings(
  form: string,
  before: number | null,
  most: number,
): Promise<KeptFillingsPage> {
  const [{ fillings: how }] = await Promise.all([readHead(), existingForm(form)]);
  // It may have been turned off in a folder, which clears nothing away by itself.
  if (how === undefined) return { fillings: [], all: 0 };
  const ofForm = eq(keptFilling.form, form);
  const [rows, [counted]] = await Promise.all([
    database()
      .select()
      .from(keptFilling)
      .where(before === null ? ofForm : and(ofForm, lt(keptFilling.id, before)))
      .orderBy(desc(keptFilling.id))
      .limit(most),
    database()
      .select({ all: sql<number>`count(*)::int` })
      .from(keptFilling)
      .where(ofForm),
  ]);
  return {
    all: counted!.all,
    fillings: rows.map(({ content, at, id, record, release, masked: isMasked }): KeptFilling => ({
      id,
      record,
      release,
      masked: isMasked,
      at: at.toISOString(),
      ...KeptStepsSchema.parse(content),
    })),
  };
}

/** A kept filling-in as a recording of its own, which stays when it goes; made once. Throws a Refusal (404). */
export async function keptAsRecording(form: string, id: number, by: Person): Promise<number> {
  const [row] = await database()
    .select()
    .from(keptFilling)
    .where(and(eq(keptFilling.form, form), eq(keptFilling.id, id)));
  if (row === undefined)
    throw new Refusal(404, 'That filling-in is gone: it was too old, or its record was removed.');
  const says = `Filling-in ${id}, saved as record ${row.record}.`;
  const [known] = await database()
    .select({ id: recording.id })
    .from(recording)
    .where(and(eq(recording.form, form), eq(recording.because, 'asked'), eq(recording.says, says)))
    .limit(1);
  if (known !== undefined) return known.id;
  const { opening, steps } = KeptStepsSchema.parse(row.content);
  return bringIn(
    {
      recording: 1,
      form,
      release: row.release,
      keptAt: row.at.toISOString(),
      because: 'asked',
      says,
      masked: row.masked,
      opening,
      steps,
      ended: null,
    },
    by,
  );
}

/** The last ones of a form, as a search begins some of its sessions there. */
export async function doneByPeople(form: string, most: number) {
  const { fillings } = await keptFillings(form, null, most);
  return fillings.map(withoutTimes);
}
