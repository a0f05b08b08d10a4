import { BEHAVIOUR_NAME_CHARACTERS } from '../limits';

/** Whether this names the file of a behaviour, such as `10-pilot.ts`. */
export function isBehaviourName(name: string): boolean {
  return name.length <= BEHAVIOUR_NAME_CHARACTERS && /^[a-z0-9][a-z0-9_-]*\.(?:ts|js)$/.test(name);
}
