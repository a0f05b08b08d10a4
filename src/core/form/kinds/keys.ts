/** The kinds whose values are keys: one option, several options, a row of a table. */
import type { FieldOf, Option } from '../definition';
import { inWords } from '../value';
import type { Kind } from './kind';

/** Names keys in an error: all of a short list, the first few of a long one. */
function listed(options: readonly Option[]): string {
  if (options.length === 0) return 'one of its keys, but it has no options';
  const keys = options.slice(0, 8).map((option) => JSON.stringify(option.key));
  const more = options.length - keys.length;
  return `one of the keys ${keys.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}

/** The key that a label was mistaken for, said in so many words. */
function meant(offered: unknown, options: readonly Option[]): { help?: string } {
  const option = options.find((o) => o.label === offered);
  return option === undefined
    ? {}
    : { help: `That is a label; its key is ${JSON.stringify(option.key)}.` };
}

export const choice: Kind<FieldOf<'choice'>> = {
  accept(offered, field, around) {
    const known = [...field.options, ...(around.options ?? [])];
    if (typeof offered === 'string' && known.some((option) => option.key === offered))
      return { ok: true, value: offered };
    return { ok: false, takes: listed(around.options ?? field.options), ...meant(offered, known) };
  },
  check: () => null,
  type: (field) =>
    field.options.map((option) => JSON.stringify(option.key)).join(' | ') || 'string',
};

export const choices: Kind<FieldOf<'choices'>> = {
  accept(offered, field, around) {
    const current = around.options ?? field.options;
    const known = [...current, ...field.options];
    if (!Array.isArray(offered))
      return {
        ok: false,
        takes: `a list of its keys, such as [${JSON.stringify(field.options[0]?.key ?? 'key')}]`,
      };
    const keys = new Set<string>();
    for (const key of offered as unknown[]) {
      if (typeof key !== 'string' || !known.some((option) => option.key === key)) {
        return {
          ok: false,
          takes: `${listed(current)} each; ${inWords(key)} is none`,
          ...meant(key, known),
        };
      }
      keys.add(key);
    }
    // In the order of the options, which makes reordering no change.
    const order = [...new Set(known.map((option) => option.key))];
    return { ok: true, value: order.filter((key) => keys.has(key)) };
  },
  check(value, field) {
    const { length } = value as readonly string[];
    if (field.minCount !== undefined && length < field.minCount)
      return { code: 'tooFew', says: `Choose at least ${field.minCount}.` };
    if (field.maxCount !== undefined && length > field.maxCount)
      return { code: 'tooMany', says: `Choose at most ${field.maxCount}.` };
    return null;
  },
  type: (field) =>
    `readonly (${field.options.map((option) => JSON.stringify(option.key)).join(' | ') || 'string'})[]`,
};

export const reference: Kind<FieldOf<'reference'>> = {
  accept(offered, field, around) {
    const table = around.table(field.table);
    if (typeof offered === 'string' && table.find(offered) !== null)
      return { ok: true, value: offered };
    return {
      ok: false,
      takes: `${listed(table.options)} of table ${field.table}`,
      ...meant(offered, table.options),
    };
  },
  check: () => null,
  type: (field) => `Key<${JSON.stringify(field.table)}>`,
};
