/** Where keys are compared or assigned: each text in the source beside the options that it is compared with. */
import ts from 'typescript-classic';
import type { Option } from '../../form/definition';
import { actsOf, bare, type Access, type ActOf, type Flow, type Known } from '../acts';
import type { KnownParts, Literal } from './known-parts';
import { literalsIn } from './known-parts';
import { holdsKeys, isList } from '../../form/traits';

export interface KeyPlace {
  literal: Literal & { value: string };
  access: Pick<Access, 'part' | 'aspect'>;
  options: readonly Option[];
  how: 'compared' | 'assigned' | 'looked up';
}

/** Every text that stands where a key belongs. */
export function keyPlaces(flow: Flow, parts: KnownParts): KeyPlace[] {
  const places = new Map<ts.Node, KeyPlace>();
  const add = (
    access: Pick<Access, 'part' | 'aspect'>,
    literals: readonly Literal[],
    how: KeyPlace['how'],
  ) => {
    const options = parts.options(access);
    if (options === null || options.length === 0) return;
    for (const literal of literals)
      if (typeof literal.value === 'string')
        places.set(literal.node, { literal: literal as KeyPlace['literal'], access, options, how });
  };
  for (const { access, options, keys } of lookupsIn(flow, parts))
    for (const literal of keys)
      places.set(literal.node, { literal, access, options, how: 'looked up' });
  for (const block of flow.blocks) {
    for (const act of actsOf(block, 'compare'))
      for (const side of sidesOf(act, parts))
        add(
          side.access,
          literalsIn(side.other).filter(({ value }) => !isOtherwise(side, value)),
          'compared',
        );
    for (const act of actsOf(block, 'write')) {
      if (
        act.value !== null &&
        (act.aspect === 'value' || act.aspect === 'stage' || act.aspect === 'options')
      )
        add(act, literalsIn(act.value), 'assigned');
    }
  }
  return [...places.values()];
}

/** The literal that a name refers to, or the list of texts that it is an item of; else the expression itself. */
function constantOr(node: ts.Expression, { source, oneOf }: Known): ts.Expression {
  if (oneOf !== undefined) return oneOf;
  return source !== null && (ts.isLiteralExpression(source) || ts.isArrayLiteralExpression(source))
    ? source
    : node;
}

export interface Side {
  access: Access;
  other: ts.Expression;
  /** The expression that is the aspect. */
  own: ts.Expression;
  /** The fallback for when the aspect is empty; null where the source has none. */
  otherwise: ts.Expression | null;
}

/** Whether it may be that value where the aspect is empty. */
export function isOtherwise({ otherwise }: Side, value: Literal['value']): boolean {
  if (otherwise === null) return false;
  const known = literalsIn(otherwise);
  return known.length === 0 || known.some((one) => one.value === value);
}

interface Lookup {
  access: Access;
  options: readonly Option[];
  keys: KeyPlace['literal'][];
}

/**
 * Lists and objects of the file that only keys of parts are looked up in. Those of several parts are held against the
 * options of all; a key that the source has a use of its own for, as for nothing chosen, is left out.
 */
function lookupsIn({ blocks, file }: Flow, parts: KnownParts): Lookup[] {
  const all = new Map<ts.Expression, ActOf<'lookup'>[]>();
  for (const block of blocks)
    for (const act of actsOf(block, 'lookup')) all.set(act.in, [...(all.get(act.in) ?? []), act]);
  return [...all.values()].flatMap((acts): Lookup[] => {
    const accesses = acts.map(({ by }) => by.alias);
    const known = accesses.filter((access) => access !== null);
    const options = known.map((access) => parts.options(access));
    const some = options.flatMap((list) => list ?? []);
    if (known.length < accesses.length || options.includes(null) || some.length === 0) return [];
    const others = new Set(
      acts.flatMap(({ byNode }) => literalsIn(byNode).map(({ value }) => value)),
    );
    const keys = acts[0]!.keys.flatMap((node): KeyPlace['literal'][] => {
      const value = ts.isIdentifier(node) || ts.isStringLiteralLike(node) ? node.text : null;
      const isName = ts.isIdentifier(node) && isConstant(node);
      return value === null || value === '' || isName || others.has(value) || isNamed(value, file)
        ? []
        : [{ node, value }];
    });
    return [{ access: known[0]!, options: some, keys }];
  });
}

/** An item of a list by a name is a constant; in an object a name is the key itself. */
const isConstant = (node: ts.Identifier) => !ts.isPropertyAssignment(node.parent);

/** Whether a member of that name is asked for anywhere, as `TERMS.other`. */
function isNamed(name: string, file: ts.SourceFile): boolean {
  const look = (node: ts.Node): boolean =>
    (ts.isPropertyAccessExpression(node) && node.name.text === name) ||
    (ts.forEachChild(node, look) ?? false);
  return look(file);
}

/** The sides of a comparison that are aspects of parts, each with the other side. */
export function sidesOf(act: ActOf<'compare'>, parts: KnownParts): Side[] {
  const { left, right } = act;
  const leftNode = constantOr(act.leftNode, left);
  const rightNode = constantOr(act.rightNode, right);
  const side = (known: Known, own: ts.Expression, other: ts.Expression): Side[] =>
    known.alias === null
      ? []
      : [{ access: known.alias, own, other, otherwise: known.otherwise ?? null }];
  if (act.op !== 'among')
    return [...side(left, leftNode, rightNode), ...side(right, rightNode, leftNode)];
  // `includes` of a list of keys asks for a key; of a text it asks for a part of the text.
  if (ts.isArrayLiteralExpression(bare(act.leftNode))) return side(right, rightNode, leftNode);
  const field = left.alias === null ? null : parts.field(left.alias.part);
  const ofKeys =
    left.alias?.aspect === 'roles' || (field !== null && holdsKeys(field) && isList(field));
  return ofKeys ? side(left, leftNode, rightNode) : [];
}
