/** What pages load before they can be used, and what becomes of parts that come later when the server is gone. */
import { gzipSync } from 'node:zlib';
import type { APIRequestContext } from '@playwright/test';
import { expect, test, workspaceOf } from './workspace';

test.use({ file: workspaceOf('weight') });

/** Kilobytes of scripts that a page names, compressed; those for browsers without modules are left out. */
async function weightOf(request: APIRequestContext, path: string): Promise<number> {
  const html = await (await request.get(path)).text();
  const old = new Set(
    [...html.matchAll(/<script[^>]*noModule[^>]*>/gi)].map(
      ([tag]) => /chunks\/[^"?]+/.exec(tag)?.[0],
    ),
  );
  const named = new Set([...html.matchAll(/chunks\/[^"'\\ ?]+?\.js/g)].map(([chunk]) => chunk));
  const scripts = [...named].filter((chunk) => !old.has(chunk));
  expect(scripts.length).toBeGreaterThan(5);
  const sizes = await Promise.all(
    scripts.map(async (chunk) => {
      const response = await request.get(`/_next/static/${chunk}`);
      expect(response.ok(), chunk).toBe(true);
      return gzipSync(await response.body()).length;
    }),
  );
  return sizes.reduce((sum, size) => sum + size, 0) / 1024;
}

for (const [path, most] of [
  ['/bench/berth_visit', 400],
  ['/fill/berth_visit', 200],
  ['/', 200],
  ['/records/berth_visit', 200],
  ['/tables/berths', 200],
  ['/services/ship_register', 200],
  ['/people', 200],
  ['/problems', 200],
  ['/workspaces', 200],
] as const) {
  test(`${path} loads no more than ${most} KB of scripts`, async ({ request }) => {
    expect(await weightOf(request, path)).toBeLessThan(most);
  });
}

test('a part that cannot be loaded says so, and the rest of the page goes on', async ({ page }) => {
  await page.goto('/bench/berth_visit');
  await expect(page.getByText('saved, revision 1')).toBeVisible();
  await expect(page.locator('#field-vessel_kind')).toBeEnabled();
  await page.route('**/_next/static/chunks/**', (route) => route.abort());
  await page.getByRole('tab', { name: 'Structure' }).click();
  await expect(page.getByText('This part of the page could not be loaded')).toBeVisible();
  await page.selectOption('#field-vessel_kind', 'tug');
  await expect(page.getByText('after step 1 of 1')).toBeVisible();
});

for (const [path, opened] of [
  ['/fill/berth_visit', 'Name as painted on the hull.'],
  ['/bench/berth_visit', 'after step 0 of 0'],
] as const) {
  test(`${path} says that it cannot run the form while the server is away, and does when it is back`, async ({
    page,
  }) => {
    await page.route('**/_next/static/chunks/*worker*', (route) => route.abort());
    await page.goto(path);
    await expect(page.getByText('the server is out of reach.')).toBeVisible();
    await page.getByRole('button', { name: 'Try again' }).click();
    await expect(page.getByText('the server is out of reach.')).toBeVisible();
    await expect(page.locator('#field-vessel')).toHaveCount(0);
    await page.unroute('**/_next/static/chunks/*worker*');
    await page.getByRole('button', { name: 'Try again' }).click();
    await expect(page.locator('#field-vessel')).toBeEditable();
    await expect(page.getByText(opened)).toBeVisible();
    await page.locator('#field-vessel').fill('Tern');
    await page.keyboard.press('Tab');
    await expect(page.getByText('the server is out of reach.')).toHaveCount(0);
  });
}
