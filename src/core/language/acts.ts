/**
 * What a behaviour does, as a list of acts: the vocabulary of `flow.ts`, which reads them from a source, and of the
 * checks and the map, which ask for them.
 */
import ts from 'typescript-classic';

/** The technical name of a part; a column of a rows field as `rows.column`, the row itself as `rows#`. */
export type PartPath = string;

/** One aspect of a part, read somewhere. Empty, row, count and the like are readings of the value. */
export interface Access {
  part: PartPath;
  aspect: string;
  /** As it is spelled: `row`, `empty`, `count`. */
  spelled: string;
  node: ts.Node;
  /** How many awaits came before the reading. */
  waits: number;
}

export interface Condition {
  node: ts.Expression;
  /** Whether it holds or fails where it is a condition of. */
  holds: boolean;
  /** It is so each time; not where it only may have been, as behind a branch that leaves now and then. */
  surely: boolean;
  reads: Access[];
  marks: ReadonlySet<Mark>;
}

/** What besides parts a value depends on. */
export type Mark = 'by' | 'event' | 'previous' | 'service' | 'clock' | 'random' | 'opening';

interface Base {
  node: ts.Node;
  conditions: readonly Condition[];
  /** How many awaits came before it in its block. */
  waits: number;
}

export type Act = Base &
  (
    | { type: 'read'; access: Access }
    /** `op` is `=` or a compound such as `+=`. */
    | {
        type: 'write';
        part: PartPath;
        aspect: string;
        target: ts.Expression;
        value: ts.Expression | null;
        op: string;
        reads: Access[];
        marks: ReadonlySet<Mark>;
      }
    /** The part itself stands where one of its aspects belongs. */
    | {
        type: 'part';
        part: PartPath;
        sort: PartConstant;
        how: 'assigned' | 'compared' | 'condition';
      }
    | {
        type: 'compare';
        left: Known;
        right: Known;
        leftNode: ts.Expression;
        rightNode: ts.Expression;
        op: 'equal' | 'unequal' | 'among';
      }
    /** An expression is asked whether it holds: a condition, or an operand of one. */
    | { type: 'test'; node: ts.Expression }
    /** Something is looked up by a key: in an object or a map, a list or a set that stands in the source. */
    | { type: 'lookup'; by: Known; byNode: ts.Expression; keys: ts.Expression[]; in: ts.Expression }
    | { type: 'await'; reads: Access[]; marks: ReadonlySet<Mark> }
    /** A module variable is assigned, or what it holds is changed. */
    | {
        type: 'state';
        name: string;
        declaration: ts.VariableDeclaration;
        how: 'assigned' | 'changed';
        /** What the key and the value depend on where something is put under a key, as in a cache. */
        put: { key: Access[]; value: Known } | null;
      }
    | { type: 'clock'; what: string }
    /** A method of the form or a part that does something: `form.clear`, `add`, `open`. */
    | { type: 'do'; what: string; part: PartPath | null }
  );
export type ActOf<T extends Act['type']> = Extract<Act, { type: T }>;

export interface Block {
  sort: 'handler' | 'rule' | 'invariant';
  /** The event of a handler; of a rule `keep` or `keep.each`, of an invariant `always` or `always.each`. */
  event: string;
  /** Parts the handler is tied to, or the rows field a rule or invariant runs for. */
  tied: PartPath[];
  call: ts.CallExpression;
  /** The function, when it stands in this file. */
  body: ts.FunctionLikeDeclaration | null;
  overlaps: boolean;
  /** The block it is tied inside of. */
  inside: Block | null;
  acts: Act[];
  /** What is known of each expression that runs in it; nothing where its runs differ. */
  seen: ReadonlyMap<ts.Node, Known>;
}

export interface Flow {
  file: ts.SourceFile;
  blocks: Block[];
}

export type PartConstant = 'fields' | 'sections' | 'pages' | 'tracks' | 'buttons';

/** A name where it is declared. */
export interface Bound {
  known: Known;
  /** A variable of the module, which outlives a record. */
  module: ts.VariableDeclaration | null;
}

/** Names and what is known of them, by the block they are declared in. */
export interface Scope {
  get(name: string): Bound | null;
  /** Assigns to a variable where it was declared; it may then be either. */
  widen(name: string, value: Known): void;
}

/** What is known of an expression. */
export interface Known {
  /** It may be one of these parts. */
  parts: { part: PartPath; sort: PartConstant }[];
  /** It is exactly this aspect of a part. */
  alias: Access | null;
  /** The fallback for when that aspect is empty: the right side of `??`. */
  otherwise?: ts.Expression;
  reads: Access[];
  marks: ReadonlySet<Mark>;
  /** Things whose members mean something: a global such as `fields`, an event, the cells or columns of a rows field. */
  thing: Thing | null;
  /** The items of a list that stands in the source. */
  items: Known[] | null;
  /** What each item of a list is, where it is known. */
  item: Known | null;
  /** The list in the source of whose texts it is one. */
  oneOf?: ts.ArrayLiteralExpression;
  run: { node: ts.FunctionLikeDeclaration; env: Scope } | null;
  /** The expression that it is, through constants: a literal, an object, a sum. */
  source: ts.Expression | null;
}

export type Thing =
  | { is: 'global'; name: string }
  | { is: 'event'; block: Block }
  | { is: 'cells' | 'columns' | 'row'; field: PartPath }
  | { is: 'method'; name: string; of: Known }
  | { is: 'person' }
  /** The row of a table that a reference field points at. */
  | { is: 'record'; field: PartPath };

/** Takes off what changes only the type of an expression. */
export function bare(node: ts.Expression): ts.Expression {
  let inner = node;
  while (
    ts.isParenthesizedExpression(inner) ||
    ts.isAsExpression(inner) ||
    ts.isNonNullExpression(inner) ||
    ts.isSatisfiesExpression(inner) ||
    ts.isTypeAssertionExpression(inner)
  )
    inner = inner.expression;
  return inner;
}

export const actsOf = <T extends Act['type']>(block: Block, type: T): ActOf<T>[] =>
  block.acts.filter((act): act is ActOf<T> => act.type === type);
