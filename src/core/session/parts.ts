/**
 * The parts of a form in use and their aspects, each aspect with the layers of what was said of it: the base of the
 * definition, above it the last word of a handler, above that the words of rules in their order (semantics 7, 18, 19).
 * Who may say what, and what follows, is `session.ts`.
 */
import type { Button, Field, Form, Page, Section } from '../form/definition';
import type { Value } from '../form/value';
import type { Rule } from './ties';
import type { PartSort, PartState } from './step';

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
  /** The last word of a handler. Boxed, since null is a word too. */
  handlerWord: { value: Value } | null = null;
  /** In the order of the rules, so that the last one wins. */
  ruleWords: readonly RuleWord[] = NONE;
  /** Rules whose last run read this. */
  readonly readers = new Set<Rule>();
  /** The run that last changed it, for printing cycles. Null for persons and the form. */
  changedBy: RunRecord | null = null;
  /** Values are one slot: rules' words of them are kept only to tell who wins. */
  readonly sticks: boolean;

  constructor(part: Part, name: string, base: Value) {
    this.part = part;
    this.name = name;
    this.base = base;
    this.sticks = name === 'value';
  }

  /** What holds now. */
  get current(): Value {
    if (this.sticks) return this.base;
    const { ruleWords } = this;
    if (ruleWords.length > 0) return ruleWords[ruleWords.length - 1]!.value;
    return this.handlerWord === null ? this.base : this.handlerWord.value;
  }

  /** What a rule sees: what stands below it, never its own former words nor those of later rules. */
  below(rule: Rule): Value {
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

export class Part {
  readonly sort: PartSort;
  readonly name: string;
  readonly definition: Form | Page | Section | Field | Button;
  readonly parent: Part | null;
  readonly children: Part[] = [];
  readonly #nesting: Nesting;
  #lookedAt = -1;
  #onScreen = true;
  #editable = true;
  readonly aspects: Record<string, Aspect> = Object.create(null);
  /** The state last told to the outside, so that only differences are told. */
  told: Partial<PartState> = {};

  constructor(sort: PartSort, name: string, definition: Part['definition'], parent: Part | null, nesting: Nesting) {
    this.#nesting = nesting;
    this.sort = sort;
    this.name = name;
    this.definition = definition;
    this.parent = parent;
    parent?.children.push(this);
    for (const [aspect, base] of Object.entries(basesOf(sort, definition))) this.aspects[aspect] = new Aspect(this, aspect, base);
  }

  get field(): Field {
    return this.definition as Field;
  }

  get onScreen(): boolean {
    if (this.#lookedAt !== this.#nesting.version) this.#look();
    return this.#onScreen;
  }

  get editable(): boolean {
    if (this.#lookedAt !== this.#nesting.version) this.#look();
    return this.#editable;
  }

  /** Asked many times a step and changed seldom, so both are kept until something is shown, hidden or locked. */
  #look(): void {
    const { parent, aspects } = this;
    this.#onScreen = aspects.shown?.current !== false && (parent === null || parent.onScreen);
    this.#editable = aspects.locked?.current !== true && (parent === null || parent.editable);
    this.#lookedAt = this.#nesting.version;
  }

  /** How people know it. */
  get label(): string {
    const { definition } = this;
    return (this.aspects.label?.current as string | undefined) ?? ('label' in definition ? definition.label : definition.title);
  }
}

function basesOf(sort: PartSort, definition: Part['definition']): Record<string, Value> {
  const d = definition as { hidden?: boolean; locked?: boolean; required?: boolean; label?: string };
  const nested = { shown: d.hidden !== true, locked: d.locked === true };
  switch (sort) {
    case 'form':
      return { message: null, replaced: null, changed: false };
    case 'page':
    case 'section':
      return nested;
    case 'button':
      return { ...nested, label: d.label! };
    case 'field':
      return { ...nested, value: null, required: d.required === true, options: null, hint: null, problem: null };
  }
}

/** The parts of a form by name; `@form` is the form itself. */
export interface Parts {
  nesting: Nesting;
  form: Part;
  byName: Map<string, Part>;
  pages: Part[];
  fields: Part[];
}

export const FORM = '@form';

export function partsOf(form: Form): Parts {
  const nesting: Nesting = { version: 0 };
  const root = new Part('form', FORM, form, null, nesting);
  const byName = new Map<string, Part>([[FORM, root]]);
  const pages: Part[] = [];
  const fields: Part[] = [];
  const add = (sort: PartSort, definition: Page | Section | Field | Button, parent: Part): Part => {
    const part = new Part(sort, definition.name, definition, parent, nesting);
    byName.set(part.name, part);
    return part;
  };
  for (const page of form.pages) {
    const pagePart = add('page', page, root);
    pages.push(pagePart);
    for (const section of page.sections) {
      const sectionPart = add('section', section, pagePart);
      for (const field of section.fields) fields.push(add('field', field, sectionPart));
    }
  }
  for (const button of form.buttons ?? []) {
    add('button', button, button.section === undefined ? root : byName.get(button.section)!);
  }
  return { nesting, form: root, byName, pages, fields };
}
