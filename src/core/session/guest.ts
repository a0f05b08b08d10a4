/**
 * The session's side of the machine it runs in: strings in, strings out. Bundled into one script that the sandbox
 * evaluates before it takes its snapshot; see `scripts/build-guest.mjs`.
 */
import type { Machine } from './loading';
import { Session, type Material } from './session';
import type { Opening, TimedStep } from './step';

type Request =
  | { do: 'load'; material: Material; watched: boolean }
  | { do: 'open'; opening: Opening }
  | { do: 'step'; step: TimedStep };

const machineGlobal = globalThis as unknown as { Temporal?: object; __answer?: (request: string) => string; __tell?: (behaviour: string, line: number) => void } & Record<string, unknown>;

const makeFunction = Function;
let session: Session | null = null;

const { __tell: tell } = machineGlobal;

const machine = (watched: boolean): Machine => ({
  makeFunction: (parameters, body) => makeFunction(...parameters, body) as never,
  temporal: machineGlobal.Temporal ?? null,
  tell: watched && tell !== undefined ? tell : null,
});

function answer(request: Request): unknown {
  switch (request.do) {
    case 'load':
      session = new Session(request.material, machine(request.watched));
      return session.listensTo();
    case 'open':
      return session!.open(request.opening);
    case 'step':
      return session!.do(request.step);
  }
}

machineGlobal.__answer = (request) => JSON.stringify(answer(JSON.parse(request) as Request));

/**
 * Freezes everything scripts could reach and bend for others: the intrinsics and their prototypes. Making functions
 * from text goes away, since such code would carry no probes.
 */
function closeOff(): void {
  const refuse = () => {
    throw new TypeError();
  };
  for (const made of [function () {}, async function () {}, function* () {}, async function* () {}]) {
    Object.defineProperty(Object.getPrototypeOf(made), 'constructor', { value: refuse });
  }
  const seen = new Set<unknown>();
  const freeze = (value: unknown): void => {
    if ((typeof value !== 'object' && typeof value !== 'function') || value === null || seen.has(value)) return;
    seen.add(value);
    Object.freeze(value);
    freeze(Object.getPrototypeOf(value));
    for (const property of Object.values(Object.getOwnPropertyDescriptors(value))) {
      freeze(property.value);
      freeze(property.get);
      freeze(property.set);
    }
  };
  for (const name of Object.getOwnPropertyNames(globalThis)) {
    if (name !== '__answer' && name !== 'globalThis') freeze(machineGlobal[name]);
  }
  for (const made of [[][Symbol.iterator](), new Map().entries(), new Set().values(), ''.matchAll(/./g), async function () {}, function* () {}]) {
    freeze(Object.getPrototypeOf(made));
  }
}
closeOff();
