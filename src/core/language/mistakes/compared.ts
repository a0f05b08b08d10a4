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
  how: 'compared' | 'assigned';
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
  for (const block of flow.blocks) {
    for (const act of actsOf(block, 'compare'))
      for (const { access, other } of sidesOf(act, parts))
        add(access, literalsIn(other), 'compared');
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

export interface Side {
  access: Access;
  other: ts.Expression;
  /** The expression that is the aspect. */
  own: ts.Expression;
}

/** The sides of a comparison that are aspects of parts, each with the other side. */
export function sidesOf(act: ActOf<'compare'>, parts: KnownParts): Side[] {
  const { left, right, leftNode, rightNode } = act;
  const side = (known: Known, own: ts.Expression, other: ts.Expression): Side[] =>
    known.alias === null ? [] : [{ access: known.alias, own, other }];
  if (act.op !== 'among')
    return [...side(left, leftNode, rightNode), ...side(right, rightNode, leftNode)];
  // `includes` of a list of keys asks for a key; of a text it asks for a part of the text.
  if (ts.isArrayLiteralExpression(bare(leftNode))) return side(right, rightNode, leftNode);
  const field = left.alias === null ? null : parts.field(left.alias.part);
  const ofKeys =
    left.alias?.aspect === 'roles' || (field !== null && holdsKeys(field) && isList(field));
  return ofKeys ? side(left, leftNode, rightNode) : [];
}
