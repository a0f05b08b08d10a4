/**
 * The handbook's pages of findings: one for each kind, and what each says is found and not found is so. Every twelfth here,
 * all of them in `npm run attack`.
 */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { KINDS, type Finding } from '../../src/core/explore/finding';
import { KIND_LABELS } from '../../src/core/explore/words';
import { parentsOf } from '../../src/core/explore/ground';
import { mentionsOf } from '../../src/core/explore/mentions';
import { search } from '../../src/core/explore/search';
import { examplesIn, pageOf } from '../../src/core/handbook/page';
import { materialOf } from '../../src/core/language/material';
import { DEFAULT_CLOCK } from '../../src/core/scenario/opening';
import { demo } from '../support/demo-language';
import { stageOf } from '../support/stage';
import { thorough } from '../support/thorough';

const EVERY = thorough ? 1 : 12;
/** Sessions in which what is right has to stay silent. */
const SILENT = thorough ? 3000 : 600;

/** The kinds that are found, `wanted` as soon as it is. */
async function kindsIn(
  form: string,
  code: string,
  wanted: string,
  sessions = 3000,
): Promise<string[]> {
  const entry = demo.forms.find((one) => one.form.name === form)!;
  const sources = [{ name: 'x.ts', text: `/** X: x. */\n${code}` }];
  const { tables, services, people } = demo;
  const ground = {
    form: entry.form,
    tables,
    services,
    people,
    records: entry.records.map(({ id, values }) => ({ id, values })),
    parents: parentsOf(entry.form.name, demo.forms),
    clock: Date.parse(DEFAULT_CLOCK),
  };
  const stage = await stageOf(materialOf(entry.form, { tables, services }, sources, 'traced'));
  const kindsOf = (findings: readonly Finding[]) =>
    findings.flatMap(({ kind, also }) => [kind, ...also] as string[]);
  const { findings } = search(ground, mentionsOf(sources), stage, {
    seed: 1,
    sessions,
    goOn: (done, found) => done % 100 !== 0 || !kindsOf(found()).includes(wanted),
  });
  return kindsOf(findings);
}

const pages = KINDS.map((kind) => ({
  kind,
  page: pageOf(kind, 'Findings', readFileSync(`docs/findings/${kind}.md`, 'utf8')),
}));

test.each(pages)('$kind has a page by its title, with code of both sorts', ({ kind, page }) => {
  expect(page.title).toBe(KIND_LABELS[kind]);
  expect(examplesIn(page.markdown).map(({ sort }) => sort)).toEqual(['wrong', 'right']);
  expect(page.markdown).toContain('When it is meant: ');
});

describe.each(pages.filter((_, i) => i % EVERY === 0))('$kind', ({ kind, page }) => {
  const [wrong, right] = examplesIn(page.markdown);

  test('is found in the one', async () => {
    expect(await kindsIn(wrong!.form, wrong!.code, kind)).toContain(kind);
  });

  test('and not in the other', async () => {
    expect(await kindsIn(right!.form, right!.code, kind, SILENT)).not.toContain(kind);
  });
});
