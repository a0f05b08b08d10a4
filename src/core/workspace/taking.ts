/** Taking changes of a folder into a workspace: what they are, in words, and the workspace with those that were chosen. */
import { BrokenWorkspace, readWorkspace, type Workspace } from './workspace';
import { differences } from './difference';
import { reconcile, type Digests } from './reconcile';
import {
  contentOfUnit,
  filesOfUnit,
  placeOfUnit,
  unitOf,
  unitsIn,
  type UnitContent,
  type UnitPlace,
} from './units';
import { writeWorkspace } from './write';

export interface Change {
  /** The unit (`units.ts`). */
  unit: string;
  is: 'new' | 'changed' | 'removed';
  /** It was changed on the other side too, since both were the same last. */
  conflict: boolean;
  /** What differs, in words. */
  says: string[];
}

/**
 * What taking `incoming` would change in `mine`. With `base`, the digests of what both had in common last, things that
 * changed in `mine` alone are left out, and those that changed in both are conflicts; without it nothing is known of
 * that, and whatever differs is a change.
 */
export function changesOf(
  mine: Workspace,
  incoming: Workspace,
  base: Digests | null,
  digest: (text: string) => string,
): Change[] {
  const [app, folder] = [mine, incoming].map((workspace) => digestsOf(workspace, digest));
  // Records that are not in the folder are no removal: a folder holds a part of them.
  for (const unit of app!.keys())
    if (placeOfUnit(unit)!.kind === 'records' && !folder!.has(unit)) app!.delete(unit);
  const { fromFolder, conflicts } = reconcile(base ?? app!, app!, folder!);
  const words = new Map<string, string[]>();
  for (const { file, says } of differences(mine, incoming)) {
    const unit = unitOf(file) ?? file;
    words.set(unit, [...(words.get(unit) ?? []), says]);
  }
  return [...fromFolder, ...conflicts].toSorted().map((unit) => ({
    unit,
    is: !app!.has(unit) ? 'new' : !folder!.has(unit) ? 'removed' : 'changed',
    conflict: conflicts.includes(unit),
    says: words.get(unit) ?? [],
  }));
}

/** The digest of each unit in its canonical form. */
export function digestsOf(
  workspace: Workspace,
  digest: (text: string) => string,
): Map<string, string> {
  return new Map(
    [...unitsIn(writeWorkspace(workspace))].map(([unit, text]) => [unit, digest(text)]),
  );
}

/** A document that is saved, or removed where its content is null. */
export type Saving = UnitContent | (UnitPlace & { content: null });

/**
 * The documents that change when some units of `incoming` are taken. Throws BrokenWorkspace where the two together would
 * be none, such as a form taken without the table that it needs.
 */
export function savingsOf(
  mine: Workspace,
  incoming: Workspace,
  units: readonly string[],
): Saving[] {
  const files = writeWorkspace(mine);
  const theirs = writeWorkspace(incoming);
  for (const path of units.flatMap(filesOfUnit)) {
    const text = theirs.get(path);
    if (text === undefined) files.delete(path);
    else files.set(path, text);
  }
  const merged = readWorkspace(files);
  return units.map((unit) => {
    const place = placeOfUnit(unit);
    if (place === null)
      throw new BrokenWorkspace([
        { file: unit, line: 1, path: [], says: 'is no file of a workspace' },
      ]);
    return contentOfUnit(merged, unit) ?? ({ ...place, content: null } as Saving);
  });
}
