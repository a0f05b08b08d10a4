/** What a member of something means in a behaviour: an aspect of a part, a method, a thing of an event. */
import type ts from 'typescript-classic';
import type { Access, Act, Block, Known, PartConstant } from './acts';
import { derived, known, NO_MARKS, NOTHING } from './known';

/** Readings that are answered by the value. */
const OF_VALUE = new Set(['row', 'empty', 'optionLabel', 'orphan', 'count', 'rows', 'sum']);
const CONSTANT = new Set(['name', 'label', 'each', 'fields', 'index']);
export const PART_CONSTANTS = new Set<string>(['fields', 'sections', 'pages', 'tracks', 'buttons']);

/** An act without what the reader adds: the conditions it stands under, and the awaits before it. */
export type ActBody = Act extends infer A
  ? A extends Act
    ? Omit<A, 'conditions' | 'waits'>
    : never
  : never;

/** Where what is read is noted. */
export interface Notes {
  act(act: ActBody): void;
  /** How many awaits came before. */
  waits(): number;
}

export class Members {
  readonly #act: Notes['act'];
  readonly #waits: Notes['waits'];

  constructor({ act, waits }: Notes) {
    this.#act = act;
    this.#waits = waits;
  }

  /** What is known of a member of something. */
  of(of: Known, name: string, node: ts.Node): Known {
    const { thing } = of;
    if (thing?.is === 'global') {
      if (PART_CONSTANTS.has(thing.name))
        return known({ parts: [{ part: name, sort: thing.name as PartConstant }] });
      if (thing.name === 'form') {
        if (name === 'person')
          return known({ thing: { is: 'person' }, marks: new Set(['opening']) });
        if (name === 'changed')
          return this.#read([
            { part: '@form', aspect: 'changed', spelled: 'changed', node, waits: this.#waits() },
          ]);
        if (name === 'isNew' || name === 'launch' || name === 'viewing' || name === 'record')
          return known({ marks: new Set(['opening']) });
      }
      if (thing.name === 'services')
        return known({ thing: { is: 'method', name: 'service', of }, marks: new Set(['service']) });
      if (thing.name === 'Math' && name === 'random')
        return known({ thing: { is: 'method', name: 'random', of } });
      return known({ thing: { is: 'method', name: `${thing.name}.${name}`, of } });
    }
    if (thing?.is === 'person')
      return name === 'roles'
        ? known({
            alias: { part: '@form', aspect: 'roles', spelled: 'roles', node, waits: this.#waits() },
            marks: new Set(['opening']),
          })
        : known({ marks: new Set(['opening']) });
    if (thing?.is === 'event') return this.#ofEvent(thing.block, name, node);
    if (thing?.is === 'columns' || thing?.is === 'cells')
      return known({ parts: [{ part: `${thing.field}.${name}`, sort: 'fields' }] });
    if (thing?.is === 'method')
      return known({
        thing: { is: 'method', name: `${thing.name}.${name}`, of: thing.of },
        reads: of.reads,
        marks: of.marks,
      });
    if (thing?.is === 'row') {
      if (name === 'fields') return known({ thing: { is: 'cells', field: thing.field } });
      if (name === 'index') return NOTHING;
      if (name === 'values')
        return this.#read([
          { part: thing.field, aspect: 'value', spelled: name, node, waits: this.#waits() },
        ]);
      return this.#read([
        { part: `${thing.field}#`, aspect: name, spelled: name, node, waits: this.#waits() },
      ]);
    }
    if (of.parts.length > 0) return this.#ofParts(of, name, node);
    if (thing?.is === 'record')
      return {
        ...derived([of]),
        alias: {
          part: thing.field,
          aspect: 'row',
          spelled: `row.${name}`,
          node,
          waits: this.#waits(),
        },
      };
    return { ...derived([of]), thing: { is: 'method', name, of } };
  }

  #ofParts(of: Known, name: string, node: ts.Node): Known {
    const [first] = of.parts;
    if (name === 'each') return known({ thing: { is: 'columns', field: first!.part } });
    if (CONSTANT.has(name) && !(name === 'label' && first!.sort === 'buttons')) return NOTHING;
    if (name === 'add' || name === 'remove' || name === 'open')
      return known({ thing: { is: 'method', name, of } });
    const accesses = of.parts.map(({ part }): Access => ({
      part,
      aspect: OF_VALUE.has(name) ? 'value' : name,
      spelled: name,
      node,
      waits: this.#waits(),
    }));
    const read = this.#read(accesses);
    if (name === 'rows')
      return { ...read, item: known({ thing: { is: 'row', field: first!.part } }), alias: null };
    if (name === 'sum') return { ...read, thing: { is: 'method', name, of }, alias: null };
    if (name === 'row' && of.parts.length === 1)
      return { ...read, thing: { is: 'record', field: first!.part }, alias: null };
    const exact =
      accesses.length === 1 &&
      (name === 'value' || name === 'stage' || name === 'previous' || name === 'initial');
    return {
      ...read,
      alias: exact ? accesses[0]! : null,
      marks: name === 'previous' ? new Set(['previous']) : NO_MARKS,
    };
  }

  #read(accesses: Access[]): Known {
    for (const access of accesses) this.#act({ type: 'read', node: access.node, access });
    return known({ reads: accesses, alias: accesses.length === 1 ? accesses[0]! : null });
  }

  #ofEvent(block: Block, name: string, node: ts.Node): Known {
    if (name === 'by') return known({ marks: new Set(['by']) });
    if (name === 'row')
      return known({ thing: { is: 'row', field: (block.tied[0] ?? '').split('.')[0]! } });
    if (name === 'part')
      return known({
        parts: block.tied.map((part) => ({
          part,
          sort: block.event === 'click' ? 'buttons' : 'fields',
        })),
      });
    if (name === 'value' || name === 'previous') {
      const accesses = block.tied.map((part): Access => ({
        part,
        aspect: name,
        spelled: `event.${name}`,
        node,
        waits: 0,
      }));
      const alias = accesses.length === 1 ? accesses[0]! : null;
      return known({
        reads: accesses,
        alias,
        marks: new Set(name === 'previous' ? ['event', 'previous'] : ['event']),
      });
    }
    return known({
      marks: new Set(['event']),
      thing: { is: 'method', name: `event.${name}`, of: NOTHING },
    });
  }
}
