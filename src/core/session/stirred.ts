/**
 * Rules that wait for their turn, the first in order first. Rules for each row share an order, so there are as many
 * groups as rules were written, however many rows there are.
 */
import type { Rule } from './ties';

export class Stirred {
  readonly #groups = new Map<number, Set<Rule>>();

  add(rule: Rule): void {
    const group = this.#groups.get(rule.order);
    if (group === undefined) this.#groups.set(rule.order, new Set([rule]));
    else group.add(rule);
  }

  delete(rule: Rule): void {
    const group = this.#groups.get(rule.order);
    if (group === undefined || !group.delete(rule)) return;
    if (group.size === 0) this.#groups.delete(rule.order);
  }

  clear(): void {
    this.#groups.clear();
  }

  /** The first in order, of one order the one that was stirred first; null when none waits. */
  first(): Rule | null {
    let least = Infinity;
    for (const order of this.#groups.keys()) if (order < least) least = order;
    for (const rule of this.#groups.get(least) ?? []) return rule;
    return null;
  }
}
