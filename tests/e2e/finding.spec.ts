/** Faults that the search finds on the bench: after an edit, at their moment, as a scenario, answered in the code. */
import type { Page } from '@playwright/test';
import { copyOf, editor, expect, OWN, seriousOn, test, WHOLE, workspaceOf } from './workspace';

test.use({ file: workspaceOf('finding') });

const LEFT = `/** Licence: own pilots have to give it. */

function judge(): void {
  if (fields.pilot_choice.value === "own") fields.contact.hint = "Call the pilot first.";
}
on.load(judge);
on.change(fields.pilot_choice, judge);
`;

async function write(page: Page, text: string): Promise<void> {
  await editor(page).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText(text);
}

async function openFaults(page: Page): Promise<void> {
  await page.getByRole('tab', { name: 'Tests', exact: true }).click();
  await page.getByRole('tab', { name: 'Faults' }).click();
}

const fault = (page: Page) =>
  page.getByRole('listitem').filter({ hasText: 'Whoever sets Pilot to Own pilot' }).first();

test('a fault is found after an edit, opened, kept as a scenario, answered as meant, and gone once it is mended', async ({
  page,
}) => {
  test.slow();
  const form = await copyOf(page.request, 'berth_visit');
  const text = '/** Licence: own pilots have to give it. */\non.load(() => {});\n';
  const saved = await page.request.put(`/api/forms/${form}/behaviours/90-licence.ts`, {
    headers: OWN,
    data: { text, from: 0 },
  });
  expect(saved.ok()).toBe(true);
  await page.goto(`/bench/${form}`);
  await expect(editor(page)).toBeVisible();
  await page.getByRole('tab', { name: 'Licence' }).click();
  await expect(editor(page)).toContainText('own pilots have to give it');
  await write(page, LEFT);
  const found = page.getByRole('region', { name: 'Code' }).getByText(/1 fault found/);
  await expect(found).toBeVisible();
  // Among the problems, and at its part in the outline.
  await expect(page.getByRole('button', { name: /problems?$/ }).first()).toContainText('×');
  await expect(page.locator('[data-outline=contact]')).toContainText('×');

  await openFaults(page);
  await expect(fault(page)).toContainText('Not taken back');
  await expect(fault(page)).toContainText(
    'reads the hint “Call the pilot first.” at E-mail of the agent',
  );
  await fault(page)
    .getByRole('button', { name: /^Open: / })
    .click();
  await expect(page.getByText(/Live form after step 2 of 2/)).toBeVisible();
  await expect(page.getByText('Call the pilot first.').first()).toBeVisible();

  // It fails until the fault is mended.
  await fault(page)
    .getByRole('button', { name: /^Keep as a scenario/ })
    .click();
  await expect(page.getByRole('button', { name: '× 1 of 8 fail' })).toBeVisible();
  await expect(page.getByRole('button', { name: '‹ All scenarios' })).toBeVisible();

  await openFaults(page);
  await fault(page)
    .getByRole('button', { name: /^This is meant/ })
    .click();
  await page.getByLabel('Why it is meant').fill('the card is asked for later');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 answered in the code: meant')).toBeVisible();
  await page.getByRole('tab', { name: 'Licence' }).click();
  await expect(editor(page)).toContainText(
    '// tavro: meant, not-back: the card is asked for later',
  );

  // Without the answer it is back; mended, it is gone.
  await write(page, LEFT);
  await expect(found).toBeVisible();
  await write(
    page,
    LEFT.replace(
      'if (fields.pilot_choice.value === "own") fields.contact.hint = "Call the pilot first.";',
      'fields.contact.hint = fields.pilot_choice.value === "own" ? "Call the pilot first." : null;',
    ),
  );
  await expect(found).toBeHidden();
  await openFaults(page);
  await expect(page.getByText(/sessions: nothing wrong/)).toBeVisible();
});

test(
  'the search is stopped, stays stopped on another form, and goes on when it is asked to',
  WHOLE,
  async ({ page }) => {
    await page.goto('/bench/waste_declaration');
    await expect(editor(page)).toBeVisible();
    await openFaults(page);
    await expect(page.getByText(/^\d+ sessions: nothing wrong so far/)).toBeVisible();
    expect(await seriousOn(page)).toEqual([]);
    await page.getByRole('button', { name: 'Stop', exact: true }).click();
    await expect(page.getByRole('button', { name: /^Search( on)?$/ })).toBeVisible();
    await page.goto('/bench/crew_change');
    await openFaults(page);
    await expect(page.getByText('Stopped.')).toBeVisible();
    await page.getByRole('button', { name: 'Search', exact: true }).click();
    await expect(page.getByText(/^\d+ sessions: /)).toBeVisible();
  },
);
