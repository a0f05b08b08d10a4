/** The language worker and the compiler's, as the bench starts them. */
import type {
  Completion,
  Diagnostic,
  Explanation,
  Place,
  Signature,
  Target,
} from '../core/language/service';
import type { FormMap } from '../core/language/map';
import type { PartFinding } from '../core/language/mistakes/idle-part';
import type { Edit, Fix } from '../core/language/mistakes/mistake';
import type { Surface } from '../core/language/typings';
import type { Source } from '../core/language/header';
import type { CompiledScript } from '../core/session/ties';
import { Asked, type Asking } from './asked';
import type { CompileRequest, LanguageRequest, SurfaceMessage } from './language-protocol';

const NO_MAP: FormMap = { behaviours: [], reads: [], steers: [], conflicts: [], circles: [] };

const portOf = (worker: Worker): Asking => ({
  post: (message) => worker.postMessage(message),
  onMessage: (listener) =>
    worker.addEventListener('message', (event: MessageEvent<unknown>) => listener(event.data)),
  end: () => worker.terminate(),
});

/** The two workers for scripts: one checks at every key, one compiles when the typing rests. Either is ended and started anew when it does not answer. */
export class LanguageClient {
  readonly #language = new Asked<LanguageRequest>(
    () => portOf(new Worker(new URL('./language.worker.ts', import.meta.url), { type: 'module' })),
    {
      ended: (request) => {
        // Its text would keep the new one busy as well.
        if ('source' in request) this.#busy.set(request.source.name, request.source.text);
      },
      begun: (send) => {
        if (this.#surface !== null) send({ do: 'surround', surface: this.#surface });
        for (const [name, text] of this.#texts)
          if (this.#busy.get(name) !== text) send({ do: 'put', source: { name, text } });
      },
    },
  );
  /** Begun when first something is compiled: at the start the scripts come compiled. */
  #compiler: Asked<CompileRequest> | null = null;
  #surface: SurfaceMessage | null = null;
  /** Texts as they were put last, for a worker that is started anew, and those that kept one busy. */
  readonly #texts = new Map<string, string>();
  readonly #busy = new Map<string, string>();

  surround({ form, tables, services, roles }: Surface): Promise<null> {
    this.#surface = { form, tables: [...tables], services: [...services], roles: [...roles] };
    return this.#language.ask({ do: 'surround', surface: this.#surface }, null);
  }

  put(source: Source): Promise<null> {
    if (this.#isBusy(source)) return Promise.resolve(null);
    return this.#language.ask({ do: 'put', source }, null);
  }

  compile(source: Source): Promise<CompiledScript> {
    this.#compiler ??= new Asked<CompileRequest>(() =>
      portOf(new Worker(new URL('./compiler.worker.ts', import.meta.url), { type: 'module' })),
    );
    return this.#compiler.ask(
      { do: 'compile', source },
      {
        name: source.name.replace(/\.[jt]s$/, ''),
        title: source.name,
        code: null,
        expressions: [],
        failure: {
          code: 'syntax',
          says: 'keeps the compiler busy for more than five seconds, so it was stopped.',
          line: 1,
        },
      },
    );
  }

  remove(name: string): Promise<null> {
    this.#texts.delete(name);
    this.#busy.delete(name);
    return this.#language.ask({ do: 'remove', name }, null);
  }

  diagnose(source: Source): Promise<Diagnostic[]> {
    const busy: Diagnostic = {
      from: 0,
      to: 1,
      line: 1,
      column: 1,
      severity: 'error',
      says: 'This text keeps the checker busy for more than five seconds, so it was stopped and started anew. The text is checked again when it changes.',
      code: 'busy',
      fixes: [],
    };
    if (this.#isBusy(source)) return Promise.resolve([busy]);
    return this.#language.ask({ do: 'diagnose', source }, [busy]);
  }

  complete(source: Source, position: number): Promise<Completion[]> {
    if (this.#isBusy(source)) return Promise.resolve([]);
    return this.#language.ask({ do: 'complete', source, position }, []);
  }

  describe(name: string, position: number, label: string): Promise<string | null> {
    return this.#language.ask({ do: 'describe', name, position, label }, null);
  }

  explain(name: string, position: number): Promise<Explanation | null> {
    return this.#language.ask({ do: 'explain', name, position }, null);
  }

  signature(source: Source, position: number): Promise<Signature | null> {
    if (this.#isBusy(source)) return Promise.resolve(null);
    return this.#language.ask({ do: 'signature', source, position }, null);
  }

  define(name: string, position: number): Promise<Target | null> {
    return this.#language.ask({ do: 'define', name, position }, null);
  }

  references(name: string, position: number): Promise<Place[]> {
    return this.#language.ask({ do: 'references', name, position }, []);
  }

  rename(name: string, position: number, to: string): Promise<Edit[] | null> {
    return this.#language.ask({ do: 'rename', name, position, to }, null);
  }

  compilerFixes(name: string, { from, to, code }: Diagnostic): Promise<Fix[]> {
    return this.#language.ask({ do: 'compilerFixes', name, at: { from, to, code } }, []);
  }

  format(source: Source, position: number): Promise<{ text: string; position: number } | null> {
    if (this.#isBusy(source)) return Promise.resolve(null);
    return this.#language.ask({ do: 'format', source, position }, null);
  }

  idleParts(): Promise<PartFinding[]> {
    return this.#language.ask({ do: 'idleParts' }, []);
  }

  map(): Promise<FormMap> {
    return this.#language.ask({ do: 'map' }, NO_MAP);
  }

  /** A text that kept a worker busy is not given to it again; any other is remembered. */
  #isBusy({ name, text }: Source): boolean {
    this.#texts.set(name, text);
    return this.#busy.get(name) === text;
  }

  close(): void {
    this.#language.close();
    this.#compiler?.close();
  }
}
