/**
 * The session's end of the memory that both see (`wire/layout.ts`): values in and out, and the two lists of texts kept
 * equal on both sides. What comes from scripts is looked up and never believed: a number that names nothing is an
 * untruth, and whoever asked gets a fault for it.
 */
import type { Value } from '../form/value';
import { cutText, FAILURES, ScriptError } from '../wire/failures';
import { Cell, Double, LONGEST_NUMBERED, MOST_CHARACTERS, MOST_TEXTS, Tag } from '../wire/layout';
import type { Restore } from '../session/checkpoint';
import type { Machine } from './machine';
import { revived, strangeOf, type FindRow } from './strange';

/** Something came over the wire that an honest guest never sends. */
export class Untrue extends ScriptError {
  constructor() {
    super('wrong_use', 'asked for something that is not there.');
  }
}

/** Where loose texts are put: one for an answer, two for an event, one for what it carries besides. */
export const Loose = { answer: 0, value: 1, previous: 2, extra: 3 } as const;

/** JSON of the scripts' end, which an honest guest spells right. */
function parsed(text: string): Value {
  try {
    return JSON.parse(text) as Value;
  } catch {
    throw new Untrue();
  }
}

const LONGEST = 8 * 1024 * 1024;

export class HostWire {
  #texts: string[] = [];
  readonly #numbers = new Map<string, number>();
  /** Frozen values that the scripts have, by identity, and how many there are. */
  #kept = new Map<object, number>();
  #characters = 0;
  /** Loose texts of the scripts' since the run began. */
  #loose: string[] = [];
  #base = { texts: 0, kept: [] as [object, number][], characters: 0 };

  constructor(readonly machine: Machine) {}

  /** Forgets the loose texts of a run that is over. */
  endRun(): void {
    if (this.#loose.length > 0) this.#loose = [];
    if (
      this.#texts.length - this.#base.texts > MOST_TEXTS ||
      this.#characters - this.#base.characters > MOST_CHARACTERS
    )
      this.cut();
  }

  /** What both have now is what they are cut back to. */
  setBase(): void {
    this.#base = { texts: this.#texts.length, kept: [...this.#kept], characters: this.#characters };
  }

  /** The machine was put back to when the base was set. */
  restored(): void {
    for (const text of this.#texts.splice(this.#base.texts)) this.#numbers.delete(text);
    this.#kept = new Map(this.#base.kept);
    this.#characters = this.#base.characters;
    this.#loose = [];
  }

  /** Between two runs; the machine has to be put back to the same moment. */
  checkpoint(): Restore {
    const texts = this.#texts.slice(this.#base.texts);
    const kept = [...this.#kept];
    const characters = this.#characters;
    return () => {
      this.restored();
      for (const text of texts) this.#numbers.set(text, this.#texts.push(text) - 1);
      this.#kept = new Map(kept);
      this.#characters = characters;
    };
  }

  /** Forgets everything: another machine, or the same before anything was loaded. */
  reset(): void {
    this.#base = { texts: 0, kept: [], characters: 0 };
    this.restored();
  }

  /** Cuts both lists back to the base. */
  cut(): void {
    this.restored();
    this.machine.cut(this.#base.texts, this.#base.kept.length);
  }

  /** The scripts' end says a text that this one has not met. */
  hearText(): void {
    const text = this.machine.given();
    if (text.length > LONGEST_NUMBERED || this.#numbers.has(text)) throw new Untrue();
    this.#add(text);
  }

  /** A text too long to be numbered; its place goes into the payload. */
  hearLoose(): void {
    const text = this.machine.given();
    if (text.length > LONGEST)
      throw new ScriptError('range', 'handed over a text that is too long.');
    this.machine.cells[Cell.Payload] = this.#loose.push(text) - 1;
  }

  #add(text: string): number {
    const number = this.#texts.push(text) - 1;
    this.#numbers.set(text, number);
    this.#characters += text.length;
    return number;
  }

  #numberOf(text: string): number {
    const known = this.#numbers.get(text);
    if (known !== undefined) return known;
    this.machine.putText(text);
    return this.#add(text);
  }

  text(number: number): string {
    const text = this.#texts[number];
    if (text === undefined) throw new Untrue();
    return text;
  }

  #looseText(place: number): string {
    const text = this.#loose[place];
    if (text === undefined) throw new Untrue();
    // Used once, so that a loop of long texts does not pile them up.
    this.#loose[place] = '';
    return text;
  }

  /** What was offered, odd as it may be. */
  take(tag: number, payload: number, float: number, findRow: FindRow): unknown {
    const { cells } = this.machine;
    switch (cells[tag]) {
      case Tag.True:
        return true;
      case Tag.False:
        return false;
      case Tag.Null:
        return null;
      case Tag.Undefined:
        return undefined;
      case Tag.Number:
        return this.machine.floats[float];
      case Tag.Text:
        return this.text(cells[payload]!);
      case Tag.Json:
        return revived(parsed(this.text(cells[payload]!)), findRow);
      case Tag.LooseText:
        return this.#looseText(cells[payload]!);
      case Tag.LooseJson:
        return revived(parsed(this.#looseText(cells[payload]!)), findRow);
      case Tag.Strange:
        return strangeOf(cells[payload]!);
      default:
        throw new Untrue();
    }
  }

  /** A value of a trace, which is plain. */
  traced(tag: number, payload: number): Value {
    switch (tag) {
      case Tag.True:
        return true;
      case Tag.False:
        return false;
      case Tag.Null:
        return null;
      case Tag.Integer:
        return payload;
      case Tag.Json:
        return parsed(this.text(payload));
      case Tag.LooseJson:
        return parsed(this.#looseText(payload));
      default:
        throw new Untrue();
    }
  }

  /** Tells a value. `loose` is the place for a text too long for a number. */
  give(
    value: unknown,
    tag: number = Cell.Tag,
    payload: number = Cell.Payload,
    float: number = Double.Answer,
    loose: number = Loose.answer,
  ): void {
    if (typeof value === 'string')
      return this.#giveText(value, tag, payload, loose, Tag.Text, Tag.LooseText);
    if (typeof value === 'object' && value !== null)
      return this.#giveObject(value, tag, payload, loose);
    const { cells } = this.machine;
    if (value === true) cells[tag] = Tag.True;
    else if (value === false) cells[tag] = Tag.False;
    else if (value === null) cells[tag] = Tag.Null;
    else if (typeof value === 'number') {
      cells[tag] = Tag.Number;
      this.machine.floats[float] = value;
    } else cells[tag] = Tag.Undefined;
  }

  #giveText(
    text: string,
    tag: number,
    payload: number,
    loose: number,
    numbered: Tag,
    long: Tag,
  ): void {
    let at = loose;
    if (text.length <= LONGEST_NUMBERED) at = this.#numberOf(text);
    else this.machine.putLoose(loose, text);
    const { cells } = this.machine;
    cells[tag] = text.length <= LONGEST_NUMBERED ? numbered : long;
    cells[payload] = at;
  }

  /** Frozen values are handed over once; what reads the same in few characters is the same there too. */
  #giveObject(value: object, tag: number, payload: number, loose: number): void {
    const known = this.#kept.get(value);
    if (known !== undefined) {
      const { cells } = this.machine;
      cells[tag] = Tag.Kept;
      cells[payload] = known;
      return;
    }
    const text = JSON.stringify(value);
    const keep = text.length > LONGEST_NUMBERED && Object.isFrozen(value);
    this.#giveText(text, tag, payload, loose, Tag.Json, keep ? Tag.KeepJson : Tag.LooseJson);
    if (!keep) return;
    this.#kept.set(value, this.#kept.size);
    this.#characters += text.length;
  }

  /** Answers that it cannot be done. */
  giveFault(fault: ScriptError): void {
    this.#giveText(fault.message, Cell.Tag, Cell.Payload, Loose.answer, Tag.Fault, Tag.LooseFault);
    this.machine.cells[Cell.More] = FAILURES.indexOf(fault.code);
  }

  /** The words of a run that failed, as the guest told them. */
  takeFailure(): { code: (typeof FAILURES)[number]; says: string } {
    const { cells } = this.machine;
    const code = FAILURES[cells[Cell.More]!];
    const at = cells[Cell.Payload]!;
    if (code === undefined) throw new Untrue();
    return {
      code,
      says: cutText(cells[Cell.Tag] === Tag.LooseFault ? this.#looseText(at) : this.text(at)),
    };
  }
}
