import ts from 'typescript-classic';
import type { Block } from '../acts';
import { expressionsIn, isOperation, Kinds } from './kinds-of';
import type { Finding, Mistake, Subject } from './mistake';

const { AsteriskToken, SlashToken } = ts.SyntaxKind;
const YEAR = new Set([365, 365.25, 366]);
const MONTH = new Set([30, 30.4, 30.42, 30.5, 31]);
const DAY_MILLISECONDS = 86_400_000;
const DAY_SECONDS = 86_400;

/** A month taken for 30 days, or a year for 365: right in some months and years. */
export const daysForMonths: Mistake = {
  code: 'days-for-months',
  title: 'Days for a month or a year',
  severity: 'warning',
  find: (subject) =>
    subject.flow.blocks.flatMap((block) => {
      const kinds = new Kinds(block, subject.parts);
      return [...divided(block, kinds, subject), ...added(block, kinds, subject)];
    }),
};

const unitOf = (days: number) => (YEAR.has(days) ? 'year' : MONTH.has(days) ? 'month' : null);

/** Days divided by 30, and 365 times the length of a day. */
function divided(block: Block, kinds: Kinds, { file }: Subject): Finding[] {
  return expressionsIn(block, ts.isBinaryExpression).flatMap((node) => {
    if (!isOperation(node, AsteriskToken, SlashToken)) return [];
    const isDivision = isOperation(node, SlashToken);
    const isInside =
      isOperation(node.parent, AsteriskToken) || isOperation(node.parent.parent, AsteriskToken);
    const [above, below] = isDivision
      ? [[node.left], factors(node.right, kinds)]
      : [[], factors(node, kinds)];
    const lengths = below.map((factor) => numberOf(factor, kinds));
    const days = lengths.find((length) => length !== null && unitOf(length) !== null);
    if (days == null || (!isDivision && isInside)) return [];
    const unit = unitOf(days)!;
    // A product of lengths is a day or several; of a month it may well be a term of thirty days.
    const product = lengths.reduce<number>((all, one) => all * (one ?? 1), 1) / days;
    const ofDays =
      product === DAY_MILLISECONDS ||
      product === DAY_SECONDS ||
      below.some((one) => isDays(one, kinds));
    const isTime = isDivision
      ? ofDays || above.some((one) => isDays(one, kinds))
      : ofDays && unit === 'year';
    return isTime ? [told(node, days, unit, file)] : [];
  });
}

/** `.add({ days: 365 })`; thirty days are a term of their own, unless the source speaks of a month. */
function added(block: Block, kinds: Kinds, { file }: Subject): Finding[] {
  return expressionsIn(block, ts.isCallExpression).flatMap((call) => {
    if (
      !ts.isPropertyAccessExpression(call.expression) ||
      !/^(?:add|subtract)$/.test(call.expression.name.text)
    )
      return [];
    const [only] = call.arguments;
    const duration = only === undefined ? null : kinds.behind(only);
    if (duration === null || !ts.isObjectLiteralExpression(duration)) return [];
    return duration.properties.flatMap((property) => {
      if (!ts.isPropertyAssignment(property) || property.name.getText(file) !== 'days') return [];
      const days = numberOf(property.initializer, kinds);
      const unit = days === null ? null : unitOf(days);
      const isMeant = unit === 'month' && !/month/i.test(aroundOf(block, file));
      return unit === null || isMeant ? [] : [told(property, days!, unit, file, `${unit}s: 1`)];
    });
  });
}

/** The handler or rule as it stands in the source, with the comment before it. */
const aroundOf = ({ call }: Block, file: ts.SourceFile) =>
  file.text.slice(call.getFullStart(), call.getEnd());

function told(
  node: ts.Node,
  days: number,
  unit: string,
  file: ts.SourceFile,
  instead?: string,
): Finding {
  const [from, to] = [node.getStart(file), node.getEnd()];
  return {
    from,
    to,
    says: `${unit === 'year' ? 'A year' : 'A month'} is not always ${days} days long. Let Temporal count: date.add({ ${unit}s: 1 }), or from.until(to, { largestUnit: "${unit}" }).`,
    fixes:
      instead === undefined
        ? []
        : [{ title: `Write ${instead}`, edits: [{ from, to, text: instead }] }],
  };
}

function factors(node: ts.Expression, kinds: Kinds): ts.Expression[] {
  const inner = kinds.behind(node);
  return isOperation(inner, AsteriskToken)
    ? [...factors(inner.left, kinds), ...factors(inner.right, kinds)]
    : [inner];
}

function numberOf(node: ts.Expression, kinds: Kinds): number | null {
  const inner = kinds.behind(node);
  return ts.isNumericLiteral(inner) ? Number(inner.text) : null;
}

/** A number of days or of milliseconds, by where it comes from. */
function isDays(node: ts.Expression, kinds: Kinds): boolean {
  const inner = kinds.behind(node);
  const look = (one: ts.Node): boolean => {
    if (
      ts.isPropertyAccessExpression(one) &&
      /^(?:days|parse|getTime|epochMilliseconds|until|since)$/.test(one.name.text)
    )
      return true;
    if (ts.isIdentifier(one)) {
      const behind = kinds.behind(one);
      return behind !== one && look(behind);
    }
    if (ts.isNumericLiteral(one)) return Number(one.text) === DAY_MILLISECONDS;
    return ts.forEachChild(one, look) ?? false;
  };
  return look(inner);
}
