/** What somebody hostile types or saves, on the pages of the app: texts stay texts, and nothing that never ends stops a page. */
import type { Page } from '@playwright/test';
import { thorough } from '../support/thorough';
import {
  breakAt,
  copyOf,
  expect,
  openBench,
  OWN,
  test,
  visited,
  WHOLE,
  workspaceOf,
} from './workspace';

test.use({ file: workspaceOf('hostile') });

/** Would do something where it is not shown as it stands. */
const MARKUP =
  '<img src=x onerror="window.pwned=1"><script>window.pwned=1</script>"><svg onload=window.pwned=1> {{7*7}} ${7*7} [x](javascript:window.pwned=1)';

const pwned = (page: Page) =>
  page.evaluate(() => (globalThis as { pwned?: unknown }).pwned === undefined);

test('text is shown as it stands, wherever it stands', WHOLE, async ({ page }) => {
  const dialogs: string[] = [];
  page.on('dialog', (dialog) => {
    dialogs.push(dialog.message());
    void dialog.dismiss();
  });
  const form = await copyOf(page.request, 'vessel');
  const read = await page.request.get(`/api/forms/${form}/live`);
  expect(read.status()).toBeLessThan(500);
  const put = (path: string, data: unknown) => page.request.put(path, { headers: OWN, data });
  expect((await put(`/api/forms/${form}`, { title: MARKUP.slice(0, 120) })).ok()).toBe(true);
  const script = `/** ${MARKUP.replaceAll('*/', '')} */\non.load(() => {\n  fields.name.hint = ${JSON.stringify(MARKUP)};\n  fields.name.label = ${JSON.stringify(MARKUP.slice(0, 200))};\n  fields.name.warning = ${JSON.stringify(MARKUP)};\n  form.message(${JSON.stringify(MARKUP)});\n  log(${JSON.stringify(MARKUP)});\n});\non.change(fields.name, () => { throw new Error(${JSON.stringify(MARKUP)}); });\n`;
  expect(
    (await put(`/api/forms/${form}/behaviours/99-markup.ts`, { text: script, from: 0 })).ok(),
  ).toBe(true);
  expect(
    (
      await page.request.post(`/api/forms/${form}/releases`, {
        headers: OWN,
        data: { reason: MARKUP },
      })
    ).ok(),
  ).toBe(true);
  await visited(page.request, { vessel: MARKUP.slice(0, 60), contact: 'desk@varrick.example' });
  for (const path of [
    '/',
    `/bench/${form}`,
    `/fill/${form}`,
    `/records/berth_visit`,
    '/records',
    '/problems',
    '/recordings',
    '/workspaces',
    `/bench/${form}?behaviour=99-markup.ts`,
    `/records/berth_visit?search=${encodeURIComponent(MARKUP.slice(0, 40))}`,
  ]) {
    await page.goto(path);
    await expect(page.locator('main, h1, h2').first()).toBeVisible();
    await page.waitForTimeout(thorough ? 1500 : 300);
    expect(await pwned(page), path).toBe(true);
  }
  await page.goto(`/fill/${form}`);
  await page.locator('#field-name').fill(MARKUP.slice(0, 60));
  await page.keyboard.press('Tab');
  await expect(page.getByText('onerror=').first()).toBeVisible();
  expect([await pwned(page), dialogs]).toEqual([true, []]);
});

const NEVER = [
  'Array.prototype.indexOf.call({ length: 2 ** 53 - 1 }, 1)',
  '/(a+)+b/.test("a".repeat(40))',
  '(() => { for (;;); })()',
  '(() => { let s = "x"; for (;;) s += s; })()',
  '(() => {}).constructor("return globalThis")()',
  'new Array(3e6).fill(1).sort().length',
  'JSON.stringify = () => 1',
  'fields.constructor.constructor("return 1")()',
  '"x".repeat(2 ** 29).length',
  '({ toString() { throw 1; } })',
];

/** The page answers: what is typed into the form is in it. */
async function goesOn(page: Page, value: string): Promise<void> {
  await page.locator('#field-draught').fill(value);
  await page.keyboard.press('Tab');
  await expect(page.locator('#field-draught')).toHaveValue(value);
}

test(
  'what is asked at the prompt is answered, or stopped in words, whatever it is',
  WHOLE,
  async ({ page }) => {
    await openBench(page);
    await page.selectOption('#field-vessel_kind', { index: 2 });
    await page.keyboard.press('Alt+t');
    await page.getByRole('tab', { name: 'Watches' }).click();
    const prompt = page.getByLabel('Ask at this moment');
    for (const [i, expression] of (thorough ? NEVER : NEVER.slice(0, 2)).entries()) {
      await prompt.fill(expression);
      await prompt.press('Enter');
      await expect(prompt).toHaveValue('');
      await goesOn(page, `${i + 2}.0`);
    }
    await prompt.fill('tables.berths.rows.length + 1');
    await prompt.press('Enter');
    const watches = page.getByRole('region', { name: 'Watches' });
    await expect(watches.getByText('12', { exact: true })).toBeVisible();
  },
);

test(
  'a condition of a breakpoint that never ends is stopped in words, and the form goes on',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'Berths that fit');
    await goesOn(page, '6.0');
    await breakAt(page, 13);
    const condition = page.getByLabel(/Condition of the breakpoint/);
    await expect(condition).toBeVisible();
    for (const [i, expression] of (thorough ? NEVER.slice(0, 6) : NEVER.slice(0, 1)).entries()) {
      await condition.fill(expression);
      await page.keyboard.press('Enter');
      await goesOn(page, `${i + 3}.0`);
    }
    await condition.fill('draught > 1');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('table', { name: 'Hits' }).getByRole('row').nth(1)).toBeVisible();
  },
);

// Minutes each, so only where everything is tried.
for (const code of thorough ? NEVER.slice(0, 6) : [])
  test(`grid, the search for faults and mutation come through beside ${code}`, async ({ page }) => {
    const form = await copyOf(page.request, 'berth_visit');
    const saved = await page.request.put(`/api/forms/${form}/behaviours/95-hostile.ts`, {
      headers: OWN,
      data: {
        text: `on.change(fields.pilot_choice, ({ value }) => {\n  if (value === "own") ${code};\n});\n`,
        from: 0,
      },
    });
    expect(saved.ok()).toBe(true);
    await openBench(page, undefined, form);
    await goesOn(page, '3.0');
    const open = async (sort: string) => {
      await page.getByRole('tab', { name: 'Tests', exact: true }).click();
      await page.getByRole('tab', { name: sort }).click();
    };
    await open('Outcome grid');
    await page.getByLabel('Add what varies').selectOption('pilot_choice');
    await page.getByRole('button', { name: 'Try them' }).click();
    await expect(page.getByText(/All \d+ combinations\./)).toBeVisible();
    await open('Faults');
    await page.getByRole('button', { name: 'Search', exact: true }).click();
    // Stopped with a word, or searched: neither holds up the page.
    await expect(page.getByText(/\d+ sessions: |kept the machine busy/).first()).toBeVisible();
    await open('Mutation');
    await page.getByRole('button', { name: 'Try the changes' }).click();
    await expect(page.getByText(/of \d+ changes/)).toBeVisible();
    await page.getByRole('button', { name: 'Stop' }).click();
    await goesOn(page, '4.0');
  });
