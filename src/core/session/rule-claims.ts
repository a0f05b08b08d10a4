/**
 * What rules say. Each good run of a rule replaces all that its last one said; of an aspect that it
 * no longer mentions shows again what stood below. A rule sees every part as it shows now, except that of an aspect it
 * speaks of itself it sees what stands below its own words: so its own words never set it off, and what a later rule
 * steers is never missed. That a rule has to run again is judged by value and not by a version: something that changed
 * and changed back has changed nothing that the rule could say otherwise.
 *
 * Values are one slot. What rules say of them waits until no rule is left to run and is put in place then, of each rule
 * what its last run said, of several rules what the winner says, so that no value is written from a state that does not
 * last.
 */
import { equal, type Value } from '../form/value';
import type { Aspect, RunRecord } from './aspects';
import type { Event, Progress } from './progress';
import type { State } from './state';
import type { TapeWriter } from './tape-writer';
import type { Rule } from './tie';
import { Writes, type Writing } from './writing';
import type { Line } from '../wire/line';

/** What a rule said in one run. */
export interface Claim {
  value: Value;
  line: Line;
}
export type Said = Map<Aspect, Claim>;

/** What a rule sees of an aspect now. */
export function seenBy(rule: Rule, aspect: Aspect): Value {
  return aspect.ruleClaims.length > 0 && rule.claims.has(aspect)
    ? aspect.below(rule)
    : aspect.current;
}

/** The first of what a rule read that differs by value from what it saw; null when nothing does. */
export function differing(rule: Rule): Aspect | null {
  if (rule.reads === null) return null;
  for (const [aspect, seen] of rule.reads) {
    const now = seenBy(rule, aspect);
    if (now !== seen && !equal(now, seen)) return aspect;
  }
  return null;
}

export class RuleClaims {
  /**
   * Values to be put in place, by the rule that said them or fell silent, in the order in which rules did first. Not
   * undone entry by entry: `settling.ts` has it forgotten when the step is taken back.
   */
  #due = new Map<Rule, Set<Aspect>>();

  constructor(
    private readonly state: State,
    private readonly tape: TapeWriter,
    private readonly progress: Progress,
    private readonly writing: Writing,
  ) {}

  /** Replaces what the rule's last run said with what this one says. */
  settle(
    rule: Rule,
    said: ReadonlyMap<Aspect, Claim>,
    reads: Map<Aspect, Value>,
    record: RunRecord,
    entry: number | null,
  ): void {
    const { claims: old, last, reads: oldReads } = rule;
    this.progress.journal.undoable(() => {
      rule.claims = old;
      rule.last = last;
      this.#depend(rule, oldReads);
    });
    rule.claims = said;
    rule.last = { record, entry };
    if (old.size > 0)
      for (const aspect of old.keys()) if (!said.has(aspect)) this.#withdraw(rule, aspect);
    for (const [aspect, word] of said) {
      const standing = old.get(aspect);
      // Most runs say again what the last one said.
      const same = standing !== undefined && equal(standing.value, word.value);
      if (aspect.sticks || aspect.derive !== null) {
        if (!same) this.state.setRuleClaim(aspect, rule, word, record);
        if (!same || !equal(aspect.current, word.value)) this.#owe(rule, aspect);
        continue;
      }
      if (same) continue;
      const from = aspect.current;
      this.state.setRuleClaim(aspect, rule, word, record);
      this.#tapeClaim(rule, aspect, from, word, standing === undefined);
      this.#noteConflict(rule, aspect);
    }
    this.#depend(rule, reads);
  }

  #owe(rule: Rule, aspect: Aspect): void {
    const owed = this.#due.get(rule);
    if (owed === undefined) this.#due.set(rule, new Set([aspect]));
    else owed.add(aspect);
  }

  #withdraw(rule: Rule, aspect: Aspect): void {
    const from = aspect.current;
    const { record, entry } = rule.last!;
    const shows = aspect.winner?.rule === rule;
    this.state.setRuleClaim(aspect, rule, null, record);
    if (aspect.sticks || aspect.derive !== null) {
      // The value stays, unless a rule that was covered until now says it differently.
      if (shows && aspect.winner !== null) this.#owe(rule, aspect);
      return;
    }
    if (!this.tape.on || !shows) return;
    const again = aspect.winner;
    if (equal(from, aspect.current) && again === null) return;
    this.tape.effect(entry, aspect, from, aspect.current, {
      by: 'script',
      line: null,
      withdrawn: true,
      ...(again === null
        ? {}
        : {
            again: {
              behaviour: again.rule.behaviour.name,
              title: again.rule.title,
              line: again.line,
            },
          }),
    });
  }

  /** Tapes a word that shows, or is covered by a later rule's; one that is new and shows even when it changes nothing. */
  #tapeClaim(
    rule: Rule,
    aspect: Aspect,
    from: Value,
    word: { value: Value; line: Line },
    isNew: boolean,
  ): void {
    if (!this.tape.on) return;
    const covered = !equal(word.value, aspect.current);
    const decides = isNew && aspect.winner?.rule === rule;
    if (equal(from, aspect.current) && !covered && !decides) return;
    this.tape.effect(rule.last!.entry, aspect, from, word.value, {
      by: 'script',
      line: word.line,
      ...(covered ? { covered: true as const } : {}),
    });
  }

  #noteConflict(rule: Rule, aspect: Aspect): void {
    const { ruleClaims, winner } = aspect;
    if (
      !this.tape.on ||
      ruleClaims.length < 2 ||
      ruleClaims.every((word) => equal(word.value, winner!.value))
    )
      return;
    this.tape.add(rule.last!.entry, {
      type: 'conflict',
      part: aspect.part.name,
      aspect: aspect.name,
      between: ruleClaims.map((word) => word.rule.title),
      wins: winner!.rule.title,
    });
  }

  /** Puts in place what rules say of values, now that no rule is left to run; gives the events that follow from it, or null when nothing was due. */
  putValues(): readonly Event[] | null {
    if (this.#due.size === 0) return null;
    const due = [...this.#due].sort((a, b) => a[0].order - b[0].order);
    this.#due = new Map();
    return due.flatMap(([rule, aspects]) => {
      const writes = new Writes(rule.last!.record, rule.last!.entry);
      for (const aspect of aspects) this.#putValue(rule, aspect, writes);
      return this.writing.told(writes);
    });
  }

  #putValue(rule: Rule, aspect: Aspect, writes: Writes): void {
    const { winner } = aspect;
    if (winner === null || aspect.part.row?.removed === true) return;
    const own = rule.claims.get(aspect);
    this.#noteConflict(rule, aspect);
    // A later rule that says otherwise wins, and puts its own word in place where it has something new to say.
    if (own !== undefined && !equal(own.value, winner.value)) return;
    const { value, line } = own ?? winner;
    const before = this.#seenBefore(rule, aspect);
    if (this.writing.value(writes, aspect, value, line))
      for (const [seen, was] of before) this.#seeOwn(rule, seen, was);
    else if (own !== undefined) this.#tapeDecided(writes, aspect, value, line);
  }

  /** A rule that says what stands there anyway is on the tape as the one who decides it. */
  #tapeDecided(writes: Writes, aspect: Aspect, value: Value, line: Line): void {
    if (aspect.changedBy?.tie === writes.record.tie) return;
    this.tape.effect(writes.entry, aspect, value, value, { by: 'script', line });
  }

  /** What the rule has read that this value is, or is computed into, with its value before the write. */
  #seenBefore(rule: Rule, aspect: Aspect): [Aspect, Value][] {
    const rows = aspect.part.row?.rows ?? aspect.part.rows;
    return [...(rule.reads ?? [])]
      .filter(
        ([read, seen]) =>
          (read === aspect ||
            (rows !== null && read.part.rows === rows) ||
            read.part.row?.rows === rows) &&
          equal(seen, read.current),
      )
      .map(([read, seen]) => [read, seen]);
  }

  /** A rule's own writes never set it off: it counts as having seen them. */
  #seeOwn(rule: Rule, read: Aspect, was: Value): void {
    const { reads } = rule;
    if (reads === null || (!read.sticks && read.derive === null)) return;
    rule.reads = new Map(reads).set(read, read.current);
    this.progress.journal.undoable(() => {
      rule.reads = new Map(rule.reads).set(read, was);
    });
  }

  /** Makes a rule depend on what it read in a run that failed. */
  remember(rule: Rule, reads: Rule['reads']): void {
    const before = rule.reads;
    this.#depend(rule, reads);
    this.progress.journal.undoable(() => this.#depend(rule, before));
  }

  #depend(rule: Rule, reads: Rule['reads']): void {
    const before = rule.reads;
    rule.reads = reads;
    if (before !== null && reads !== null && sameKeys(before, reads)) return;
    if (before !== null) for (const aspect of before.keys()) aspect.readers?.delete(rule);
    if (reads !== null) for (const aspect of reads.keys()) aspect.readBy(rule);
  }

  /** The step was taken back: nothing is due. */
  forget(): void {
    if (this.#due.size > 0) this.#due = new Map();
  }
}

function sameKeys(a: ReadonlyMap<Aspect, Value>, b: ReadonlyMap<Aspect, Value>): boolean {
  if (a.size !== b.size) return false;
  for (const key of a.keys()) if (!b.has(key)) return false;
  return true;
}
