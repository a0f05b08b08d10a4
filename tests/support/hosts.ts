/**
 * The two hosts of a session's scripts for tests: this engine over a plain buffer, and QuickJS. A `Play` opens a form with scripts
 * and does steps in one of them; the same tests run in both, and their tapes are compared.
 */
import { expect } from 'vitest';
import type { Form } from '../../src/core/form/definition';
import type { Service } from '../../src/core/form/service';
import type { Table } from '../../src/core/form/table';
import type { Values } from '../../src/core/form/value';
import { compileDetailed } from '../../src/core/language/compile';
import { materialOf } from '../../src/core/language/material';
import type { Watch } from '../../src/core/language/watches';
import type { Site } from '../../src/core/script/sites';
import { Host as ScriptsHost } from '../../src/core/sandbox/host';
import { groundOver, type Ground } from '../../src/core/debugging/ground';
import { Inspector, type Inspection, type Wanted } from '../../src/core/sandbox/inspector';
import { Tape } from '../../src/core/tape/tape';
import { startModule } from '../../src/core/sandbox/quickjs';
import { Sandbox } from '../../src/core/sandbox/sandbox';
import { partSeen, seenAfter, NOTHING_SEEN, type Seen } from '../../src/core/scenario/seen';
import type { Entry } from '../../src/core/session/entries';
import { Session } from '../../src/core/session/session';
import type { Material } from '../../src/core/session/material';
import type { Answer, Opening, TimedStep } from '../../src/core/session/step';
import { InProcess } from './in-process';

export type SitesOf = ReadonlyMap<string, readonly Site[]>;

export interface Setting {
  form: Form;
  tables?: Table[];
  /** Sources by behaviour name; run in the order of the names. */
  scripts?: Record<string, string>;
  record?: { id: string; values: Values };
  launch?: Values;
  roles?: string[];
  clock?: number;
  seed?: number;
  services?: Service[];
  opening?: Partial<Opening>;
  /** False as where people fill in a form. */
  invariants?: boolean;
}

/** A form in use, in whichever host. */
export interface Use {
  do(step: TimedStep): Answer;
  /** All that is seen now. */
  readonly seen: Seen;
  /** Every entry so far. */
  readonly tape: Entry[];
  readonly opened: Answer;
  /** The value at an address, such as `draught` or `cargo[0].weight`; of a rows field its rows. */
  value(address: string): unknown;
  part(name: string): Seen['parts'][string];
}

export type Host = (setting: Setting, traced?: boolean) => Use;

/** Compiled once for each set of scripts, since tests do the same form's steps again and again. */
const materials = new WeakMap<object, { of: Setting; traced: boolean; material: Material }[]>();

export function materialFor(setting: Setting, traced: boolean): Material {
  const scripts = setting.scripts ?? setting;
  const known = materials.get(scripts) ?? [];
  const same = known.find(
    ({ of, ...one }) =>
      one.traced === traced &&
      of.form === setting.form &&
      of.tables === setting.tables &&
      of.services === setting.services,
  );
  if (same !== undefined) return same.material;
  const material = makeMaterial(setting, traced);
  materials.set(scripts, [...known, { of: setting, traced, material }]);
  return material;
}

function makeMaterial(setting: Setting, traced: boolean): Material {
  const sources = Object.entries(setting.scripts ?? {}).map(([name, text]) => ({
    name: `${name}.ts`,
    text,
  }));
  const material = materialOf(
    setting.form,
    { tables: setting.tables ?? [], services: setting.services ?? [] },
    sources,
    traced ? 'traced' : 'untraced',
  );
  return { ...material, invariants: setting.invariants };
}

const detailed = new WeakMap<Setting, ReturnType<typeof detailedMaterial>>();

function detailedFor(setting: Setting): ReturnType<typeof detailedMaterial> {
  const made = detailed.get(setting) ?? detailedMaterial(setting);
  detailed.set(setting, made);
  return made;
}

/** The same, compiled so that runs can report in detail, with the sites of each script. */
export function detailedMaterial(
  setting: Setting,
  watches: Record<string, readonly Watch[]> = {},
): { material: Material; sites: SitesOf } {
  const material = materialFor(setting, true);
  const sites = new Map<string, readonly Site[]>();
  const scripts = material.scripts.map(({ name }) => {
    const compiled = compileDetailed(
      { name: `${name}.ts`, text: setting.scripts![name]! },
      watches[name],
    );
    sites.set(name, compiled.sites);
    return compiled.script;
  });
  return { material: { ...material, scripts }, sites };
}

/** Runs a session again in the machine and says what is wanted of it. */
export function inspected(
  setting: Setting,
  steps: readonly TimedStep[],
  wanted: Partial<Wanted>,
  material = detailedMaterial(setting).material,
): Inspection {
  const sandbox = machine!;
  sandbox.load(material);
  return sandbox.inspect(openingOf(setting), steps, {
    runs: 'all',
    moments: [],
    turned: [],
    asks: false,
    answers: true,
    ...wanted,
  });
}

/** The same in this engine, which is faster where a test does it thousands of times. */
export function inspectedHere(
  setting: Setting,
  steps: readonly TimedStep[],
  wanted: Partial<Wanted>,
  material: Material,
): Inspection {
  const host = new ScriptsHost(new InProcess(), null);
  const loaded = host.load(material, false);
  const inspector: Inspector = new Inspector(
    { runs: 'all', moments: [], turned: [], asks: false, answers: true, ...wanted },
    { look: () => session.look(), ask: () => undefined },
  );
  const session = new Session(material, loaded, host, openingOf(setting), inspector);
  host.reportTo(inspector);
  return inspector.end([session.open(), ...steps.map((step) => session.do(step))]);
}

/** What answers about a session stand on. */
export function groundOf(setting: Setting, steps: readonly TimedStep[]): Ground {
  const { material, sites } = detailedFor(setting);
  const all = inspectedHere(setting, steps, { runs: [] }, material);
  return groundOver(
    { form: setting.form, tape: new Tape(all.answers.flatMap(({ tape }) => tape)), sites },
    (wanted) =>
      Promise.resolve(
        inspectedHere(setting, steps, { runs: [], ...wanted, answers: false }, material),
      ),
  );
}

export function openingOf(setting: Setting): Opening {
  return {
    person: { key: 'mira', name: 'Mira Oldane', roles: setting.roles ?? ['clerk'] },
    record: setting.record ?? null,
    launch: setting.launch ?? {},
    clock: setting.clock ?? Date.parse('2031-05-02T09:00:00Z'),
    seed: setting.seed ?? 1,
    newId: 'new',
    ...setting.opening,
  };
}

function use(form: Form, open: () => Answer, step: (step: TimedStep) => Answer): Use {
  const opened = open();
  let seen = seenAfter(NOTHING_SEEN, opened);
  const tape = [...opened.tape];
  return {
    opened,
    do(done) {
      const answer = step(done);
      seen = seenAfter(seen, answer);
      tape.push(...answer.tape);
      return answer;
    },
    get seen() {
      return seen;
    },
    tape,
    value: (address) => partSeen(seen, form, address)?.value,
    part: (address) => partSeen(seen, form, address)!,
  };
}

export const direct: Host = (setting, traced = true) => {
  const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
  const material = copy(materialFor(setting, traced));
  const host = new ScriptsHost(new InProcess(), null);
  const session = new Session(material, host.load(material, false), host, copy(openingOf(setting)));
  return use(
    setting.form,
    () => copy(session.open()),
    (step) => copy(session.do(copy(step))),
  );
};

let machine: Sandbox | null = null;

/** To be awaited once before `inMachine` is used. */
export async function bootMachine(): Promise<void> {
  machine ??= new Sandbox(await startModule(), {
    temporal: true,
  });
}

export const inMachine: Host = (setting, traced = true) => {
  const sandbox = machine!;
  sandbox.load(materialFor(setting, traced));
  return use(
    setting.form,
    () => sandbox.open(openingOf(setting)),
    (step) => sandbox.step(step),
  );
};

/** Both hosts do the same and tape the same, to the byte (27); the test then looks at one of them. */
export const both: Host = (setting, traced) => {
  const [here, there] = [direct(setting, traced), inMachine(setting, traced)];
  const same = () => expect(JSON.stringify(there.tape)).toBe(JSON.stringify(here.tape));
  same();
  return {
    ...here,
    do(step) {
      const answer = here.do(step);
      expect(there.do(step)).toEqual(answer);
      same();
      return answer;
    },
    get seen() {
      return here.seen;
    },
  };
};
