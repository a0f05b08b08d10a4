/**
 * What something that a script said depends on: the statements and conditions that led to it in this very run, and what
 * those read. A dynamic slice (Korel and Laski, "Dynamic program slicing", Information Processing Letters 29, 1988; from
 * memory): along the values of variables, back through functions to what called them, and along the conditions under
 * which a statement was reached, those included that would have left the function before it.
 */
import type { Value } from '../form/value';
import type { SitePlace } from '../session/detail';
import type { Control, Mark } from '../script/sites';
import { holds } from './comparison';
import type { Instance, Instances, Read } from './instances';

export interface Slice {
  reads: Read[];
  /** Conditions in the order in which they were looked at. */
  conditions: Instance[];
  /** Statements whose values it comes from, in the order in which they ran. */
  statements: Instance[];
  asked: { what: string; value: Value }[];
  /** What waits came to. */
  answers: Value[];
  /** It uses what the handler was given: its event, or the row of a rule for each row. */
  given: boolean;
  marks: ReadonlySet<Mark>;
  /** Variables that outlive runs and were given their values in other ones. */
  variables: { script: string; name: string }[];
}

/** The slice of a statement or condition. */
export function sliceOf(instances: Instances, of: Instance): Slice {
  return new Slicer(instances).of(of);
}

/** What a condition alone depends on, without what led to it. */
export function sliceOfData(instances: Instances, of: Instance): Slice {
  return new Slicer(instances).of(of, false);
}

class Slicer {
  readonly #data = new Set<number>();
  readonly #control = new Set<number>();
  readonly #reads = new Map<string, Read>();
  readonly #conditions = new Set<Instance>();
  readonly #asked = new Map<string, { what: string; value: Value }>();
  readonly #answers: Value[] = [];
  readonly #marks = new Set<Mark>();
  readonly #variables = new Map<string, { script: string; name: string }>();
  #given = false;
  /** To be looked at: not by calling itself, since a loop of a thousand rounds is a chain of as many. */
  readonly #due: (() => void)[] = [];

  constructor(private readonly instances: Instances) {}

  of(instance: Instance, withControl = true): Slice {
    this.#addData(instance);
    if (withControl) this.#addControl(instance);
    for (let next = this.#due.pop(); next !== undefined; next = this.#due.pop()) next();
    return {
      reads: [...this.#reads.values()],
      conditions: [...this.#conditions].sort((a, b) => a.index - b.index),
      statements: [...this.#data]
        .sort((a, b) => a - b)
        .map((index) => this.instances.all[index]!)
        .filter(({ site }) => site.kind === 'statement'),
      asked: [...this.#asked.values()],
      answers: this.#answers,
      given: this.#given,
      marks: this.#marks,
      variables: [...this.#variables.values()],
    };
  }

  #whole(instance: Instance | null): void {
    if (instance === null) return;
    this.#addData(instance);
    this.#addControl(instance);
  }

  /** What the values of an instance come from. */
  #addData(instance: Instance): void {
    if (this.#data.has(instance.index)) return;
    this.#data.add(instance.index);
    this.#due.push(() => this.#follow(instance));
  }

  #follow(instance: Instance): void {
    const { site, place } = instance;
    for (const read of instance.reads) this.#reads.set(`${read.part}.${read.aspect}`, read);
    for (const asked of instance.asked) this.#asked.set(asked.what, asked);
    this.#answers.push(...instance.answers);
    for (const mark of site.marks) this.#marks.add(mark);
    for (const variable of site.uses) this.#variable(instance, variable);
    for (const index of instance.conditions) {
      const condition = this.instances.all[index]!;
      this.#conditions.add(condition);
      this.#addData(condition);
    }
    for (const frame of this.#thatMattered(instance)) this.#returned(frame);
    if (site.kind === 'function') this.#parameters(instance);
    if (site.kind === 'item') this.#item(instance, place);
  }

  /** Parameters come from what called the function, or from the session. */
  #parameters(instance: Instance): void {
    if (instance.within === null) this.#given = true;
    else this.#addData(this.instances.all[instance.within]!);
  }

  /** Items come from the loop's statement; what is caught comes from what threw it. */
  #item(instance: Instance, { script }: SitePlace): void {
    const { frame, site, index } = instance;
    const of = this.instances.lastBefore(
      index,
      (one) =>
        one.frame === frame &&
        one.place.script === script &&
        (site.text.startsWith('catch')
          ? true
          : one.site.kind === 'statement' && one.site.start === site.start),
    );
    this.#whole(of);
  }

  /** The last value that a variable was given, and what was changed within it since. */
  #variable(user: Instance, variable: number): void {
    const { script } = user.place;
    const reaches = (one: Instance) =>
      one.place.script === script &&
      (one.frame === user.frame || one.site.within !== user.site.within || isFunctionOf(one, user));
    for (let i = user.index; i >= 0; i--) {
      const one = this.instances.all[i]!;
      if (!reaches(one) || one.index === user.index) continue;
      if (one.site.changes.includes(variable)) this.#whole(one);
      if (!one.site.defines.includes(variable)) continue;
      return this.#whole(one);
    }
    this.#outside(script, variable);
  }

  /** A variable that this run did not assign: a constant, or one that is kept between runs. */
  #outside(script: string, variable: number): void {
    const sites = this.instances.sites.get(script)!;
    const file = sites.findIndex(({ kind, within }) => kind === 'function' && within === null);
    const changed = sites.some(
      ({ within, defines, changes, kind }) =>
        within !== file &&
        kind !== 'function' &&
        (defines.includes(variable) || changes.includes(variable)),
    );
    if (!changed) return;
    const namer = sites.find(({ defines }) => defines.includes(variable));
    const name = nameOf(namer?.text ?? '') ?? `variable ${variable}`;
    this.#variables.set(`${script}:${variable}`, { script, name });
  }

  /**
   * Of the calls that a statement made, those that its value comes from: of the rounds of `some` or `find` the one that
   * held, where one did; of `every` the one that did not.
   */
  #thatMattered({ calls: frames, site: caller }: Instance): readonly number[] {
    const ending = new Map<number, boolean>();
    for (const frame of frames) {
      const site = this.instances.entered(frame)?.site;
      const method = site?.passedTo ?? givenByName(caller.text);
      const ends = method === null ? undefined : ENDED_BY[method];
      const came = ends === undefined ? undefined : this.#lastOf(frame)?.returned;
      if (came !== undefined && holds(came) === ends) ending.set(site!.start, ends!);
    }
    if (ending.size === 0) return frames;
    return frames.filter((frame) => {
      const ends = ending.get(this.instances.entered(frame)?.site.start ?? -1);
      return ends === undefined || holds(this.#lastOf(frame)?.returned ?? null) === ends;
    });
  }

  /** The last `return` of a function, or the expression that it is. */
  #lastOf(frame: number): Instance | null {
    return this.instances.lastBefore(
      this.instances.all.length,
      (one) => one.frame === frame && one.site.kind === 'statement' && returns(one),
    );
  }

  /** What a function gave back: its last `return`, with what led there. */
  #returned(frame: number): void {
    this.#whole(this.#lastOf(frame));
  }

  /** What led to an instance. */
  #addControl(instance: Instance): void {
    if (this.#control.has(instance.index)) return;
    this.#control.add(instance.index);
    this.#due.push(() => {
      const { site, within } = instance;
      if (site.under !== null) this.#decided(instance, site.under);
      for (const leave of site.leaves) this.#decided(instance, leave);
      const entered = this.instances.entered(instance.frame);
      if (entered === null) return;
      const caller = entered.within;
      if (caller === null) {
        // The session called it, because of its event or because something that the rule reads has changed.
        if (within === null) this.#given ||= false;
        return;
      }
      const from = this.instances.all[caller]!;
      this.#addControl(from);
      // A function that stands in what called it was called by a built-in, as often as there were items.
      if (isWithin(entered, from)) this.#addData(from);
    });
  }

  #decided({ index, frame }: Instance, { site }: Control): void {
    const condition = this.instances.lastBefore(
      index,
      (one) => one.frame === frame && one.place.site === site,
    );
    if (condition === null || this.#conditions.has(condition)) return;
    if (condition.site.kind !== 'item') this.#conditions.add(condition);
    this.#whole(condition);
  }
}

/** The method that a statement hands a function to by its name, such as `rows.some(isHeavy)`; null where that is not clear. */
function givenByName(text: string): string | null {
  const found = [...text.matchAll(/\.(\w+)\(\s*[\p{ID_Start}$_][\p{ID_Continue}$]*\s*\)/gu)].filter(
    ([, method]) => Object.hasOwn(ENDED_BY, method!),
  );
  return found.length === 1 ? found[0]![1]! : null;
}

/** Methods that go no further once a callback gives this. */
const ENDED_BY: Readonly<Record<string, boolean>> = {
  some: true,
  find: true,
  findIndex: true,
  findLast: true,
  findLastIndex: true,
  every: false,
};

function returns({ site }: Instance): boolean {
  return site.text.startsWith('return') || !/[;}]$/.test(site.text);
}

function isFunctionOf(one: Instance, user: Instance): boolean {
  return one.site.kind === 'function' && one.frame === user.frame;
}

function isWithin(entered: Instance, from: Instance): boolean {
  return (
    entered.place.script === from.place.script &&
    entered.site.start >= from.site.start &&
    entered.site.end <= from.site.end
  );
}

/** The name that a declaration such as `let count = 0;` begins with. */
function nameOf(text: string): string | null {
  return /^(?:let|var|const)\s+([\p{ID_Start}$_][\p{ID_Continue}$]*)/u.exec(text)?.[1] ?? null;
}
