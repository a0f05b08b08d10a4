/**
 * What scripts touch: `fields`, `sections`, `pages`, `buttons`, `form`, `on`, `keep` and the rest, all frozen. Each
 * face only passes reads and writes on to `runs.ts`; a name or aspect that does not exist is answered in words.
 * `language/typings.ts` describes the same surface to the editor, and a test holds the two together.
 */
import { round } from '../form/round';
import { textOf } from '../form/kinds';
import type { Value } from '../form/value';
import { inWords } from '../form/value';
import { nearest, ScriptFault, words } from './errors';
import type { EventType } from './entries';
import type { Aspect, Part } from './parts';
import { reads } from './plain';
import type { Runs } from './runs';
import type { Event, Settling } from './settling';
import type { State } from './state';
import type { Opening } from './step';
import type { Behaviour, Handler } from './ties';

const FORM_ASPECTS = [
  'isNew', 'record', 'person', 'launch', 'changed', 'clear', 'message', 'replaceWith', 'submit',
] as const;

/** What the faces need of the session besides state and runs. */
export interface Stage {
  opening(): Opening;
  isNew(): boolean;
  recordId(): string | null;
  previousOf(part: Part): Value;
  submitting(): boolean;
  openPage(page: Part, cause: number | null, line: number): void;
  /** The place of the next tie of this behaviour among all. */
  nextOrder(behaviour: Behaviour): number;
}

export interface Globals {
  fields: object;
  sections: object;
  pages: object;
  buttons: object;
  tables: object;
  form: object;
  round: typeof round;
  /** Those that belong to one behaviour, since ties are made in its name. */
  of(behaviour: Behaviour): { on: object; keep: object; log: (...values: unknown[]) => void };
  eventFor(event: Event): object;
}

export function makeFaces(state: State, runs: Runs, settling: Settling, stage: Stage): Globals {
  const faces = new Map<Part, object>();
  const partBehind = new WeakMap<object, Part>();

  const fault = (says: string): never => runs.fault(new ScriptFault('wrong_use', says));

  /** Gets and sets aspects by name. What is not listed as writable can only be read. */
  function face(part: Part, getters: Record<string, () => unknown>, writable: readonly string[]): object {
    const target = Object.create(unknownAspects(part.name, Object.keys(getters))) as object;
    for (const [name, get] of Object.entries(getters)) {
      Object.defineProperty(target, name, {
        enumerable: true,
        get,
        set: writable.includes(name) ? writer(part.aspects[name]!) : () => fault(words.readOnly(part.name, name)),
      });
    }
    reads.set(target, `${part.sort}s.${part.name}`);
    partBehind.set(target, part);
    faces.set(part, target);
    return Object.freeze(target);
  }

  const writer = (aspect: Aspect) => (offered: unknown) => runs.say(aspect, offered);
  const reader = (aspect: Aspect) => () => runs.read(aspect);

  /** Stands behind a face and answers whatever the face does not have. */
  function unknownAspects(of: string, known: readonly string[]): object {
    return new Proxy(Object.freeze(Object.create(null) as object), {
      get: (_, name) => (isSilent(name) ? undefined : fault(words.noAspect(of, String(name), known))),
      set: (_, name) => fault(words.noAspect(of, String(name), known)),
    });
  }

  function nested(part: Part): Record<string, () => unknown> {
    const read = (name: string) => reader(part.aspects[name]!);
    return {
      shown: read('shown'),
      locked: read('locked'),
      onScreen: () => up(part, (p) => p.aspects.shown === undefined || runs.read(p.aspects.shown) === true),
      editable: () => up(part, (p) => p.aspects.locked === undefined || runs.read(p.aspects.locked) === false),
      name: () => part.name,
    };
  }

  function fieldFace(part: Part): object {
    const { field } = part;
    const aspect = (name: string): Aspect => part.aspects[name]!;
    const value = reader(aspect('value'));
    const isKey = field.kind === 'choice' || field.kind === 'reference';
    return face(
      part,
      {
        ...nested(part),
        value,
        previous: () => (runs.read(aspect('value')), stage.previousOf(part)),
        initial: () => (runs.read(aspect('value')), state.initial.get(part) ?? null),
        empty: () => value() === null,
        orphan: () => (value(), state.orphans.has(part)),
        label: () => field.label,
        required: reader(aspect('required')),
        options: () => state.optionsOf(part, runs.read(aspect('options'))) ?? Object.freeze([]),
        optionLabel: () => {
          const key = value();
          const set = runs.read(aspect('options'));
          if (!isKey || key === null) return null;
          return textOf(key, field, { options: set as never, table: (name) => state.table(name) });
        },
        row: () => {
          const key = value();
          return field.kind === 'reference' && key !== null ? state.table(field.table).find(String(key)) : null;
        },
        hint: reader(aspect('hint')),
        problem: reader(aspect('problem')),
      },
      ['value', 'shown', 'locked', 'required', 'options', 'hint', 'problem'],
    );
  }

  function frameFace(part: Part): object {
    const isButton = part.sort === 'button';
    const more: Record<string, () => unknown> = { label: () => (isButton ? runs.read(part.aspects.label!) : part.label) };
    if (part.sort === 'page') {
      const open = () => {
        runs.act(`pages.${part.name}.open()`);
        stage.openPage(part, runs.cause, runs.line);
      };
      more.open = () => open;
    }
    return face(part, { ...nested(part), ...more }, ['shown', 'locked', ...(isButton ? ['label'] : [])]);
  }

  /** `fields.NAME` and the like: each name gives its face; assigning to a name, or an unknown one, is answered. */
  function gather(sort: 'field' | 'section' | 'page' | 'button'): object {
    const parts = [...state.parts.byName.values()].filter((part) => part.sort === sort);
    const names = parts.map((part) => part.name);
    const unknown = (name: string | symbol) => fault(words.noPart(sort, String(name), nearest(String(name), names)));
    const target = Object.create(
      new Proxy(Object.freeze(Object.create(null) as object), {
        get: (_, name) => (isSilent(name) ? undefined : unknown(name)),
        set: (_, name) => unknown(name),
      }),
    ) as object;
    for (const part of parts) {
      const made = sort === 'field' ? fieldFace(part) : frameFace(part);
      Object.defineProperty(target, part.name, {
        enumerable: true,
        get: () => made,
        set: () => fault(words.assignPart(sort, part.name)),
      });
    }
    return Object.freeze(target);
  }

  const fields = gather('field');
  const sections = gather('section');
  const pages = gather('page');
  const buttons = gather('button');

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

  const constant = <T>(name: string, get: () => T) => () => {
    if (runs.running === null) throw new ScriptFault('wrong_use', runs.topLevel ? words.topLevel(`form.${name} was read`) : words.outside(`form.${name} was read`));
    return get();
  };

  const form = (() => {
    const { message, replaced, changed } = state.parts.form.aspects as Record<'message' | 'replaced' | 'changed', Aspect>;
    const target = Object.create(unknownAspects('form', FORM_ASPECTS)) as object;
    const define = (name: string, get: () => unknown) =>
      Object.defineProperty(target, name, { enumerable: true, get, set: () => fault(words.readOnly('form', name)) });
    define('isNew', constant('isNew', stage.isNew));
    define('record', constant('record', stage.recordId));
    define('person', constant('person', () => stage.opening().person));
    define('launch', constant('launch', () => stage.opening().launch));
    define('changed', () => runs.read(changed));
    const clear = () => {
      runs.act('form.clear()');
      for (const part of state.parts.fields) runs.say(part.aspects.value!, part.field.default ?? null);
    };
    const say = (text: unknown, tone: unknown = 'info') => {
      if (typeof text !== 'string') return fault(words.wrongAspect('form', 'message()', 'a text', text));
      if (tone !== 'info' && tone !== 'warning' && tone !== 'error') {
        return fault(words.wrongAspect('form', 'message()', 'the tone "info", "warning" or "error"', tone));
      }
      if (runs.running?.sort === 'rule') runs.say(message, { text, tone });
      else runs.message(text, tone);
    };
    const replaceWith = (text: unknown) => runs.say(replaced, text);
    const submit = () => {
      runs.act('form.submit()');
      if (stage.submitting()) fault(words.submitInSubmit);
      runs.wantSubmit();
    };
    for (const [name, method] of Object.entries({ clear, message: say, replaceWith, submit })) define(name, () => method);
    reads.set(target, 'form');
    return Object.freeze(target);
  })();

  function partsGiven(given: unknown, sorts: readonly Part['sort'][], call: string): Part[] {
    const list = Array.isArray(given) ? (given as unknown[]) : [given];
    return list.map((item) => {
      const part = typeof item === 'object' && item !== null ? partBehind.get(item) : undefined;
      if (part === undefined || !sorts.includes(part.sort)) {
        return fault(`${call} takes ${sorts.join(' or ')} such as ${sorts[0]}s.name, not ${inWords(item)}.`);
      }
      return part;
    });
  }

  function of(behaviour: Behaviour) {
    const mayTie = (call: string) => {
      const { running } = runs;
      if (running !== null && !(running.sort === 'handler' && running.event === 'load')) fault(words.tieInside(call));
    };
    const tie = (event: EventType, call: string, parts: readonly Part[], run: unknown) => {
      mayTie(call);
      if (typeof run !== 'function') return fault(`${call} takes a function to run, not ${inWords(run)}.`);
      return settling.tie({
        sort: 'handler',
        behaviour,
        event,
        parts,
        run: run as Handler['run'],
        line: behaviour.probe.l,
        order: stage.nextOrder(behaviour),
        step: 0,
        runs: 0,
      });
    };
    const tiedTo =
      (event: EventType, sorts: readonly Part['sort'][]) =>
      (given: unknown, run: unknown): (() => void) =>
        tie(event, `on.${event}`, partsGiven(given, sorts, `on.${event}`), run);
    const whole =
      (event: EventType) =>
      (run: unknown): (() => void) =>
        tie(event, `on.${event}`, [], run);
    const on = Object.freeze({
      load: whole('load'),
      submit: whole('submit'),
      saved: whole('saved'),
      pageChange: whole('pageChange'),
      change: tiedTo('change', ['field']),
      input: tiedTo('input', ['field']),
      focus: tiedTo('focus', ['field']),
      blur: tiedTo('blur', ['field']),
      click: tiedTo('click', ['button']),
    });
    const keep = (title: unknown, run: unknown) => {
      const [name, body] = typeof title === 'function' ? [`rule in line ${behaviour.probe.l}`, title] : [title, run];
      mayTie('keep');
      if (typeof name !== 'string' || typeof body !== 'function') fault(words.wrongAspect('keep', '()', 'a title and a function', body));
      settling.keep({
        sort: 'rule',
        behaviour,
        title: name as string,
        run: body as () => unknown,
        line: behaviour.probe.l,
        order: stage.nextOrder(behaviour),
        words: new Map(),
        reads: null,
        forced: false,
        step: 0,
        runs: 0,
      });
    };
    return { on, keep: Object.freeze(keep), log: (...values: unknown[]) => runs.log(values) };
  }

  function eventFor(event: Event): object {
    const { extra } = event;
    const basic = { part: event.part === null ? null : faces.get(event.part)!, value: event.value, previous: event.previous, by: event.by };
    if (extra === undefined) return Object.freeze(basic);
    const stop = extra.stop as ((says: string, part: Part | null) => void) | undefined;
    return Object.freeze({
      ...basic,
      ...extra,
      ...(stop === undefined
        ? {}
        : {
            stop: (says: unknown, part?: unknown) => {
              if (typeof says !== 'string' || says === '') fault(words.wrongAspect('event', 'stop()', 'a text that says why', says));
              stop(says as string, part === undefined || part === null ? null : partsGiven(part, ['field', 'section', 'page'], 'event.stop')[0]!);
            },
          }),
    });
  }

  return { fields, sections, pages, buttons, tables, form, round, of, eventFor };
}

/** Walks a part and what it stands in. */
function up(part: Part, holds: (part: Part) => boolean): boolean {
  for (let p: Part | null = part; p !== null; p = p.parent) if (!holds(p)) return false;
  return true;
}

/** Names that engines and printing ask for on their own account. */
function isSilent(name: string | symbol): boolean {
  return typeof name === 'symbol' || name === 'then' || name === 'toJSON' || name === 'constructor';
}
