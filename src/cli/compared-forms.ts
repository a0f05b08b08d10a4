/** How `tavro compare` prints: for people, as JSON (docs/schemas/compare-report.schema.json), as Markdown for a review, as HTML for those who sign. */
import type { Compared } from '../core/compare/compare';
import type { Difference } from '../core/compare/difference';
import { comparedInWords } from '../core/compare/told';
import { onOneLine } from './print';
import type { FilePlace } from './searched-form';

export interface ComparedForm extends Compared {
  form: string;
  title: string;
  /** The difference in sentences: what people see now, and what they saw before. */
  toldOf(difference: Difference): string;
  /** Labels of the other parts that differ for the same cause. */
  alsoOf(difference: Difference): string[];
  wayOf(difference: Difference): string;
  placesOf(difference: Difference): { before: FilePlace | null; after: FilePlace | null };
}

/** The differences between two workspaces. */
export interface ComparedWorkspaces {
  forms: readonly ComparedForm[];
  /** Titles of forms that only one of them has. */
  added: readonly string[];
  removed: readonly string[];
}

type Reporter = (compared: ComparedWorkspaces) => string;

const at = ({ file, line, column }: FilePlace) => `${file}:${line}:${column}`;

/** `20-pilot: 8, 9 (former version)`: lines that no session came to. */
function unreached({ lines }: Compared): string[] {
  const groups = new Map<string, number[]>();
  for (const { script, line, in: which, isReached } of lines) {
    if (isReached) continue;
    const name = which === 'after' ? script : `${script} of the former version`;
    groups.set(name, [...(groups.get(name) ?? []), line]);
  }
  return [...groups].map(([name, of]) => `${name}: ${of.join(', ')}`);
}

function text({ forms, added, removed }: ComparedWorkspaces): string {
  const lines: string[] = [];
  for (const title of added) lines.push(`${title}: a new form`);
  for (const title of removed) lines.push(`${title}: the form is gone`);
  for (const one of forms) {
    for (const difference of one.differences) {
      const { before, after } = one.placesOf(difference);
      const place = after ?? before;
      lines.push(`${place === null ? one.form : at(place)}: ${onOneLine(one.toldOf(difference))}`);
      lines.push(`    ${onOneLine(one.wayOf(difference))}`);
      if (after !== null && before !== null) lines.push(`    formerly decided at ${at(before)}`);
      const also = one.alsoOf(difference);
      if (also.length > 0) lines.push(`    with it: ${onOneLine(also.join(', '))}`);
    }
    lines.push(`${one.form}: ${comparedInWords(one)}`);
    for (const line of unreached(one)) lines.push(`    not reached: ${line}`);
  }
  return `${lines.join('\n')}\n`;
}

const json: Reporter = ({ forms, added, removed }) =>
  `${JSON.stringify(
    {
      added,
      removed,
      forms: forms.map(({ form, differences, sessions, lines, toldOf, placesOf }) => ({
        form,
        sessions,
        lines,
        differences: differences.map((difference) => {
          const { part, aspect, before, after, way, also } = difference;
          return {
            part,
            aspect,
            before,
            after,
            says: toldOf(difference),
            places: placesOf(difference),
            // As `tavro play --steps` takes it, in either version.
            way: { form, opening: way.opening, steps: way.steps },
            also,
          };
        }),
      })),
    },
    null,
    2,
  )}\n`;

/** Nothing that a label holds is taken for markup. */
const inMarkdown = (words: string) => onOneLine(words).replace(/[\\`*_{}[\]<>#|~!]/g, '\\$&');

function markdown({ forms, added, removed }: ComparedWorkspaces): string {
  const parts = ['# What changes for people', ''];
  for (const title of added) parts.push(`- New form: ${inMarkdown(title)}`);
  for (const title of removed) parts.push(`- The form is gone: ${inMarkdown(title)}`);
  if (added.length + removed.length > 0) parts.push('');
  for (const one of forms) {
    parts.push(`## ${inMarkdown(one.title)}`, '');
    for (const difference of one.differences) {
      const { before, after } = one.placesOf(difference);
      const place = after ?? before;
      const where = place === null ? '' : ` (\`${place.file.replaceAll('`', '')}:${place.line}\`)`;
      parts.push(`- ${inMarkdown(one.toldOf(difference))}${where}`);
      const also = one.alsoOf(difference);
      if (also.length > 0) parts.push(`  - with it: ${inMarkdown(also.join(', '))}`);
    }
    if (one.differences.length > 0) parts.push('');
    const sum = comparedInWords(one);
    parts.push(`${sum[0]!.toUpperCase()}${sum.slice(1)}.`, '');
    for (const line of unreached(one)) parts.push(`- Not reached: ${inMarkdown(line)}`);
    if (unreached(one).length > 0) parts.push('');
  }
  return `${parts.join('\n').trimEnd()}\n`;
}

const inHtml = (words: string) =>
  onOneLine(words).replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`);

function html({ forms, added, removed }: ComparedWorkspaces): string {
  const items = (all: readonly string[]) =>
    all.length === 0 ? '' : `<ul>\n${all.map((one) => `<li>${one}</li>\n`).join('')}</ul>\n`;
  const sections = forms.map((one) => {
    const told = one.differences.map((difference) => {
      const also = one.alsoOf(difference);
      return `${inHtml(one.toldOf(difference))}${also.length === 0 ? '' : ` <small>With it: ${inHtml(also.join(', '))}.</small>`}`;
    });
    return `<h2>${inHtml(one.title)}</h2>\n${items(told)}<p>${inHtml(comparedInWords(one))}.</p>\n${items(unreached(one).map((line) => `Not reached: ${inHtml(line)}`))}`;
  });
  const whole = [
    ...added.map((title) => `New form: ${inHtml(title)}`),
    ...removed.map((title) => `The form is gone: ${inHtml(title)}`),
  ];
  return `<!doctype html>\n<html lang="en">\n<meta charset="utf-8">\n<title>What changes for people</title>\n<style>body { font: 16px/1.5 sans-serif; max-width: 45em; margin: 2em auto; padding: 0 1em; } li { margin: 0.5em 0; }</style>\n<h1>What changes for people</h1>\n${items(whole)}${sections.join('')}</html>\n`;
}

export const compareReporters: Readonly<Record<string, Reporter>> = { text, json, markdown, html };
