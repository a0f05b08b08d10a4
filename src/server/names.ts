/** The names that routes take from their paths. */
import * as z from 'zod';
import { Refusal } from './request';

const BehaviourName = z.string().regex(/^[a-z0-9][a-z0-9_-]*\.(ts|js)$/).max(80);

/** The file of a behaviour. Throws a Refusal (400) for anything else. */
export function behaviourName(name: string): string {
  if (!BehaviourName.safeParse(name).success) throw new Refusal(400, 'A behaviour is named like 10-pilot.ts.');
  return name;
}
