/** A form of a workspace as searches and comparisons take it, and where in its files a line stands. */
import type { At } from '../core/explore/finding';
import { scriptAt } from '../core/explore/finding';
import { parentsOf } from '../core/explore/ground';
import { DEFAULT_CLOCK } from '../core/scenario/opening';
import { readHeader, takingPart, type Source } from '../core/script/header';
import { scriptsOf } from '../core/script/of-form';
import { baseName } from '../core/script/script-name';
import { namesFor, type Names } from '../core/tape/words';
import type { Workspace, WorkspaceForm } from '../core/workspace/workspace';
import type { FormRequest } from '../workers/search-calls';
import type { Cache } from './cache';
import { InvalidCall, materialFrom, scriptFile, type Call } from './call';

export interface SearchedForm {
  request: FormRequest;
  /** The behaviours that run and the shared modules that they use. */
  sources: readonly Source[];
  names: Names;
}

export async function searchedForm(
  cache: Cache,
  workspace: Workspace,
  entry: WorkspaceForm,
): Promise<SearchedForm> {
  const { form, behaviours, records } = entry;
  const sources = scriptsOf(form, behaviours, workspace.shared);
  const { mentionsOf } = await import('../core/explore/mentions');
  return {
    request: {
      material: await materialFrom(cache, workspace, entry, 'traced'),
      people: [...workspace.people],
      records: records.map(({ id, values }) => ({ id, values })),
      parents: parentsOf(form.name, workspace.forms),
      clock: Date.parse(DEFAULT_CLOCK),
      mentions: mentionsOf(takingPart(sources)),
    },
    sources,
    names: namesFor(
      form,
      sources.map(({ name, text }) => ({ name, title: readHeader({ name, text }).title })),
      workspace.people,
    ),
  };
}

export interface FilePlace {
  file: string;
  /** Both 1-based. */
  line: number;
  column: number;
}

/** Where a line stands; the form where no line says anything of it. */
export function placeIn(
  folder: string,
  form: string,
  sources: readonly Source[],
  at: Pick<At, 'behaviour' | 'line'> | null,
): FilePlace {
  const place = at === null ? null : scriptAt(at);
  const source = sources.find(({ name }) => baseName(name) === place?.script);
  if (source === undefined || place === null)
    return { file: `${folder}/forms/${form}/form.json`, line: 1, column: 1 };
  const { line } = place;
  const text = source.text.split('\n')[line - 1] ?? '';
  return {
    file: scriptFile(folder, form, source.name),
    line,
    column: text.length - text.trimStart().length + 1,
  };
}

export interface Limits {
  seed: number;
  sessions: number;
  /** Real milliseconds for each form; null where sessions alone count. */
  budget: number | null;
}

/** Either a number of sessions, which finds the same everywhere, or a time. */
export function limitsOf({ budget, seed = '1', sessions }: Call, usual: number): Limits {
  const whole = (name: string, given: string) => {
    const number = Number(given);
    if (!Number.isInteger(number) || number < 1 || number > 1_000_000_000)
      throw new InvalidCall(`--${name} is a whole number from 1 on.`);
    return number;
  };
  const match = budget === undefined ? null : /^(\d+)(s|m)$/.exec(budget);
  if (budget !== undefined && (match === null || Number(match[1]) === 0))
    throw new InvalidCall('--budget is a time such as 30s or 5m.');
  if (budget !== undefined && sessions !== undefined)
    throw new InvalidCall('say either --budget or --sessions.');
  return {
    seed: whole('seed', seed),
    sessions: sessions === undefined ? usual : whole('sessions', sessions),
    budget: match === null ? null : Number(match[1]) * (match[2] === 's' ? 1000 : 60_000),
  };
}

/**
 * Does the work with one seed; with a time on every core, with one seed after the other, until it is over. `take` is told what
 * each came to.
 */
export async function withSeeds<T>(
  { seed, budget }: Limits,
  cores: number,
  work: (seed: number, until: number | null) => Promise<T>,
  take: (done: T) => void,
): Promise<void> {
  const until = budget === null ? null : Date.now() + budget;
  const isOver = () => until === null || Date.now() >= until;
  let next = seed;
  await Promise.all(
    Array.from({ length: until === null ? 1 : cores }, async () => {
      do take(await work(next++, until));
      while (!isOver());
    }),
  );
}
