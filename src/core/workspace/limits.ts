/** What a form may have of behaviours, and how they are named. */

/** Characters of one behaviour. */
export const MOST_CHARACTERS = 500_000;

/** Behaviours of one form. */
export const MOST_BEHAVIOURS = 500;

/** Whether this names the file of a behaviour, such as `10-pilot.ts`. */
export function isBehaviourName(name: string): boolean {
  return name.length <= 80 && /^[a-z0-9][a-z0-9_-]*\.(?:ts|js)$/.test(name);
}
