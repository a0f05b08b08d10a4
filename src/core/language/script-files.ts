/** Scripts as the compiler's files: kept from edit to edit, and given as what changed of them. */
import ts from 'typescript-classic';

/**
 * Parsed files, as the service keeps them. Doc comments are read in the typings, for what the editor explains, and in
 * JavaScript, for its types; not in people's TypeScript, since reading an unfinished one may never end (`compile.ts`).
 */
export function registryOfFiles(): ts.DocumentRegistry {
  const { ParseAll, ParseNone } = ts.JSDocParsingMode;
  const read = ts.createDocumentRegistry(true, '/', ParseAll);
  const unread = ts.createDocumentRegistry(true, '/', ParseNone);
  const modeOf = (name: string) => (/\.d\.ts$|\.js$/.test(name) ? ParseAll : ParseNone);
  const of = (name: string) => (modeOf(name) === ParseAll ? read : unread);
  const how = (
    name: string,
    options: ts.CreateSourceFileOptions | ts.ScriptTarget | undefined,
  ): ts.CreateSourceFileOptions => ({
    ...(typeof options === 'object'
      ? options
      : { languageVersion: options ?? ts.ScriptTarget.ES2022 }),
    jsDocParsingMode: modeOf(name),
  });
  const reading =
    (
      does: 'acquireDocumentWithKey' | 'updateDocumentWithKey',
    ): ts.DocumentRegistry['acquireDocumentWithKey'] =>
    (name, path, settings, key, snapshot, version, kind, options) =>
      of(name)[does](name, path, settings, key, snapshot, version, kind, how(name, options));
  return {
    ...read,
    acquireDocumentWithKey: reading('acquireDocumentWithKey'),
    updateDocumentWithKey: reading('updateDocumentWithKey'),
    releaseDocumentWithKey: (
      path: ts.Path,
      key: ts.DocumentRegistryBucketKey,
      kind?: ts.ScriptKind,
      format?: ts.ResolutionMode,
    ) => of(path).releaseDocumentWithKey(path, key, kind!, format),
  };
}

/** JavaScript whose last doc comment, when it is unfinished, is no doc comment: as long as before, place by place. */
export function withCommentsFinished(text: string): string {
  const last = text.lastIndexOf('/**');
  return last < 0 || text.indexOf('*/', last + 3) >= 0
    ? text
    : `${text.slice(0, last)}/* ${text.slice(last + 3)}`;
}

/** A snapshot that knows what changed since the former one, so that only that is parsed again. */
export function changeable(
  text: string,
  former: ts.IScriptSnapshot | undefined,
): ts.IScriptSnapshot {
  if (former === undefined) return ts.ScriptSnapshot.fromString(text);
  const before = former.getText(0, former.getLength());
  let start = 0;
  while (start < before.length && start < text.length && before[start] === text[start]) start++;
  let end = 0;
  while (
    end < before.length - start &&
    end < text.length - start &&
    before[before.length - 1 - end] === text[text.length - 1 - end]
  )
    end++;
  const change = ts.createTextChangeRange(
    ts.createTextSpanFromBounds(start, before.length - end),
    text.length - end - start,
  );
  return {
    getText: (from, to) => text.slice(from, to),
    getLength: () => text.length,
    getChangeRange: (old) => (old === former ? change : undefined),
  };
}
