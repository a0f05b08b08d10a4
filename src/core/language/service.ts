/**
 * What the editor asks: errors as one types, completions, what a name is. Holds TypeScript's language service over the
 * behaviours of one form, each a module of its own, with the form's typings as the only surroundings.
 */
import ts from 'typescript-classic';
import type { Source } from './compile';
import { topLevelMisuse } from './top-level';

export interface Diagnosis {
  /** Offsets into the source. */
  from: number;
  to: number;
  /** 1-based. */
  line: number;
  column: number;
  severity: 'error' | 'warning';
  says: string;
  code: string;
}

export interface Completion {
  label: string;
  kind: string;
}

export interface Explanation {
  from: number;
  to: number;
  signature: string;
  documentation: string;
}

const OPTIONS: ts.CompilerOptions = {
  target: ts.ScriptTarget.ES2022,
  module: ts.ModuleKind.ESNext,
  moduleDetection: ts.ModuleDetectionKind.Force,
  lib: ['lib.es2022.d.ts', 'lib.es2023.array.d.ts'],
  strict: true,
  noEmit: true,
  allowJs: true,
  checkJs: true,
  skipLibCheck: true,
  types: [],
};

const TYPINGS = 'form.d.ts';
const TEMPORAL = 'temporal.d.ts';

export class FormLanguage {
  readonly #libs: Record<string, string>;
  readonly #files = new Map<string, { text: string; version: number }>();
  readonly #service: ts.LanguageService;

  constructor(libs: Record<string, string>) {
    this.#libs = libs;
    const read = (name: string) => this.#files.get(base(name))?.text ?? this.#libs[base(name)];
    const host: ts.LanguageServiceHost = {
      getCompilationSettings: () => OPTIONS,
      getScriptFileNames: () => [TEMPORAL, ...this.#files.keys()],
      getScriptVersion: (name) => String(this.#files.get(base(name))?.version ?? 0),
      getScriptSnapshot: (name) => {
        const text = read(name);
        return text === undefined ? undefined : ts.ScriptSnapshot.fromString(text);
      },
      getCurrentDirectory: () => '/',
      getDefaultLibFileName: () => 'lib.es2022.d.ts',
      fileExists: (name) => read(name) !== undefined,
      readFile: read,
      directoryExists: () => false,
      getDirectories: () => [],
    };
    this.#service = ts.createLanguageService(host, ts.createDocumentRegistry());
  }

  setTypings(text: string): void {
    this.#put(TYPINGS, text);
  }

  /** Puts a behaviour or its new text. */
  put(source: Source): void {
    this.#put(source.name, source.text);
  }

  remove(name: string): void {
    this.#files.delete(name);
  }

  #put(name: string, text: string): void {
    const file = this.#files.get(name);
    if (file?.text !== text) this.#files.set(name, { text, version: (file?.version ?? 0) + 1 });
  }

  /** Errors of syntax, then of types, then uses of the form where none is open. */
  diagnose(name: string): Diagnosis[] {
    const file = this.#service.getProgram()?.getSourceFile(name);
    if (file === undefined) return [];
    const syntactic = this.#service.getSyntacticDiagnostics(name);
    const found = syntactic.length > 0 ? syntactic : this.#service.getSemanticDiagnostics(name);
    const diagnoses = found.map((diagnostic) => {
      const from = diagnostic.start ?? 0;
      return at(file, from, from + (diagnostic.length ?? 1), {
        severity: diagnostic.category === ts.DiagnosticCategory.Warning ? 'warning' : 'error',
        says: ts.flattenDiagnosticMessageText(diagnostic.messageText, '\n'),
        code: `TS${diagnostic.code}`,
      });
    });
    if (syntactic.length === 0) {
      for (const misuse of topLevelMisuse(file)) {
        diagnoses.push(at(file, misuse.from, misuse.to, { severity: 'error', says: misuse.says, code: 'top-level' }));
      }
    }
    return diagnoses.sort((a, b) => a.from - b.from);
  }

  /** Every place in behaviours that names what the form's typings declare at an offset, and how a new name reads there. */
  namings(offset: number): { file: string; from: number; to: number; before: string; after: string }[] {
    const found = this.#service.findRenameLocations(TYPINGS, offset, false, false, { providePrefixAndSuffixTextForRename: true }) ?? [];
    return found
      .filter(({ fileName }) => base(fileName) !== TYPINGS)
      .map(({ fileName, textSpan, prefixText, suffixText }) => ({ file: base(fileName), from: textSpan.start, to: textSpan.start + textSpan.length, before: prefixText ?? '', after: suffixText ?? '' }));
  }

  complete(name: string, position: number): Completion[] {
    const found = this.#service.getCompletionsAtPosition(name, position, { includeCompletionsWithInsertText: false });
    const entries = found?.entries ?? [];
    return entries
      .filter((entry) => found!.isMemberCompletion || !isLibraryNoise(entry))
      .map((entry) => ({ label: entry.name, kind: entry.kind }));
  }

  explain(name: string, position: number): Explanation | null {
    const info = this.#service.getQuickInfoAtPosition(name, position);
    if (info === undefined) return null;
    return {
      from: info.textSpan.start,
      to: info.textSpan.start + info.textSpan.length,
      signature: ts.displayPartsToString(info.displayParts),
      documentation: ts.displayPartsToString(info.documentation),
    };
  }
}

function base(name: string): string {
  return name.replace(/^\//, '');
}

/** Names of the ECMAScript library that no behaviour is written with. */
function isLibraryNoise(entry: ts.CompletionEntry): boolean {
  return entry.kind === ts.ScriptElementKind.variableElement && /^(?:Atomics|SharedArrayBuffer|WeakRef|FinalizationRegistry|\w+Array|DataView|Proxy|Reflect|eval|escape|unescape)$/.test(entry.name);
}

function at(file: ts.SourceFile, from: number, to: number, rest: Pick<Diagnosis, 'severity' | 'says' | 'code'>): Diagnosis {
  const { line, character } = file.getLineAndCharacterOfPosition(from);
  return { from, to: Math.max(to, from + 1), line: line + 1, column: character + 1, ...rest };
}
