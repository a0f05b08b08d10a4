/** The language worker and the compiler's, as the bench starts them. */
import { wrap } from 'comlink';
import { NO_CHANGE } from '../core/compare/version';
import type { Mentions } from '../core/explore/mentions';
import type { Diagnostic } from '../core/language/answers';
import type { FormMap } from '../core/language/map';
import { isObject } from '../core/form/value';
import type { Source } from '../core/script/header';
import { baseName } from '../core/script/script-name';
import { NOTHING_REPORTED, type CompiledScript } from '../core/session/tie';
import { PatientWorker, type Asking, type Question } from './asked';
import type { CompilerCalls } from './compiler-serve';
import type { LanguageCalls } from './language-serve';

type Calls = LanguageCalls & CompilerCalls;

/** Everything that either worker can be asked, and what ends both. */
export type LanguageClient = {
  [Call in keyof Calls]: (
    ...given: Parameters<Calls[Call]>
  ) => Promise<Awaited<ReturnType<Calls[Call]>>>;
} & { close(): void };

/** What a call answers where its worker had to be ended over it, or is not asked with a text that kept it busy. */
type Unanswered<C extends Calls | LanguageCalls | CompilerCalls> = {
  [Call in keyof C]: C[Call] extends (...given: infer G) => infer R
    ? (...given: G) => Awaited<R>
    : never;
};

const nothing = () => undefined;
const none = () => null;
const noMap: FormMap = { behaviours: [], reads: [], steers: [], conflicts: [], circles: [] };
const noMentions: Mentions = {
  numbers: [],
  compared: {},
  texts: [],
  dates: [],
  times: [],
  patterns: [],
  names: [],
  words: [],
  launch: [],
  members: [],
  conditions: [],
  asks: { length: false, month: false, clock: false, calls: false },
};
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

const OF_LANGUAGE: Unanswered<LanguageCalls> = {
  surround: nothing,
  put: nothing,
  remove: nothing,
  diagnose: () => [busy],
  complete: () => [],
  completeAsked: () => [],
  describe: none,
  explain: none,
  signature: none,
  define: none,
  references: () => [],
  rename: none,
  compilerFixes: () => [],
  format: none,
  idleParts: () => [],
  mentions: () => noMentions,
  change: () => NO_CHANGE,
  map: () => noMap,
};

const uncompiled = ({ name }: Source): CompiledScript => ({
  name: baseName(name),
  title: name,
  code: null,
  ...NOTHING_REPORTED,
  failure: {
    code: 'syntax',
    says: 'keeps the compiler busy for more than five seconds, so it was stopped.',
    line: 1,
  },
});

const OF_COMPILER: Unanswered<CompilerCalls> = {
  compile: uncompiled,
  compileDetailed: (source) => ({ script: uncompiled(source), sites: [] }),
  compileMutants: (source) => ({ script: uncompiled(source), mutants: [] }),
  writers: () => [],
  stopLine: none,
  expressionFault: () => 'cannot be read in time.',
};

const askingOf = <F extends LanguageCalls | CompilerCalls>(worker: Worker): Asking<F> => ({
  calls: wrap<F>(worker),
  end: () => worker.terminate(),
});

const isSource = (given: unknown): given is Source =>
  isObject(given) && typeof given.name === 'string' && typeof given.text === 'string';

/**
 * Starts the worker that checks at every key; the one that compiles when the typing rests begins when it is first asked,
 * since at the start the scripts come compiled. Either is ended and restarted when it does not answer.
 */
export function startLanguage(): LanguageClient {
  /** Texts as they were given last, for a worker that is restarted, and those that kept one busy. */
  const texts = new Map<string, string>();
  const busyTexts = new Map<string, string>();
  let surface: unknown[] | null = null;
  const language = new PatientWorker<LanguageCalls>(
    () =>
      askingOf(new Worker(new URL('./language.worker.ts', import.meta.url), { type: 'module' })),
    {
      ended: ({ given }) => {
        // Its text would keep the new one busy as well.
        for (const { name, text } of given.filter(isSource))
          if (texts.get(name) === text) busyTexts.set(name, text);
      },
      begun: () => {
        const known: Question<LanguageCalls>[] = [];
        if (surface !== null) known.push({ call: 'surround', given: surface });
        for (const [name, text] of texts)
          if (busyTexts.get(name) !== text) known.push({ call: 'put', given: [{ name, text }] });
        return known;
      },
    },
  );
  let compiler: PatientWorker<CompilerCalls> | null = null;
  const compiling = () =>
    (compiler ??= new PatientWorker<CompilerCalls>(() =>
      askingOf(new Worker(new URL('./compiler.worker.ts', import.meta.url), { type: 'module' })),
    ));

  /** Asks the language worker; a text that kept it busy is not given to it again. */
  function ask(call: keyof LanguageCalls, given: unknown[], unanswered: unknown): Promise<unknown> {
    const source = given.find(isSource);
    if (source !== undefined) {
      texts.set(source.name, source.text);
      if (busyTexts.get(source.name) === source.text) return Promise.resolve(unanswered);
    }
    return language.ask(call, given as never, unanswered as never);
  }

  const table = <C extends object>(
    unanswered: C,
    asks: (call: keyof C, given: unknown[], otherwise: unknown) => Promise<unknown>,
  ) =>
    Object.fromEntries(
      Object.entries(unanswered).map(([call, otherwise]) => [
        call,
        (...given: unknown[]) =>
          asks(call as keyof C, given, (otherwise as (...of: unknown[]) => unknown)(...given)),
      ]),
    );

  return {
    ...table(OF_COMPILER, (call, given, otherwise) =>
      compiling().ask(call, given as never, otherwise as never),
    ),
    ...table(OF_LANGUAGE, ask),
    surround({ form, tables, services, roles }) {
      surface = [{ form, tables, services, roles }];
      return ask('surround', surface, undefined);
    },
    remove(name) {
      texts.delete(name);
      busyTexts.delete(name);
      return ask('remove', [name], undefined);
    },
    close() {
      language.close();
      compiler?.close();
    },
  } as LanguageClient;
}
