/**
 * Aspects: what can be said of a part. Each has the layers of what was said: the base of the definition, above it the
 * last word of a handler, above that the words of rules in their order. Values are one slot
 * instead: they stick whoever wrote them. Who may say what, and what follows, is `running.ts` and `rule-claims.ts`.
 */
import type { Value } from '../form/value';
import type { SaidName } from '../wire/aspects';
import type { Restore } from './checkpoint';
import type { Part } from './parts';
import type { Rule } from './tie';
import type { Line } from '../wire/line';

/** What can be said of parts, and what is computed for them. A new one is missed by the compiler wherever it is. */
export type AspectName = SaidName | 'changed' | 'values' | 'order' | 'count' | `sum:${string}`;
/** What one rule says of an aspect at present. */
export interface RuleClaim {
  rule: Rule;
  value: Value;
  line: Line;
}

const NONE: readonly RuleClaim[] = [];

export class Aspect {
  /** The last word of a handler. Boxed, since null is a word too, and so that a superseded run knows its own. */
  handlerClaim: { value: Value } | null = null;
  /** In the order of the rules, so that the last one wins. Replaced, never changed in place. */
  ruleClaims: readonly RuleClaim[] = NONE;
  /** Rules whose last run read this; null while none has. */
  readers: Set<Rule> | null = null;
  /** The run that last changed it, for printing cycles. Null for persons and the form. */
  changedBy: RunRecord | null = null;
  /** Values are one slot: rules' words of them are kept only to tell who wins. */
  readonly sticks: boolean;

  constructor(
    readonly part: Part,
    readonly name: AspectName,
    /** What the definition says; for `value`, the value itself, since values stick whoever wrote them. */
    public base: Value,
    /** Computed from other things instead of said: the value, count and sums of rows. */
    readonly derive: (() => Value) | null = null,
  ) {
    this.sticks = name === 'value';
  }

  readBy(rule: Rule): void {
    (this.readers ??= new Set()).add(rule);
  }

  /** What holds now. */
  get current(): Value {
    if (this.derive !== null) return this.derive();
    if (this.sticks) return this.base;
    const { ruleClaims } = this;
    if (ruleClaims.length > 0) return ruleClaims[ruleClaims.length - 1]!.value;
    return this.handlerClaim === null ? this.base : this.handlerClaim.value;
  }

  /** What stands below what a rule says of it: base, handlers and earlier rules. */
  below(rule: Rule): Value {
    if (this.derive !== null) return this.derive();
    if (this.sticks) return this.base;
    const { ruleClaims } = this;
    for (let i = ruleClaims.length - 1; i >= 0; i--) {
      if (ruleClaims[i]!.rule.order < rule.order) return ruleClaims[i]!.value;
    }
    return this.handlerClaim === null ? this.base : this.handlerClaim.value;
  }

  /** The word list with this rule's word put in, replaced, or (null) taken out. */
  withClaim(rule: Rule, word: { value: Value; line: Line } | null): readonly RuleClaim[] {
    const others = this.ruleClaims.filter((w) => w.rule !== rule);
    if (word === null) return others.length === 0 ? NONE : others;
    others.push({ rule, value: word.value, line: word.line });
    return others.length === 1 ? others : others.sort((a, b) => a.rule.order - b.rule.order);
  }

  /** The winning word of a rule; null while no rule says anything. */
  get winner(): RuleClaim | null {
    return this.ruleClaims[this.ruleClaims.length - 1] ?? null;
  }

  checkpoint(): Restore {
    const { base, handlerClaim, ruleClaims, changedBy } = this;
    // The order of readers is the order in which rules of one order have their turn.
    const readers = this.readers === null || this.readers.size === 0 ? null : [...this.readers];
    return () => {
      if (this.derive === null) this.base = base;
      this.handlerClaim = handlerClaim;
      this.ruleClaims = ruleClaims;
      this.changedBy = changedBy;
      this.readers = readers === null ? null : new Set(readers);
    };
  }

  /** Forgets all that was said. */
  reset(base: Value): void {
    this.handlerClaim = null;
    this.ruleClaims = NONE;
    this.readers?.clear();
    this.changedBy = null;
    if (this.derive === null) this.base = base;
  }
}

/** A run as far as printing a cycle needs it: what ran, because of which part, after which other run. */
export interface RunRecord {
  behaviour: string;
  line: Line;
  tie: object;
  because: string | null;
  before: RunRecord | null;
}
