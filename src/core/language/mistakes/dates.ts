/** What date fields hold, read with the clock's own objects. */
import ts from 'typescript-classic';
import type { Block } from '../acts';
import { expressionsIn, type Kinds } from './kinds-of';
import type { KnownParts } from './known-parts';

/** Calls of one of the methods, each with what it is called on. */
export function callsOf(
  block: Block,
  methods: RegExp,
): { call: ts.CallExpression; name: string; on: ts.Expression }[] {
  return expressionsIn(block, ts.isCallExpression).flatMap((call) =>
    ts.isPropertyAccessExpression(call.expression) && methods.test(call.expression.name.text)
      ? [{ call, name: call.expression.name.text, on: call.expression.expression }]
      : [],
  );
}

/** Whether `node` is `new Date(D)`, and D the value of a date field and nothing else. */
export function isDateOfField(
  node: ts.Expression,
  kinds: Kinds,
  block: Block,
  parts: KnownParts,
): boolean {
  const made = kinds.behind(node);
  if (!ts.isNewExpression(made) || made.expression.getText() !== 'Date') return false;
  const [only, ...more] = made.arguments ?? [];
  if (only === undefined || more.length > 0) return false;
  const alias = block.seen.get(kinds.behind(only))?.alias ?? null;
  return (
    alias !== null &&
    /^(?:value|previous|initial)$/.test(alias.aspect) &&
    parts.field(alias.part)?.kind === 'date'
  );
}
