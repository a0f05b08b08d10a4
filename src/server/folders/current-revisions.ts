/** What a bench that is open asks while its workspace is kept the same as a folder: what is there now, by revisions. */
import { sql } from 'drizzle-orm';
import * as z from 'zod';
import { database } from '../database/database';
import { folderState, type FolderState } from './live';
import { currentWorkspace } from '../database/current-workspace';

const Row = z.object({ kind: z.string(), name: z.string(), revision: z.int() });

export interface LiveState {
  folder: FolderState | null;
  /** The revision of the form's definition; null once it is removed. */
  definition: number | null;
  /** Revisions of its own behaviours and of all that forms share, by name. */
  scripts: Record<string, number>;
  scenarios: Record<string, number>;
  /** Changes with whatever else a bench shows: tables, services, people. */
  around: string;
}

export async function liveState(form: string): Promise<LiveState> {
  const { rows } = await database().execute(
    sql`select kind, name, revision from document where content is not null and (form = ${form} and kind in ('behaviour', 'scenario') or form = '' and (kind in ('table', 'service', 'head', 'shared') or kind = 'form' and name = ${form})) order by kind, name`,
  );
  const all = z.array(Row).parse(rows);
  const of = (...kinds: string[]) => all.filter(({ kind }) => kinds.includes(kind));
  const byName = (some: typeof all) =>
    Object.fromEntries(some.map(({ name, revision }) => [name, revision]));
  return {
    folder: folderState(currentWorkspace()),
    definition: of('form')[0]?.revision ?? null,
    scripts: byName(of('behaviour', 'shared')),
    scenarios: byName(of('scenario')),
    around: of('table', 'service', 'head')
      .map(({ kind, name, revision }) => `${kind} ${name} ${revision}`)
      .join(', '),
  };
}
