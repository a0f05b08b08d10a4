/** Compiled scripts for pages, kept by their text: most visits find every script as the last one left it. */
import type { Mode } from '../../core/language/compile';
import type { Source } from '../../core/script/header';
import { takingPart } from '../../core/script/header';
import { modulesUsed } from '../../core/script/imports';
import type { Material } from '../../core/session/material';
import type { Service } from '../../core/form/service';
import { servicesAsSources } from '../../core/script/service-sources';
import type { CompiledScript } from '../../core/session/tie';
import { task } from './tasks';

const kept = new Map<string, CompiledScript>();
const MOST_KEPT = 2000;

const keyOf = ({ name, text }: Source, mode: Mode) => `${mode} ${name}\n${text}`;

/** The sources compiled, in their order, off the main thread. */
export async function compiled(sources: readonly Source[], mode: Mode): Promise<CompiledScript[]> {
  const missing = sources.filter((source) => !kept.has(keyOf(source, mode)));
  const made =
    missing.length === 0
      ? []
      : await task('compile', { sources: missing.map(({ name, text }) => ({ name, text })), mode });
  if (kept.size + made.length > MOST_KEPT) kept.clear();
  const fresh = new Map(missing.map((source, i) => [keyOf(source, mode), made[i]!]));
  for (const [key, script] of fresh) kept.set(key, script);
  return Promise.all(
    sources.map(
      async (source) =>
        kept.get(keyOf(source, mode)) ??
        fresh.get(keyOf(source, mode)) ??
        (await compiled([source], mode))[0]!,
    ),
  );
}

/** The scripts by which services answer. */
export async function compiledServices(services: readonly Service[]): Promise<CompiledScript[]> {
  const sources = servicesAsSources(services);
  const scripts = await compiled(
    sources.map(({ source }) => source),
    'untraced',
  );
  return scripts.map((script, i) => ({ ...script, name: sources[i]!.name }));
}

/** What runs of a form's scripts: behaviours in their order, and the shared modules they use. */
export async function compiledScripts(
  sources: readonly Source[],
  mode: Mode,
): Promise<Pick<Material, 'scripts' | 'modules'>> {
  const [scripts, modules] = await Promise.all([
    compiled(takingPart(sources), mode),
    compiled(modulesUsed(sources), mode),
  ]);
  return { scripts, modules };
}
