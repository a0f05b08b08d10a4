/** What a search got to and what it did not, in numbers and names. */
import { fieldsOf } from '../form/fields';
import type { Exploration } from './exploration';

export interface Reached {
  /** Fields that people fill in, and those of them that were filled in in some session. */
  fields: number;
  filled: number;
  /** Conditions that were met, and those of them that came out both ways. */
  conditions: number;
  bothWays: number;
  /** Fields that were never on screen. */
  unseen: readonly string[];
}

export function reachedBy({ covered, drivers, ground, mentions }: Exploration): Reached {
  const met = mentions.conditions.flatMap((name) => covered.conditions.get(name) ?? []);
  return {
    fields: drivers.length,
    filled: drivers.filter(({ address }) => covered.filled.has(address)).length,
    conditions: mentions.conditions.length,
    bothWays: met.filter(({ outcomes }) => outcomes.size > 1).length,
    unseen: fieldsOf(ground.form).flatMap(({ name }) => (covered.onScreen.has(name) ? [] : [name])),
  };
}

/** What several searches reached together, as far as that can be told: the best of them. */
export function reachedTogether(one: Reached, other: Reached): Reached {
  return {
    fields: other.fields,
    filled: Math.max(one.filled, other.filled),
    conditions: other.conditions,
    bothWays: Math.max(one.bothWays, other.bothWays),
    unseen: other.unseen.filter((name) => one.unseen.includes(name)),
  };
}
