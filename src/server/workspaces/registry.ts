/** The list of workspaces, in a schema of its own, and finding the one that an address names. */
import * as z from 'zod';
import { connectionTo } from '../database/database';
import { isWorkspaceName, splitAddress } from './address';
import { HOME, type WorkspaceRef } from '../database/current-workspace';

/** The schema that holds the list. */
export const REGISTRY = 'tavro';

/** Brings the list up to date. Safe to call again, and by several apps one after the other. */
export const REGISTRY_TABLES = `
  create schema if not exists ${REGISTRY};
  create table if not exists ${REGISTRY}.workspace (
    name text primary key,
    schema text not null unique,
    title text not null,
    created_at timestamptz not null default now(),
    archived_at timestamptz,
    removed_at timestamptz
  );
  alter table ${REGISTRY}.workspace add column if not exists folder text;
  create sequence if not exists ${REGISTRY}.workspace_schema;
`;

const Row = z.object({
  name: z.string(),
  schema: z.string().regex(/^(?:public|ws_\d+)$/),
  title: z.string(),
  created_at: z.coerce.date(),
  archived_at: z.coerce.date().nullable(),
  removed_at: z.coerce.date().nullable(),
  folder: z.string().nullable(),
});

export interface ListedWorkspace extends WorkspaceRef {
  title: string;
  createdAt: Date;
  archivedAt: Date | null;
  removedAt: Date | null;
  /** The live folder that it is kept the same as; null for none. */
  folder: string | null;
}

const asListed = (row: unknown): ListedWorkspace => {
  const { name, schema, title, created_at, archived_at, removed_at, folder } = Row.parse(row);
  return {
    name,
    schema,
    title,
    createdAt: created_at,
    archivedAt: archived_at,
    removedAt: removed_at,
    folder,
  };
};

/** Asks the list of workspaces. */
export async function askRegistry(text: string, values: unknown[] = []): Promise<unknown[]> {
  const { rows } = await connectionTo(REGISTRY).pool.query(text, values);
  return rows;
}

/** All workspaces, those that were removed too, by title. */
export async function listWorkspaces(): Promise<ListedWorkspace[]> {
  return (await askRegistry('select * from workspace order by lower(title), name')).map(asListed);
}

/** Milliseconds for which a workspace that was found is not looked up again. */
const FRESH = 2000;
// On globalThis, since Next.js bundles pages and routes apart.
const kept = globalThis as { tavroFound?: Map<string, { ref: WorkspaceRef; at: number }> };
const found = (kept.tavroFound ??= new Map());

/** The workspace that an address calls so; null when there is none. Archived ones are there, removed ones are not. */
export async function findWorkspace(name: string): Promise<WorkspaceRef | null> {
  if (!isWorkspaceName(name)) return null;
  const known = found.get(name);
  if (known !== undefined && Date.now() - known.at < FRESH) return known.ref;
  const [row] = await askRegistry(
    'select * from workspace where name = $1 and removed_at is null',
    [name],
  );
  if (row === undefined) {
    found.delete(name);
    return null;
  }
  const { schema } = asListed(row);
  const ref = { name, schema };
  if (found.size > 1000) found.clear();
  found.set(name, { ref, at: Date.now() });
  return ref;
}

/** Forgets where workspaces were found, since one was removed. */
export function forgetFound(): void {
  found.clear();
}

/** The workspace that an address is about; null when it names one that is not there. */
export async function workspaceAt(pathname: string): Promise<WorkspaceRef | null> {
  const { workspace } = splitAddress(pathname);
  return workspace === null ? HOME : findWorkspace(workspace);
}
