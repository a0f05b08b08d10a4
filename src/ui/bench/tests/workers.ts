/** Engines of their own for the tests of a form, so that the live form goes on, and work on them that can be stopped. */
import type { StoreApi } from 'zustand/vanilla';
import type { Cast } from '@/core/scenario/opening';
import type { Engine } from '@/core/sandbox/engine';
import { takingPart, type Source } from '@/core/script/header';
import { modulesUsed } from '@/core/script/imports';
import type { CompiledScript } from '@/core/session/tie';
import type { GridGround } from '@/core/scenario/grid';
import { engineInWorker } from '@/workers/engine-in-browser';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { TestsState } from './state';

/** More gain nothing: what the page itself does wants a core too. */
const MOST_ENGINES = 4;

/** The parts of the tests that take a while. */
const LONG = ['grid', 'mutation', 'coverage'] as const;
export type LongWork = (typeof LONG)[number];

export interface TestWorkers {
  change<K extends keyof TestsState>(part: K, more: Partial<TestsState[K]>): void;
  /** Does long work, after ending other work; `mine` says whether it was not stopped meanwhile. */
  work(part: LongWork, does: (mine: () => boolean) => Promise<void>): Promise<void>;
  /** Ends what is under way; what is done by then stays. */
  stop(): void;
  /** As many engines as there are pieces and cores to spare, with the scripts as they run. */
  loaded(pieces: number): Promise<Engine[]>;
  some(pieces: number): Engine[];
  ground(): GridGround & { cast: Cast };
  /** The scripts that run in the form, each compiled in a way of its own, one after the other. */
  compiled(
    compile: (source: Source) => Promise<CompiledScript>,
  ): Promise<{ scripts: CompiledScript[]; modules: CompiledScript[] }>;
  end(): void;
}

export function testWorkers(
  { form, material }: BenchCore,
  { scripts }: Code,
  tests: StoreApi<TestsState>,
  cast: () => Cast,
): TestWorkers {
  const engines: Engine[] = [];
  /** Counts up when work is stopped, so that what is still under way ends. */
  let round = 0;

  const change: TestWorkers['change'] = (part, more) =>
    tests.setState(
      (state) => ({ [part]: { ...(state[part] as object), ...more } }) as Partial<TestsState>,
    );

  function some(pieces: number): Engine[] {
    const cores = Math.max(1, Math.min(MOST_ENGINES, navigator.hardwareConcurrency || 2, pieces));
    while (engines.length < cores) engines.push(engineInWorker());
    return engines.slice(0, cores);
  }

  function stop(): void {
    round++;
    for (const part of LONG) change(part, { underway: null });
  }

  return {
    change,
    stop,
    some,
    async work(part, does) {
      // Engines are shared, so two at a time would load each other's scripts.
      stop();
      const own = round;
      tests.setState({ says: null });
      try {
        await does(() => own === round);
      } catch (caught) {
        if (own === round)
          tests.setState({ says: caught instanceof Error ? caught.message : String(caught) });
      } finally {
        if (own === round) change(part, { underway: null });
      }
    },
    async loaded(pieces) {
      const hosts = some(pieces);
      await Promise.all(
        hosts.map((engine) => engine.load({ ...scripts.material(), traced: false })),
      );
      return hosts;
    },
    ground: () => ({ form: form(), source: material, cast: cast() }),
    async compiled(compile) {
      const sources = scripts.sources();
      const each = async (of: readonly Source[]) => {
        const compiled: CompiledScript[] = [];
        for (const source of of) {
          const script = await compile(source);
          if (script.failure !== null)
            throw new Error(
              `${source.name} does not compile: ${script.failure.says}. Mend it, then try again.`,
            );
          compiled.push(script);
        }
        return compiled;
      };
      return {
        scripts: await each(takingPart(sources)),
        modules: await each(modulesUsed(sources)),
      };
    },
    end() {
      round++;
      for (const engine of engines.splice(0)) engine.close();
    },
  };
}
