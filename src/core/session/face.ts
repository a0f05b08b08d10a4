/**
 * How a face is made: an object that scripts hold and that stands for a part. Its getters and setters live on one
 * prototype for all faces of its kind; whatever the prototype does not have is answered in words.
 */
import type { Part } from './parts';
import { whatFacesReadAs } from './plain';

class Face {
  readonly #part: Part;
  constructor(part: Part) {
    this.#part = part;
  }
  static partOf(face: unknown): Part | null {
    return typeof face === 'object' && face !== null && #part in face ? face.#part : null;
  }
}

/** The part behind a face; null for anything else. */
export const partOf: (face: unknown) => Part | null = (face) => Face.partOf(face);

/** How the faces of a surface read in a log, by their prototype. */
const readings = new WeakMap<object, (part: Part) => string>();
whatFacesReadAs((value) => {
  const part = Face.partOf(value);
  return part === null ? null : readings.get(Object.getPrototypeOf(value) as object)!(part);
});

export interface Member {
  get: (part: Part) => unknown;
  /** Left out where it can only be read. */
  set?: (part: Part, offered: unknown) => void;
}

export interface Surface {
  face(part: Part): object;
}

/** What is answered to a member that cannot be written, or is not there. */
export interface Refusals {
  readOnly(part: Part, name: string): never;
  unknown(part: Part, name: string, known: readonly string[]): never;
}

/** Makes the prototype that all faces with these members share. `called` is how a part reads in a log. */
export function makeSurface(members: Readonly<Record<string, Member>>, refusals: Refusals, called: (part: Part) => string): Surface {
  const known = Object.keys(members);
  class Made extends Face {}
  const { prototype } = Made;
  delete (prototype as { constructor?: unknown }).constructor;
  for (const [name, { get, set }] of Object.entries(members)) {
    Object.defineProperty(prototype, name, {
      enumerable: true,
      get(this: unknown) {
        return get(Face.partOf(this)!);
      },
      set(this: unknown, offered: unknown) {
        const part = Face.partOf(this)!;
        if (set === undefined) refusals.readOnly(part, name);
        else set(part, offered);
      },
    });
  }
  Object.setPrototypeOf(
    prototype,
    new Proxy(Object.freeze(Object.create(null) as object), {
      get: (_, name, face) => (isSilent(name) ? undefined : refusals.unknown(Face.partOf(face)!, String(name), known)),
      set: (_, name, __, face) => refusals.unknown(Face.partOf(face)!, String(name), known),
    }),
  );
  Object.freeze(prototype);
  readings.set(prototype, called);
  return {
    face(part) {
      return Object.freeze(new Made(part));
    },
  };
}

/** Names that engines and printing ask for on their own account. */
export function isSilent(name: string | symbol): boolean {
  return typeof name === 'symbol' || name === 'then' || name === 'toJSON' || name === 'constructor';
}

/** `fields.NAME` and the like: each name gives its thing; assigning to a name, or an unknown one, is answered. */
export function gather(things: ReadonlyMap<string, () => unknown>, refusals: { assign(name: string): never; unknown(name: string): never }): object {
  const target = Object.create(
    new Proxy(Object.freeze(Object.create(null) as object), {
      get: (_, name) => (isSilent(name) ? undefined : refusals.unknown(String(name))),
      set: (_, name) => refusals.unknown(String(name)),
    }),
  ) as object;
  for (const [name, get] of things) {
    Object.defineProperty(target, name, { enumerable: true, get, set: () => refusals.assign(name) });
  }
  return Object.freeze(target);
}
