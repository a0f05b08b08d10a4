/**
 * Which way a condition can go. It is worked out for values that stand for all others: the constants that it and the
 * conditions around it compare with, something between each two of them, and the keys and limits of the definition.
 */
import ts from 'typescript-classic';
import type { Field } from '../../form/definition';
import { holdsKeys, isList, isNumeric } from '../../form/traits';
import { bare, type Access, type Act, type Block } from '../acts';
import { evaluated, sameAccess, type Constant } from './evaluated';
import type { KnownParts } from './known-parts';

/** Values times conditions around: a chain of hundreds of branches is not worked out, so that typing stays quick. */
const MOST_TRIED = 20_000;

/** What decides that it goes one way only: the source by itself, the definition's limits, or the rows of a table. */
export type Reason = 'source' | 'limits' | 'table';

export interface Decided {
  node: ts.Expression;
  act: Act;
  access: Access;
  holds: boolean;
  reason: Reason;
}

/** Conditions of a block that hold always, or never. */
export function decidedIn(block: Block, parts: KnownParts): Decided[] {
  const found = new Map<ts.Node, Decided>();
  for (const act of block.acts) {
    if (act.type !== 'test' && act.type !== 'compare') continue;
    // A case of a switch is compared with something that stands elsewhere.
    const node = ts.isExpression(act.node) && !ts.isCaseClause(act.node.parent) ? act.node : null;
    for (const access of node === null ? [] : accessesIn(node, block)) {
      const outcome = isWritten(access, block) ? null : decided(node!, act, access, block, parts);
      if (outcome !== null) found.set(node!, { node: node!, act, access, ...outcome });
    }
  }
  return [...found.values()];
}

/** What an expression asks parts for. */
function accessesIn(node: ts.Expression, { seen }: Block): Access[] {
  const found: Access[] = [];
  const look = (one: ts.Node): void => {
    const known = seen.get(one);
    if (known?.alias != null && !found.some((one) => sameAccess(one, known.alias!)))
      found.push(known.alias);
    if (known?.source != null && known.source !== one) look(known.source);
    else ts.forEachChild(one, look);
  };
  look(node);
  return found;
}

/** What is written in the same block may be another value where it is asked again. */
const isWritten = ({ part, aspect }: Access, block: Block) =>
  block.acts.some(
    (act) =>
      act.type === 'write' && act.part === part && (act.aspect === aspect || aspect === 'row'),
  );

function decided(
  node: ts.Expression,
  act: Act,
  access: Access,
  block: Block,
  parts: KnownParts,
): Pick<Decided, 'holds' | 'reason'> | null {
  const around = act.conditions.filter(({ surely }) => surely);
  const constants = constantsOf([node, ...around.map((one) => one.node)], block);
  const outcomes = (candidates: readonly Constant[]) => {
    const met = new Set<boolean | undefined>();
    for (const value of candidates) {
      const isMet = around.every((one) => {
        const outcome = evaluated(one.node, access, value, block.seen);
        return outcome === undefined || Boolean(outcome) === one.holds;
      });
      if (!isMet) continue;
      const outcome = evaluated(node, access, value, block.seen);
      met.add(outcome === undefined ? undefined : Boolean(outcome));
    }
    return met;
  };
  const oneOf = (candidates: readonly Constant[] | null): boolean | null => {
    if (candidates === null) return null;
    const met = outcomes(candidates);
    const [first] = met;
    return met.size === 1 && first !== undefined ? first : null;
  };
  const all = candidatesOf(access, constants, parts);
  if (all === null || all.any.length * (around.length + 1) > MOST_TRIED) return null;
  const bySource = oneOf(all.any);
  if (bySource !== null) return { holds: bySource, reason: 'source' };
  const byLimits = oneOf(all.allowed);
  if (byLimits !== null) return { holds: byLimits, reason: all.reason };
  return null;
}

/** Literals in expressions, through constants. */
function constantsOf(nodes: readonly ts.Expression[], { seen }: Block): (string | number)[] {
  const found = new Set<string | number>();
  const look = (node: ts.Node): void => {
    const inner = ts.isExpression(node) ? bare(node) : node;
    const source = seen.get(inner)?.source;
    if (ts.isStringLiteralLike(inner)) found.add(inner.text);
    else if (ts.isNumericLiteral(inner)) found.add(Number(inner.text)).add(-Number(inner.text));
    else if (source != null && source !== inner) look(source);
    else ts.forEachChild(inner, look);
  };
  for (const node of nodes) look(node);
  return [...found];
}

interface Candidates {
  /** Whatever could be there at all. */
  any: Constant[];
  /** What the definition or a table allows; null where neither says anything. */
  allowed: Constant[] | null;
  reason: Reason;
}

function candidatesOf(
  access: Access,
  constants: readonly (string | number)[],
  parts: KnownParts,
): Candidates | null {
  const texts = constants.filter((one) => typeof one === 'string');
  const numbers = constants.filter((one) => typeof one === 'number');
  if (access.aspect === 'row') return ofColumn(access, texts, parts);
  const isNow = access.aspect === 'value';
  if (access.aspect === 'stage')
    return { any: [...texts, 'another'], allowed: null, reason: 'limits' };
  if (!isNow && access.aspect !== 'previous' && access.aspect !== 'initial') return null;
  const field = parts.field(access.part);
  if (field === null || isList(field) || access.spelled === 'item') return null;
  if (field.kind === 'yes_no') return { any: [true, false, null], allowed: null, reason: 'source' };
  if (isNumeric(field)) {
    const { min, max } = field as { min?: number; max?: number };
    const any = [...spread([...numbers, ...[min, max].filter((one) => one !== undefined)]), null];
    const isAllowed = (value: number | null) =>
      value === null || (value >= (min ?? -Infinity) && value <= (max ?? Infinity));
    return { any, allowed: isNow ? any.filter(isAllowed) : null, reason: 'limits' };
  }
  // Keys that no option has are told of as such.
  if (holdsKeys(field))
    return { any: [...texts, 'another', null], allowed: null, reason: 'source' };
  return isOrdered(field)
    ? { any: [...around(texts), null], allowed: null, reason: 'source' }
    : null;
}

const isOrdered = ({ kind }: Field) =>
  kind === 'text' || kind === 'date' || kind === 'time' || kind === 'datetime';

/** A column of the table that a reference field points at; only texts are held against its rows. */
function ofColumn(
  { part, spelled }: Access,
  texts: readonly string[],
  parts: KnownParts,
): Candidates | null {
  const rows = parts.column(part, spelled.slice('row.'.length));
  if (
    rows === null ||
    rows.length === 0 ||
    !rows.every((cell) => cell === null || typeof cell === 'string')
  )
    return null;
  return {
    any: [...around(texts), null],
    allowed: [...new Set([...rows, null])] as Constant[],
    reason: 'table',
  };
}

/** Numbers with something between and beyond them. */
function spread(numbers: readonly number[]): number[] {
  const sorted = [...new Set([0, ...numbers])].toSorted((a, b) => a - b);
  return [
    sorted[0]! - 1,
    ...sorted.flatMap((one, i) => [
      one,
      i + 1 < sorted.length ? (one + sorted[i + 1]!) / 2 : one + 1,
    ]),
  ];
}

/** Texts with others between and beyond them in the order of code points. */
const around = (texts: readonly string[]) => [' ', ...texts.flatMap((text) => [text, `${text} `])];
