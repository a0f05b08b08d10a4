/**
 * What scripts touch: `fields`, `sections`, `pages`, `tracks`, `buttons`, `form`, `services` and the rest, all frozen.
 * Each face only passes reads and writes on to `runs.ts`; a name or aspect that does not exist is answered in words.
 * What behaviours tie with, `on` and `keep`, is `tying.ts`. `language/typings.ts` describes the same surface to the
 * editor, and a test holds the two together.
 */
import { checks, fitsMask, throughMask } from '../form/checks';
import { accept, textOf } from '../form/kinds';
import { round } from '../form/round';
import { isEmpty, type Value } from '../form/value';
import type { Clock } from './clock';
import { nearest, ScriptFault, ServiceError, words } from './errors';
import { gather, makeSurface, partOf, type Member, type Refusals } from './face';
import { formFace } from './form-face';
import type { Part } from './parts';
import type { Row } from './rows';
import type { Runs } from './runs';
import type { Services } from './services';
import type { State } from './state';
import type { Opening, PartSort } from './step';

/** What the faces need of the session besides state and runs. */
export interface Stage {
  opening(): Opening;
  isNew(): boolean;
  record(): string | null;
  submitting(): boolean;
  defaultOf(part: Part): Value;
  openPage(page: Part, cause: number | null, line: number): void;
}

export interface Globals {
  fields: object;
  sections: object;
  pages: object;
  tracks: object;
  buttons: object;
  tables: object;
  services: object;
  form: object;
  after: (milliseconds: unknown) => object;
  round: typeof round;
  checks: object;
  ServiceError: typeof ServiceError;
}

export interface Faces {
  globals: Globals;
  /** The parent while a form is open; null when none opened it. */
  parent: () => object | null;
  faceOf(part: Part): object;
  rowFace(row: Row): object;
  /** The column that `fields.NAME.each.COLUMN` stands for. */
  columnOf(token: unknown): { rows: Part; column: string } | null;
}

const SORTS = ['field', 'section', 'page', 'track', 'button'] as const satisfies readonly PartSort[];

export function makeFaces(state: State, runs: Runs, services: Services, clock: Clock, stage: Stage): Faces {
  const faces = new Map<Part, object>();
  const tokens = new WeakMap<object, { rows: Part; column: string }>();
  const fault = (says: string): never => runs.fault(new ScriptFault('wrong_use', says));
  const refusals: Refusals = {
    readOnly: (part, name) => fault(words.readOnly(part.name, name)),
    unknown: (part, name, known) => fault(words.noAspect(part.name, name, known)),
  };

  const read = (name: string): Member => ({ get: (part) => runs.read(part.aspect(name)) });
  const both = (name: string): Member => ({ ...read(name), set: (part, offered) => runs.say(part.aspect(name), offered) });
  const method = (make: (part: Part) => unknown): Member => {
    const made = new Map<Part, unknown>();
    return {
      get: (part) => {
        if (!made.has(part)) made.set(part, make(part));
        return made.get(part);
      },
    };
  };

  const shownAndLocked: Record<string, Member> = {
    name: { get: (part) => (part.row === null ? part.name : part.field.name) },
    label: { get: (part) => ('label' in part.definition ? part.definition.label : part.label) },
    shown: both('shown'),
    locked: both('locked'),
    onScreen: { get: (part) => up(part, (p) => !p.has('shown') || runs.read(p.aspect('shown')) === true) },
    editable: { get: (part) => up(part, (p) => !p.has('locked') || runs.read(p.aspect('locked')) === false) && !part.scriptOnly },
  };

  const valueOf = (part: Part) => runs.read(part.aspect('value'));
  const ofField: Record<string, Member> = {
    ...shownAndLocked,
    value: both('value'),
    previous: { get: (part) => (valueOf(part), state.previous.get(part) ?? null) },
    initial: { get: (part) => (valueOf(part), state.initialOf(part)) },
    empty: { get: (part) => isEmpty(valueOf(part)) },
    orphan: { get: (part) => (valueOf(part), state.orphans.has(part)) },
    required: both('required'),
    options: { get: (part) => state.optionsOf(part.field, runs.read(part.aspect('options'))) ?? Object.freeze([]), set: both('options').set! },
    optionLabel: { get: optionLabel },
    row: { get: (part) => (part.field.kind === 'reference' && valueOf(part) !== null ? state.table(part.field.table).find(String(valueOf(part))) : null) },
    hint: both('hint'),
    problem: both('problem'),
  };

  function optionLabel(part: Part): unknown {
    const value = valueOf(part);
    const set = runs.read(part.aspect('options'));
    const { field } = part;
    const around = { options: set as never, table: (name: string) => state.table(name) };
    if (field.kind === 'choices') return Object.freeze((value as string[]).map((key) => textOf([key], field, around)));
    if ((field.kind !== 'choice' && field.kind !== 'reference') || value === null) return null;
    return textOf(value, field, around);
  }

  const fieldSurface = makeSurface(ofField, refusals, (part) => (part.row === null ? `fields.${part.name}` : part.name));
  const ofRows = without(ofField, ['previous', 'orphan', 'options', 'optionLabel', 'row']);
  const rowsSurface = makeSurface(
    {
      ...ofRows,
      rows: { get: (part) => (runs.read(part.rows!.order), rowFaces(part)) },
      count: { get: (part) => runs.read(part.rows!.count) },
      each: method(columnTokens),
      add: method((part) => (values?: unknown) => rowFace(runs.addRow(part.rows!, withDefaults(part, values)))),
      remove: method((part) => (row: unknown) => runs.removeRow(part.rows!, partOf(row)?.row ?? null, row)),
      sum: method((part) => (column: unknown) => {
        const name = String(column);
        const found = part.rows!.columns.get(name);
        if (found === undefined) return fault(words.noCell(part.name, name, [...part.rows!.columns.keys()]));
        if (found.field.kind !== 'number' && found.field.kind !== 'money') return fault(words.notNumbers(part.name, name));
        return runs.read(part.rows!.sum(name));
      }),
    },
    refusals,
    (part) => `fields.${part.name}`,
  );

  /** A new row begins with the defaults of its cells, and what is given instead. */
  function withDefaults(part: Part, given: unknown): unknown {
    if (given !== undefined && (typeof given !== 'object' || given === null)) return given;
    const row: Record<string, unknown> = { ...(given as object | undefined) };
    for (const [name, { field }] of part.rows!.columns) if (row[name] === undefined) row[name] = stage.defaultOf({ field } as Part);
    return row;
  }

  const rowLists = new Map<Part, { list: readonly Row[]; faces: readonly object[] }>();
  function rowFaces(part: Part): readonly object[] {
    const { list } = part.rows!;
    const known = rowLists.get(part);
    if (known?.list === list) return known.faces;
    const made = Object.freeze(list.map(rowFace));
    rowLists.set(part, { list, faces: made });
    return made;
  }

  function columnTokens(part: Part): object {
    const made = new Map(
      [...part.rows!.columns.keys()].map((column) => {
        const token = Object.freeze({ name: column });
        tokens.set(token, { rows: part, column });
        return [column, () => token] as const;
      }),
    );
    const known = [...made.keys()];
    return gather(made, {
      assign: (name) => fault(words.readOnly(`${part.name}.each`, name)),
      unknown: (name) => fault(words.noCell(part.name, name, known)),
    });
  }

  const rowSurfaces = new Map<Part, ReturnType<typeof makeSurface>>();
  function rowSurface(field: Part): ReturnType<typeof makeSurface> {
    const made = rowSurfaces.get(field);
    if (made !== undefined) return made;
    const rows = field.rows!;
    const columns = [...rows.columns.keys()];
    const cells = makeSurface(
      Object.fromEntries(columns.map((column) => [column, { get: (part: Part) => faceOf(rows.cell(part.row!, column)), set: (part: Part) => fault(words.assignPart('field', `${part.name}.${column}`)) }])),
      { readOnly: refusals.readOnly, unknown: (_part, name) => fault(words.noCell(field.name, name, columns)) },
      (part) => `${part.name}.fields`,
    );
    const surface = makeSurface(
      {
        fields: method((part) => cells.face(part)),
        values: read('values'),
        index: { get: (part) => (runs.read(rows.order), part.row!.index) },
        ...without(shownAndLocked, ['name', 'label']),
        problem: both('problem'),
      },
      refusals,
      (part) => part.name,
    );
    rowSurfaces.set(field, surface);
    return surface;
  }

  function rowFace(row: Row): object {
    return faceOf(row.part);
  }

  const surfaces = {
    section: makeSurface(shownAndLocked, refusals, (part) => `sections.${part.name}`),
    page: makeSurface(
      {
        ...shownAndLocked,
        open: method((part) => () => {
          const { line } = runs.act(`pages.${part.name}.open()`);
          stage.openPage(part, runs.cause, line);
        }),
      },
      refusals,
      (part) => `pages.${part.name}`,
    ),
    track: makeSurface({ ...without(shownAndLocked, ['locked', 'editable']), stage: both('stage') }, refusals, (part) => `tracks.${part.name}`),
    button: makeSurface({ ...shownAndLocked, label: both('label') }, refusals, (part) => `buttons.${part.name}`),
  };

  function faceOf(part: Part): object {
    const made = faces.get(part);
    if (made !== undefined) return made;
    const { sort } = part;
    const surface =
      sort === 'row' ? rowSurface(part.row!.rows.field) : sort === 'field' ? (part.rows === null ? fieldSurface : rowsSurface) : surfaces[sort as keyof typeof surfaces];
    const face = surface.face(part);
    faces.set(part, face);
    return face;
  }

  function gatherParts(sort: (typeof SORTS)[number]): object {
    const parts = new Map([...state.parts.byName.values()].filter((part) => part.sort === sort).map((part) => [part.name, () => faceOf(part)]));
    return gather(parts, {
      assign: (name) => fault(words.assignPart(sort, name)),
      unknown: (name) => fault(words.noPart(sort, name, nearest(name, parts.keys()))),
    });
  }

  const tables = Object.freeze(
    Object.fromEntries(
      [...state.tables].map(([name, index]) => [
        name,
        Object.freeze({
          rows: Object.freeze(index.rows),
          find: (key: unknown) => (key === null || key === undefined ? null : index.find(String(key))),
        }),
      ]),
    ),
  );

  const servicesFace = gather(
    new Map(
      [...services.all.values()].map((service) => {
        const functions = Object.keys(service.functions);
        const face = gather(
          new Map(
            functions.map((called) => {
              const call = (offered: unknown) => {
                runs.act(`services.${service.name}.${called}()`);
                const asked = guarded(() => services.ask(service, called, offered));
                const now = clock.read('a service');
                return runs.call(asked.name, asked.args, now, now + asked.delay, asked.outcome);
              };
              return [called, () => call] as const;
            }),
          ),
          {
            assign: (name) => fault(words.readOnly(`services.${service.name}`, name)),
            unknown: (name) => fault(words.noFunction(service.name, name, functions)),
          },
        );
        return [service.name, () => face] as const;
      }),
    ),
    {
      assign: (name) => fault(words.readOnly('services', name)),
      unknown: (name) => fault(words.noService(name, nearest(name, services.all.keys()))),
    },
  );

  function guarded<T>(work: () => T): T {
    try {
      return work();
    } catch (caught) {
      return caught instanceof ScriptFault ? runs.fault(caught) : fault(words.type);
    }
  }

  const after = (milliseconds: unknown): object => {
    if (typeof milliseconds !== 'number' || !(milliseconds >= 0) || milliseconds > 86_400_000) return fault(words.wrongArguments('after', 'takes milliseconds from 0 to a day.'));
    const now = clock.read('after()');
    return runs.call('after', milliseconds, now, now + milliseconds, () => ({ ok: true, value: undefined }));
  };

  const parentFace = Object.freeze({
    get: (name: unknown) => {
      const { form, fields, values } = stage.opening().parent!;
      if (!fields.some((field) => field.name === name)) return fault(words.noParentField(String(name), form));
      return values[String(name)] ?? null;
    },
    set: (name: unknown, offered: unknown) => {
      runs.act('parent.set()');
      const { form, fields } = stage.opening().parent!;
      const field = fields.find((one) => one.name === name);
      const now = clock.read('parent.set()');
      const refuse = (reason: string) => runs.call('parent.set', String(name), now, now, () => ({ ok: false, reason }));
      if (field === undefined) return refuse(words.noParentField(String(name), form));
      if (field.kind === 'rows' || field.kind === 'reference') {
        runs.askParent(field.name, (offered ?? null) as Value);
        return runs.call('parent.set', field.name, now, now, () => ({ ok: true, value: undefined }));
      }
      const accepted = accept(offered, field, { options: null, table: () => state.tables.values().next().value! });
      if (!accepted.ok) return refuse(`${field.label} takes ${accepted.takes}`);
      runs.askParent(field.name, accepted.value);
      return runs.call('parent.set', field.name, now, now, () => ({ ok: true, value: undefined }));
    },
  });

  return {
    globals: {
      fields: gatherParts('field'),
      sections: gatherParts('section'),
      pages: gatherParts('page'),
      tracks: gatherParts('track'),
      buttons: gatherParts('button'),
      tables,
      services: servicesFace,
      form: formFace(state, runs, stage, fault),
      after,
      round,
      checks: Object.freeze({ ...checks, fits: fitsMask, format: throughMask }),
      ServiceError: Object.freeze(ServiceError),
    },
    parent: () => {
      if (runs.running === null) throw new ScriptFault('wrong_use', runs.topLevel ? words.topLevel('parent was read') : words.outside('parent was read'));
      return stage.opening().parent == null ? null : parentFace;
    },
    faceOf,
    rowFace,
    columnOf: (token) => (typeof token === 'object' && token !== null ? (tokens.get(token) ?? null) : null),
  };
}

function without(members: Readonly<Record<string, Member>>, names: readonly string[]): Record<string, Member> {
  return Object.fromEntries(Object.entries(members).filter(([name]) => !names.includes(name)));
}

/** Walks a part and what it stands in. */
function up(part: Part, holds: (part: Part) => boolean): boolean {
  for (let p: Part | null = part; p !== null; p = p.parent) if (!holds(p)) return false;
  return true;
}
