/** Programs run here, without Tavro, and what istanbul (istanbul-lib-instrument) counts of them. */
import { createCoverageMap, type FileCoverageData } from 'istanbul-lib-coverage';
import { createInstrumenter } from 'istanbul-lib-instrument';
import ts from 'typescript-classic';
import type { Program } from './programs';

/** The handler stands in two lines around the program, in the script as in what istanbul is given. */
export const sourceOf = ({ lines }: Program): string =>
  ['"use strict"; on.load(async () => {', ...lines.map((line) => `  ${line}`), '});'].join('\n');

/** What a program logs here, without Tavro; `undefined` and what JSON does not hold are as on the tape. */
export async function plain(source: string): Promise<{ logged: unknown[]; failed: boolean }> {
  const logged: unknown[] = [];
  let handler: () => Promise<void> = () => Promise.resolve();
  const run = new Function('on', 'log', 'after', source) as (
    on: { load: (made: () => Promise<void>) => void },
    log: (...values: unknown[]) => void,
    after: () => Promise<void>,
  ) => void;
  run(
    { load: (made) => void (handler = made) },
    (...values) => logged.push(asOnTape(values)),
    () => Promise.resolve(),
  );
  let failed = false;
  await handler().catch(() => (failed = true));
  return { logged, failed };
}

function asOnTape(value: unknown): unknown {
  return JSON.parse(
    JSON.stringify(value, (_, one: unknown) =>
      typeof one === 'bigint' || (typeof one === 'number' && !Number.isFinite(one))
        ? String(one)
        : (one ?? null),
    ),
  );
}

/**
 * Lines on which the two count different things by convention: istanbul takes the initialisers of a class's fields for
 * statements and its declaration for none, Tavro the other way round.
 */
function linesOfClasses(source: string): Set<number> {
  const file = ts.createSourceFile('script.js', source, ts.ScriptTarget.Latest, true);
  // The first holds the call of `on.load` itself, which is no part of the program.
  const lines = new Set([1]);
  const look = (node: ts.Node): void => {
    if (ts.isClassDeclaration(node) || ts.isPropertyDeclaration(node))
      lines.add(file.getLineAndCharacterOfPosition(node.getStart(file)).line + 1);
    ts.forEachChild(node, look);
  };
  look(file);
  return lines;
}

export function without(lines: Told['lines'], source: string): Told['lines'] {
  const left = linesOfClasses(source);
  return Object.fromEntries(Object.entries(lines).filter(([line]) => !left.has(Number(line))));
}

export interface Told {
  /** By line, how often the statement there that ran most often did. */
  lines: Record<number, number>;
  /** By line, how often each `if` and `?:` came out either way, in order. */
  branches: Record<number, [number, number][]>;
}

export async function istanbul(
  source: string,
  /** Also what never ran. */
  { all }: { all: boolean } = { all: false },
): Promise<Told> {
  const instrumenter = createInstrumenter({ esModules: false, coverageVariable: '__covered' });
  const code = instrumenter.instrumentSync(source, 'script.js');
  const holder = globalThis as { __covered?: Record<string, FileCoverageData> };
  delete holder.__covered;
  await plain(code);
  const data = createCoverageMap(holder.__covered!).fileCoverageFor('script.js').data;
  const lines: Told['lines'] = {};
  for (const [id, { start }] of Object.entries(data.statementMap)) {
    const count = data.s[id]!;
    if (all || count > 0) lines[start.line] = Math.max(lines[start.line] ?? 0, count);
  }
  const branches: Told['branches'] = {};
  for (const [id, { type, loc }] of Object.entries(data.branchMap)) {
    if (type !== 'if' && type !== 'cond-expr') continue;
    const [yes, no] = data.b[id] as [number, number];
    if (all || yes + no > 0) (branches[loc.start.line] ??= []).push([yes, no]);
  }
  return { lines: without(lines, source), branches: sorted(branches) };
}

export function sorted(branches: Told['branches']): Told['branches'] {
  return Object.fromEntries(
    Object.entries(branches).map(([line, counts]) => [
      line,
      counts.sort((a, b) => a[0] - b[0] || a[1] - b[1]),
    ]),
  );
}
