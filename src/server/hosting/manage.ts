/** Workspaces as wholes: what their page shows, new ones, copies, titles, the archive, removal and its undo. */
import * as z from 'zod';
import { WORKSPACES } from '../../core/limits';
import {
  workspaceName,
  type RemovedWorkspace,
  type WorkspaceRow,
} from '../../core/workspace/workspaces';
import { folderState } from '../folders/live';
import { Refusal } from '../http/refusal';
import { readDocument, saveDocument } from '../revisions/documents';
import { addForm } from '../content/forms';
import { HEAD } from '../content/read';
import { HOME, inWorkspace, type WorkspaceRef } from '../database/current-workspace';
import { copyInto, migrateWorkspace, withNewSchema } from '../workspaces/making';
import {
  askRegistry,
  findWorkspace,
  forgetFound,
  listWorkspaces,
  type ListedWorkspace,
} from '../workspaces/registry';

const Counted = z.object({
  schema: z.string(),
  title: z.string().nullable(),
  forms: z.number(),
  errors: z.number(),
  warnings: z.number(),
  failing: z.number(),
  unchecked: z.number(),
  changed_at: z.coerce.date().nullable(),
});

/** How a workspace stands, as a part of one question about all of them. */
const counts = (schema: string) => `
  select '${schema}' as schema, (select content ->> 'title' from ${schema}.document where kind = 'head' and content is not null limit 1) as title,
    count(*)::int as forms,
    coalesce(sum(c.errors), 0)::int as errors, coalesce(sum(c.warnings), 0)::int as warnings,
    coalesce(sum(s.failed), 0)::int as failing, count(*) filter (where c.form is null)::int as unchecked,
    (select max(saved_at) from ${schema}.revision) as changed_at
  from ${schema}.document f
  left join ${schema}.form_check c on c.form = f.name
  left join ${schema}.scenario_run s on s.form = f.name
  where f.kind = 'form' and f.content is not null`;

/** Every workspace that is there, and those that can be restored. */
export async function readWorkspaces(): Promise<{
  workspaces: WorkspaceRow[];
  removed: RemovedWorkspace[];
}> {
  const listed = await listWorkspaces();
  const there = listed.filter(({ removedAt }) => removedAt === null);
  const rows = await askRegistry(there.map(({ schema }) => counts(schema)).join(' union all '));
  const counted = new Map(
    z
      .array(Counted)
      .parse(rows)
      .map((row) => [row.schema, row]),
  );
  return {
    workspaces: there.map((one) => asRow(one, counted.get(one.schema)!)),
    removed: listed
      .filter(({ removedAt }) => removedAt !== null)
      .map(({ name, title }) => ({ name, title })),
  };
}

function asRow(
  { name, schema, title: listedAs, archivedAt, folder }: ListedWorkspace,
  { title, forms, errors, warnings, failing, unchecked, changed_at }: z.infer<typeof Counted>,
): WorkspaceRow {
  return {
    name,
    title: title ?? listedAs,
    first: schema === HOME.schema,
    archived: archivedAt !== null,
    folder: folder === null ? null : { path: folder, ...folderHealth({ name, schema }) },
    forms,
    errors,
    warnings,
    failing,
    unchecked,
    changedAt: changed_at?.toISOString() ?? null,
  };
}

function folderHealth(
  workspace: WorkspaceRef,
): Pick<NonNullable<WorkspaceRow['folder']>, 'kept' | 'wrong' | 'says'> {
  const state = folderState(workspace);
  const { errors, conflicts, odd } = state ?? { errors: [], conflicts: [], odd: [] };
  const all = [...errors, ...conflicts.map(({ unit }) => `${unit} changed on both sides`), ...odd];
  return {
    kept: state !== null,
    wrong: errors.length + conflicts.length,
    says:
      all.length > FOLDER_LINES
        ? [...all.slice(0, FOLDER_LINES), `… and ${all.length - FOLDER_LINES} more`]
        : all,
  };
}

/** Lines about a folder on the page of workspaces. */
const FOLDER_LINES = 8;

/** What a workspace begins with, so that somebody is there to open its forms. */
const FIRST_HEAD = {
  roles: [{ key: 'clerk', label: 'Clerk' }],
  people: [{ key: 'first', name: 'First person', roles: ['clerk'] }],
};

/** A new workspace, empty or with one form to begin with. Its name in addresses. */
export function addWorkspace(title: string, form: string | null): Promise<string> {
  return madeFrom(title, async () => {
    const by = FIRST_HEAD.people[0]!.key;
    await saveDocument(HEAD, { title, ...FIRST_HEAD }, 0, by);
    if (form !== null) await addForm(form, by);
  });
}

/** A copy with everything: documents with their histories, releases, records. Its name in addresses. */
export async function copyWorkspace(from: string, title: string): Promise<string> {
  const original = await existing(from);
  return madeFrom(title, async (copy) => {
    await copyInto(original, copy);
    await saveTitle(title);
  });
}

/** Makes a schema with its tables, fills it, and only then puts it on the list: one that fails half way is not there. */
export async function madeFrom(
  title: string,
  fill: (workspace: WorkspaceRef) => Promise<void>,
): Promise<string> {
  const listed = await listWorkspaces();
  if (listed.length >= WORKSPACES)
    throw new Refusal(422, `There are at most ${WORKSPACES} workspaces. Remove one first.`);
  return withNewSchema(async (schema) => {
    const workspace = { name: schema, schema };
    await inWorkspace(workspace, async () => {
      await migrateWorkspace();
      await fill(workspace);
    });
    return enter(title, schema);
  });
}

/** Puts a workspace on the list under a name that none has. */
async function enter(title: string, schema: string): Promise<string> {
  for (;;) {
    const taken = new Set((await listWorkspaces()).map(({ name }) => name));
    const name = workspaceName(title, taken);
    const rows = await askRegistry(
      'insert into workspace (name, schema, title) values ($1, $2, $3) on conflict do nothing returning 1',
      [name, schema, title],
    );
    // Somebody else may have taken it meanwhile.
    if (rows.length > 0) return name;
  }
}

/** Another title, also in the workspace itself; addresses stay as they are. */
export async function renameWorkspace(name: string, title: string): Promise<void> {
  const workspace = await existing(name);
  await inWorkspace(workspace, () => saveTitle(title));
  await askRegistry('update workspace set title = $2 where name = $1', [name, title]);
}

async function saveTitle(title: string): Promise<void> {
  for (;;) {
    const head = await readDocument(HEAD);
    if (head === null) throw new Refusal(404, 'The workspace has no title to change.');
    const by = head.content.people[0]!.key;
    const saved = await saveDocument(HEAD, { ...head.content, title }, head.revision, by);
    if (saved.saved) return;
  }
}

/** Out of the way, or back: an archived workspace stays as it is and can be opened. */
export async function archiveWorkspace(name: string, archived: boolean): Promise<void> {
  await existing(name);
  await askRegistry(
    `update workspace set archived_at = ${archived ? 'now()' : 'null'} where name = $1`,
    [name],
  );
}

/** Removes a workspace; it can be restored for thirty days. The first one stays. */
export async function removeWorkspace(name: string): Promise<void> {
  const { schema } = await existing(name);
  if (schema === HOME.schema)
    throw new Refusal(
      422,
      'The first workspace stands at the root addresses and cannot be removed.',
    );
  await askRegistry('update workspace set removed_at = now() where name = $1', [name]);
  forgetFound();
}

export async function restoreWorkspace(name: string): Promise<void> {
  const rows = await askRegistry(
    'update workspace set removed_at = null where name = $1 and removed_at is not null returning 1',
    [name],
  );
  if (rows.length === 0) throw new Refusal(404, `No workspace "${name}" can be restored.`);
}

async function existing(name: string): Promise<WorkspaceRef> {
  const workspace = await findWorkspace(name);
  if (workspace === null) throw new Refusal(404, `There is no workspace "${name}".`);
  return workspace;
}
