/** Editing structure where it reaches beyond the form: what uses a part, and renaming it everywhere at once. */
import { sql } from 'drizzle-orm';
import type { RenamePlan } from '../../core/structure/rename';
import type { ExportRenaming } from '../../core/structure/rename-export';
import type { Uses } from '../../core/structure/uses';
import { transaction } from '../database/database';
import { Refusal } from '../http/refusal';
import { countRecords, type Count } from '../records/read';
import { holdsKey, holdsPart, rekeyInRecords, renameInRecords } from '../records/rename';
import { readAllDocuments, saveDocument, type Contents, type Kind } from '../revisions/documents';
import type { Transaction } from '../database/database';
import { task } from '../machines/tasks';
import { readForm, readReach } from './read';

export interface KeyUses {
  mentions: Uses['mentions'];
  scenarios: string[];
  records: Count;
}

/** What uses a part, or one key of its options; for a key also how many records hold it. */
export async function whatUses(
  form: string,
  part: string,
  key: string | null,
): Promise<Uses | KeyUses> {
  const reach = await readReach();
  const definition = await readForm(form);
  if (definition === null) throw new Refusal(404, `There is no form "${form}".`);
  const uses = await task('uses', { reach, form, part, key });
  return key === null
    ? (uses as Uses)
    : {
        ...(uses as Omit<KeyUses, 'records'>),
        records: await countRecords(form, holdsKey(part, key)),
      };
}

export interface Renaming {
  plan: Pick<RenamePlan, 'part' | 'key' | 'to' | 'sort' | 'behaviours' | 'mentions'> & {
    forms: string[];
    scenarios: { name: string; title: string }[];
  };
  records: Count;
  applied: boolean;
}

/**
 * Plans a renaming of a part, or of one key of its options, and, when asked to, takes it over in one transaction. The plan is made again then, so it takes in what
 * was saved since it was shown; when somebody saves while it is being made, nothing is changed and that is said (409).
 */
export async function renamePart(
  form: string,
  { part, key, to }: { part: string; key: string | null; to: string },
  apply: boolean,
  by: string,
): Promise<Renaming> {
  const before = await revisions();
  const plan = await task('planRename', { reach: await readReach(), form, part, key, to });
  const records = plan.inRecords
    ? await countRecords(form, key === null ? holdsPart(part, plan.sort) : holdsKey(part, key))
    : { count: 0, more: false };
  if (apply) await transaction((tx) => takeOver(tx, plan, before, by));
  const { sort, behaviours, mentions } = plan;
  return {
    plan: {
      part,
      key,
      to,
      sort,
      behaviours,
      mentions,
      forms: plan.forms.map((one) => one.title),
      scenarios: plan.scenarios.map(({ name, title }) => ({ name, title })),
    },
    records,
    applied: apply,
  };
}

/**
 * Plans giving another name to what a shared module exports, in every script of the workspace, and, when asked to,
 * takes it over, as `renamePart` does.
 */
export async function renameExport(
  module: string,
  position: number,
  to: string,
  apply: boolean,
  by: string,
): Promise<{ scripts: ExportRenaming; applied: boolean }> {
  const before = await revisions();
  const scripts = await task('planExportRename', {
    reach: await readReach(),
    module,
    position,
    to,
  });
  if (apply)
    await transaction(async (tx) => {
      await lockUnchanged(tx, before);
      for (const { form, name, text } of scripts) {
        const kind = form === '' ? 'shared' : 'behaviour';
        await saveDocument(
          { kind, form, name },
          text,
          before.get(keyOf(kind, form, name))!,
          by,
          tx,
        );
      }
    });
  return { scripts, applied: apply };
}

const RENAMED = ['form', 'behaviour', 'scenario', 'shared'] as const;

const keyOf = (kind: Kind, form: string, name: string) => `${kind} ${form} ${name}`;

/** The revisions of everything a renaming may change. */
async function revisions(): Promise<Map<string, number>> {
  const all = await Promise.all(
    RENAMED.map(async (kind) =>
      (await readAllDocuments(kind)).map(
        ({ form, name, revision }) => [keyOf(kind, form, name), revision] as const,
      ),
    ),
  );
  return new Map(all.flat());
}

/** Nobody saves from now on, and nothing was saved since `before`. Throws a Refusal (409) when something was. */
async function lockUnchanged(tx: Transaction, before: ReadonlyMap<string, number>): Promise<void> {
  // So that the old name comes back nowhere.
  await tx.execute(sql`lock table document in share row exclusive mode`);
  const { rows } = await tx.execute(
    sql`select kind, form, name, revision from document where kind in ('form', 'behaviour', 'scenario', 'shared') and content is not null`,
  );
  const other = rows.find(
    (row) =>
      before.get(keyOf(row.kind as Kind, row.form as string, row.name as string)) !== row.revision,
  );
  if (other !== undefined || rows.length !== before.size) {
    throw new Refusal(
      409,
      `Somebody saved ${other === undefined ? 'something' : String(other.name)} while this was being renamed. Nothing was changed: look at what would change again.`,
    );
  }
}

async function takeOver(
  tx: Transaction,
  plan: RenamePlan,
  before: ReadonlyMap<string, number>,
  by: string,
): Promise<void> {
  await lockUnchanged(tx, before);
  const save = <K extends Kind>(kind: K, form: string, name: string, content: Contents[K]) =>
    saveDocument({ kind, form, name }, content, before.get(keyOf(kind, form, name))!, by, tx);
  for (const form of plan.forms) await save('form', '', form.name, form);
  for (const { form, name, text } of plan.behaviours) await save('behaviour', form, name, text);
  for (const { form, name, scenario } of plan.scenarios)
    await save('scenario', form, name, scenario);
  if (!plan.inRecords) return;
  if (plan.key === null) await renameInRecords(tx, plan.form, plan.part, plan.to, plan.sort);
  else await rekeyInRecords(tx, plan.form, plan.part, plan.key, plan.to);
}
