import { screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { drawn } from '../../../tests/support/drawn';
import type { Problem } from '@/core/problems/problems';
import { ProblemsPage } from './problems-page';

afterEach(() => vi.unstubAllGlobals());

const FORMS = [
  { name: 'visit', title: 'Visit' },
  { name: 'cargo', title: 'Cargo' },
];
const problem = (form: string): Problem => ({
  form,
  at: { is: 'part', part: 'vessel' },
  sort: 'mistake',
  severity: 'warning',
  says: `Wrong in ${form}.`,
  code: 'x',
});

/** Waits until the page says this of a checking. */
async function says(words: string, body: object, status = 200): Promise<void> {
  vi.stubGlobal('fetch', () =>
    Promise.resolve(
      Response.json(
        { problems: [], done: 2, of: 2, forms: FORMS, cutShort: [], ...body },
        { status },
      ),
    ),
  );
  drawn(<ProblemsPage title="Harbour" forms={FORMS} />);
  expect(await screen.findByText(words)).toBeTruthy();
}

test('nothing found is only said where everything was checked', async () => {
  await says('✓ nothing found in 2 forms', {});
});

test('what was cut short is not said to be sound', async () => {
  const cutShort = [{ ...FORMS[0]!, says: 'The server is busy.' }];
  await says('nothing found so far', { cutShort });
});

test('what is found is counted, while the rest is still checked', async () => {
  await says(
    'Checking types, mistakes and scenarios: 1 of 2 forms, 1 problem so far…',
    { problems: [problem('visit')], done: 1 },
    202,
  );
});
