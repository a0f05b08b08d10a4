import ts from 'typescript-classic';
import { readFileSync, writeFileSync } from 'node:fs';
const list = JSON.parse(readFileSync(process.argv[2], 'utf8'));
const cfg = ts.parseJsonConfigFileContent(
  ts.readConfigFile('tsconfig.json', ts.sys.readFile).config,
  ts.sys,
  '.',
);
const versions = new Map();
const texts = new Map();
const host = {
  getScriptFileNames: () => cfg.fileNames,
  getScriptVersion: (f) => String(versions.get(f) ?? 0),
  getScriptSnapshot: (f) => {
    const t = texts.get(f) ?? ts.sys.readFile(f);
    return t === undefined ? undefined : ts.ScriptSnapshot.fromString(t);
  },
  getCurrentDirectory: () => process.cwd(),
  getCompilationSettings: () => cfg.options,
  getDefaultLibFileName: (o) => ts.getDefaultLibFilePath(o),
  fileExists: ts.sys.fileExists,
  readFile: ts.sys.readFile,
  readDirectory: ts.sys.readDirectory,
  directoryExists: ts.sys.directoryExists,
  getDirectories: ts.sys.getDirectories,
};
const ls = ts.createLanguageService(host);
const read = (f) => texts.get(f) ?? readFileSync(f, 'utf8');
for (const [file, from, to, pattern] of list) {
  const path = cfg.fileNames.find((f) => f.endsWith('/' + file));
  if (!path) {
    console.log('no file', file);
    continue;
  }
  const m = new RegExp(pattern ?? `(?:interface|type|class|function|const|enum) ${from}\\b`).exec(
    read(path),
  );
  if (!m) {
    console.log('no decl', file, from);
    continue;
  }
  const at = m.index + m[0].length - from.length;
  const locs =
    ls.findRenameLocations(path, at, false, false, {
      providePrefixAndSuffixTextForRename: false,
    }) ?? [];
  // zod twins: const X and type X of one name
  const twin = new RegExp(`const ${from}\\b`).exec(read(path));
  const all = [...locs];
  if (twin && twin.index + 6 !== at)
    all.push(...(ls.findRenameLocations(path, twin.index + 6, false, false, {}) ?? []));
  const tw2 = new RegExp(`type ${from}\\b`).exec(read(path));
  if (tw2 && tw2.index + 5 !== at)
    all.push(...(ls.findRenameLocations(path, tw2.index + 5, false, false, {}) ?? []));
  const by = new Map();
  for (const l of all) {
    const s = by.get(l.fileName) ?? new Map();
    s.set(l.textSpan.start, l);
    by.set(l.fileName, s);
  }
  let n = 0;
  for (const [f, ls2] of by) {
    if (f.includes('/generated/')) continue;
    let t = read(f);
    for (const l of [...ls2.values()].sort((a, b) => b.textSpan.start - a.textSpan.start)) {
      t =
        t.slice(0, l.textSpan.start) +
        (l.prefixText ?? '') +
        to +
        (l.suffixText ?? '') +
        t.slice(l.textSpan.start + l.textSpan.length);
      n++;
    }
    texts.set(f, t);
    versions.set(f, (versions.get(f) ?? 0) + 1);
  }
  console.log(file, from, '→', to, n);
}
for (const [f, t] of texts) writeFileSync(f, t);
