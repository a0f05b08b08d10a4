/** The language worker and the compiler's, as the bench starts them. */
import { wrap } from 'comlink';
import type {
  Completion,
  Diagnostic,
  Explanation,
  Place,
  Signature,
  Target,
} from '../core/language/language-service';
import type { FormMap } from '../core/language/map';
import type { PartFinding } from '../core/language/mistakes/idle-part';
import type { Edit, Fix } from '../core/language/mistakes/mistake';
import type { Surface } from '../core/language/typings';
import type { DetailedScript } from '../core/language/compile';
import type { MutatedScript } from '../core/language/mutants';
import type { Form } from '../core/form/definition';
import type { Watch } from '../core/language/watches';
import type { Writer } from '../core/language/writers';
import { isObject } from '../core/form/value';
import type { Source } from '../core/script/header';
import type { CompiledScript } from '../core/session/ties';
import { Asked, type Asking, type Question } from './asked';
import type { CompilerCalls } from './compiler-serve';
import type { LanguageCalls } from './language-serve';

const NO_MAP: FormMap = { behaviours: [], reads: [], steers: [], conflicts: [], circles: [] };

const askingOf = <F extends LanguageCalls | CompilerCalls>(worker: Worker): Asking<F> => ({
  calls: wrap<F>(worker),
  end: () => worker.terminate(),
});

/** What stands for a script that keeps the compiler busy. */
function uncompiled({ name }: Source): CompiledScript {
  return {
    name: name.replace(/\.[jt]s$/, ''),
    title: name,
    code: null,
    expressions: [],
    failure: {
      code: 'syntax',
      says: 'keeps the compiler busy for more than five seconds, so it was stopped.',
      line: 1,
    },
  };
}

/** The two workers for scripts: one checks at every key, one compiles when the typing rests. Either is ended and restarted when it does not answer. */
export class LanguageClient {
  readonly #language = new Asked<LanguageCalls>(
    () =>
      askingOf(new Worker(new URL('./language.worker.ts', import.meta.url), { type: 'module' })),
    {
      ended: ({ given }) => {
        // Its text would keep the new one busy as well.
        for (const [name, text] of this.#texts)
          if (given.some((one) => isObject(one) && one.name === name && one.text === text))
            this.#busy.set(name, text);
      },
      begun: () => {
        const known: Question<LanguageCalls>[] = [];
        if (this.#surface !== null) known.push({ call: 'surround', given: [this.#surface] });
        for (const [name, text] of this.#texts)
          if (this.#busy.get(name) !== text) known.push({ call: 'put', given: [{ name, text }] });
        return known;
      },
    },
  );
  /** Begun when first something is compiled: at the start the scripts come compiled. */
  #compiler: Asked<CompilerCalls> | null = null;
  #surface: Parameters<LanguageCalls['surround']>[0] | null = null;
  /** Texts as they were put last, for a worker that is restarted, and those that kept one busy. */
  readonly #texts = new Map<string, string>();
  readonly #busy = new Map<string, string>();

  surround({ form, tables, services, roles }: Surface): Promise<void> {
    this.#surface = { form, tables, services, roles };
    return this.#language.ask('surround', [this.#surface], undefined);
  }

  put(source: Source): Promise<void> {
    if (this.#isBusy(source)) return Promise.resolve();
    return this.#language.ask('put', [source], undefined);
  }

  get #compiling(): Asked<CompilerCalls> {
    return (this.#compiler ??= new Asked<CompilerCalls>(() =>
      askingOf(new Worker(new URL('./compiler.worker.ts', import.meta.url), { type: 'module' })),
    ));
  }

  compile(source: Source): Promise<CompiledScript> {
    return this.#compiling.ask('compile', [source], uncompiled(source));
  }

  /** Compiles a script so that it reports details, with expressions that are asked on the way. */
  compileDetailed(source: Source, watches: Watch[]): Promise<DetailedScript> {
    return this.#compiling.ask('compileDetailed', [source, watches], {
      script: uncompiled(source),
      sites: [],
    });
  }

  /** Compiles a script with all of its mutants, numbered from `first`. */
  compileMutants(source: Source, form: Form, first: number): Promise<MutatedScript> {
    return this.#compiling.ask('compileMutants', [source, form, first], {
      script: uncompiled(source),
      mutants: [],
    });
  }

  writers(sources: Source[]): Promise<Writer[]> {
    return this.#compiling.ask('writers', [sources], []);
  }

  stopLine(source: Source, line: number): Promise<number | null> {
    return this.#compiling.ask('stopLine', [source, line], null);
  }

  expressionFault(expression: string): Promise<string | null> {
    return this.#compiling.ask('expressionFault', [expression], 'cannot be read in time.');
  }

  remove(name: string): Promise<void> {
    this.#texts.delete(name);
    this.#busy.delete(name);
    return this.#language.ask('remove', [name], undefined);
  }

  diagnose(source: Source): Promise<Diagnostic[]> {
    const busy: Diagnostic = {
      from: 0,
      to: 1,
      line: 1,
      column: 1,
      severity: 'error',
      says: 'This text keeps the checker busy for more than five seconds, so it was stopped and restarted. The text is checked again when it changes.',
      code: 'busy',
      fixes: [],
    };
    if (this.#isBusy(source)) return Promise.resolve([busy]);
    return this.#language.ask('diagnose', [source], [busy]);
  }

  complete(source: Source, position: number): Promise<Completion[]> {
    if (this.#isBusy(source)) return Promise.resolve([]);
    return this.#language.ask('complete', [source, position], []);
  }

  /** What can follow in an expression that is being written for a line of a script; null for between two runs. */
  completeAsked(source: Source | null, line: number, expression: string): Promise<Completion[]> {
    if (source !== null && this.#isBusy(source)) return Promise.resolve([]);
    return this.#language.ask('completeAsked', [source, line, expression], []);
  }

  describe(name: string, position: number, label: string): Promise<string | null> {
    return this.#language.ask('describe', [name, position, label], null);
  }

  explain(name: string, position: number): Promise<Explanation | null> {
    return this.#language.ask('explain', [name, position], null);
  }

  signature(source: Source, position: number): Promise<Signature | null> {
    if (this.#isBusy(source)) return Promise.resolve(null);
    return this.#language.ask('signature', [source, position], null);
  }

  define(name: string, position: number): Promise<Target | null> {
    return this.#language.ask('define', [name, position], null);
  }

  references(name: string, position: number): Promise<Place[]> {
    return this.#language.ask('references', [name, position], []);
  }

  rename(name: string, position: number, to: string): Promise<Edit[] | null> {
    return this.#language.ask('rename', [name, position, to], null);
  }

  compilerFixes(name: string, { from, to, code }: Diagnostic): Promise<Fix[]> {
    return this.#language.ask('compilerFixes', [name, { from, to, code }], []);
  }

  format(source: Source, position: number): Promise<{ text: string; position: number } | null> {
    if (this.#isBusy(source)) return Promise.resolve(null);
    return this.#language.ask('format', [source, position], null);
  }

  idleParts(): Promise<PartFinding[]> {
    return this.#language.ask('idleParts', [], []);
  }

  map(): Promise<FormMap> {
    return this.#language.ask('map', [], NO_MAP);
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
