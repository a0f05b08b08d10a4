/** Making a workspace's schema, filling it, copying it, and dropping it for good. */
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import * as z from 'zod';
import { REMOVED_WORKSPACE_KEPT } from '../../core/limits';
import type { Workspace } from '../../core/workspace/workspace';
import { connectionTo, database, EXTENSIONS } from '../database/database';
import { importWorkspace } from './import';
import { indexForm, insertRelease, newestNumber } from '../releases/releases';
import { readForms } from '../content/read';
import {
  currentWorkspace,
  HOME,
  inWorkspace,
  type WorkspaceRef,
} from '../database/current-workspace';
import { askRegistry, listWorkspaces, REGISTRY } from './registry';

/** Extensions stand in a schema of their own, which every workspace looks into; older installations had them in `public`. */
export const EXTENSIONS_APART = `
  create schema if not exists ${EXTENSIONS};
  create extension if not exists pg_trgm schema ${EXTENSIONS};
  do $$ begin
    if exists (select 1 from pg_extension e join pg_namespace n on n.oid = e.extnamespace where e.extname = 'pg_trgm' and n.nspname <> '${EXTENSIONS}')
    then alter extension pg_trgm set schema ${EXTENSIONS}; end if;
  end $$;
`;

/** Makes the tables of the workspace at hand, or brings them up to date. */
export async function migrateWorkspace(): Promise<void> {
  const { schema } = currentWorkspace();
  await migrate(database(), {
    migrationsFolder: 'drizzle',
    // Of each workspace it is kept with it what was done; the first one has it where it always was.
    ...(schema === HOME.schema ? {} : { migrationsSchema: schema }),
  });
}

/** Puts what was read from a folder into the empty workspace at hand, and makes the first release of each form that has none. */
export async function fillWorkspace(workspace: Workspace): Promise<void> {
  await importWorkspace(database(), workspace);
  await releaseUnreleased();
}

/** Makes the first release of each form that has none, so that it can be filled in at once. */
export async function releaseUnreleased(): Promise<void> {
  for (const form of await readForms()) {
    if ((await newestNumber(form.name)) === null) await insertRelease(form.name);
    await indexForm(form);
  }
}

/** Held while a workspace is made, by whoever makes it, and let go when that app is gone. */
const MAKING = "hashtextextended('workspace ' || $1, 0)";

/**
 * Does work with a schema that no workspace has had. One whose work fails is dropped, and one whose app is killed
 * meanwhile by the next that starts (`dropUnfinished`).
 */
export async function withNewSchema<T>(work: (schema: string) => Promise<T>): Promise<T> {
  const [row] = await askRegistry("select 'ws_' || nextval('workspace_schema') as schema");
  const { schema } = z.object({ schema: z.string().regex(/^ws_\d+$/) }).parse(row);
  const maker = await connectionTo(REGISTRY).pool.connect();
  try {
    await maker.query(`select pg_advisory_lock(${MAKING})`, [schema]);
    await askRegistry(`create schema ${schema}`);
    try {
      return await work(schema);
    } catch (caught) {
      await askRegistry(`drop schema if exists ${schema} cascade`);
      throw caught;
    }
  } finally {
    // The lock goes with the connection.
    maker.release(true);
  }
}

const Unlisted = z.object({ schema: z.string().regex(/^ws_\d+$/) });

/** Drops schemas that stand on no list and that nobody is filling: their app was killed while it made them. */
export async function dropUnfinished(): Promise<void> {
  const rows = await askRegistry(
    "select nspname as schema from pg_namespace where nspname ~ '^ws_[0-9]+$' and nspname not in (select schema from workspace)",
  );
  for (const { schema } of z.array(Unlisted).parse(rows)) {
    const client = await connectionTo(REGISTRY).pool.connect();
    try {
      const { rows: got } = await client.query(`select pg_try_advisory_lock(${MAKING}) as free`, [
        schema,
      ]);
      if (!z.tuple([z.object({ free: z.boolean() })]).parse(got)[0].free) continue;
      // It may have come onto the list just now.
      const listed = await client.query('select 1 from workspace where schema = $1', [schema]);
      if (listed.rows.length === 0) await client.query(`drop schema if exists ${schema} cascade`);
    } finally {
      client.release(true);
    }
  }
}

const Column = z.object({ table_name: z.string(), columns: z.string() });

/** Tables that a copy does not take over: signatures of one workspace are none in another, a folder belongs to one, and what was begun is not sent there. */
const NOT_COPIED = new Set(['secret', 'folder_base', '__drizzle_migrations']);

/** Copies everything of one workspace into the empty tables of another. */
export async function copyInto(from: WorkspaceRef, to: WorkspaceRef): Promise<void> {
  const client = await connectionTo(to.schema).pool.connect();
  try {
    await client.query('begin isolation level repeatable read');
    // In the order in which they refer to each other.
    const { rows } = await client.query(
      `select c.table_name, string_agg(format('%I', c.column_name), ', ' order by c.ordinal_position) as columns
       from information_schema.columns c join information_schema.tables t using (table_schema, table_name)
       where c.table_schema = $1 and t.table_type = 'BASE TABLE' and c.is_generated = 'NEVER'
       group by c.table_name
       order by array_position(array['document', 'revision', 'release', 'filling', 'file_content'], c.table_name::text) nulls last`,
      [to.schema],
    );
    for (const { table_name: table, columns } of z.array(Column).parse(rows))
      if (!NOT_COPIED.has(table))
        await client.query(
          `insert into ${to.schema}."${table}" (${columns}) select ${columns} from ${from.schema}."${table}"`,
        );
    for (const table of ['document', 'release'])
      await client.query(
        `select setval(pg_get_serial_sequence('${to.schema}.${table}', 'id'), coalesce((select max(id) from ${to.schema}.${table}), 0) + 1, false)`,
      );
    await client.query('commit');
  } catch (caught) {
    await client.query('rollback').catch(() => undefined);
    throw caught;
  } finally {
    client.release();
  }
  await inWorkspace(to, async () => {
    for (const form of await readForms()) await indexForm(form);
  });
}

/** Drops what was removed long before `now`, with all that it held. */
export async function dropRemoved(now: number): Promise<void> {
  for (const { name, schema, removedAt } of await listWorkspaces()) {
    if (removedAt === null || now - removedAt.getTime() < REMOVED_WORKSPACE_KEPT) continue;
    // In this order, so that one killed between leaves a schema that is on no list, and no workspace without one.
    await askRegistry('delete from workspace where name = $1', [name]);
    await askRegistry(`drop schema if exists ${schema} cascade`);
  }
}
