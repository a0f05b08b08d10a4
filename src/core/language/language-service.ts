/**
 * What the editor asks: errors as one types, completions, what a name is. Holds TypeScript's language service over the
 * behaviours of one form, each a module of its own, with the form's typings as the only surroundings.
 */
import ts from 'typescript-classic';
import { mayHoldAfterAwait } from './after-await';
import { nearest } from '../wire/failures';
import { TOO_DEEP } from './compile';
import type { Source } from '../script/header';
import { flowOf } from './flow';
import { formsNamesIn } from './forms-names';
import { circleOf } from '../script/imports';
import { baseName, isModule, MODULES } from '../script/script-name';
import { readHeader, takingPart } from '../script/header';
import { mapOf, type FormMap } from './map';
import { mistakes } from './mistakes';
import { idleParts, type PartFinding } from './mistakes/idle-part';
import { KnownParts } from './mistakes/known-parts';
import { foundBy, type Edit, type Finding, type Fix, type Subject } from './mistakes/mistake';
import { parse } from './parse';
import { topLevelMisuse } from './top-level';
import { typingsOf, type Surface } from './typings';
import { Wordbook } from './wordbook';
import type { Diagnostic, Completion, Explanation, Signature, Target, Reference } from './answers';
import { IMPLICIT_ANY, NOT_FOUND, SAME_FAULT, wholeExpression } from './compiler-faults';
import { registryOfFiles, withCommentsFinished, changeable } from './script-files';

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
  readonly #files = new Map<string, { text: string; version: number }>();
  readonly #service: ts.LanguageService;
  /** Sources that are nested too deep to be read, with the line where; the compiler is given an empty text for them. */
  readonly #tooDeep = new Map<string, number>();
  #versions = 0;
  #surface: Surface | null = null;
  #parts: KnownParts | null = null;
  #wordbook: Wordbook | null = null;

  constructor(private readonly libs: Record<string, string>) {
    const read = (name: string) => this.#files.get(base(name))?.text ?? this.libs[base(name)];
    const snapshots = new Map<string, { version: number; snapshot: ts.IScriptSnapshot }>();
    const host: ts.LanguageServiceHost = {
      getCompilationSettings: () => OPTIONS,
      getScriptFileNames: () => [TEMPORAL, ...this.#files.keys()],
      getScriptVersion: (name) => String(this.#files.get(base(name))?.version ?? 0),
      getScriptSnapshot: (name) => {
        const version = this.#files.get(base(name))?.version ?? 0;
        const kept = snapshots.get(name);
        if (kept?.version === version) return kept.snapshot;
        const text = read(name);
        if (text === undefined) return undefined;
        const snapshot = changeable(
          name.endsWith('.js') ? withCommentsFinished(text) : text,
          kept?.snapshot,
        );
        snapshots.set(name, { version, snapshot });
        return snapshot;
      },
      getCurrentDirectory: () => '/',
      getDefaultLibFileName: () => 'lib.es2022.d.ts',
      fileExists: (name) => read(name) !== undefined,
      readFile: read,
      resolveModuleNameLiterals: (literals) => literals.map(({ text }) => this.#resolved(text)),
      directoryExists: () => false,
      getDirectories: () => [],
    };
    this.#service = ts.createLanguageService(host, registryOfFiles());
  }

  /** Says what the behaviours are written for: the form with all that its scripts can reach. */
  surround(surface: Surface): void {
    this.#surface = surface;
    this.#parts = new KnownParts(surface);
    this.#wordbook = new Wordbook(surface);
    this.#put(TYPINGS, typingsOf(surface));
  }

  /** Puts a behaviour or its new text. */
  put(source: Source): void {
    const { tooDeep } = parse(source);
    if (tooDeep === null) this.#tooDeep.delete(source.name);
    else this.#tooDeep.set(source.name, tooDeep);
    this.#put(source.name, tooDeep === null ? source.text : '');
  }

  remove(name: string): void {
    this.#files.delete(name);
    this.#tooDeep.delete(name);
  }

  #put(name: string, text: string): void {
    // Versions are never given twice: a file that was removed and put again is another one.
    if (this.#files.get(name)?.text !== text)
      this.#files.set(name, { text, version: ++this.#versions });
  }

  get #behaviours(): string[] {
    return [...this.#files.keys()].filter((name) => name !== TYPINGS && !isModule(name));
  }

  /** A shared module by the name it is imported by, such as `shared/dates`. */
  #resolved(name: string): ts.ResolvedModuleWithFailedLookupLocations {
    const file = `${name}.ts`;
    return isModule(file) && this.#files.has(file)
      ? { resolvedModule: { resolvedFileName: `/${file}`, extension: ts.Extension.Ts } }
      : { resolvedModule: undefined };
  }

  /** Errors of syntax, or else of types, uses of the form where none is open, and mistakes of the trade. */
  diagnose(name: string): Diagnostic[] {
    const deep = this.#tooDeep.get(name);
    if (deep !== undefined)
      return [
        {
          from: 0,
          to: 1,
          line: deep,
          column: 1,
          severity: 'error',
          says: `This ${TOO_DEEP}`,
          code: 'syntax',
          fixes: [],
        },
      ];
    const program = this.#service.getProgram();
    const file = program?.getSourceFile(name);
    if (program === undefined || file === undefined) return [];
    const syntactic = this.#service.getSyntacticDiagnostics(name);
    const found =
      syntactic.length > 0
        ? syntactic
        : this.#service
            .getSemanticDiagnostics(name)
            .filter(({ code }) => !(name.endsWith('.js') && IMPLICIT_ANY.test(String(code))))
            .filter((one) => !mayHoldAfterAwait(one, file, program.getTypeChecker()));
    const fromCompiler = found.map((one) => this.#reworded(one, file));
    if (syntactic.length > 0) return fromCompiler;
    const ofImports = this.#importFaults(file);
    if (isModule(name)) {
      const ofForms = formsNamesIn(file, program, TYPINGS).map(({ from, to, says }) =>
        at(file, from, to, { severity: 'error', says, code: 'module', fixes: [] }),
      );
      const rest = fromCompiler.filter(({ code, from }) => {
        const whole = wholeExpression(file, from);
        return (
          !NOT_FOUND.has(code) &&
          !ofForms.some((found) => found.from < whole.to && whole.from < found.to)
        );
      });
      return [...rest, ...ofImports, ...ofForms].sort((a, b) => a.from - b.from);
    }
    const misuses = topLevelMisuse(file).map(({ from, to, says }) =>
      at(file, from, to, { severity: 'error', says, code: 'top-level', fixes: [] }),
    );
    const ours = this.#mistakesIn(name, file, program, fromCompiler);
    // Where the compiler stumbles over the same, its words say less.
    const unsaid = fromCompiler.filter(({ code, from }) => {
      // `#importFaults` says it better.
      if (NOT_FOUND.has(code)) return false;
      if (!SAME_FAULT.has(code)) return true;
      const whole = wholeExpression(file, from);
      return !ours.some(
        (mistake) =>
          mistake.severity === 'error' && mistake.from < whole.to && whole.from < mistake.to,
      );
    });
    return [...unsaid, ...ofImports, ...misuses, ...ours].sort((a, b) => a.from - b.from);
  }

  /** Imports from modules that are not there, and modules that import from each other in a circle. */
  #importFaults(file: ts.SourceFile): Diagnostic[] {
    const sources = [...this.#files].map(([name, { text }]) => ({ name, text }));
    const known = sources.flatMap(({ name }) => (isModule(name) ? [baseName(name)] : []));
    return file.statements.filter(ts.isImportDeclaration).flatMap(({ moduleSpecifier }) => {
      if (!ts.isStringLiteral(moduleSpecifier)) return [];
      const name = moduleSpecifier.text;
      const [from, to] = [moduleSpecifier.getStart(file), moduleSpecifier.getEnd()];
      const fault = (says: string, fixes: Fix[]) =>
        at(file, from, to, { severity: 'error', says, code: 'module', fixes });
      if (!known.includes(name)) {
        const near = nearest(name, known);
        return [
          fault(
            name.startsWith(MODULES)
              ? `There is no shared module "${name}".${near === null ? '' : ` Did you mean ${near}?`}`
              : `Scripts import from shared modules alone, such as "${known[0] ?? 'shared/dates'}".`,
            near === null
              ? []
              : [{ title: `Use ${near}`, edits: [{ from: from + 1, to: to - 1, text: near }] }],
          ),
        ];
      }
      const circle = isModule(base(file.fileName))
        ? circleOf(baseName(base(file.fileName)), sources)
        : null;
      return circle?.[1] === name || (circle?.length === 1 && circle[0] === name)
        ? [
            fault(
              `Imports in a circle: ${[...circle, circle[0]!].join(' → ')}. Move what both need into a module of its own.`,
              [],
            ),
          ]
        : [];
    });
  }

  #mistakesIn(
    name: string,
    file: ts.SourceFile,
    program: ts.Program,
    fromCompiler: readonly Diagnostic[],
  ): Diagnostic[] {
    if (this.#parts === null) return [];
    const isOn = !readHeader({ name, text: file.text }).off;
    const others = this.#behaviours.flatMap((other) => {
      const theirs = other === name || !isOn ? undefined : program.getSourceFile(other);
      const header = theirs === undefined ? null : readHeader({ name: other, text: theirs.text });
      return theirs === undefined || header?.off === true
        ? []
        : [{ name: other, title: header!.title, flow: flowOf(theirs) }];
    });
    const subject: Subject = {
      file,
      flow: flowOf(file),
      parts: this.#parts,
      others,
      typeErrors: fromCompiler.map(({ from, to, code, says }) => ({
        from,
        to,
        code: Number(code.slice(2)),
        says,
      })),
    };
    return mistakes.flatMap((mistake) =>
      foundBy(mistake, subject).map(({ from, to, says, fixes }: Finding) =>
        at(file, from, to, { severity: mistake.severity, says, code: mistake.code, fixes }),
      ),
    );
  }

  /** Parts of the form that wait for a script and have none. */
  idleParts(): PartFinding[] {
    const program = this.#service.getProgram();
    if (program === undefined || this.#surface === null) return [];
    const files = this.#behaviours
      .flatMap((name) => program.getSourceFile(name) ?? [])
      .filter((file) => !readHeader({ name: file.fileName, text: file.text }).off);
    return idleParts(this.#surface.form, files.map(flowOf));
  }

  /** Who reads and steers what, of the behaviours that are on. */
  map(): FormMap {
    const program = this.#service.getProgram();
    const on = takingPart(
      this.#behaviours.flatMap((name) => ({ name, text: this.#files.get(name)!.text })),
    );
    return mapOf(
      on.flatMap((source) => {
        const file = program?.getSourceFile(source.name);
        return file === undefined
          ? []
          : [{ name: source.name, title: readHeader(source).title, flow: flowOf(file) }];
      }),
    );
  }

  /** What the compiler found, in the form's own words where it would print a whole type. */
  #reworded(found: ts.Diagnostic, file: ts.SourceFile): Diagnostic {
    const from = found.start ?? 0;
    const to = from + (found.length ?? 1);
    const says = ts.flattenDiagnosticMessageText(found.messageText, '\n');
    const rest = {
      severity: found.category === ts.DiagnosticCategory.Warning ? 'warning' : 'error',
      code: `TS${found.code}`,
    } as const;
    const spelled = file.text.slice(from, to);
    const fix = (name: string): Fix => ({
      title: `Use ${name}`,
      edits: [{ from, to, text: name }],
    });
    const owner =
      found.code === 2339 || found.code === 2551
        ? /(?<![\w.])(fields|sections|pages|buttons|tracks|tables|services)\.$/.exec(
            file.text.slice(0, from),
          )?.[1]
        : undefined;
    if (owner !== undefined && this.#wordbook !== null) {
      const meant =
        nearest(spelled, this.#wordbook.names(owner)) ?? this.#wordbook.byLabel(owner, spelled);
      return at(file, from, to, {
        ...rest,
        says: `There is no ${owner.slice(0, -1)} "${spelled}".${meant === null ? '' : ` Did you mean ${meant}?`}`,
        fixes: meant === null ? [] : [fix(meant)],
      });
    }
    const meant = /Did you mean '([^']+)'\?$/.exec(says)?.[1];
    return at(file, from, to, {
      ...rest,
      says,
      fixes: meant === undefined || !/^[\w$]+$/.test(meant) ? [] : [fix(meant)],
    });
  }

  /** Every place in behaviours that names what the form's typings declare at an offset, and how a new name reads there. */
  namings(
    offset: number,
  ): { file: string; from: number; to: number; before: string; after: string }[] {
    const found =
      this.#service.findRenameLocations(TYPINGS, offset, false, false, {
        providePrefixAndSuffixTextForRename: true,
      }) ?? [];
    return found
      .filter(({ fileName }) => base(fileName) !== TYPINGS)
      .map(({ fileName, textSpan, prefixText, suffixText }) => ({
        file: base(fileName),
        from: textSpan.start,
        to: textSpan.start + textSpan.length,
        before: prefixText ?? '',
        after: suffixText ?? '',
      }));
  }

  complete(name: string, position: number): Completion[] {
    const found = this.#service.getCompletionsAtPosition(name, position, {
      includeCompletionsWithInsertText: false,
    });
    const entries = (found?.entries ?? []).filter(
      (entry) => found!.isMemberCompletion || !isLibraryNoise(entry),
    );
    const before = (this.#files.get(name)?.text ?? '').slice(0, position);
    const details =
      this.#wordbook?.detailsOf(
        before,
        entries.map((entry) => ({
          name: entry.name,
          isKey: entry.kind === ts.ScriptElementKind.string,
        })),
      ) ?? [];
    return entries.map((entry, i) => ({
      label: entry.name,
      kind: entry.kind,
      detail: details[i] ?? null,
    }));
  }

  /** The declaration and documentation of one completion. */
  describe(name: string, position: number, label: string): string | null {
    const details = this.#service.getCompletionEntryDetails(
      name,
      position,
      label,
      undefined,
      undefined,
      undefined,
      undefined,
    );
    if (details === undefined) return null;
    const documentation = ts.displayPartsToString(details.documentation);
    return `${ts.displayPartsToString(details.displayParts)}${documentation === '' ? '' : `\n\n${documentation}`}`;
  }

  explain(name: string, position: number): Explanation | null {
    const info = this.#service.getQuickInfoAtPosition(name, position);
    if (info === undefined) return null;
    const target = this.define(name, position);
    return {
      from: info.textSpan.start,
      to: info.textSpan.start + info.textSpan.length,
      signature: shortened(ts.displayPartsToString(info.displayParts)),
      documentation: ts.displayPartsToString(info.documentation),
      part: target?.is === 'part' ? target.part : null,
      leads: target !== null,
    };
  }

  signature(name: string, position: number): Signature | null {
    const help = this.#service.getSignatureHelpItems(name, position, undefined);
    const item = help?.items[help.selectedItemIndex];
    if (help === undefined || item === undefined) return null;
    let text = ts.displayPartsToString(item.prefixDisplayParts);
    let active: Signature['active'] = null;
    item.parameters.forEach((parameter, i) => {
      if (i > 0) text += ts.displayPartsToString(item.separatorDisplayParts);
      const from = text.length;
      text += ts.displayPartsToString(parameter.displayParts);
      if (i === help.argumentIndex) active = { from, to: text.length };
    });
    return {
      text: text + ts.displayPartsToString(item.suffixDisplayParts),
      active,
      documentation: ts.displayPartsToString(item.documentation),
    };
  }

  /** What the compiler itself would do about an error of its own, as far as it stays in this behaviour. */
  compilerFixes(
    name: string,
    { from, to, code }: { from: number; to: number; code: string },
  ): Fix[] {
    const number = Number(/^TS(\d+)$/.exec(code)?.[1]);
    if (!Number.isInteger(number)) return [];
    const found = this.#service.getCodeFixesAtPosition(
      name,
      from,
      to,
      [number],
      ts.getDefaultFormatCodeSettings('\n'),
      {},
    );
    return found.flatMap(({ description, changes }): Fix[] => {
      const [change, ...others] = changes;
      if (change === undefined || others.length > 0 || base(change.fileName) !== name) return [];
      return [
        {
          title: description,
          edits: change.textChanges.map(({ span, newText }) => ({
            from: span.start,
            to: span.start + span.length,
            text: newText,
          })),
        },
      ];
    });
  }

  /** Where the name at a position is declared; null for what belongs to the language itself. */
  define(name: string, position: number): Target | null {
    for (const { fileName, textSpan } of this.#service.getDefinitionAtPosition(name, position) ??
      []) {
      const file = base(fileName);
      if (file === TYPINGS) {
        const part = this.#partDeclaredAt(textSpan.start);
        if (part !== null) return { is: 'part', part };
      } else if (this.#files.has(file))
        return { is: 'place', file, from: textSpan.start, to: textSpan.start + textSpan.length };
    }
    return null;
  }

  /** The part that the typings declare at an offset. */
  #partDeclaredAt(offset: number): string | null {
    const text = this.#files.get(TYPINGS)!.text;
    const name = /^\w+/.exec(text.slice(offset))?.[0];
    const head = text
      .slice(0, offset)
      .split('\n')
      .findLast((line) => /^(?:declare|interface|type)\b/.test(line));
    if (name === undefined || head === undefined) return null;
    const rows = /^interface (?:Cells|Row)_(\w+) \{/.exec(head)?.[1];
    if (rows !== undefined) return `${rows}.${name}`;
    return /^declare const (?:fields|sections|pages|buttons|tracks): \{/.test(head) ? name : null;
  }

  /** Every place in behaviours that means the same as the name at a position. */
  references(name: string, position: number): Reference[] {
    const program = this.#service.getProgram();
    return (this.#service.getReferencesAtPosition(name, position) ?? []).flatMap(
      ({ fileName, textSpan }) => {
        const file = program?.getSourceFile(fileName);
        if (file === undefined || !this.#files.has(base(fileName)) || base(fileName) === TYPINGS)
          return [];
        const { line } = file.getLineAndCharacterOfPosition(textSpan.start);
        return [
          {
            file: base(fileName),
            from: textSpan.start,
            to: textSpan.start + textSpan.length,
            line: line + 1,
            text: file.text.split('\n')[line]!.trim(),
          },
        ];
      },
    );
  }

  /** Every place that spells the name at a position, and how another one reads there; null where it cannot have another. */
  spellings(
    name: string,
    position: number,
  ): { file: string; from: number; to: number; before: string; after: string }[] | null {
    if (!this.#service.getRenameInfo(name, position, {}).canRename) return null;
    const found = this.#service.findRenameLocations(name, position, false, false, {
      providePrefixAndSuffixTextForRename: false,
    });
    return (found ?? []).every(({ fileName }) => this.#files.has(base(fileName)))
      ? (found ?? []).map(({ fileName, textSpan, prefixText, suffixText }) => ({
          file: base(fileName),
          from: textSpan.start,
          to: textSpan.start + textSpan.length,
          before: prefixText ?? '',
          after: suffixText ?? '',
        }))
      : null;
  }

  /** The edits that give a name of this behaviour another one; null where the name is not the behaviour's own. */
  rename(name: string, position: number, to: string): Edit[] | null {
    const info = this.#service.getRenameInfo(name, position, {});
    const found = info.canRename
      ? this.#service.findRenameLocations(name, position, false, false, {
          providePrefixAndSuffixTextForRename: true,
        })
      : undefined;
    if (
      found === undefined ||
      found.length === 0 ||
      found.some(({ fileName }) => base(fileName) !== name)
    )
      return null;
    return found.map(({ textSpan, prefixText, suffixText }) => ({
      from: textSpan.start,
      to: textSpan.start + textSpan.length,
      text: `${prefixText ?? ''}${to}${suffixText ?? ''}`,
    }));
  }
}

/** A type of many members says less than its name. */
function shortened(signature: string): string {
  return signature.length > 240 ? signature.replace(/\{\n[\s\S]*\n\}/, '{ … }') : signature;
}

function base(name: string): string {
  return name.replace(/^\//, '');
}

/** Names of the ECMAScript library that no behaviour is written with. */
function isLibraryNoise(entry: ts.CompletionEntry): boolean {
  return (
    entry.kind === ts.ScriptElementKind.variableElement &&
    /^(?:Atomics|SharedArrayBuffer|WeakRef|FinalizationRegistry|\w+Array|DataView|Proxy|Reflect|eval|escape|unescape)$/.test(
      entry.name,
    )
  );
}

function at(
  file: ts.SourceFile,
  from: number,
  to: number,
  rest: Pick<Diagnostic, 'severity' | 'says' | 'code' | 'fixes'>,
): Diagnostic {
  const { line, character } = file.getLineAndCharacterOfPosition(from);
  return { from, to: Math.max(to, from + 1), line: line + 1, column: character + 1, ...rest };
}
