/**
 * Two places that hold the same things, such as the app and a folder, after each of them has changed: what goes from one
 * to the other, and what both changed. Things are compared by their digests, or by whatever else is equal when they are.
 */

export type Digests = ReadonlyMap<string, string>;

export interface Reconciled {
  /** Changed, added or removed in the folder alone. */
  fromFolder: string[];
  /** Changed, added or removed in the app alone. */
  fromApp: string[];
  /** Changed in both, and not to the same. */
  conflicts: string[];
  /** What both had in common last, where they are the same now. */
  base: Map<string, string>;
}

/** `base` is what both had when they were the same last, thing by thing. */
export function reconcile(base: Digests, app: Digests, folder: Digests): Reconciled {
  const found: Reconciled = { fromFolder: [], fromApp: [], conflicts: [], base: new Map(base) };
  for (const key of [...new Set([...base.keys(), ...app.keys(), ...folder.keys()])].toSorted()) {
    const [was, mine, theirs] = [base.get(key), app.get(key), folder.get(key)];
    if (mine === theirs) {
      if (mine === undefined) found.base.delete(key);
      else found.base.set(key, mine);
    } else if (mine === was) found.fromFolder.push(key);
    else if (theirs === was) found.fromApp.push(key);
    else found.conflicts.push(key);
  }
  return found;
}
