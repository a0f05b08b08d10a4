/**
 * Which step of a script left an option out: the callback of a `filter` or the round of a loop that looked at the
 * option's key, or at the row that has it, and the comparison in it that came out against it.
 */
import type { Form, Option } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';
import type { Table } from '../form/table';
import type { Value } from '../form/value';
import type { Comparison } from './comparison';
import type { Decision } from './decision';
import { conditionMet } from './explained';
import { inDetail, type Ground } from './ground';
import type { Instance, Instances } from './instances';
import { inRow } from './question';

export interface LeftOut {
  key: string;
  label: string;
  /** Null where no line looked at this option alone: it is not in the list that was set. */
  by: { script: string; line: number; text: string; comparisons: Comparison[] } | null;
}

/** So many options are explained. */
const MOST_TOLD = 30;

/** The options of a field that are not offered, and what left each out. */
export async function leftOut(
  ground: Ground,
  decision: Decision,
  tables: readonly Table[],
): Promise<LeftOut[]> {
  if (decision.aspect !== 'options' || decision.run === null) return [];
  const offered = new Set(Array.isArray(decision.value) ? (decision.value as string[]) : []);
  const missing = offersOf(ground.form, tables, decision.part).filter(
    ({ key }) => !offered.has(key),
  );
  if (missing.length === 0) return [];
  const run = ground.tape.entry(decision.run.entry);
  if (run?.type !== 'run') return [];
  const { instances } = await inDetail(ground, run as never);
  return missing
    .slice(0, MOST_TOLD)
    .map((offer) => ({ key: offer.key, label: offer.label, by: leftOutBy(instances, offer) }));
}

/** An option, and the columns of its row that hold key and label. */
interface Offer {
  key: string;
  label: string;
  column: string;
}

function offersOf(form: Form, tables: readonly Table[], part: string): Offer[] {
  const within = inRow(part);
  const named = fieldsOf(form).find(({ name }) => name === (within?.rows ?? part));
  const field =
    within === null || named === undefined
      ? named
      : cellsOf(named).find(({ name }) => name === within.cell);
  if (field === undefined) return [];
  if ('options' in field)
    return (field.options as readonly Option[]).map(({ key, label }) => ({
      key,
      label,
      column: 'key',
    }));
  const table = 'table' in field ? tables.find(({ name }) => name === field.table) : undefined;
  return (table?.rows ?? []).map((row) => ({
    key: String(row[table!.key]),
    label: String(row[table!.label] ?? row[table!.key]),
    column: table!.key,
  }));
}

function leftOutBy(instances: Instances, offer: Offer): LeftOut['by'] {
  for (const at of instances.all.toReversed()) {
    if (!looksAt(at, offer)) continue;
    const met = against(instances, at);
    if (met !== null) return met;
  }
  return null;
}

/** Whether a function or a round of a loop was given the key, or the row that has it. */
function looksAt({ site, values }: Instance, { key, column }: Offer): boolean {
  if (site.kind !== 'function' && site.kind !== 'item') return false;
  return values.some(
    (value) =>
      value === key ||
      (typeof value === 'object' &&
        value !== null &&
        !Array.isArray(value) &&
        (value as Readonly<Record<string, Value>>)[column] === key),
  );
}

/** The comparison that came out last within it and was no, as it stands in its statement or condition. */
function against(instances: Instances, at: Instance): LeftOut['by'] {
  const end = instances.all.findIndex(
    (one) =>
      one.index > at.index &&
      one.frame === at.frame &&
      one.site.kind === 'item' &&
      one.place.site === at.place.site,
  );
  const within = instances.all
    .slice(at.index, end < 0 ? undefined : end)
    .filter((one) => one.frame === at.frame);
  for (const one of within.toReversed()) {
    if (one.site.kind !== 'condition' && one.site.kind !== 'statement' && one !== at) continue;
    const { script, line, text, comparisons } = conditionMet(instances, one);
    const failed = comparisons.filter(({ came }) => !came);
    if (failed.length > 0) return { script, line, text, comparisons: failed };
    if (one.site.kind === 'condition' && (one.value === false || one.value === null))
      return { script, line, text, comparisons: [] };
  }
  return null;
}
