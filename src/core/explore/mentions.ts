/**
 * What scripts mention, by the compiler's tree: values they compare with, columns and launch parameters they read, which
 * aspects of which parts they speak of. From it come the values worth trying and the lines that findings without a run
 * are shown at.
 */
import ts from 'typescript-classic';
import { isDate, isTime } from '../form/formats';
import { bare, type Flow } from '../language/acts';
import { nameOf } from '../language/expressions';
import { flowOf } from '../language/flow';
import { isComparison } from '../language/flow-syntax';
import { parse } from '../language/parse';
import type { Source } from '../script/header';
import { baseName } from '../script/script-name';

/** A place of a script as findings name it. */
export interface Place {
  behaviour: string;
  /** 1-based. */
  line: number;
}

/** A part whose aspect is named somewhere, as `fields.licence.shown` names it. */
export interface Member extends Place {
  part: string;
  aspect: string;
  /** It is assigned to. */
  written: boolean;
}

export interface Mentions {
  numbers: readonly number[];
  /** Numbers that a part is compared with, by its name; a column as `rows.column`, all of a rows field under its own name. */
  compared: Readonly<Record<string, readonly number[]>>;
  texts: readonly string[];
  /** Spelled YYYY-MM-DD. */
  dates: readonly string[];
  times: readonly string[];
  /** Sources of regular expressions. */
  patterns: readonly string[];
  /** Every name that something is read by, columns of tables among them. */
  names: readonly string[];
  /** Every name there is, in whatever use. */
  words: readonly string[];
  launch: readonly string[];
  members: readonly Member[];
  /** Conditions, as `behaviour:line:text`, but for questions whether something is there at all. */
  conditions: readonly string[];
  /** Whether lengths of texts, months, the clock, and services or timers are asked. */
  asks: { length: boolean; month: boolean; clock: boolean; calls: boolean };
}

/** A text longer than this is a sentence and no key. */
const KEY_CHARACTERS = 40;

export function mentionsOf(sources: readonly Source[]): Mentions {
  const numbers = new Set<number>();
  const texts = new Set<string>();
  const dates = new Set<string>();
  const times = new Set<string>();
  const patterns = new Set<string>();
  const names = new Set<string>();
  const launch = new Set<string>();
  const members: Member[] = [];
  const conditions = new Set<string>();
  const compared = new Map<string, Set<number>>();
  const identifiers = new Set<string>();

  for (const source of sources) {
    const { file } = parse(source);
    const behaviour = baseName(source.name);
    const placeOf = (node: ts.Node): Place => ({
      behaviour,
      line: file.getLineAndCharacterOfPosition(node.getStart(file)).line + 1,
    });
    const isLaunch = (node: ts.Node) =>
      ts.isPropertyAccessExpression(node) &&
      node.name.text === 'launch' &&
      node.expression.getText(file) === 'form';
    const text = (found: string) => {
      if (isDate(found)) dates.add(found);
      else if (isTime(found)) times.add(found);
      else if (/^\d{2}-\d{2}$/.test(found) && isDate(`2031-${found}`)) dates.add(`2031-${found}`);
      else if (found.trim() !== '' && found.length <= KEY_CHARACTERS) texts.add(found);
    };
    const visit = (node: ts.Node): void => {
      if (ts.isNumericLiteral(node)) numbers.add(Number(node.text));
      else if (ts.isStringLiteralLike(node)) {
        if (!ts.isImportDeclaration(node.parent)) text(node.text);
      } else if (ts.isRegularExpressionLiteral(node)) {
        patterns.add(node.text.slice(1, node.text.lastIndexOf('/')));
      } else if (ts.isIdentifier(node)) identifiers.add(node.text);
      if (ts.isPropertyAccessExpression(node)) {
        names.add(node.name.text);
        if (isLaunch(node.expression)) launch.add(node.name.text);
        const { expression } = node;
        const part = ts.isPropertyAccessExpression(expression)
          ? expression.name.text
          : ts.isIdentifier(expression)
            ? expression.text
            : null;
        if (part !== null)
          members.push({
            part,
            aspect: node.name.text,
            ...placeOf(node),
            written: isAssigned(node),
          });
      }
      if (ts.isElementAccessExpression(node) && ts.isStringLiteralLike(node.argumentExpression)) {
        names.add(node.argumentExpression.text);
        if (isLaunch(node.expression)) launch.add(node.argumentExpression.text);
      }
      if (ts.isBindingElement(node)) {
        const name = (node.propertyName ?? node.name).getText(file);
        names.add(name);
        const from = node.parent.parent;
        if (ts.isVariableDeclaration(from) && from.initializer && isLaunch(from.initializer))
          launch.add(name);
      }
      const condition = ts.isIfStatement(node)
        ? node.expression
        : ts.isConditionalExpression(node)
          ? node.condition
          : null;
      if (condition !== null && !asksWhetherThere(condition)) {
        const { line } = placeOf(condition);
        conditions.add(`${behaviour}:${line}:${nameOf(condition.getText(file))}`);
      }
      ts.forEachChild(node, visit);
    };
    visit(file);
    noteCompared(flowOf(file), compared);
  }
  const mentions = (...some: string[]) =>
    some.some((name) => names.has(name) || identifiers.has(name));
  return {
    numbers: [...numbers].slice(0, 20),
    compared: Object.fromEntries([...compared].map(([part, some]) => [part, [...some]])),
    texts: [...texts].slice(0, 40),
    dates: [...dates].slice(0, 8),
    times: [...times].slice(0, 6),
    patterns: [...patterns].slice(0, 6),
    names: [...names],
    words: [...new Set([...names, ...identifiers, ...texts])],
    launch: [...launch],
    members,
    conditions: [...conditions],
    asks: {
      length: names.has('length'),
      month: mentions('month', 'months', 'getMonth', 'getUTCMonth'),
      clock: mentions('Date', 'Now'),
      calls: mentions('services', 'after'),
    },
  };
}

/** The numbers that conditions hold parts against, through constants. */
function noteCompared({ blocks }: Flow, compared: Map<string, Set<number>>): void {
  for (const { acts, seen } of blocks)
    for (const { node } of acts) {
      if (!ts.isBinaryExpression(node) || !isComparison(node.operatorToken.kind)) continue;
      for (const [one, other] of [
        [node.left, node.right],
        [node.right, node.left],
      ] as const) {
        const constant = bare(seen.get(bare(other))?.source ?? other);
        if (!ts.isNumericLiteral(constant)) continue;
        for (const { part } of seen.get(bare(one))?.reads ?? [])
          compared.set(part, (compared.get(part) ?? new Set()).add(Number(constant.text)));
      }
    }
}

function isAssigned(node: ts.Node): boolean {
  const { parent } = node;
  return (
    ts.isBinaryExpression(parent) &&
    parent.left === node &&
    parent.operatorToken.kind >= ts.SyntaxKind.FirstAssignment &&
    parent.operatorToken.kind <= ts.SyntaxKind.LastAssignment
  );
}

/** `x`, `x === null`, `x.empty` and their like: a guard, which may well have one outcome only. */
function asksWhetherThere(node: ts.Expression): boolean {
  if (ts.isParenthesizedExpression(node)) return asksWhetherThere(node.expression);
  if (ts.isPrefixUnaryExpression(node)) return asksWhetherThere(node.operand);
  if (ts.isIdentifier(node) || ts.isPropertyAccessExpression(node)) return true;
  if (!ts.isBinaryExpression(node)) return false;
  const right = node.right.getText();
  return (
    (right === 'null' || right === 'undefined' || right === '"person"') &&
    asksWhetherThere(node.left)
  );
}
