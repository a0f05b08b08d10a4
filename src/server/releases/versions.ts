/** Former versions of a form: its releases, and the form as it was at some moment. */
import { sql } from 'drizzle-orm';
import * as z from 'zod';
import { VERSIONS_SHOWN } from '../../core/limits';
import { scriptsOf } from '../../core/script/of-form';
import type { FormerVersion } from '../../core/workspace/release-changes';
import type { FormVersions, WhichVersion } from '../../core/workspace/versions';
import { existingForm } from '../content/forms';
import { asScript } from '../content/read';
import { database } from '../database/database';
import { Refusal } from '../http/refusal';
import { compiledServices } from '../machines/compiled';
import { documentsAt } from '../revisions/documents';
import { releaseNumbered, type Release } from './releases';

/** A moment as PostgreSQL has it: to the microsecond, so that what was saved then is part of it. */
const moment = (column: string) =>
  sql.raw(`to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`);

const ReleasedRow = z.object({
  number: z.int(),
  at: z.string(),
  by: z.string().nullable(),
  reason: z.string().nullable(),
  again: z.int().nullable(),
});
const SavedRow = z.object({
  at: z.string(),
  kind: z.string(),
  name: z.string(),
  by: z.string().nullable(),
});

/** What there is to compare a form with. Throws a Refusal where there is no such form. */
export async function versionsOf(name: string): Promise<FormVersions> {
  await existingForm(name);
  const [releases, revisions, right] = await Promise.all([
    database().execute(sql`
      select number, ${moment('created_at')} as at, made_by as by, reason, again from release
      where form = ${name} order by number desc limit ${VERSIONS_SHOWN}`),
    // Of each document the newest, which its key leads to; then of all.
    database().execute(sql`
      select ${moment('r.saved_at')} as at, d.kind, d.name, r.saved_by as by
      from document d, lateral (
        select saved_at, saved_by from revision where document = d.id order by number desc limit ${VERSIONS_SHOWN}
      ) as r
      where d.form = ${name} and d.kind = 'behaviour' or d.form = '' and d.kind in ('table', 'service', 'shared')
        or d.kind = 'form' and d.name = ${name}
      order by r.saved_at desc limit ${VERSIONS_SHOWN}`),
    database().execute(sql`
      select ${moment('until')} as at from past_run
      where form = ${name} and failed = 0 and passed > 0 order by id desc limit 1`),
  ]);
  return {
    releases: z.array(ReleasedRow).parse(releases.rows),
    revisions: z.array(SavedRow).parse(revisions.rows),
    right: z.array(z.object({ at: z.string() })).parse(right.rows)[0]?.at ?? null,
  };
}

/** A former version of a form. Throws a Refusal (404) where there was none. */
export async function formerVersion(name: string, which: WhichVersion): Promise<FormerVersion> {
  await existingForm(name);
  if ('at' in which) return versionAt(name, which.at);
  const release = await releaseNumbered(name, which.release);
  if (release === null) throw new Refusal(404, `There is no release ${which.release}.`);
  return releasedVersion(release);
}

export function releasedVersion({ material, sources }: Release): FormerVersion {
  const { form, tables, services, answering } = material;
  return {
    form,
    tables,
    services,
    answering,
    sources: sources.map(({ name, text }) => ({ name, text })),
  };
}

async function versionAt(name: string, at: string): Promise<FormerVersion> {
  const { form, behaviours, shared, tables, services } = await documentsAt(name, at);
  if (form === null) throw new Refusal(404, 'There was no such form then.');
  const sources = scriptsOf(form, behaviours.map(asScript), shared.map(asScript));
  return {
    form,
    tables,
    services,
    answering: await compiledServices(services),
    sources: sources.map(({ name: of, text }) => ({ name: of, text })),
  };
}
