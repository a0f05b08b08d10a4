/** The reference of what a script can say, made from the declarations that the editor checks scripts with. */
import ts from 'typescript-classic';
import { BASE } from '../language/typings';
import type { Page } from './page';

/** What the declarations are about, in the order in which they are read; each with the interfaces and constants that say it. */
const CHAPTERS: readonly { id: string; title: string; about: string; names: readonly string[] }[] =
  [
    {
      id: 'on-and-keep',
      title: 'Handlers, rules and invariants',
      about:
        'on.… ties a handler to an event, keep(…) keeps a rule, always(…) says what must hold.',
      names: ['on', 'keep', 'always', 'TieOptions'],
    },
    {
      id: 'events',
      title: 'What a handler gets',
      about: 'The event object, by the event.',
      names: [
        'FieldEvent',
        'CellEvent',
        'RowEvent',
        'ClickEvent',
        'LoadEvent',
        'PageEvent',
        'SubmitEvent',
        'SavedEvent',
        'Stoppable',
      ],
    },
    {
      id: 'fields',
      title: 'Fields',
      about: 'fields.NAME. What all fields have, and what those of some kinds have besides.',
      names: [
        'Part',
        'AnyField',
        'Field',
        'ChoiceField',
        'ChoicesField',
        'ReferenceField',
        'FileValue',
      ],
    },
    {
      id: 'rows',
      title: 'Rows',
      about: 'A field that repeats, its rows and its columns.',
      names: ['RowsField', 'Row', 'Column'],
    },
    {
      id: 'parts',
      title: 'Sections, pages, tracks, buttons',
      about: 'sections.NAME, pages.NAME, tracks.NAME, buttons.NAME.',
      names: ['Section', 'Page', 'Track', 'Button'],
    },
    {
      id: 'form',
      title: 'The form, its parent and the session',
      about: 'The form that is open and what stands around it.',
      names: ['form', 'parent', 'after', 'log', 'round'],
    },
    {
      id: 'tables-and-services',
      title: 'Tables, services, checks',
      about: 'Reference data, remote systems, published formats.',
      names: ['Table', 'ServiceError', 'checks'],
    },
  ];

const PRINTER = ts.createPrinter({ removeComments: true });

export function referencePages(): Page[] {
  const file = ts.createSourceFile('base.d.ts', BASE, ts.ScriptTarget.ES2022, true);
  const declared = new Map<string, ts.Node>();
  for (const statement of file.statements) {
    if (
      (ts.isInterfaceDeclaration(statement) ||
        ts.isClassDeclaration(statement) ||
        ts.isFunctionDeclaration(statement)) &&
      statement.name !== undefined
    )
      declared.set(statement.name.text, statement);
    if (ts.isVariableStatement(statement))
      for (const declaration of statement.declarationList.declarations)
        declared.set(declaration.name.getText(file), declaration);
  }
  return CHAPTERS.map(({ id, title, about, names }) => ({
    id: `reference/${id}`,
    group: 'Reference',
    title,
    markdown: [about, ...names.map((name) => entryOf(name, declared.get(name)!, file))].join(
      '\n\n',
    ),
  }));
}

/** One declaration with its members, each under its comment. */
function entryOf(name: string, node: ts.Node, file: ts.SourceFile): string {
  const about = commentOf(ts.isVariableDeclaration(node) ? node.parent.parent : node);
  if (ts.isFunctionDeclaration(node))
    return `## ${name}\n\n${about}\n\n\`${spelled(node, file).replace(/^declare function /, '')}\``;
  const type = ts.isVariableDeclaration(node) ? unwrapped(node.type!) : node;
  const members =
    ts.isTypeLiteralNode(type) || ts.isInterfaceDeclaration(type) || ts.isClassDeclaration(type)
      ? [...type.members]
      : [];
  const base = ts.isInterfaceDeclaration(node)
    ? (node.heritageClauses ?? [])
        .map((clause) => clause.types.map((one) => one.expression.getText(file)).join(', '))
        .join('')
    : '';
  const rows = members
    .filter((member, i) => !isSetterOf(member, members[i - 1]))
    .map(
      (member) =>
        `- \`${spelled(member, file)}\`${commentOf(member) === '' ? '' : ` ${commentOf(member)}`}`,
    );
  return [`## ${name}`, about, base === '' ? '' : `Has all that ${base} has.`, rows.join('\n')]
    .filter((part) => part !== '')
    .join('\n\n');
}

/** `{ … } | null` is described by what it is when it is not null. */
function unwrapped(type: ts.TypeNode): ts.TypeNode {
  return ts.isUnionTypeNode(type) ? type.types[0]! : type;
}

function isSetterOf(member: ts.Node, before: ts.Node | undefined): boolean {
  return ts.isSetAccessor(member) && before !== undefined && ts.isGetAccessor(before);
}

function spelled(node: ts.Node, file: ts.SourceFile): string {
  return PRINTER.printNode(ts.EmitHint.Unspecified, node, file)
    .replace(/\s+/g, ' ')
    .replace(/^readonly /, '')
    .replace(/^get (\w+)\(\)/, '$1')
    .replace(/;$/, '');
}

function commentOf(node: ts.Node): string {
  return ts
    .getJSDocCommentsAndTags(node)
    .map((doc) => (ts.isJSDoc(doc) ? (ts.getTextOfJSDocComment(doc.comment) ?? '') : ''))
    .join(' ')
    .replace(/\s+/g, ' ')
    .trim();
}
