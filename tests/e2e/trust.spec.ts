/** What is typed is never lost: on leaving, after a crash, with two tabs, without a server. */
import type { Page } from '@playwright/test';
import { copyOf, expect, test, WHOLE, workspaceOf } from './workspace';

test.use({ file: workspaceOf('trust') });

/** The tab is gone without a word: its process dies, so nothing is told that it is left. */
async function crash(page: Page): Promise<Page> {
  const context = page.context();
  const crashed = page.waitForEvent('crash');
  const devtools = await context.newCDPSession(page);
  devtools.send('Page.crash').catch(() => undefined);
  await crashed;
  await page.close().catch(() => undefined);
  return context.newPage();
}

/** What the browser keeps of what is not saved, which a busy machine writes down later than it is typed. */
const keptIn = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<string>((resolve) => {
        const asked = indexedDB.open('tavro');
        asked.onsuccess = () => {
          const all = asked.result.transaction('unsaved').objectStore('unsaved').getAll();
          all.onsuccess = () => {
            asked.result.close();
            resolve(JSON.stringify(all.result));
          };
        };
      }),
  );

const cutOff = (page: Page) =>
  page.route('**/api/**', (route) =>
    route.request().method() === 'GET' ? route.continue() : route.abort(),
  );

/** All that the browser keeps of what is not saved, as text. */
const KEPT = `new Promise((resolve) => {
  const opening = indexedDB.open('tavro');
  opening.onsuccess = () => {
    const all = opening.result.transaction('unsaved').objectStore('unsaved').getAll();
    all.onsuccess = () => { opening.result.close(); resolve(JSON.stringify(all.result)); };
  };
})`;

async function type(page: Page, text: string): Promise<void> {
  await page.locator('.cm-content').click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type(text);
}

test(
  'a behaviour typed while the server is out of reach is there again after a crash',
  WHOLE,
  async ({ page }) => {
    const bench = `/bench/${await copyOf(page.request, 'vessel')}`;
    await page.goto(bench);
    await expect(page.getByText('saved, revision 1')).toBeVisible();
    await cutOff(page);
    await type(page, '// kept by the browser');
    await expect(page.getByText('not saved: The server is out of reach.')).toBeVisible();
    await expect.poll(() => keptIn(page)).toContain('// kept by the browser');
    const next = await crash(page);
    await next.goto(bench);
    await expect(next.getByText('you left changes here that were not saved')).toBeVisible();
    await next.getByRole('button', { name: 'Bring them back' }).click();
    await expect(next.locator('.cm-content')).toContainText('// kept by the browser');
    await expect(next.getByText('saved, revision 2')).toBeVisible();
    await next.reload();
    await expect(next.getByText('saved, revision 2')).toBeVisible();
    await expect(next.getByText('you left changes here')).toHaveCount(0);
  },
);

test('what another tab is typing is offered to nobody', WHOLE, async ({ page, context }) => {
  const bench = `/bench/${await copyOf(page.request, 'vessel')}`;
  await page.goto(bench);
  await expect(page.getByText(/saved, revision/)).toBeVisible();
  await cutOff(page);
  await type(page, '// being typed');
  await expect(page.getByText('not saved: The server is out of reach.')).toBeVisible();
  const other = await context.newPage();
  await other.goto(bench);
  await expect(other.getByText(/saved, revision/)).toBeVisible();
  await expect(other.getByText('you left changes here')).toHaveCount(0);
  await other.close();
  await page.unroute('**/api/**');
  await expect(page.getByText('saved, revision 2')).toBeVisible();
});

test(
  'leaving with something unsaved is asked about, and leaving at once saves',
  WHOLE,
  async ({ page }) => {
    const form = await copyOf(page.request, 'vessel');
    const bench = `/bench/${form}`;
    await page.goto(bench);
    await expect(page.getByText(/saved, revision/)).toBeVisible();
    await cutOff(page);
    await type(page, '// not saved');
    await expect(page.getByText('not saved: The server is out of reach.')).toBeVisible();
    let asked = '';
    page.once('dialog', (dialog) => {
      asked = dialog.message();
      void dialog.dismiss();
    });
    await page.getByRole('link', { name: 'tavro' }).click();
    expect(asked).toContain('Something on this page is not saved');
    expect(page.url()).toContain(bench);
    await page.unroute('**/api/**');
    await expect(page.getByText('saved, revision 2')).toBeVisible();
    await type(page, ' and gone at once');
    await page.getByRole('link', { name: 'tavro' }).click();
    await expect(page).toHaveURL(/\/$/);
    await expect
      .poll(async () =>
        JSON.stringify(
          await (
            await page.request.get(`/api/forms/${form}/behaviours/10-register.ts/revisions`)
          ).json(),
        ),
      )
      .toContain('not saved and gone at once');
  },
);

test('a text over 64 KiB is saved', WHOLE, async ({ page }) => {
  const bench = `/bench/${await copyOf(page.request, 'vessel')}`;
  await page.goto(bench);
  await expect(page.getByText(/saved, revision/)).toBeVisible();
  await page.locator('.cm-content').click();
  await page.keyboard.press('Control+End');
  await page.evaluate((text) => navigator.clipboard?.writeText(text).catch(() => undefined), '');
  await page.keyboard.insertText(`\n// ${'long '.repeat(16_000)}`);
  await expect(page.getByText('saved, revision 2')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('saved, revision 3')).toBeVisible();
});

test(
  'a title that kept the compiler busy for ever is typed, and everything goes on',
  WHOLE,
  async ({ page }) => {
    await page.goto(`/bench/${await copyOf(page.request, 'crew_change')}`);
    await expect(page.getByText('no problems', { exact: true })).toBeVisible();
    await type(page, '\n/** Follow-ups of a visit');
    await expect(page.getByText(/× line/)).toBeVisible();
    await page.keyboard.type(' */');
    await expect(page.getByText('no problems', { exact: true })).toBeVisible();
    expect((await page.request.get('/')).status()).toBe(200);
  },
);

test(
  'a tab that does not know of another order makes no behaviour anew',
  WHOLE,
  async ({ page, context }) => {
    const form = await copyOf(page.request, 'works_permit');
    await page.goto(`/bench/${form}`);
    await expect(page.getByText(/saved, revision/)).toBeVisible();
    const other = await context.newPage();
    await other.goto(`/bench/${form}`);
    await expect(other.getByText(/saved, revision/)).toBeVisible();
    const second = page
      .getByRole('region', { name: 'Behaviours' })
      .locator('[data-behaviour]')
      .nth(1);
    const name = await second.getAttribute('data-behaviour');
    // The one that comes first now gets a number before the other's.
    await other
      .getByRole('button', { name: /^What to do with/ })
      .first()
      .click();
    await other.getByRole('menuitem', { name: 'Later' }).click();
    await expect
      .poll(
        async () =>
          (
            await other.request
              .get(`/api/forms/${form}/behaviours/${name}/revisions`)
              .then((response) => response.json() as Promise<unknown[]>)
          ).length,
      )
      .toBe(0);
    await second.locator('button[aria-current], button').nth(1).click();
    await type(page, '// from the stale tab');
    await expect(
      page.getByText('Somebody else removed or moved this behaviour meanwhile.'),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Let it go' }).click();
    await page.reload();
    await expect(page.locator('[data-behaviour]')).toHaveCount(4);
  },
);

test(
  'an option’s key typed and another option added right after are both kept',
  WHOLE,
  async ({ page }) => {
    const bench = `/bench/${await copyOf(page.request, 'vessel')}`;
    await page.goto(bench);
    await page.getByRole('tab', { name: 'Structure' }).click();
    await page
      .locator('[data-item="standing"]')
      .getByRole('button', { name: /^Standing/ })
      .click();
    const pane = page.getByRole('region', { name: 'The part chosen' });
    // The look-up of whether the key is in use takes until it is let go on.
    let goOn: () => void = () => undefined;
    const held = new Promise<void>((resolve) => (goOn = resolve));
    await page.route('**/uses?**', (route) => held.then(() => route.continue()));
    const label = pane.getByLabel('Label of a new option');
    await label.fill('For now');
    await page.keyboard.press('Enter');
    await pane.getByLabel('Key of For now').fill('barred_for_now');
    await label.fill('Another');
    await page.keyboard.press('Enter');
    await expect(pane.getByLabel('Key of Another')).toHaveValue('another');
    const looked = page.waitForResponse('**/uses?**');
    goOn();
    await looked;
    await expect(page.getByText('structure saved')).toBeVisible();
    await expect(pane.getByLabel('Key of Another')).toHaveValue('another');
    await expect(pane.getByLabel('Key of For now')).toHaveValue('barred_for_now');
  },
);

test('a form that is being filled in is there again after a crash, down to the word that was being typed', async ({
  page,
}) => {
  await page.goto('/fill/vessel');
  await page.locator('#field-name').fill('Marrow Light');
  await page.keyboard.press('Tab');
  await page.locator('#field-call_sign').pressSequentially('QXM');
  await expect.poll(() => page.evaluate(KEPT)).toContain('QXM');
  const next = await crash(page);
  await next.goto('/fill/vessel');
  await expect(next.getByText('you left entries here that were not saved')).toBeVisible();
  await next.getByRole('button', { name: 'Bring them back' }).click();
  await expect(next.locator('#field-name')).toHaveValue('Marrow Light');
  await expect(next.locator('#field-call_sign')).toHaveValue('QXM');
  await next.reload();
  await next.getByRole('button', { name: 'Throw them away' }).click();
  await next.reload();
  await expect(next.locator('#field-name')).toHaveValue('');
  await expect(next.getByText('you left entries here')).toHaveCount(0);
});

test(
  'records are searched, narrowed down, sorted, and compared with what they were',
  WHOLE,
  async ({ page }) => {
    await page.goto('/records/vessel');
    const rows = page.getByRole('row').filter({ hasNot: page.getByRole('columnheader') });
    await expect(rows).toHaveCount(3);
    await page.getByLabel('Search').fill('marrow');
    await expect(rows).toHaveCount(1);
    await page.getByRole('button', { name: 'Show all' }).click();
    await expect(rows).toHaveCount(3);
    await page.getByRole('button', { name: 'Length over all' }).click();
    await expect(page.getByRole('columnheader', { name: /Length over all/ })).toHaveAttribute(
      'aria-sort',
      'ascending',
    );
    await page.getByLabel('Search').fill('ab');
    await expect(page.getByText('Search for 3 letters or more')).toBeVisible();
    await page.getByRole('button', { name: 'Show all' }).click();
    await page
      .getByRole('button', { name: /History of record/ })
      .first()
      .click();
    await expect(page.getByText(/saved once/)).toBeVisible();
    // Any field can be a column; which are is kept in the browser.
    await page.goto('/records/berth_visit');
    await page.getByText('Columns', { exact: true }).click();
    await page.getByLabel('Dues', { exact: true }).check();
    await page.getByLabel('Departure', { exact: true }).uncheck();
    await page.reload();
    await expect(page.getByRole('columnheader', { name: 'Dues' })).toBeVisible();
    await expect(page.getByRole('columnheader', { name: /^Departure/ })).toHaveCount(0);
  },
);
