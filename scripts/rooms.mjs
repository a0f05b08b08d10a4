// npm run rooms: whether folders import each other as the pictures in docs/architecture.md say, and nothing else. A folder
// may import what its arrows lead to, however far; an arrow that no import needs is out of date. With `--draw`, prints the
// pictures as the imports are.
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript-classic';

const root = fileURLToPath(new URL('..', import.meta.url));
const DOC = 'docs/architecture.md';
/** Each picture is of the folders of one folder; its own files are called after it. */
const PICTURES = ['src', 'src/core', 'src/server', 'src/ui', 'src/ui/bench'];

const sources = readdirSync(join(root, 'src'), { recursive: true, encoding: 'utf8' })
  .map((path) => `src/${path}`)
  .filter(
    (path) => /\.tsx?$/.test(path) && !/\.test\.tsx?$/.test(path) && !path.includes('generated/'),
  );
const byModule = new Map(
  sources.flatMap((path) => {
    const bare = path.replace(/\.tsx?$/, '');
    return [[bare, path], ...(bare.endsWith('/index') ? [[bare.slice(0, -6), path]] : [])];
  }),
);

/** Imports and exports of a file by the compiler's tree, with what each says to import; those of types alone are marked. */
function importsIn(path) {
  const file = ts.createSourceFile(
    path,
    readFileSync(join(root, path), 'utf8'),
    ts.ScriptTarget.Latest,
    false,
    path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const found = [];
  const visit = (node) => {
    const from = node.moduleSpecifier ?? node.argument?.literal ?? null;
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) {
      const clause = node.importClause ?? node;
      const names = (node.importClause?.namedBindings ?? node.exportClause)?.elements ?? [];
      const ofTypes =
        clause?.isTypeOnly === true ||
        (names.length > 0 && clause.name === undefined && names.every((one) => one.isTypeOnly));
      if (from !== null) found.push({ name: from.text, isType: ofTypes });
    } else if (ts.isImportTypeNode(node)) found.push({ name: from.text, isType: true });
    else if (ts.isCallExpression(node) && node.expression.kind === ts.SyntaxKind.ImportKeyword) {
      const [name] = node.arguments;
      if (ts.isStringLiteralLike(name)) found.push({ name: name.text, isType: false });
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

/** Imports of one file by others of `src`. */
const imports = sources.flatMap((from) =>
  importsIn(from).flatMap(({ name, isType }) => {
    const target = name.startsWith('@/')
      ? `src/${name.slice(2)}`
      : name.startsWith('.')
        ? normalize(join(dirname(from), name))
        : null;
    const to = target === null ? undefined : byModule.get(target);
    return to === undefined ? [] : [{ from, to, isType }];
  }),
);

/** The folder of a picture that a file is in; null for one that is elsewhere. */
function roomOf(path, picture) {
  if (!path.startsWith(`${picture}/`)) return null;
  const [first, ...rest] = path.slice(picture.length + 1).split('/');
  return rest.length === 0 ? picture.split('/').at(-1) : first;
}

/** Arrows between the folders of a picture, each with the imports behind it. */
function arrowsOf(picture) {
  const arrows = new Map();
  for (const one of imports) {
    const [a, b] = [roomOf(one.from, picture), roomOf(one.to, picture)];
    if (a === null || b === null || a === b) continue;
    // Views of the bench are given the whole bench: a type, which closes no circle of values.
    if (b === 'bench' && one.isType) continue;
    const key = `${a} --> ${b}`;
    arrows.set(key, [...(arrows.get(key) ?? []), one]);
  }
  return arrows;
}

const ends = (arrow) => arrow.split(' --> ');

/** Everything that arrows lead to from a folder. */
function reached(arrows, from) {
  const found = new Set();
  const visit = (room) => {
    for (const [a, b] of arrows.map(ends))
      if (a === room && !found.has(b)) {
        found.add(b);
        visit(b);
      }
  };
  visit(from);
  return found;
}

/** The picture of a folder as the document has it: its arrows. */
function drawn(picture) {
  const text = readFileSync(join(root, DOC), 'utf8');
  const block = text
    .split('```mermaid\n')
    .slice(1)
    .map((part) => part.split('```')[0])
    .find((part) => part.includes(`%% ${picture}\n`));
  if (block === undefined) throw new Error(`${DOC} has no picture of ${picture}`);
  return [...block.matchAll(/^\s*([\w-]+) --> ([\w-]+(?: & [\w-]+)*)$/gm)].flatMap(([, a, all]) =>
    all.split(' & ').map((b) => `${a} --> ${b}`),
  );
}

/** Without arrows that others make. */
function reduced(arrows) {
  return arrows.filter((arrow) => {
    const [a, b] = ends(arrow);
    return !reached(
      arrows.filter((other) => other !== arrow),
      a,
    ).has(b);
  });
}

/** What is wrong, in sentences. */
function wrongArrows() {
  return PICTURES.flatMap((picture) => {
    const arrows = drawn(picture);
    const there = arrowsOf(picture);
    const circles = arrows
      .filter((arrow) => reached(arrows, ends(arrow)[1]).has(ends(arrow)[0]))
      .map((arrow) => `${DOC}: ${arrow} of ${picture} is part of a circle`);
    const wrong = [...there].flatMap(([arrow, from]) => {
      const [a, b] = ends(arrow);
      return reached(arrows, a).has(b)
        ? []
        : from.map(
            ({ from: file, to }) =>
              `${file} imports ${to}, but no arrow leads from ${a} to ${b} in the picture of ${picture} (${DOC})`,
          );
    });
    const stale = arrows
      .filter((arrow) => !there.has(arrow))
      .map((arrow) => `${DOC}: no import needs ${arrow} in the picture of ${picture}`);
    return [...circles, ...wrong, ...stale];
  });
}

function grouped(arrows) {
  const from = new Map();
  for (const arrow of arrows) {
    const [a, b] = ends(arrow);
    from.set(a, [...(from.get(a) ?? []), b]);
  }
  return from;
}

function draw(picture) {
  const arrows = reduced([...arrowsOf(picture).keys()]);
  const from = grouped(arrows.sort());
  return [
    '```mermaid',
    'flowchart TD',
    `  %% ${picture}`,
    ...[...from].map(([a, all]) => `  ${a} --> ${all.join(' & ')}`),
    '```',
  ].join('\n');
}

if (import.meta.url === `file://${process.argv[1]}`) {
  if (process.argv.includes('--draw')) console.log(PICTURES.map(draw).join('\n\n'));
  else {
    const wrong = wrongArrows();
    for (const one of wrong) console.error(one);
    process.exit(wrong.length === 0 ? 0 : 1);
  }
}
