/**
 * How a face is made: a frozen object that scripts hold and that stands for a part. Its getters and setters live on one
 * prototype for all faces of its kind; each asks the session by the number of the part. Whatever the prototype does not
 * have is answered in words.
 */
import type { PartInfo } from '../wire/acts';
import { Cell, Double, Op, type Slot, SLOT_BITS, Tag } from '../wire/layout';
import type { Current } from './current';
import type { Wire } from './wire';

/** What stands behind a face: the number of the part, what is known of it, and its name in messages. */
export interface Behind {
  readonly number: number;
  readonly info: PartInfo;
  readonly name: string;
  /** Of a row or cell: the number of its row. */
  readonly row: number | null;
}

export type Member = PropertyDescriptor;

export type Members = Readonly<Record<string, Member>>;

export function without(members: Members, names: readonly string[]): Members {
  return Object.fromEntries(Object.entries(members).filter(([name]) => !names.includes(name)));
}

export class Face {
  /** Its number, moved to where the slot is added. */
  readonly #aspects: number;
  readonly #behind: Behind;

  constructor(behind: Behind) {
    this.#aspects = behind.number << SLOT_BITS;
    this.#behind = behind;
  }

  /** What stands behind a face; null for anything else. */
  static behind(face: unknown): Behind | null {
    return typeof face === 'object' && face !== null && #behind in face ? face.#behind : null;
  }

  /** A member that asks for an aspect, and says it where `says` allows. */
  static aspect(slot: Slot, wire: Wire, current: Current, says: boolean): Member {
    const { cells, call, texts, take, give } = wire;
    return {
      enumerable: true,
      get(this: Face): unknown {
        cells[Cell.Op] = Op.Read;
        cells[Cell.Aspect] = this.#aspects + slot;
        call();
        switch (cells[Cell.Tag]) {
          case Tag.Text:
            return texts[cells[Cell.Payload]!];
          case Tag.True:
            return true;
          case Tag.False:
            return false;
          case Tag.Null:
            return null;
          default:
            return take(Cell.Tag, Cell.Payload, Double.Answer);
        }
      },
      set: !says
        ? undefined
        : function (this: Face, value: unknown): void {
            const aspects = this.#aspects;
            if (value === true) cells[Cell.Tag] = Tag.True;
            else if (value === false) cells[Cell.Tag] = Tag.False;
            else give(value);
            cells[Cell.Op] = Op.Say;
            cells[Cell.Aspect] = aspects + slot;
            cells[Cell.Line] = current.probe!.l;
            call();
            if (cells[Cell.Tag]! >= Tag.Fault) take(Cell.Tag, Cell.Payload, Double.Answer);
          },
    } as Member;
  }

  /** A member made from what stands behind. */
  static member(get: (behind: Behind) => unknown): Member {
    return {
      enumerable: true,
      get(this: Face): unknown {
        return get(this.#behind);
      },
    };
  }

  /** Reads an aspect as a member would. */
  static read(behind: Behind, slot: Slot, { cells, call, take }: Wire): unknown {
    cells[Cell.Op] = Op.Read;
    cells[Cell.Aspect] = (behind.number << SLOT_BITS) + slot;
    call();
    return take(Cell.Tag, Cell.Payload, Double.Answer);
  }
}

export interface Surface {
  face(behind: Behind): object;
}

/** What is answered to a member that cannot be written, or is not there. */
export interface Refusals {
  readOnly(behind: Behind, name: string): never;
  unknown(behind: Behind, name: string, known: readonly string[]): never;
}

/** How the faces of a surface read in a log, by their prototype. */
const readings = new WeakMap<object, (behind: Behind) => string>();

export function faceReadsAs(value: object): string | null {
  const behind = Face.behind(value);
  return behind === null ? null : readings.get(Object.getPrototypeOf(value) as object)!(behind);
}

/** Makes the prototype that all faces with these members share. `called` is how a part reads in a log. */
export function makeSurface(
  members: Readonly<Record<string, Member>>,
  refusals: Refusals,
  called: (behind: Behind) => string,
): Surface {
  const known = Object.keys(members);
  class Made extends Face {}
  const { prototype } = Made;
  delete (prototype as { constructor?: unknown }).constructor;
  for (const name of known) {
    const member = members[name]!;
    Object.defineProperty(prototype, name, {
      ...member,
      set:
        member.set ??
        function (this: unknown) {
          refusals.readOnly(Face.behind(this)!, name);
        },
    });
  }
  Object.setPrototypeOf(
    prototype,
    new Proxy(Object.freeze(Object.create(null) as object), {
      get: (_, name, face) =>
        isSilent(name) ? undefined : refusals.unknown(Face.behind(face)!, String(name), known),
      set: (_, name, __, face) => refusals.unknown(Face.behind(face)!, String(name), known),
    }),
  );
  Object.freeze(prototype);
  readings.set(prototype, called);
  return { face: (behind) => Object.freeze(new Made(behind)) };
}

/** Names that engines and printing ask for on their own account. */
export function isSilent(name: string | symbol): boolean {
  return typeof name === 'symbol' || name === 'then' || name === 'toJSON' || name === 'constructor';
}

/** `fields.NAME` and the like: each name gives its thing; assigning to a name, or an unknown one, is answered. */
export function gather(
  things: ReadonlyMap<string, () => unknown>,
  refusals: { assign(name: string): never; unknown(name: string): never },
): object {
  const target = Object.create(
    new Proxy(Object.freeze(Object.create(null) as object), {
      get: (_, name) => (isSilent(name) ? undefined : refusals.unknown(String(name))),
      set: (_, name) => refusals.unknown(String(name)),
    }),
  ) as object;
  for (const [name, get] of things) {
    Object.defineProperty(target, name, {
      enumerable: true,
      get,
      set: () => refusals.assign(name),
    });
  }
  return Object.freeze(target);
}
