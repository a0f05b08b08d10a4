/**
 * What of the scripts was reached: statements, conditions that came out either way, functions, and the option keys that
 * scripts read. Counted from detailed runs. Out as LCOV tracefile records (geninfo(1), "TRACEFILE FORMAT").
 */
import { holds } from '../debugging/comparison';
import type { SitesOf } from '../debugging/instances';
import type { Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import type { DetailedRun } from '../session/detail';
import { holdsKeys } from '../form/traits';

export interface StatementCount {
  line: number;
  text: string;
  count: number;
}

export interface ConditionCount {
  line: number;
  text: string;
  /** How often it held, and did not. */
  yes: number;
  no: number;
  /** The line of its `if` or `?:`; null for another condition. */
  chooses: number | null;
}

export interface ScriptCoverage {
  statements: StatementCount[];
  conditions: ConditionCount[];
  /** Functions that were never entered count 0; handlers and rules are among them. */
  functions: { line: number; count: number }[];
}

/** A line with something that was not reached. */
export interface Gap {
  line: number;
  says: string;
  /** It was reached, but a condition in it came out one way only. */
  reached: boolean;
}

/** What is missing of a script, by line. */
export function gapsOf({ statements, conditions }: ScriptCoverage): Gap[] {
  const gaps = new Map<number, Gap>();
  for (const { line, text, yes, no } of conditions)
    if (yes + no > 0 && (yes === 0 || no === 0)) {
      const what = `${text} is ${yes === 0 ? 'never met' : 'always met'}`;
      const says = gaps.has(line) ? `${gaps.get(line)!.says}; ${what}` : what;
      gaps.set(line, { line, says, reached: true });
    }
  for (const { line, count } of statements)
    if (count === 0) gaps.set(line, { line, says: 'not reached', reached: false });
  return [...gaps.values()].toSorted((a, b) => a.line - b.line);
}

/** Of so many, so many were reached. */
export interface Share {
  reached: number;
  of: number;
}

export interface CoverageShares {
  statements: Share;
  /** Each condition counts twice: as held and as not. */
  conditions: Share;
  functions: Share;
}

interface Counts {
  statements: Map<number, number>;
  conditions: Map<number, [yes: number, no: number]>;
  functions: Map<number, number>;
}

export class Coverage {
  readonly #counts = new Map<string, Counts>();
  /** Keys of options that scripts read, by field. */
  readonly #keys = new Map<string, Set<string>>();

  constructor(private readonly sites: SitesOf) {
    for (const name of sites.keys())
      this.#counts.set(name, {
        statements: new Map(),
        conditions: new Map(),
        functions: new Map(),
      });
  }

  add(runs: readonly DetailedRun[]): void {
    for (const detail of runs.flatMap(({ details }) => details)) {
      if (detail.is === 'read' && detail.aspect === 'value') {
        const keys = this.#keys.get(detail.part) ?? new Set();
        for (const key of [detail.value].flat()) if (typeof key === 'string') keys.add(key);
        this.#keys.set(detail.part, keys);
      }
      if (!('site' in detail)) continue;
      const counts = this.#counts.get(detail.script);
      if (counts === undefined) continue;
      if (detail.is === 'statement') addOne(counts.statements, detail.site);
      else if (detail.is === 'enter') addOne(counts.functions, detail.site);
      else if (detail.is === 'condition') {
        const came = counts.conditions.get(detail.site) ?? [0, 0];
        came[holds(detail.value) ? 0 : 1]++;
        counts.conditions.set(detail.site, came);
      }
    }
  }

  /** The first lines that runs reach, or conditions that they meet in another way, and that nothing did before. */
  reachesAnew(runs: readonly DetailedRun[]): { script: string; line: number }[] {
    const anew = new Map<string, { script: string; line: number }>();
    for (const detail of runs.flatMap(({ details }) => details)) {
      if (detail.is !== 'statement' && detail.is !== 'condition') continue;
      const counts = this.#counts.get(detail.script);
      if (counts === undefined) continue;
      const isNew =
        detail.is === 'statement'
          ? !counts.statements.has(detail.site)
          : counts.conditions.get(detail.site)?.[holds(detail.value) ? 0 : 1] === 0;
      const { line } = this.sites.get(detail.script)![detail.site]!;
      if (isNew) anew.set(`${detail.script} ${line}`, { script: detail.script, line });
    }
    return [...anew.values()];
  }

  get scripts(): string[] {
    return [...this.sites.keys()];
  }

  of(script: string): ScriptCoverage {
    const sites = this.sites.get(script) ?? [];
    const counts = this.#counts.get(script)!;
    const coverage: ScriptCoverage = { statements: [], conditions: [], functions: [] };
    sites.forEach((site, at) => {
      const { line, text } = site;
      // What stands at the top level has run when the script was loaded.
      const isTop = site.within === null || sites[site.within]!.within === null;
      if (site.kind === 'statement')
        coverage.statements.push({
          line,
          text,
          count: isTop ? 1 : (counts.statements.get(at) ?? 0),
        });
      else if (site.kind === 'function' && site.within !== null)
        coverage.functions.push({ line, count: counts.functions.get(at) ?? 0 });
      else if (site.kind === 'condition' && !isTop) {
        const [yes, no] = counts.conditions.get(at) ?? [0, 0];
        coverage.conditions.push({ line, text, yes, no, chooses: site.chooses });
      }
    });
    return coverage;
  }

  sharesOf(script: string): CoverageShares {
    const { statements, conditions, functions } = this.of(script);
    return {
      statements: shareOf(statements.map(({ count }) => count)),
      conditions: shareOf(conditions.flatMap(({ yes, no }) => [yes, no])),
      functions: shareOf(functions.map(({ count }) => count)),
    };
  }

  /** Of each field that scripts read and that has options, the keys that they have never read. */
  keysMissing(form: Form): { field: string; keys: string[] }[] {
    return fieldsOf(form).flatMap((field) => {
      const read = this.#keys.get(field.name);
      if (read === undefined || !holdsKeys(field) || !('options' in field)) return [];
      const keys = field.options.map(({ key }) => key).filter((key) => !read.has(key));
      return keys.length === 0 ? [] : [{ field: field.name, keys }];
    });
  }

  /** A record for each script; `fileOf` names its source. Branches are those of `if` and `?:`. */
  lcov(fileOf: (script: string) => string): string {
    return this.scripts
      .map((script) => {
        const { statements, conditions } = this.of(script);
        const lines = new Map<number, number>();
        for (const { line, count } of statements)
          lines.set(line, Math.max(lines.get(line) ?? 0, count));
        const branches = conditions.filter(({ chooses }) => chooses !== null);
        const taken = branches.flatMap(({ yes, no }) => [yes, no]);
        return [
          'TN:',
          `SF:${fileOf(script)}`,
          ...branches.flatMap(({ chooses, yes, no }, block) =>
            [yes, no].map(
              // geninfo(1): a dash where the condition was never evaluated.
              (count, branch) =>
                `BRDA:${chooses},${block},${branch},${yes + no === 0 ? '-' : count}`,
            ),
          ),
          `BRF:${taken.length}`,
          `BRH:${taken.filter((count) => count > 0).length}`,
          ...[...lines]
            .toSorted((a, b) => a[0] - b[0])
            .map(([line, count]) => `DA:${line},${count}`),
          `LF:${lines.size}`,
          `LH:${[...lines.values()].filter((count) => count > 0).length}`,
          'end_of_record',
          '',
        ].join('\n');
      })
      .join('');
  }
}

function addOne(counts: Map<number, number>, at: number): void {
  counts.set(at, (counts.get(at) ?? 0) + 1);
}

function shareOf(counts: readonly number[]): Share {
  return { reached: counts.filter((count) => count > 0).length, of: counts.length };
}
