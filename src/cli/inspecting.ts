/** A session of the command line run again in detail: what `tavro why` and `tavro play --at` ask of it. */
import * as z from 'zod';
import { groundOver, type Ground } from '../core/debugging/ground';
import type { SitesOf } from '../core/debugging/instances';
import type { DetailedScript } from '../core/language/compile';
import { takingPart, type Source } from '../core/script/header';
import { modulesUsed } from '../core/script/imports';
import { scriptsOf } from '../core/script/of-form';
import type { Site } from '../core/script/sites';
import type { Engine } from '../core/sandbox/engine';
import type { Inspection, Wanted } from '../core/sandbox/inspector';
import { CompiledSchema } from '../core/sandbox/protocol';
import type { Answer, Opening, Step, TimedStep } from '../core/session/step';
import { Tape } from '../core/tape/tape';
import type { Workspace, WorkspaceForm } from '../core/workspace/workspace';
import type { Cache } from './cache';
import { compiledAnswering } from './call';

const Control = z.object({ site: z.number(), holds: z.boolean().nullable() });
const SiteSchema: z.ZodType<Site> = z.object({
  kind: z.enum([
    'function',
    'statement',
    'item',
    'condition',
    'switch',
    'comparison',
    'operand',
    'returned',
  ]),
  line: z.number(),
  start: z.number(),
  end: z.number(),
  text: z.string(),
  within: z.number().nullable(),
  names: z.array(z.string()),
  uses: z.array(z.number()),
  defines: z.array(z.number()),
  changes: z.array(z.number()),
  under: Control.nullable(),
  leaves: z.array(Control),
  chooses: z.number().nullable(),
  op: z.string().nullable(),
  marks: z.array(z.enum(['clock', 'random', 'previous'])),
  passedTo: z.string().nullable(),
});
const DetailedSchema = z.object({ script: CompiledSchema, sites: z.array(SiteSchema) });

export interface Inspecting {
  /** The behaviours and shared modules of the form. */
  sources: readonly Source[];
  sites: SitesOf;
  /** Of the opening, then of each step. */
  answers: readonly Answer[];
  ground: Ground;
  inspect(wanted: Partial<Wanted>): Promise<Inspection>;
}

/** Loads a form compiled in detail; gives its behaviours and shared modules and their sites. */
export async function loadDetailed(
  engine: Engine,
  cache: Cache,
  { tables, services, shared }: Workspace,
  { form, behaviours }: WorkspaceForm,
): Promise<{ sources: readonly Source[]; sites: SitesOf }> {
  const sources = scriptsOf(form, behaviours, shared);
  const all = (some: readonly Source[]) =>
    Promise.all(some.map((source) => detailed(cache, source)));
  const [scripts, modules, answering] = await Promise.all([
    all(takingPart(sources)),
    all(modulesUsed(sources)),
    compiledAnswering(cache, services),
  ]);
  await engine.load({
    form,
    tables,
    services,
    answering,
    scripts: scripts.map(({ script }) => script),
    modules: modules.map(({ script }) => script),
    traced: true,
  });
  return {
    sources,
    sites: new Map([...scripts, ...modules].map((one) => [one.script.name, one.sites])),
  };
}

/** Loads a form in detail and does the steps. */
export async function inspecting(
  engine: Engine,
  cache: Cache,
  workspace: Workspace,
  entry: WorkspaceForm,
  opening: Opening,
  steps: readonly (Step | TimedStep)[],
): Promise<Inspecting> {
  const { sources, sites } = await loadDetailed(engine, cache, workspace, entry);
  const inspect = (wanted: Partial<Wanted>): Promise<Inspection> =>
    engine.inspect(opening, steps, {
      runs: [],
      moments: [],
      turned: [],
      asks: false,
      answers: false,
      ...wanted,
    });
  const { answers } = await inspect({ answers: true });
  return {
    sources,
    sites,
    answers,
    inspect,
    ground: groundOver(
      { form: entry.form, tape: new Tape(answers.flatMap(({ tape }) => tape)), sites },
      inspect,
    ),
  };
}

async function detailed(cache: Cache, source: Source): Promise<DetailedScript> {
  const of = ['detailed', source.name, source.text];
  const kept = cache.read('script', of, DetailedSchema) as DetailedScript | null;
  if (kept !== null) return kept;
  const { compileDetailed } = await import('../core/language/compile');
  const made = compileDetailed(source);
  cache.keep('script', of, made);
  return made;
}
