/** Engines and the language worker as a page starts them. */
import { Engine, type Port } from '../core/sandbox/engine';
import type { Completion, Diagnosis, Explanation, Place, Signature, Target } from '../core/language/service';
import type { FormMap } from '../core/language/map';
import type { PartFinding } from '../core/language/mistakes/idle-part';
import type { Edit, Fix } from '../core/language/mistakes/mistake';
import type { Surface } from '../core/language/typings';
import type { Source } from '../core/language/compile';
import type { CompiledScript } from '../core/session/ties';
import { LanguageReply, type CompileRequest, type LanguageRequest } from './language-protocol';

export function engineInWorker(): Engine {
  return new Engine((): Port => {
    const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' });
    return {
      post: (message) => worker.postMessage(message),
      onMessage: (listener) => worker.addEventListener('message', (event: MessageEvent<unknown>) => listener(event.data)),
      end: () => worker.terminate(),
    };
  });
}

type Unnumbered<R> = R extends unknown ? Omit<R, 'id'> : never;

/** Asks a worker and gives its answers to who asked. */
class Asked<R extends { id: number }> {
  readonly #worker: Worker;
  readonly #waiting = new Map<number, (answer: unknown) => void>();
  #ids = 0;

  constructor(worker: Worker) {
    this.#worker = worker;
    worker.addEventListener('message', (event: MessageEvent<unknown>) => {
      const { id, answer } = LanguageReply.parse(event.data);
      this.#waiting.get(id)?.(answer);
      this.#waiting.delete(id);
    });
  }

  ask<T>(request: Unnumbered<R>): Promise<T> {
    const id = ++this.#ids;
    return new Promise((resolve) => {
      // Both ends are built together; what comes back is what the worker's function of that name gives.
      this.#waiting.set(id, resolve as (answer: unknown) => void);
      this.#worker.postMessage({ ...request, id });
    });
  }

  close(): void {
    this.#worker.terminate();
  }
}

/** The two workers for scripts: one checks at every key, one compiles when the typing rests. */
export class LanguageClient {
  readonly #language = new Asked<LanguageRequest>(new Worker(new URL('./language.worker.ts', import.meta.url), { type: 'module' }));
  /** Begun when first something is compiled: at the start the scripts come compiled. */
  #compiler: Asked<CompileRequest> | null = null;

  surround({ form, tables, services, roles }: Surface): Promise<null> {
    return this.#language.ask({ do: 'surround', surface: { form, tables: [...tables], services: [...services], roles: [...roles] } });
  }

  put(source: Source): Promise<null> {
    return this.#language.ask({ do: 'put', source });
  }

  compile(source: Source): Promise<CompiledScript> {
    this.#compiler ??= new Asked<CompileRequest>(new Worker(new URL('./compiler.worker.ts', import.meta.url), { type: 'module' }));
    return this.#compiler.ask({ do: 'compile', source });
  }

  remove(name: string): Promise<null> {
    return this.#language.ask({ do: 'remove', name });
  }

  diagnose(source: Source): Promise<Diagnosis[]> {
    return this.#language.ask({ do: 'diagnose', source });
  }

  complete(source: Source, position: number): Promise<Completion[]> {
    return this.#language.ask({ do: 'complete', source, position });
  }

  describe(name: string, position: number, label: string): Promise<string | null> {
    return this.#language.ask({ do: 'describe', name, position, label });
  }

  explain(name: string, position: number): Promise<Explanation | null> {
    return this.#language.ask({ do: 'explain', name, position });
  }

  signature(source: Source, position: number): Promise<Signature | null> {
    return this.#language.ask({ do: 'signature', source, position });
  }

  define(name: string, position: number): Promise<Target | null> {
    return this.#language.ask({ do: 'define', name, position });
  }

  references(name: string, position: number): Promise<Place[]> {
    return this.#language.ask({ do: 'references', name, position });
  }

  rename(name: string, position: number, to: string): Promise<Edit[] | null> {
    return this.#language.ask({ do: 'rename', name, position, to });
  }

  compilerFixes(name: string, { from, to, code }: Diagnosis): Promise<Fix[]> {
    return this.#language.ask({ do: 'compilerFixes', name, at: { from, to, code } });
  }

  format(source: Source, position: number): Promise<{ text: string; position: number } | null> {
    return this.#language.ask({ do: 'format', source, position });
  }

  idleParts(): Promise<PartFinding[]> {
    return this.#language.ask({ do: 'idleParts' });
  }

  map(): Promise<FormMap> {
    return this.#language.ask({ do: 'map' });
  }

  close(): void {
    this.#language.close();
    this.#compiler?.close();
  }
}
