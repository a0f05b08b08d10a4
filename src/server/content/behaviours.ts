/** Scripts, of one form or shared: saved, removed, put in order, looked up in their history. */
import { BEHAVIOURS_PER_FORM, BEHAVIOUR_CHARACTERS, SHARED_SCRIPTS } from '../../core/limits';
import { and, eq, isNotNull } from 'drizzle-orm';
import {
  FOR_SEVERAL,
  isBehaviourName,
  isModuleFile,
  isOwn,
  MODULES,
} from '../../core/script/script-name';
import { renamedInScenario, renumbered } from '../../core/structure/behaviours';
import { transaction } from '../database/database';
import { Refusal } from '../http/refusal';
import {
  historyOf,
  readDocuments,
  removeDocument,
  renameDocuments,
  saveDocument,
  type Key,
} from '../revisions/documents';
import type { Saved } from '../revisions/save';
import * as schema from '../database/schema';
import type { StoredBehaviour } from './read';

/** The file of a behaviour. Throws a Refusal (400) for anything else. */
function behaviourName(name: string): string {
  if (!isBehaviourName(name)) throw new Refusal(400, 'A behaviour is named like 10-start.ts.');
  return name;
}

/** The document of a form's own behaviour. Throws a Refusal (400) for a name that is none. */
export function ownScript(form: string, name: string): ScriptKey {
  return { kind: 'behaviour', form, name: behaviourName(name) };
}

/** The document of a shared module or of a behaviour for several forms. Throws a Refusal (400) for a name that is none. */
export function sharedScript(folder: string, file: string): ScriptKey {
  const name = `${folder}/${file}`;
  if (
    name.startsWith(MODULES)
      ? !isModuleFile(file)
      : !(`${folder}/` === FOR_SEVERAL && isBehaviourName(file))
  )
    throw new Refusal(
      400,
      'A shared module is named like shared/dates.ts, a behaviour for several forms like behaviours/20-amounts.ts.',
    );
  return { kind: 'shared', name };
}

/** The name of a script of whichever kind. Throws a Refusal (400) for anything else. */
export function scriptName(name: string): string {
  if (isOwn(name)) return behaviourName(name);
  const at = name.indexOf('/');
  return sharedScript(name.slice(0, at), name.slice(at + 1)).name;
}

export type ScriptKey = Key<'behaviour' | 'shared'>;

export type SaveResult =
  { saved: true; revision: number } | { saved: false; theirs: StoredBehaviour };

/** Saves a script made from revision `from`; 0 makes a new one. */
export async function saveScript(
  key: ScriptKey,
  text: string,
  from: number,
  by: string,
): Promise<SaveResult> {
  if (text.length > BEHAVIOUR_CHARACTERS)
    throw new Refusal(413, `A script has at most ${BEHAVIOUR_CHARACTERS} characters.`);
  if (from === 0) await needRoom(key);
  return answered(key, await saveDocument(key, text, from, by));
}

async function needRoom({ kind, form = '' }: ScriptKey): Promise<void> {
  const there = (await readDocuments(kind, form)).length;
  if (kind === 'behaviour' && there >= BEHAVIOURS_PER_FORM)
    throw new Refusal(422, `A form has at most ${BEHAVIOURS_PER_FORM} behaviours.`);
  if (kind === 'shared' && there >= SHARED_SCRIPTS)
    throw new Refusal(
      422,
      `A workspace has at most ${SHARED_SCRIPTS} shared modules and behaviours for several forms.`,
    );
}

/** Removes a script at revision `from`; its revisions stay, so that saving it again brings it back. */
export async function removeScript(key: ScriptKey, from: number, by: string): Promise<SaveResult> {
  return answered(key, await removeDocument(key, from, by));
}

function answered({ name }: ScriptKey, result: Saved<string>): SaveResult {
  return result.saved
    ? result
    : {
        saved: false,
        theirs: { name, text: result.theirs.content ?? '', revision: result.theirs.revision },
      };
}

/** Brings the behaviours of a form into an order, in which those for several forms stand too, by numbering the names of its own; gives what was renamed. Throws a Refusal (409) when `order` does not name just the behaviours there are. */
export function orderBehaviours(
  form: string,
  order: readonly string[],
  by: string,
): Promise<{ from: string; to: string }[]> {
  return transaction(async (tx) => {
    const { document } = schema;
    const there = await tx
      .select({ name: document.name })
      .from(document)
      .where(
        and(eq(document.kind, 'behaviour'), eq(document.form, form), isNotNull(document.content)),
      )
      .for('update');
    const own = order.filter(isOwn);
    const names = new Set(own);
    if (
      there.length !== own.length ||
      names.size !== own.length ||
      !there.every(({ name }) => names.has(name))
    ) {
      throw new Refusal(
        409,
        'Somebody else has added, removed or moved a behaviour meanwhile. Reload to see it.',
      );
    }
    const renames = renumbered(order);
    if (renames === null)
      throw new Refusal(
        422,
        'Behaviours for several forms keep their place, and there is no number left beside them. Give the file of one of them another number.',
      );
    await renameDocuments(tx, 'behaviour', form, renames);
    for (const { name, content, revision } of await readDocuments('scenario', form)) {
      const after = renamedInScenario(content, renames);
      if (after !== content)
        await saveDocument({ kind: 'scenario', form, name }, after, revision, by, tx);
    }
    return renames;
  });
}

/** Texts a script has had, the newest first; without those moments at which it was removed. */
export async function scriptHistory(
  key: ScriptKey,
  before?: number,
): Promise<{ revision: number; text: string; savedBy: string | null; savedAt: string }[]> {
  const revisions = await historyOf(key, before);
  return revisions.flatMap(({ content, ...rest }) =>
    content === null ? [] : [{ ...rest, text: content }],
  );
}
