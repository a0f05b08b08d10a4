/**
 * Conditions of a JSON Schema as a behaviour: `dependentRequired`, and `if` with `then` and `else` (JSON Schema
 * Validation, section 6.5.4, and Core, section 10.2.2). What they ask of one field stands in one rule, so that no two
 * rules speak against each other.
 */
import type { Source } from '../script/header';

/** A field as conditions know it. */
export interface Known {
  name: string;
  kind: string;
  required: boolean;
  label: string;
}

export class Conditions {
  /** By field, when it is asked for, as expressions. */
  readonly #required = new Map<Known, string[]>();
  /** By field, what is wrong with it when. */
  readonly #problems = new Map<Known, { when: string; says: string }[]>();

  require(field: Known, when: string): void {
    this.#required.set(field, [...(this.#required.get(field) ?? []), when]);
  }

  refuse(field: Known, when: string, says: string): void {
    this.#problems.set(field, [...(this.#problems.get(field) ?? []), { when, says }]);
  }

  /** The behaviour; none where there is no condition. */
  behaviours(): Source[] {
    const rules = [
      ...[...this.#required].map(([field, whens]) => {
        const all = [...(field.required ? ['true'] : []), ...new Set(whens)];
        return `keep(${JSON.stringify(`when ${field.label.toLowerCase()} is required`)}, () => {\n  fields.${field.name}.required = ${all.map(bracketed).join('\n    || ')};\n});\n`;
      }),
      ...[...this.#problems].map(([field, problems]) => {
        const chain = problems
          .map(({ when, says }) => `${bracketed(when)} ? ${JSON.stringify(says)}\n    : `)
          .join('');
        return `keep(${JSON.stringify(`what ${field.label.toLowerCase()} may be`)}, () => {\n  fields.${field.name}.problem = ${chain}null;\n});\n`;
      }),
    ];
    if (rules.length === 0) return [];
    return [
      {
        name: '10-conditions.ts',
        text: `/** Conditions: what the schema asks of one field for the sake of another. */\n\n${rules.join('\n')}`,
      },
    ];
  }
}

const bracketed = (expression: string) =>
  /&&|\|\|/.test(expression) ? `(${expression})` : expression;
