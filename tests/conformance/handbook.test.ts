/** Every example of the handbook: right ones are silent and open their form without an error, wrong ones are found as their page says. */
import { describe, expect, test } from 'vitest';
import { examplesIn, sectionsOfPage } from '../../src/core/handbook/page';
import { mistakes } from '../../src/core/language/mistakes';
import { IDLE_PART } from '../../src/core/language/mistakes/idle-part';
import { baseName, isModule } from '../../src/core/script/script-name';
import { handbook } from '../../src/server/routes/handbook';
import { demo, foundIn, languageOf } from '../support/demo-language';
import { direct } from '../support/hosts';

const pages = handbook();
// What the search finds is tried by finding-pages.test.ts.
const examples = pages.flatMap((page) =>
  examplesIn(page.markdown)
    .filter(({ sort }) => sort === 'right' || !page.id.startsWith('findings/'))
    .map((example, i) => ({ ...example, page: page.id, i })),
);

/** A page may show two behaviours of one form in one block. */
const OTHER = /\/\/ another behaviour\n/;

function codesIn({ form, code }: { form: string; code: string }): string[] {
  const [text, beside] = code.split(OTHER) as [string, string?];
  const found = foundIn(form, text, beside).map((diagnosis) => diagnosis.code);
  if (beside !== undefined) return found;
  const language = languageOf(form);
  language.put({ name: 'x.ts', text });
  const idle = language.idleParts();
  language.remove('x.ts');
  return [...found, ...(idle.length > 0 ? [IDLE_PART.code] : [])];
}

test('each mistake has a page with wrong and right code', () => {
  const codes = [...mistakes.map(({ code }) => code), IDLE_PART.code].sort();
  expect(pages.filter(({ group }) => group === 'Mistakes').map(({ id }) => id)).toEqual(
    codes.map((code) => `mistakes/${code}`),
  );
  for (const code of codes) {
    const mine = examples.filter(({ page }) => page === `mistakes/${code}`);
    expect({ code, sorts: [...new Set(mine.map(({ sort }) => sort))].sort() }).toEqual({
      code,
      sorts: ['right', 'wrong'],
    });
  }
  const titles = new Map(
    [...mistakes, IDLE_PART].map(({ code, title }) => [`mistakes/${code}`, title]),
  );
  for (const { id, title } of pages) if (titles.has(id)) expect(title).toBe(titles.get(id));
});

describe.each(examples)('$page, example $i ($sort)', ({ page, form, sort, code }) => {
  const mistake = page.startsWith('mistakes/') ? page.slice('mistakes/'.length) : null;

  test(sort === 'wrong' ? 'is found' : 'is silent', () => {
    const found = codesIn({ form, code });
    if (sort === 'wrong') expect(found).toContain(mistake);
    else if (mistake === IDLE_PART.code) expect(found).toEqual([]);
    else expect(found.filter((one) => one !== IDLE_PART.code)).toEqual([]);
  });

  test.runIf(sort === 'right')('opens without an error', () => {
    const entry = demo.forms.find((one) => one.form.name === form)!;
    const { opened } = direct({
      form: entry.form,
      tables: demo.tables,
      services: demo.services,
      scripts: {
        x: code,
        ...Object.fromEntries(
          demo.shared.flatMap(({ name, text }) =>
            isModule(name) ? [[baseName(name), text] as const] : [],
          ),
        ),
      },
    });
    expect(opened.errors).toEqual([]);
  });
});

test('no example stands outside of the tests', () => {
  for (const { id, markdown } of pages)
    expect({ id, fences: [...markdown.matchAll(/^```(?:ts|js)\b/gm)].length }).toEqual({
      id,
      fences: examplesIn(markdown).length,
    });
});

describe('the reference', () => {
  const reference = pages.filter(({ group }) => group === 'Reference');

  test('says every member that the typings declare, with its comment', () => {
    const text = reference.map(({ markdown }) => markdown).join('\n');
    expect(text).toContain('- `hint: string | null` A line below the field; null for none.');
    expect(text).toContain(
      '`load(handler: Handler<LoadEvent>, options?: TieOptions): () => void` Once per opened record, before the rules.',
    );
    expect(text).toContain('Has all that AnyField has.');
    for (const name of [
      'iban',
      'replaceWith',
      'optionLabel',
      'rowRemoved',
      'reason',
      'stage',
      'sum',
    ])
      expect(text).toMatch(new RegExp(`\`${name}\\b`));
  });

  test('pages are cut at their headings for searching', () => {
    const sections = sectionsOfPage(reference.find(({ id }) => id === 'reference/form')!);
    expect(sections.map(({ title }) => title)).toEqual([
      'The form, its parent and the session',
      ...['form', 'parent', 'after', 'log', 'round'].map(
        (name) => `The form, its parent and the session: ${name}`,
      ),
    ]);
  });
});
