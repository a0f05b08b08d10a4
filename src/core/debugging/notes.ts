/** What stands at the lines of a script while somebody stands in one of its runs: values, and conditions with both sides. */
import type { Value } from '../form/value';
import type { Detail, DetailedRun } from '../session/detail';
import type { LineNote } from '../tape/lines';
import { placeOf } from '../wire/line';
import { valueInWords } from '../tape/words';
import { conditionMet } from './explained';
import { comparisonInWords } from './comparison-words';
import { Instances, type SitesOf } from './instances';
import { placeAt } from './travel';

/** The notes of a script up to a detail of a run; lines in their order. */
export function notesAt(
  run: DetailedRun,
  detail: number,
  sites: SitesOf,
  script: string,
  behaviour: string,
): LineNote[] {
  const details = run.details.slice(0, detail + 1);
  const texts = new Map<number, string>();
  const hits = new Map<number, number>();
  const note = (line: number, text: string) => texts.set(line, text);
  const ofScript = (one: Detail): one is Detail & { script: string } =>
    'script' in one && one.script === script;
  for (const one of details) {
    if (one.is === 'said') {
      const place = placeOf(one.line, behaviour);
      if (place.script === script) note(place.line, valueInWords(one.value));
    }
    if (!ofScript(one)) continue;
    if (one.is === 'value') note(one.line, valueInWords(one.value));
    if (one.is === 'statement') {
      const { line } = sites.get(script)![one.site]!;
      hits.set(line, (hits.get(line) ?? 0) + 1);
    }
  }
  const instances = new Instances(details, sites);
  for (const instance of instances.all) {
    if (instance.place.script !== script || instance.site.kind !== 'condition') continue;
    if (instance.value === undefined) continue;
    // A part of a condition is told with the whole.
    const around = instance.within === null ? null : instances.all[instance.within]!;
    if (around?.site.kind === 'condition' && around.site.line === instance.site.line) continue;
    const { comparisons, line, came } = conditionMet(instances, instance);
    const truth =
      came === true ? 'yes' : came === false || came === null ? 'no' : valueInWords(came);
    note(
      line,
      comparisons.length === 0
        ? truth
        : `${comparisons.map(comparisonInWords).join(', ')}: ${truth}`,
    );
  }
  return [...new Set([...texts.keys(), ...hits.keys()])]
    .sort((a, b) => a - b)
    .map((line) => ({
      line,
      hits: hits.get(line) ?? 0,
      value: texts.get(line),
      failed: null,
    }));
}

/** The variables in sight at a detail, by name. */
export function variablesAt(
  run: DetailedRun,
  detail: number,
  sites: SitesOf,
): { name: string; value: Value }[] {
  const statement = placeAt(run, detail);
  if (statement === null) return [];
  const { names } = sites.get(statement.script)![statement.site]!;
  return names.map((name, i) => ({ name, value: statement.values[i] ?? null }));
}
