import ts from 'typescript-classic';
import { actsOf, bare } from '../acts';
import { isOtherwise, sidesOf, type Side } from './compared';
import { literalsIn, type KnownParts, type Literal } from './known-parts';
import type { Finding, Fix, Mistake, Subject } from './mistake';
import { isList, isNumeric } from '../../form/traits';

const VALUES = new Set(['value', 'previous', 'initial']);

/** A comparison with something the field can never hold: another kind of value, an empty text, undefined, a list. */
export const neverHolds: Mistake = {
  code: 'never-holds',
  title: 'A comparison that can never hold',
  severity: 'error',
  find(subject) {
    const found = new Map<ts.Node, Finding>();
    for (const block of subject.flow.blocks) {
      for (const act of actsOf(block, 'compare')) {
        for (const side of sidesOf(act, subject.parts)) {
          const finding =
            VALUES.has(side.access.aspect) && side.access.spelled !== 'item'
              ? look(side, act.op, act.node, subject)
              : null;
          if (finding !== null) found.set(act.node, finding);
        }
      }
    }
    return [...found.values()];
  },
};

function look(
  side: Side,
  op: 'equal' | 'unequal' | 'among',
  node: ts.Node,
  { parts, file }: Subject,
): Finding | null {
  const field = parts.field(side.access.part);
  if (field === null) return null;
  const called = parts.called(side.access.part);
  const outcome = op === 'unequal' ? 'This always holds' : 'This never holds';
  const say = (says: string, fixes: Fix[] = []): Finding => ({
    from: node.getStart(file),
    to: node.getEnd(),
    says,
    fixes,
  });
  const put = (title: string, at: ts.Node, text: string): Fix => ({
    title,
    edits: [{ from: at.getStart(file), to: at.getEnd(), text }],
  });
  const list = isList(field);
  const other = bare(side.other);
  const strict =
    !ts.isBinaryExpression(node) ||
    node.operatorToken.kind === ts.SyntaxKind.EqualsEqualsEqualsToken ||
    node.operatorToken.kind === ts.SyntaxKind.ExclamationEqualsEqualsToken;
  if (
    ts.isIdentifier(other) &&
    other.text === 'undefined' &&
    strict &&
    !list &&
    side.otherwise === null
  )
    return say(`${outcome}: ${called} is null when it is empty, never undefined.`, [
      put('Compare with null', other, 'null'),
    ]);
  // What stands beside another value says nothing of that one.
  if (ts.isConditionalExpression(other) || ts.isBinaryExpression(other)) return null;
  const [literal, ...more] = literalsIn(side.other);
  if (literal === undefined || more.length > 0 || isOtherwise(side, literal.value)) return null;
  if (list) return op === 'among' ? null : ofList(side, literal, outcome, called, say, put, op);
  if (literal.value === '')
    return say(`${outcome}: ${called} is null when it is empty, never an empty text.`, [
      put('Compare with null', literal.node, 'null'),
    ]);
  const taken = parts.takes(side.access.part, literal.value);
  if (taken.ok) return null;
  return say(
    `${outcome}: ${called} takes ${taken.takes}, and never is ${JSON.stringify(literal.value)}.`,
    meantBy(literal, side.access.part, parts).map((text) =>
      put(`Compare with ${text}`, literal.node, text),
    ),
  );
}

function ofList(
  side: Side,
  literal: Literal,
  outcome: string,
  called: string,
  say: (says: string, fixes?: Fix[]) => Finding,
  put: (title: string, at: ts.Node, text: string) => Fix,
  op: 'equal' | 'unequal',
): Finding | null {
  const not = op === 'unequal' ? '!' : '';
  const list = side.own.getText();
  if (literal.value === null) {
    const owner = /^(.*)\.value$/.exec(list)?.[1];
    return say(
      `${outcome}: ${called} is an empty list when nothing is in it, never null.`,
      owner === undefined
        ? []
        : [put(`Ask ${owner}.empty`, side.own.parent, `${not}${owner}.empty`)],
    );
  }
  if (typeof literal.value !== 'string') return null;
  return say(
    `${outcome}: ${called} holds a list. Ask whether the list includes ${JSON.stringify(literal.value)}.`,
    [
      put(
        'Ask whether it is included',
        side.own.parent,
        `${not}${list}.includes(${JSON.stringify(literal.value)})`,
      ),
    ],
  );
}

/** A literal of the field's kind that was most likely meant. */
function meantBy({ value }: Literal, part: string, parts: KnownParts): string[] {
  const field = parts.field(part);
  if (
    field !== null &&
    isNumeric(field) &&
    typeof value === 'string' &&
    value.trim() !== '' &&
    Number.isFinite(Number(value))
  )
    return [String(Number(value))];
  if (field?.kind === 'yes_no' && typeof value !== 'boolean')
    return /^(?:true|yes|1|on)$/i.test(String(value))
      ? ['true']
      : /^(?:false|no|0|off)$/i.test(String(value))
        ? ['false']
        : [];
  if (field?.kind === 'text' && typeof value === 'number') return [JSON.stringify(String(value))];
  return [];
}
