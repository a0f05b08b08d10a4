/** Searching forms of a workspace for faults: begun by somebody, worked through by workers, told while it goes on. */
import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/node-postgres';
import * as z from 'zod';
import { meantIn, MeantSchema } from '../../core/explore/meant';
import type { Finding } from '../../core/explore/finding';
import { parentsOf } from '../../core/explore/ground';
import type { Form } from '../../core/form/definition';
import { COMPARED_SESSIONS, SEARCH_SESSIONS } from '../../core/limits';
import { DEFAULT_CLOCK } from '../../core/scenario/opening';
import { takingPart, type Source } from '../../core/script/header';
import type { Service } from '../../core/form/service';
import type { Role, Table } from '../../core/form/table';
import { changesInWords } from '../../core/workspace/overview';
import { CompareRequestSchema } from '../../workers/compare-calls';
import { baseName } from '../../core/script/script-name';
import { FindingSchema, SearchRequestSchema } from '../../workers/search-calls';
import { readOverview, stateOf } from '../content/overview';
import { newestRelease } from '../releases/releases';
import {
  readCast,
  readForms,
  readHead,
  readScripts,
  readServices,
  readTables,
} from '../content/read';
import { currentWorkspace } from '../database/current-workspace';
import { connectionTo, database } from '../database/database';
import * as schema from '../database/schema';
import { doneByPeople } from '../fillings/kept';
import { Refusal } from '../http/refusal';
import { compiledScripts, compiledServices } from '../machines/compiled';
import { task } from '../machines/tasks';
import { queue, QUEUE, type Chunk } from './queue';

/** Seeds of a search that somebody waits for, and of one at night. */
export const SEEDS = { quick: 2, deep: 12 } as const;
/** Filling-ins that some of its sessions begin from. */
const DONE_BY_PEOPLE = 20;
/** Searches that are kept, the last one among them. */
const KEPT = 5;

/** What each chunk of a form is searched with, and the answers that stand in its code. */
export const FaultsGroundSchema = z.strictObject({
  request: SearchRequestSchema.omit({ seed: true }),
  meant: z.array(MeantSchema),
  /** What the checks of the sources have found. */
  proofs: z.array(z.strictObject({ behaviour: z.string(), line: z.number(), code: z.string() })),
});

/** What each chunk of a form is compared with: its last release and the form, and what was accepted. */
export const ChangesGroundSchema = z.strictObject({
  compare: CompareRequestSchema.omit({ seed: true }),
  release: z.int(),
});

/** What workers go over forms for. */
export type What = 'faults' | 'changes';

/**
 * Begins a search of these forms, of all where none is named; the former one ends. Gives its number. What each form is
 * searched with is worked out by whoever takes the first of its chunks, so that 200 forms are begun as quickly as one.
 */
export async function beginSearch(
  named: readonly string[] | null,
  depth: keyof typeof SEEDS,
  by: string | null,
  what: What = 'faults',
): Promise<number> {
  const all = what === 'faults' ? (await readForms()).map(({ name }) => name) : await changed();
  const forms = named === null ? all : all.filter((name) => named.includes(name));
  if (forms.length === 0)
    throw new Refusal(
      404,
      what === 'faults'
        ? 'There is no such form to search.'
        : 'No form has changed since its last release.',
    );
  const boss = await queue();
  const { schema: of } = currentWorkspace();
  const client = await connectionTo(of).pool.connect();
  try {
    // Its rows and its chunks are there together or not at all.
    return await drizzle(client, { schema }).transaction(async (tx) => {
      await tx
        .update(schema.searchRun)
        .set({ stopped: true })
        .where(eq(schema.searchRun.stopped, false));
      const [row] = await tx
        .insert(schema.searchRun)
        .values({ by, seeds: SEEDS[depth], what })
        .returning({ id: schema.searchRun.id });
      const search = row!.id;
      await tx.delete(schema.searchRun).where(sql`${schema.searchRun.id} <= ${search - KEPT}`);
      await tx.insert(schema.searchGround).values(forms.map((form) => ({ search, form, of: '' })));
      // Seed by seed, so that each form has been looked at before any is looked at again.
      const chunks = Array.from({ length: SEEDS[depth] }, (_, i) =>
        forms.map((form): Chunk => ({ schema: of, search, form, seed: i + 1 })),
      ).flat();
      await boss.insert(
        chunks.map((data) => ({ name: QUEUE, data })),
        { db: { executeSql: (text, values) => client.query(text, values) } },
      );
      return search;
    });
  } finally {
    client.release();
  }
}

/** The forms that have a release and are no longer what it was made of. */
async function changed(): Promise<string[]> {
  return (await readOverview()).flatMap(({ name, release }) =>
    release === null || (release.changes !== null && changesInWords(release.changes) === '')
      ? []
      : [name],
  );
}

/** What all chunks of a form in a search share; null where it cannot be searched, or the search is over. */
export async function groundFor(
  search: number,
  form: string,
): Promise<{ of: string; request: unknown; what: string } | null> {
  const isIt = and(eq(schema.searchGround.search, search), eq(schema.searchGround.form, form));
  const read = async () => {
    const [row] = await database()
      .select({
        of: schema.searchGround.of,
        request: schema.searchGround.request,
        says: schema.searchGround.says,
        what: schema.searchRun.what,
      })
      .from(schema.searchGround)
      .innerJoin(schema.searchRun, eq(schema.searchRun.id, schema.searchGround.search))
      .where(and(isIt, eq(schema.searchRun.stopped, false)));
    return row;
  };
  let row = await read();
  if (row !== undefined && row.request === null && row.says === null) {
    const definition = (await readForms()).find(({ name }) => name === form);
    const ground =
      definition === undefined
        ? { request: null, says: 'The form has been deleted.' }
        : row.what === 'changes'
          ? await changesGroundOf(definition)
          : await groundOf(definition);
    // Of several workers that began with it at once the first one says what it is for all.
    await database()
      .update(schema.searchGround)
      .set(ground)
      .where(and(isIt, isNull(schema.searchGround.request), isNull(schema.searchGround.says)));
    row = await read();
  }
  return row === undefined || row.request === null ? null : row;
}

/** A form with what it runs with, as it is now or was released. */
interface Version {
  form: Form;
  tables: readonly Table[];
  services: readonly Service[];
  sources: readonly Source[];
}

const asTask = ({ form, tables, services, sources }: Version, roles: Role[]) => ({
  form,
  tables: [...tables],
  services: [...services],
  sources: [...sources],
  roles,
});

/** A version as workers take it; `broken` says which script does not compile. */
async function requestOf({ form, tables, services, sources }: Version) {
  const [head, cast, done, compiled, answering, mentions] = await Promise.all([
    readHead(),
    readCast(form.name, []),
    doneByPeople(form.name, DONE_BY_PEOPLE),
    compiledScripts(sources, 'traced'),
    compiledServices(services),
    task('searchMentions', { sources: takingPart(sources) }),
  ]);
  const broken = [...compiled.scripts, ...compiled.modules].find(({ failure }) => failure !== null);
  return {
    broken:
      broken === undefined ? null : `${broken.title} does not compile: ${broken.failure!.says}`,
    request: {
      material: { form, tables, services, answering, ...compiled, traced: true },
      people: [...head.people],
      records: cast.records.map(({ id, values }) => ({ id, values })),
      parents: parentsOf(form.name, cast.forms),
      clock: Date.parse(DEFAULT_CLOCK),
      done,
      mentions,
    },
  };
}

async function versionNow(form: Form): Promise<Version> {
  const [tables, services, sources] = await Promise.all([
    readTables(),
    readServices(),
    readScripts(form),
  ]);
  return { form, tables, services, sources: sources.map(({ name, text }) => ({ name, text })) };
}

/** What a form is searched with, as it is now; why it cannot be where it does not compile. */
async function groundOf(form: Form) {
  const of = await stateOf(form.name);
  const now = await versionNow(form);
  const [{ request, broken }, problems] = await Promise.all([
    requestOf(now),
    readHead().then(({ roles }) => task('check', asTask(now, roles))),
  ]);
  const proofs = problems.flatMap(({ at, code }) =>
    at.is === 'behaviour' ? [{ behaviour: baseName(at.name), line: at.line, code }] : [],
  );
  const ground: z.input<typeof FaultsGroundSchema> = {
    request: { ...request, sessions: SEARCH_SESSIONS, until: null },
    meant: meantIn(now.sources),
    proofs,
  };
  return { of: of ?? '', request: broken === null ? ground : null, says: broken };
}

/** What a form is compared with, likewise. */
async function changesGroundOf(form: Form) {
  const of = await stateOf(form.name);
  const last = await newestRelease(form.name);
  if (last === null) return { of: of ?? '', request: null, says: 'The form has no release.' };
  const now = await versionNow(form);
  const { material, sources } = last;
  const then = { ...material, sources: sources.map(({ name, text }) => ({ name, text })) };
  const [before, after, change] = await Promise.all([
    requestOf(then),
    requestOf(now),
    task('changeBetween', {
      before: takingPart(then.sources),
      after: takingPart(now.sources),
    }),
  ]);
  const ground: z.input<typeof ChangesGroundSchema> = {
    compare: {
      before: { ...before.request, sources: then.sources },
      after: { ...after.request, sources: [...now.sources] },
      change,
      sessions: COMPARED_SESSIONS,
      until: null,
    },
    release: last.number,
  };
  return { of: of ?? '', request: after.broken === null ? ground : null, says: after.broken };
}

/** Ends a search: chunks that are under way come to their end, no other is begun. */
export async function stopSearch(id: number): Promise<void> {
  const stopped = await database()
    .update(schema.searchRun)
    .set({ stopped: true })
    .where(eq(schema.searchRun.id, id))
    .returning({ id: schema.searchRun.id });
  if (stopped.length === 0) throw new Refusal(404, 'There is no such search.');
}

export interface SearchState {
  id: number;
  what: What;
  by: string | null;
  at: string;
  stopped: boolean;
  /** Chunks that are done, of how many. */
  done: number;
  of: number;
  forms: { form: string; done: number; of: number; sessions: number; says: string | null }[];
}

const StateRow = z.object({
  form: z.string(),
  says: z.string().nullable(),
  done: z.number(),
  sessions: z.number(),
});

/** How far the last search is; null where there was none. */
export async function lastSearch(): Promise<SearchState | null> {
  const [run] = await database()
    .select()
    .from(schema.searchRun)
    .orderBy(desc(schema.searchRun.id))
    .limit(1);
  if (run === undefined) return null;
  const { rows } = await database().execute(sql`
    select g.form, coalesce(g.says, max(c.says)) as says, count(c.seed)::int as done,
      coalesce(sum(c.sessions), 0)::int as sessions
    from search_ground g left join search_chunk c on c.search = g.search and c.form = g.form
    where g.search = ${run.id} group by g.form, g.says order by g.form`);
  const forms = z
    .array(StateRow)
    .parse(rows)
    .map((row) => ({ ...row, of: row.says !== null && row.done === 0 ? 0 : run.seeds }));
  const sum = (of: 'done' | 'of') => forms.reduce((all, form) => all + form[of], 0);
  return {
    id: run.id,
    what: z.enum(['faults', 'changes']).parse(run.what),
    by: run.by,
    at: run.at.toISOString(),
    stopped: run.stopped,
    done: sum('done'),
    of: sum('of'),
    forms,
  };
}

/** What was found in a form as it is now; none where it has changed since, or was never searched. */
export async function foundIn(form: string): Promise<Finding[]> {
  const [[row], state] = await Promise.all([
    database().select().from(schema.formFound).where(eq(schema.formFound.form, form)),
    stateOf(form),
  ]);
  return row === undefined || row.of !== state ? [] : z.array(FindingSchema).parse(row.findings);
}

/** Begins a deep search of the forms that have changed since they were last searched so; null where none has. */
export async function searchAtNight(): Promise<number | null> {
  const { rows } = await database().execute(sql`
    select f.name from document f where f.kind = 'form' and f.content is not null order by f.name`);
  const changed: string[] = [];
  for (const { name } of z.array(z.object({ name: z.string() })).parse(rows)) {
    const [row] = await database()
      .select({ of: schema.formFound.of, sessions: schema.formFound.sessions })
      .from(schema.formFound)
      .where(eq(schema.formFound.form, name));
    const isDeep = row !== undefined && row.sessions >= SEARCH_SESSIONS * SEEDS.deep;
    if (!isDeep || row.of !== (await stateOf(name))) changed.push(name);
  }
  return changed.length === 0 ? null : beginSearch(changed, 'deep', null);
}
