/** Releases: immutable, numbered copies of a form with its tables and behaviours, compiled as they were. */
import { and, desc, eq, sql } from 'drizzle-orm';
import * as z from 'zod';
import { ScenarioSchema, type Scenario } from '../../core/scenario/definition';
import { FormSchema, type Form } from '../../core/form/definition';
import { ServiceSchema } from '../../core/form/service';
import { TableSchema } from '../../core/form/table';
import { lineInWords } from '../../core/wire/line';
import { deepFreeze } from '../../core/form/value';
import { MaterialSchema } from '../../core/sandbox/protocol';
import type { Material } from '../../core/session/material';
import { partKey, type Parts } from '../../core/workspace/overview';
import { database, transaction, type Transaction } from '../database/database';
import { indexRecords } from '../records/columns';
import { task } from '../machines/tasks';
import * as schema from '../database/schema';
import { perWorkspace } from '../database/current-workspace';
import { forgetAccepted } from './accepted';
import { readParts, stateOf } from '../content/overview';
import {
  readForm,
  readForms,
  readScenarios,
  readScripts,
  readServices,
  readTables,
} from '../content/read';

const ReleaseRow = z.strictObject({
  form: FormSchema,
  tables: z.array(TableSchema),
  /** Absent from releases made before there were services. */
  services: z.array(ServiceSchema).default([]),
  answering: z.array(z.unknown()).default([]),
  sources: z.array(z.strictObject({ name: z.string(), text: z.string(), revision: z.number() })),
  scripts: z.array(z.unknown()),
  /** Absent from releases made before there were shared modules. */
  modules: z.array(z.unknown()).default([]),
  /** The scenarios as they were; absent from releases made before they were kept. */
  scenarios: z.array(z.strictObject({ name: z.string(), scenario: ScenarioSchema })).optional(),
});

export interface Release {
  id: number;
  number: number;
  createdAt: string;
  material: Material;
  sources: { name: string; text: string; revision: number }[];
  /** Null for releases made before they were kept. */
  scenarios: { name: string; scenario: Scenario }[] | null;
  madeBy: string | null;
  reason: string | null;
  failing: string[];
  /** The earlier release that it puts back; null for one that was made anew. */
  again: number | null;
}

/** Who makes a release, and why although something fails. */
export interface HowMade {
  by: string | null;
  reason: string | null;
  /** What fails, in words. */
  failing: readonly string[];
}

/** A behaviour does not compile, so no release was made. */
export class CannotRelease extends Error {}

/** Something of the form was saved after it was checked, so no release was made. */
export class ChangedMeanwhile extends Error {}

const { release } = schema;

/** Makes the next release of a form. Its indexes are made meanwhile: lists work without them, only slower, so nobody waits for them. */
export async function makeRelease(
  name: string,
  how?: HowMade,
  state?: string,
): Promise<{ number: number }> {
  const { number, form } = await insertRelease(name, how, state);
  void indexForm(form).catch((caught: unknown) =>
    console.error('the indexes of the records were not made', caught),
  );
  return { number };
}

/**
 * Makes the next release. Where a `state` of the form is given that was checked, it is made of that alone. Throws
 * CannotRelease when a behaviour does not compile or there is no such form, and ChangedMeanwhile.
 */
export async function insertRelease(
  name: string,
  how: HowMade = { by: null, reason: null, failing: [] },
  state?: string,
): Promise<{ number: number; form: Form }> {
  // Before anything else is read: what is saved meanwhile counts as changed.
  const parts = (await readParts([name])).get(name) ?? {};
  const form = await readForm(name);
  if (form === null) throw new CannotRelease(`There is no form "${name}".`);
  const [sources, tables, services, scenarios] = await Promise.all([
    readScripts(form),
    readTables(),
    readServices(),
    readScenarios(name),
  ]);
  const { scripts, modules, answering } = await task('material', {
    form,
    tables,
    services,
    sources,
    mode: 'untraced',
  });
  const broken = [...scripts, ...modules].find((script) => script.failure !== null);
  if (broken !== undefined)
    throw new CannotRelease(
      `${broken.title}, ${lineInWords(broken.failure!.line ?? 1)}: ${broken.failure!.says}`,
    );
  const madeOf = partsOfRelease(parts, { form, sources, tables, services });
  return transaction(async (tx) => {
    const number = await nextNumber(tx, name);
    // Everything was read after that state and before this question: where it is the same still, it is what was read.
    if (state !== undefined && (await stateOf(name, tx)) !== state) throw new ChangedMeanwhile();
    await tx.insert(release).values({
      form: name,
      number,
      content: {
        form,
        tables,
        services,
        answering,
        sources,
        scripts,
        modules,
        scenarios: scenarios.map((one) => ({ name: one.name, scenario: one.scenario })),
      },
      madeOf,
      madeBy: how.by,
      reason: how.reason,
      failing: how.failing.length === 0 ? null : how.failing,
    });
    await forgetAccepted(name, tx);
    return { number, form };
  });
}

/** Puts an earlier release back: the next one is a copy of it. Throws CannotRelease where there is none of that number. */
export async function releaseAgain(
  name: string,
  again: number,
  { by, reason }: Pick<HowMade, 'by' | 'reason'>,
): Promise<{ number: number }> {
  const number = await transaction(async (tx) => {
    const next = await nextNumber(tx, name);
    const [former] = await tx
      .select({ content: release.content, madeOf: release.madeOf, failing: release.failing })
      .from(release)
      .where(and(eq(release.form, name), eq(release.number, again)));
    if (former === undefined) throw new CannotRelease(`There is no release ${again}.`);
    await tx
      .insert(release)
      .values({ form: name, number: next, ...former, madeBy: by, reason, again });
    await forgetAccepted(name, tx);
    return next;
  });
  const { material } = (await releaseNumbered(name, number))!;
  void indexForm(material.form).catch(console.error);
  return { number };
}

/** Two people releasing at once get two numbers. */
async function nextNumber(tx: Transaction, name: string): Promise<number> {
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`release ${name}`}, 0))`);
  const [last] = await tx
    .select({ number: release.number })
    .from(release)
    .where(eq(release.form, name))
    .orderBy(desc(release.number))
    .limit(1);
  return (last?.number ?? 0) + 1;
}

/** Of all that is there, what a release is made of: the form, the scripts it runs with, and the tables and services it mentions. */
function partsOfRelease(parts: Parts, { form, sources, tables, services }: MadeRelease): Parts {
  const scripts = JSON.stringify(sources.map(({ text }) => text));
  const usedServices = services.filter(({ name }) => mentions(scripts, name));
  const everything = `${JSON.stringify(form)} ${scripts} ${JSON.stringify(usedServices)}`;
  const names = new Set(sources.map(({ name }) => name));
  const unused = new Set([
    ...Object.keys(parts).filter(
      (key) =>
        key.startsWith(partKey('shared', '')) &&
        !names.has(key.slice(partKey('shared', '').length)),
    ),
    ...tables
      .filter(({ name }) => !mentions(everything, name))
      .map(({ name }) => partKey('table', name)),
    ...services
      .filter((service) => !usedServices.includes(service))
      .map(({ name }) => partKey('service', name)),
  ]);
  return Object.fromEntries(Object.entries(parts).filter(([key]) => !unused.has(key)));
}

interface MadeRelease {
  form: Form;
  sources: readonly { name: string; text: string }[];
  tables: readonly { name: string }[];
  services: readonly { name: string }[];
}

function mentions(text: string, name: string): boolean {
  return new RegExp(`\\b${name}\\b`).test(text);
}

/** Makes the indexes by which a form's records are listed, and found as children of another form's. */
export async function indexForm(form: Form): Promise<void> {
  const referring = (await readForms()).flatMap((parent) =>
    (parent.children ?? []).flatMap((list) => (list.form === form.name ? [list.field] : [])),
  );
  await indexRecords(form, referring);
}

/** Which release is the newest, without reading it whole. */
export async function newestNumber(
  form: string,
): Promise<{ id: number; number: number; createdAt: string } | null> {
  const { id, number, createdAt } = release;
  const [row] = await database()
    .select({ id, number, createdAt })
    .from(release)
    .where(eq(release.form, form))
    .orderBy(desc(number))
    .limit(1);
  return row === undefined ? null : { ...row, createdAt: row.createdAt.toISOString() };
}

export async function newestRelease(form: string): Promise<Release | null> {
  const newest = await newestNumber(form);
  return newest === null ? null : releaseById(newest.id);
}

/** A release of a form by its number. */
export async function releaseNumbered(form: string, number: number): Promise<Release | null> {
  const [row] = await database()
    .select({ id: release.id })
    .from(release)
    .where(and(eq(release.form, form), eq(release.number, number)));
  return row === undefined ? null : releaseById(row.id);
}

/** Releases that were read; they never change. */
const releases = perWorkspace('releases', () => new Map<number, Release>());
const MOST_READ = 200;

export async function releaseById(id: number): Promise<Release | null> {
  const read = releases();
  const known = read.get(id);
  if (known !== undefined) return known;
  const [row] = await database().select().from(release).where(eq(release.id, id));
  if (row === undefined) return null;
  const made = deepFreeze(asRelease(row));
  if (read.size >= MOST_READ) read.clear();
  read.set(id, made);
  return made;
}

function asRelease(row: typeof release.$inferSelect): Release {
  const { form, tables, services, answering, sources, scripts, modules, scenarios } =
    ReleaseRow.parse(row.content);
  const material = MaterialSchema.parse({
    form,
    tables,
    services,
    answering,
    scripts,
    modules,
    traced: false,
    invariants: false,
  });
  return {
    id: row.id,
    number: row.number,
    createdAt: row.createdAt.toISOString(),
    material,
    scenarios: scenarios ?? null,
    madeBy: row.madeBy,
    reason: row.reason,
    again: row.again,
    failing: z.array(z.string()).nullable().parse(row.failing) ?? [],
    sources,
  };
}
