/** The form's parts as checks ask for them: by the paths of `flow.ts`, with titles, kinds and the keys they take. */
import type { Field, Option } from '../../form/definition';
import { sectionsOf } from '../../form/fields';
import { accept } from '../../form/kinds';
import { containersOf, fieldAt } from '../../form/outline';
import { indexOf } from '../../form/table-index';
import { bare, type Access, type PartPath } from '../acts';
import ts from 'typescript-classic';
import type { MistakeSetting } from './mistake';
import { holdsKeys, isList, kindInWords } from '../../form/traits';

/** A value that stands in the source: its node and what it is. */
export interface Literal {
  node: ts.Expression;
  value: string | number | boolean | null;
}

export class KnownParts {
  readonly #titles = new Map<PartPath, string>();

  constructor(private readonly setting: MistakeSetting) {
    for (const part of [
      ...setting.form.pages,
      ...sectionsOf(setting.form),
      ...(setting.form.tracks ?? []),
    ])
      this.#titles.set(part.name, part.title);
    for (const button of setting.form.buttons ?? []) this.#titles.set(button.name, button.label);
  }

  get form(): MistakeSetting['form'] {
    return this.setting.form;
  }

  field(part: PartPath): Field | null {
    return fieldAt(this.form, part) ?? null;
  }

  /** The section and the page that a part stands in; for a cell those of its rows. */
  around(part: PartPath): readonly string[] {
    return containersOf(this.form, part.split('.')[0]!);
  }

  /** How a part is called in a finding: `Pilot (pilot_choice)`. */
  called(part: PartPath): string {
    if (part === '@form') return 'The person’s roles';
    if (part.endsWith('#')) return `a row of ${this.called(part.slice(0, -1))}`;
    return `${this.field(part)?.label ?? this.#titles.get(part) ?? part} (${part})`;
  }

  kind(part: PartPath): string {
    const field = this.field(part);
    return field === null ? '' : kindInWords(field);
  }

  /** The keys an aspect takes, with their labels; null where it takes no keys. */
  options({ part, aspect }: Pick<Access, 'part' | 'aspect'>): readonly Option[] | null {
    if (part === '@form')
      return aspect === 'roles'
        ? this.setting.roles.map(({ key, label }) => ({ key, label }))
        : null;
    if (aspect === 'stage')
      return this.setting.form.tracks?.find(({ name }) => name === part)?.stages ?? null;
    if (aspect !== 'value' && aspect !== 'previous' && aspect !== 'initial' && aspect !== 'options')
      return null;
    const field = this.field(part);
    if (field === null || !holdsKeys(field)) return null;
    if (field.kind !== 'reference') return field.options;
    const table = this.setting.tables.find(({ name }) => name === field.table);
    return table === undefined ? null : indexOf(table).options;
  }

  /** What the rows of a reference field's table have in a column; null where there is no such column. */
  column(part: PartPath, name: string): unknown[] | null {
    const field = this.field(part);
    const table = this.setting.tables.find(
      (one) => field?.kind === 'reference' && one.name === field.table,
    );
    return table?.columns.some((column) => column.name === name)
      ? table.rows.map((row) => row[name] ?? null)
      : null;
  }

  /** Whether a field can ever hold a value that is no key; true where there is nothing to hold it against. */
  takes(part: PartPath, value: Literal['value']): { ok: true } | { ok: false; takes: string } {
    const field = this.field(part);
    if (field === null || value === null) return { ok: true };
    if (holdsKeys(field) && !isList(field))
      return typeof value === 'string'
        ? { ok: true }
        : { ok: false, takes: 'the key of an option, a text' };
    return accept(value, field, {
      options: null,
      table: (name) => indexOf(this.setting.tables.find((table) => table.name === name)!),
    });
  }
}

/** The literals an expression may come to: both sides of a choice, the items of a list. */
export function literalsIn(node: ts.Expression): Literal[] {
  const inner = bare(node);
  if (ts.isStringLiteralLike(inner)) return [{ node: inner, value: inner.text }];
  if (ts.isNumericLiteral(inner)) return [{ node: inner, value: Number(inner.text) }];
  if (inner.kind === ts.SyntaxKind.TrueKeyword || inner.kind === ts.SyntaxKind.FalseKeyword)
    return [{ node: inner, value: inner.kind === ts.SyntaxKind.TrueKeyword }];
  if (inner.kind === ts.SyntaxKind.NullKeyword) return [{ node: inner, value: null }];
  if (
    ts.isPrefixUnaryExpression(inner) &&
    inner.operator === ts.SyntaxKind.MinusToken &&
    ts.isNumericLiteral(inner.operand)
  )
    return [{ node: inner, value: -Number(inner.operand.text) }];
  if (ts.isConditionalExpression(inner))
    return [...literalsIn(inner.whenTrue), ...literalsIn(inner.whenFalse)];
  if (
    ts.isBinaryExpression(inner) &&
    inner.operatorToken.kind === ts.SyntaxKind.QuestionQuestionToken
  )
    return literalsIn(inner.right);
  if (ts.isArrayLiteralExpression(inner))
    return inner.elements.flatMap((element) => literalsIn(element));
  return [];
}
