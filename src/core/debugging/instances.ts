/**
 * A detailed run as a list of instances: each time a statement ran or a condition was looked at, with what was read,
 * said and asked meanwhile and the functions that it called. Who called whom follows from the order of what was
 * reported.
 */
import type { Value } from '../form/value';
import type { Detail, SitePlace } from '../session/detail';
import type { Site } from '../script/sites';
import type { Line } from '../wire/line';

/** The sites of scripts by name. */
export type SitesOf = ReadonlyMap<string, readonly Site[]>;

export interface Read {
  part: string;
  aspect: string;
  value: Value;
}

export interface Said extends Read {
  withdrawn: boolean;
  line: Line;
  /** Its place among the details. */
  detail: number;
}

export interface Instance {
  /** Its place among the instances, and among the details. */
  index: number;
  detail: number;
  place: SitePlace;
  site: Site;
  frame: number;
  /** Parameters of a function, or variables in sight of a statement, by the site's `names`. */
  values: readonly Value[];
  /** What it was called from or stands within; null for what the session called. */
  within: number | null;
  reads: Read[];
  said: Said[];
  /** What was asked of the form that is no aspect. */
  asked: { what: string; value: Value }[];
  /** The values that its waits resolved to. */
  answers: Value[];
  /** Entries that it put on the tape, by their numbers. */
  entries: number[];
  /** Events that it stopped, with what it said. */
  stopped: { part: string | null; says: string }[];
  /** Functions that it called, by their activation. */
  calls: number[];
  /** Conditions looked at within it. */
  conditions: number[];
  /** Sides of comparisons, and what those came to, by their site. */
  operands: Map<number, Value>;
  /** Of a condition or `switch`, what it came to; undefined while it has not. */
  value: Value | undefined;
  /** Of a `return`, or the expression that a function is, what it gave back; undefined of any other. */
  returned: Value | undefined;
}

interface Frame {
  /** The instance of being entered. */
  entered: Instance;
  /** The statement that runs. */
  current: Instance;
  /** Conditions that have begun and not ended. */
  open: Instance[];
}

export class Instances {
  readonly all: Instance[] = [];
  readonly #frames = new Map<number, Frame>();
  readonly #stack: number[] = [];

  constructor(
    details: readonly Detail[],
    readonly sites: SitesOf,
  ) {
    details.forEach((detail, i) => this.#take(detail, i));
  }

  /** The instance of entering a function. */
  entered(frame: number): Instance | null {
    return this.#frames.get(frame)?.entered ?? null;
  }

  /** The last of them before an instance that fits. */
  lastBefore(index: number, fits: (one: Instance) => boolean): Instance | null {
    for (let i = Math.min(index, this.all.length) - 1; i >= 0; i--)
      if (fits(this.all[i]!)) return this.all[i]!;
    return null;
  }

  #take(detail: Detail, i: number): void {
    switch (detail.is) {
      case 'enter': {
        const caller = this.#current();
        const entered = this.#make(detail, i, detail.frame, caller);
        caller?.calls.push(detail.frame);
        this.#frames.set(detail.frame, { entered, current: entered, open: [] });
        this.#stack.push(detail.frame);
        return;
      }
      case 'leave':
      case 'suspend':
        return this.#off(detail.frame);
      case 'resume':
        this.#on(detail.frame);
        this.#current()?.answers.push(detail.value);
        return;
      case 'statement': {
        this.#on(detail.frame);
        const frame = this.#frames.get(detail.frame);
        const instance = this.#make(detail, i, detail.frame, frame?.entered ?? null);
        if (frame === undefined) return;
        frame.open = [];
        frame.current = instance;
        return;
      }
      case 'begin': {
        this.#on(detail.frame);
        const around = this.#current();
        const instance = this.#make(detail, i, detail.frame, around);
        around?.conditions.push(instance.index);
        this.#frames.get(detail.frame)?.open.push(instance);
        return;
      }
      case 'condition':
      case 'switch': {
        const open = this.#frames.get(detail.frame)?.open ?? [];
        const at = open.findLastIndex(({ place }) => place.site === detail.site);
        if (at < 0) return;
        open[at]!.value = 'turned' in detail ? !detail.value : detail.value;
        open.length = at;
        return;
      }
      case 'operand': {
        const current = this.#current();
        if (current === null) return;
        if (this.sites.get(detail.script)![detail.site]!.kind === 'returned')
          current.returned = detail.value;
        else current.operands.set(detail.site, detail.value);
        return;
      }
      case 'read':
        this.#current()?.reads.push(detail);
        return;
      case 'said':
        this.#current()?.said.push({
          part: detail.part,
          aspect: detail.aspect,
          value: detail.value,
          withdrawn: detail.withdrawn === true,
          line: detail.line,
          detail: i,
        });
        return;
      case 'asked':
        this.#current()?.asked.push(detail);
        return;
      case 'entry':
        this.#current()?.entries.push(detail.n);
        return;
      case 'stopped':
        this.#current()?.stopped.push(detail);
        return;
      case 'value':
        return;
    }
  }

  #make(
    place: SitePlace & { values?: readonly Value[] },
    detail: number,
    frame: number,
    within: Instance | null,
  ): Instance {
    const { script, site } = place;
    const instance: Instance = {
      index: this.all.length,
      detail,
      place: { script, site },
      site: this.sites.get(script)![site]!,
      frame,
      values: place.values ?? [],
      within: within?.index ?? null,
      reads: [],
      said: [],
      asked: [],
      answers: [],
      entries: [],
      stopped: [],
      calls: [],
      conditions: [],
      operands: new Map(),
      value: undefined,
      returned: undefined,
    };
    this.all.push(instance);
    return instance;
  }

  /** What runs now: a condition that has begun, else the statement of the function that was entered last. */
  #current(): Instance | null {
    const frame = this.#frames.get(this.#stack.at(-1) ?? -1);
    return frame === undefined ? null : (frame.open.at(-1) ?? frame.current);
  }

  #on(frame: number): void {
    if (this.#stack.at(-1) === frame) return;
    // What was entered behind it and never said that it was left has been thrown out of.
    const at = this.#stack.lastIndexOf(frame);
    if (at >= 0) this.#stack.length = at + 1;
    else this.#stack.push(frame);
  }

  #off(frame: number): void {
    const at = this.#stack.lastIndexOf(frame);
    if (at >= 0) this.#stack.length = at;
  }
}
