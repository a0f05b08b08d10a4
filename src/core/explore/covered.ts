/** What a search has seen so far: parts on screen, what scripts said of them and whether it showed, outcomes of conditions. */
import type { RunEntry } from '../session/entries';
import { placeOf } from '../wire/line';
import { columnOf } from './part-names';
import type { Ran } from './play';
import type { Said } from './said';

export interface Tried {
  /** How often it was met, and how it came out. */
  count: number;
  outcomes: Set<boolean>;
}

/** What a handler said of an aspect, how often people met it, and how often a rule held otherwise. */
export interface SaidInVain {
  behaviour: string;
  line: RunEntry['line'];
  part: string;
  aspect: string;
  met: number;
  missed: number;
}

/** A choice that a run reads to compute a value. */
export interface Influence {
  from: string;
  part: string;
  behaviour: string;
  line: RunEntry['line'];
}

export class Covered {
  readonly onScreen = new Set<string>();
  /** Fields that were filled in. */
  readonly filled = new Set<string>();
  /** Keys that were offered, by field; `all` where the definition's options held. */
  readonly offered = new Map<string, Set<string>>();
  /** Aspects that anybody ever spoke of, as `part.aspect`. */
  readonly said = new Set<string>();
  readonly saidShown = new Set<string>();
  readonly written = new Set<string>();
  readonly conditions = new Map<string, Tried>();
  readonly inVain = new Map<string, SaidInVain>();
  /** Parts whose values one run asks together, so that their order may matter; names in alphabetical order. */
  readonly together = new Map<string, readonly [string, string]>();
  /** By how much a line changed a number that it had read. */
  readonly #changes = new Map<string, Set<number>>();

  /** Whether a line adds what was entered to a number, and not the same each time. */
  addsEntered({ behaviour, line, part }: Pick<Said, 'behaviour' | 'line' | 'part'>): boolean {
    return (this.#changes.get(`${behaviour}:${line} ${part}`)?.size ?? 0) >= 3;
  }

  #noteChange({ behaviour, line, part, from, to, reads }: Said): void {
    if (typeof to !== 'number' || !reads.includes(`${part}.value`)) return;
    const name = `${behaviour}:${line} ${part}`;
    const changes = this.#changes.get(name) ?? new Set();
    changes.add(to - (typeof from === 'number' ? from : 0));
    this.#changes.set(name, changes);
  }

  /** How often another key was tried, and whether it ever made a difference. */
  readonly influences = new Map<string, Influence & { tried: number; differs: boolean }>();

  noteInfluence(influence: Influence, differs: boolean): void {
    const { from, part, behaviour, line } = influence;
    const name = `${from} ${part} ${behaviour}:${line}`;
    const known = this.influences.get(name) ?? { ...influence, tried: 0, differs: false };
    known.tried++;
    known.differs ||= differs;
    this.influences.set(name, known);
  }

  /** Parts that could be changed by somebody in a record, as `person record part`. */
  readonly #open = new Set<string>();

  readonly #everOpen = new Set<string>();

  readonly #everShut = new Set<string>();

  /** Whether a part was ever locked for whoever saw it. */
  wasEverShut(part: string): boolean {
    return this.#everShut.has(columnOf(part));
  }

  /** Whether anybody could ever change a part. */
  wasEverOpen(part: string): boolean {
    return this.#everOpen.has(columnOf(part));
  }

  /** Whether whoever opened a session could ever change a part in that record. */
  wasOpen({ opening }: Pick<Ran, 'opening'>, part: string): boolean {
    return this.#open.has(openedAs(opening, part));
  }

  note(ran: Ran, runs: readonly RunEntry[]): void {
    for (const step of ran.steps) if ('set' in step) this.filled.add(columnOf(step.set));
    for (const seen of [ran.opened.parts, ran.seen.parts])
      for (const [name, part] of Object.entries(seen)) {
        if (!part.onScreen) continue;
        this.onScreen.add(name);
        if (part.editable) {
          this.#open.add(openedAs(ran.opening, name));
          this.#everOpen.add(columnOf(name));
        } else if (ran.opening.viewing !== true) {
          // Whoever only looks at a record can change nothing, whatever scripts say.
          this.#everShut.add(columnOf(name));
        }
        if (part.sort !== 'field') continue;
        const offered = this.offered.get(name) ?? new Set<string>();
        this.offered.set(name, offered);
        for (const key of part.options?.map((option) => option.key) ?? ['all']) offered.add(key);
      }
    for (const run of runs) {
      for (const { line, what, value, condition } of run.values) {
        if (condition !== true) continue;
        const place = placeOf(line, run.behaviour);
        const name = `${place.script}:${place.line}:${what}`;
        const tried = this.conditions.get(name) ?? { count: 0, outcomes: new Set() };
        tried.count++;
        tried.outcomes.add(Boolean(value));
        this.conditions.set(name, tried);
      }
    }
    for (const [a, b] of ran.together) this.together.set(`${a} ${b}`, [a, b]);
    for (const one of ran.said) {
      const { part, aspect, to } = one;
      if (aspect === 'value') this.#noteChange(one);
      this.#noteInVain(one);
      this.said.add(`${part}.${aspect}`);
      if (aspect === 'shown' && to === true) this.saidShown.add(part);
      if (aspect === 'value') this.written.add(part);
    }
  }

  /** A word that changes nothing for people, since it says what holds anyway, counts for neither. */
  #noteInVain({ behaviour, line, part, aspect, sort, covered }: Said): void {
    if (sort !== 'handler' || aspect === 'value') return;
    const name = `${behaviour}:${line} ${part}.${aspect}`;
    const known = this.inVain.get(name) ?? { behaviour, line, part, aspect, met: 0, missed: 0 };
    if (covered) known.missed++;
    else known.met++;
    this.inVain.set(name, known);
  }
}

function openedAs({ person, record }: Ran['opening'], part: string): string {
  return `${person.key} ${record?.id ?? ''} ${part}`;
}
