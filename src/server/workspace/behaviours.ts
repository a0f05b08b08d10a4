/** The behaviours of a form: saved, removed, put in order, looked up in their history. */
import { BEHAVIOURS_PER_FORM, BEHAVIOUR_CHARACTERS } from '../../core/limits';
import { and, eq, isNotNull } from 'drizzle-orm';
import { isBehaviourName } from '../../core/workspace/behaviour-name';
import { renamedInScenario, renumbered } from '../../core/structure/behaviours';
import { transaction } from '../database';
import { Refusal } from '../http/refusal';
import {
  historyOf,
  readDocuments,
  removeDocument,
  renameDocuments,
  saveDocument,
} from '../revisions/documents';
import * as schema from '../schema';
import type { StoredBehaviour } from './read';

/** The file of a behaviour. Throws a Refusal (400) for anything else. */
export function behaviourName(name: string): string {
  if (!isBehaviourName(name)) throw new Refusal(400, 'A behaviour is named like 10-pilot.ts.');
  return name;
}

export type SaveResult =
  { saved: true; revision: number } | { saved: false; theirs: StoredBehaviour };

/** Saves a behaviour made from revision `from`; 0 makes a new one. */
export async function saveBehaviour(
  form: string,
  name: string,
  text: string,
  from: number,
  by: string,
): Promise<SaveResult> {
  if (text.length > BEHAVIOUR_CHARACTERS)
    throw new Refusal(413, `A behaviour has at most ${BEHAVIOUR_CHARACTERS} characters.`);
  if (from === 0 && (await readDocuments('behaviour', form)).length >= BEHAVIOURS_PER_FORM)
    throw new Refusal(422, `A form has at most ${BEHAVIOURS_PER_FORM} behaviours.`);
  const result = await saveDocument({ kind: 'behaviour', form, name }, text, from, by);
  return result.saved
    ? result
    : {
        saved: false,
        theirs: { name, text: result.theirs.content ?? '', revision: result.theirs.revision },
      };
}

/** Removes a behaviour at revision `from`; its revisions stay, so that saving it again brings it back. */
export async function removeBehaviour(
  form: string,
  name: string,
  from: number,
  by: string,
): Promise<SaveResult> {
  const result = await removeDocument({ kind: 'behaviour', form, name }, from, by);
  return result.saved
    ? result
    : {
        saved: false,
        theirs: { name, text: result.theirs.content ?? '', revision: result.theirs.revision },
      };
}

/** Brings the behaviours of a form into an order by numbering their names; gives what was renamed. Throws a Refusal (409) when `order` does not name just the behaviours there are. */
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
    const names = new Set(order);
    if (
      there.length !== order.length ||
      names.size !== order.length ||
      !there.every(({ name }) => names.has(name))
    ) {
      throw new Refusal(
        409,
        'Somebody else has added, removed or moved a behaviour meanwhile. Reload to see it.',
      );
    }
    const renames = renumbered(order);
    await renameDocuments(tx, 'behaviour', form, renames);
    for (const { name, content, revision } of await readDocuments('scenario', form)) {
      const after = renamedInScenario(content, renames);
      if (after !== content)
        await saveDocument({ kind: 'scenario', form, name }, after, revision, by, tx);
    }
    return renames;
  });
}

/** Texts a behaviour has had, the newest first; without those moments at which it was removed. */
export async function behaviourHistory(
  form: string,
  name: string,
  before?: number,
): Promise<{ revision: number; text: string; savedBy: string | null; savedAt: string }[]> {
  const revisions = await historyOf({ kind: 'behaviour', form, name }, before);
  return revisions.flatMap(({ content, ...rest }) =>
    content === null ? [] : [{ ...rest, text: content }],
  );
}
