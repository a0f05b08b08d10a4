/**
 * The second engine of the bench, in which sessions run again to be looked into. It is started when something is asked
 * first, and has nothing to do with the session in the live form.
 */
import { takingPart, type Source } from '@/core/script/header';
import { modulesUsed } from '@/core/script/imports';
import { baseName } from '@/core/script/script-name';
import type { SitesOf } from '@/core/debugging/instances';
import type { DetailedScript } from '@/core/language/compile';
import type { Watch } from '@/core/language/watches';
import type { Engine } from '@/core/sandbox/engine';
import type { Inspection, Wanted } from '@/core/sandbox/inspector';
import { ASKING } from '@/core/sandbox/asking-script';
import type { Open } from '@/core/scenario/definition';
import type { Opening, Step } from '@/core/session/step';
import { engineInWorker } from '@/workers/engine-in-browser';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { FormRoom } from '../form/form';

/** Watches by the script that they stand in; under `@asking` those that are asked between two runs. */
export type WatchesOf = Readonly<Record<string, readonly Watch[]>>;

const NO_WATCHES: WatchesOf = {};

/** Something that can be asked between two runs stands in its second line. */
const ASKING_SOURCE: Source = { name: `${ASKING}.ts`, text: 'on.load(() => {\n0;\n});' };
export const ASKING_LINE = 2;

export type Looking = ReturnType<typeof inspecting>;

export function inspecting(
  { form, material, languageWorker }: BenchCore,
  { scripts }: Code,
  { session, openingFor }: FormRoom,
) {
  let engine: Engine | null = null;
  /** What is loaded, as a text that tells whether it still is. */
  let loaded = '';
  let sites: SitesOf = new Map();
  const compiled = new Map<string, Promise<DetailedScript>>();
  let last: Promise<unknown> = Promise.resolve();

  function compile(source: Source, watches: readonly Watch[]): Promise<DetailedScript> {
    const key = JSON.stringify([source.name, source.text, watches]);
    const known = compiled.get(key);
    if (known !== undefined) return known;
    // Texts come and go with every edit; those of a few edits are enough.
    if (compiled.size > 200) compiled.clear();
    const made = languageWorker().compileDetailed(source, [...watches]);
    compiled.set(key, made);
    return made;
  }

  async function load(watches: WatchesOf): Promise<void> {
    const all = scripts.sources();
    const key = JSON.stringify([all, watches, form()]);
    if (key === loaded && engine !== null) return;
    const detailed = (some: readonly Source[]) =>
      Promise.all(some.map((source) => compile(source, watches[baseName(source.name)] ?? [])));
    const [detailedScripts, modules, asking] = await Promise.all([
      detailed(takingPart(all)),
      detailed(modulesUsed(all)),
      watches[ASKING] === undefined ? null : compile(ASKING_SOURCE, watches[ASKING]),
    ]);
    engine ??= engineInWorker();
    const of = (some: readonly DetailedScript[]) => some.map(({ script }) => script);
    await engine.load({
      form: form(),
      tables: material.tables,
      services: material.services,
      answering: material.answering,
      scripts: [...of(detailedScripts), ...(asking === null ? [] : [asking.script])],
      modules: of(modules),
      traced: true,
    });
    sites = new Map([...detailedScripts, ...modules].map((one) => [one.script.name, one.sites]));
    loaded = key;
  }

  /** Runs steps again and gives what is wanted. Throws what the engine throws. */
  function inspect(
    wanted: Partial<Wanted>,
    {
      steps = session.state.steps,
      watches = NO_WATCHES,
      open = session.state.open,
      opening,
    }: {
      steps?: readonly Step[];
      watches?: WatchesOf;
      open?: Open;
      opening?: Opening;
    } = {},
  ): Promise<Inspection> {
    const work = async (): Promise<Inspection> => {
      await load(watches);
      return engine!.inspect(opening ?? openingFor(open), steps, {
        runs: [],
        moments: [],
        turned: [],
        asks: watches !== NO_WATCHES,
        answers: false,
        ...wanted,
      });
    };
    // Each loads what it needs, so they follow each other.
    const done = last.then(work);
    last = done.catch(() => undefined);
    return done;
  }

  return {
    inspect,
    /** The sites of what was loaded last. */
    sites: () => sites,
    /** The next question starts another one. */
    end(): void {
      engine?.close();
      engine = null;
    },
  };
}
