/**
 * The parts of a form in use and their aspects, each aspect with the layers of what was said of it: the base of the
 * definition, above it the last word of a handler, above that the words of rules in their order (semantics 7, 18, 19).
 * Rows and their cells are parts too, made when somebody first touches them (`rows.ts`); the tree of all parts is made
 * in `tree.ts`. Who may say what, and what follows, is `session.ts`.
 */
import type { Button, Field, Form, Page, Section, Track } from '../form/definition';
import { emptyOf } from '../form/kinds';
import type { Value } from '../form/value';
import type { Row, Rows } from './rows';
import type { PartSort, PartState } from './step';
import type { Rule } from './ties';

/** What one rule says of an aspect at present. */
export interface RuleWord {
  rule: Rule;
  value: Value;
  line: number;
}

export class Aspect {
  readonly part: Part;
  readonly name: string;
  /** What the definition says; for `value`, the value itself, since values stick whoever wrote them. */
  base: Value;
  /** The last word of a handler. Boxed, since null is a word too, and so that a superseded run knows its own. */
  handlerWord: { value: Value } | null = null;
  /** In the order of the rules, so that the last one wins. */
  ruleWords: readonly RuleWord[] = NONE;
  /** Rules whose last run read this; null while none has. */
  readers: Set<Rule> | null = null;
  /** The run that last changed it, for printing cycles. Null for persons and the form. */
  changedBy: RunRecord | null = null;
  /** Values are one slot: rules' words of them are kept only to tell who wins. */
  readonly sticks: boolean;
  /** Computed from other things instead of said: the value, count and sums of rows. */
  readonly derive: (() => Value) | null;

  constructor(part: Part, name: string, base: Value, derive: (() => Value) | null = null) {
    this.part = part;
    this.name = name;
    this.base = base;
    this.sticks = name === 'value';
    this.derive = derive;
  }

  readBy(rule: Rule): void {
    (this.readers ??= new Set()).add(rule);
  }

  /** What holds now. */
  get current(): Value {
    if (this.derive !== null) return this.derive();
    if (this.sticks) return this.base;
    const { ruleWords } = this;
    if (ruleWords.length > 0) return ruleWords[ruleWords.length - 1]!.value;
    return this.handlerWord === null ? this.base : this.handlerWord.value;
  }

  /** What a rule sees: what stands below it, never its own former words nor those of later rules. */
  below(rule: Rule): Value {
    if (this.derive !== null) return this.derive();
    if (this.sticks) return this.base;
    const { ruleWords } = this;
    for (let i = ruleWords.length - 1; i >= 0; i--) {
      if (ruleWords[i]!.rule.order < rule.order) return ruleWords[i]!.value;
    }
    return this.handlerWord === null ? this.base : this.handlerWord.value;
  }

  /** The word list with this rule's word put in, replaced, or (null) taken out. */
  withWord(rule: Rule, word: { value: Value; line: number } | null): readonly RuleWord[] {
    const others = this.ruleWords.filter((w) => w.rule !== rule);
    if (word === null) return others.length === 0 ? NONE : others;
    others.push({ rule, ...word });
    return others.sort((a, b) => a.rule.order - b.rule.order);
  }
}

const NONE: readonly RuleWord[] = [];

/** A run as far as printing a cycle needs it: what ran, because of which part, after which other run. */
export interface RunRecord {
  behaviour: string;
  line: number;
  tie: object;
  because: string | null;
  before: RunRecord | null;
}

/** Counted up whenever a part is shown, hidden, locked or unlocked. One for all parts of a form. */
export interface Nesting {
  version: number;
}

export type Definition = Form | Page | Section | Field | Button | Track;

/** Shared by all parts of which nothing was told yet; a teller makes one of its own. */
export const NOTHING_TOLD: Partial<PartState> = Object.freeze({});

export class Part {
  readonly sort: PartSort;
  /** Its technical name; `cargo#3` is a row, `cargo#3.weight` a cell, whatever place the row has. */
  readonly name: string;
  readonly definition: Definition;
  readonly parent: Part | null;
  /** Without rows and cells, which are found through their field. */
  children: Part[] | null = null;
  /** The row that it is or stands in. */
  readonly row: Row | null;
  /** The rows of a rows field. */
  rows: Rows | null = null;
  readonly #nesting: Nesting;
  readonly #bases: Readonly<Record<string, Value>>;
  #lookedAt = -1;
  #onScreen = true;
  #editable = true;
  /** Those that somebody has touched. */
  readonly aspects: Record<string, Aspect> = Object.create(null);
  /** The state last told to the outside, so that only differences are told. */
  told: Partial<PartState> = NOTHING_TOLD;

  constructor(sort: PartSort, name: string, definition: Definition, parent: Part | null, nesting: Nesting, bases: Readonly<Record<string, Value>>, row: Row | null = null) {
    this.#nesting = nesting;
    this.#bases = bases;
    this.sort = sort;
    this.name = name;
    this.definition = definition;
    this.parent = parent;
    this.row = row;
    if (row === null && parent !== null) (parent.children ??= []).push(this);
  }

  get field(): Field {
    return this.definition as Field;
  }

  /** An aspect that this sort of part has. */
  aspect(name: string): Aspect {
    return (this.aspects[name] ??= this.#make(name));
  }

  /** The value of a field. */
  get value(): Value {
    return this.aspect('value').current;
  }

  #make(name: string): Aspect {
    const { row, rows } = this;
    if (rows !== null && name === 'value') return new Aspect(this, name, null, () => rows.value);
    if (row !== null && name === 'value') return new Aspect(this, name, row.values[this.field.name] ?? null);
    if (row !== null && name === 'values') return new Aspect(this, name, null, () => row.values);
    return new Aspect(this, name, this.#bases[name] as Value);
  }

  has(name: string): boolean {
    return name in this.#bases;
  }

  get onScreen(): boolean {
    if (this.#lookedAt !== this.#nesting.version) this.#look();
    return this.#onScreen;
  }

  get editable(): boolean {
    if (this.#lookedAt !== this.#nesting.version) this.#look();
    return this.#editable;
  }

  /** What was said of an aspect, or its base while nobody touched it. */
  now(name: string): Value {
    const aspect = this.aspects[name];
    return aspect === undefined ? (this.#bases[name] as Value) : aspect.current;
  }

  /** Asked many times a step and changed seldom, so both are kept until something is shown, hidden or locked. */
  #look(): void {
    const { parent } = this;
    this.#onScreen = this.now('shown') !== false && (parent === null || parent.onScreen);
    this.#editable = this.now('locked') !== true && !this.scriptOnly && (parent === null || parent.editable);
    this.#lookedAt = this.#nesting.version;
  }

  get scriptOnly(): boolean {
    return this.sort === 'field' && this.field.scriptOnly === true;
  }

  /** How people know it. */
  get label(): string {
    const { definition, row } = this;
    if (this.sort === 'row') return `Row ${row!.index + 1} of ${this.parent!.label}`;
    const own = (this.aspects.label?.current as string | undefined) ?? ('label' in definition ? definition.label : definition.title);
    return row === null ? own : `${own} in row ${row.index + 1} of ${row.rows.field.label}`;
  }

  /** How steps and scenarios name it now: rows by their place, from 0. */
  get address(): string {
    const { row } = this;
    if (row === null) return this.name;
    const place = `${row.rows.field.name}[${row.index}]`;
    return this.sort === 'row' ? place : `${place}.${this.field.name}`;
  }

  /** Forgets all that was said, as if the form had just been made. */
  reset(): void {
    for (const name of Object.keys(this.aspects)) {
      const aspect = this.aspects[name]!;
      aspect.handlerWord = null;
      aspect.ruleWords = NONE;
      aspect.readers?.clear();
      aspect.changedBy = null;
      if (aspect.derive === null) aspect.base = this.#bases[name] as Value;
    }
    this.rows?.clear();
  }
}

/** The aspects that a sort of part has, with what the definition says of each. */
export function basesOf(sort: PartSort, definition: Definition): Readonly<Record<string, Value>> {
  const d = definition as { hidden?: boolean; locked?: boolean; required?: boolean; label?: string; stage?: string };
  const nested = { shown: d.hidden !== true, locked: d.locked === true };
  switch (sort) {
    case 'form':
      return { message: null, replaced: null, changed: false, locked: false };
    case 'page':
    case 'section':
      return nested;
    case 'row':
      return { shown: true, locked: false, problem: null, values: null };
    case 'track':
      return { shown: d.hidden !== true, stage: d.stage ?? null };
    case 'button':
      return { ...nested, label: d.label! };
    case 'field':
      return { ...nested, value: emptyOf(definition as Field), required: d.required === true, options: null, hint: null, problem: null };
  }
}
