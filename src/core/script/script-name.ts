/**
 * Names of scripts: a form's own behaviours are called by their file (`10-pilot.ts`), behaviours for several forms by
 * their path in the workspace (`behaviours/20-amounts.ts`), and so are shared modules (`shared/dates.ts`).
 */
import { BEHAVIOUR_NAME_CHARACTERS } from '../limits';

export const MODULES = 'shared/';
export const FOR_SEVERAL = 'behaviours/';

/** Whether this names the file of a behaviour, such as `10-pilot.ts`. */
export function isBehaviourName(name: string): boolean {
  return name.length <= BEHAVIOUR_NAME_CHARACTERS && /^[a-z0-9][a-z0-9_-]*\.(?:ts|js)$/.test(name);
}

/** Whether this names the file of a shared module, such as `dates.ts`. */
export function isModuleFile(file: string): boolean {
  return isBehaviourName(file) && file.endsWith('.ts');
}

export function isModule(name: string): boolean {
  return name.startsWith(MODULES);
}

/** Whether it belongs to a form alone. */
export function isOwn(name: string): boolean {
  return !name.includes('/');
}

/** The file of a script without the folder it stands in. */
export function fileName(name: string): string {
  return name.slice(name.lastIndexOf('/') + 1);
}

/** What a script is called on the tape and where it is imported: its name without the ending. */
export function baseName(name: string): string {
  return name.replace(/\.[jt]s$/, '');
}
