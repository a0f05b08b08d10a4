/** The workspace as a whole: a form from its title to its first option, keys changed everywhere, copies, removal and its undo. */
import type { Page } from '@playwright/test';
import { beSomebody, copyOf, expect, seriousOn, test, WHOLE, workspaceOf } from './workspace';

test.use({ file: workspaceOf('forms') });

const focused = (page: Page) =>
  page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '');

test('a new form begins in Structure at its first label; options are typed one after the other, or pasted', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByLabel('Title of a new form').fill('Crane booking');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/bench\/crane_booking/);
  const part = page.getByRole('region', { name: 'The part chosen' });
  await expect(part.getByLabel('Label', { exact: true })).toBeFocused();
  await page.keyboard.type('Hours wanted');
  await page.keyboard.press('Enter');
  await expect(
    page.getByRole('region', { name: 'Live form' }).getByText('Hours wanted'),
  ).toBeVisible();
  await page.getByLabel('What to add').selectOption('choice');
  await page.getByLabel('Label of the new part').fill('Crane');
  await page.keyboard.press('Enter');
  const label = part.getByLabel('Label of a new option');
  await label.fill('Mobile crane');
  await expect(part.getByLabel('Key of a new option')).toHaveValue('mobile_crane');
  await page.keyboard.press('Enter');
  await expect(label).toBeFocused();
  await label.fill('Quay crane');
  await part.getByLabel('Key of a new option').fill('quay');
  await page.keyboard.press('Enter');
  await expect(label).toHaveValue('');
  await label.evaluate((line) => {
    const data = new DataTransfer();
    data.setData('text/plain', 'floating;Floating crane\nother;Another one');
    line.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expect(page.locator('#field-crane option')).toHaveText([
    '',
    /^Mobile crane/,
    /^Quay crane/,
    /^Floating crane/,
    /^Another one/,
  ]);
  await part.getByRole('combobox', { name: 'Default' }).selectOption('quay');
  await expect(page.locator('#field-crane')).toHaveValue('quay');
  // Nothing uses it, so it changes at once.
  await part.getByLabel('Key of Mobile crane').fill('mobile');
  await page.keyboard.press('Enter');
  await expect(page.locator('#field-crane option').nth(1)).toHaveAttribute('value', 'mobile');
  await expect(page.getByText('structure saved')).toBeVisible();
  expect(await seriousOn(page)).toEqual([]);
  // Filled in on the bench, it is there to be opened as an existing one.
  await page.locator('#field-first_field').fill('2');
  await page.getByRole('button', { name: 'Submit' }).click();
  await page.getByRole('button', { name: 'Keep as a sample record' }).click();
  await expect(page.getByText('Kept as record 1, which is open now.')).toBeVisible();
  await expect(page.getByLabel('Which record')).toHaveValue('1');
  await expect(page.locator('#field-first_field')).toHaveValue('2');
});

test(
  'a key in use is changed everywhere after a look, with the steps kept, and back',
  WHOLE,
  async ({ page }) => {
    await page.goto(`/bench/${await copyOf(page.request, 'berth_visit')}`);
    await page.selectOption('#field-pilot_choice', 'own');
    await page.getByRole('tab', { name: 'Structure' }).click();
    const part = page.getByRole('region', { name: 'The part chosen' });
    await page
      .getByRole('region', { name: 'Parts in their order' })
      .getByRole('button', { name: 'Pilot', exact: true })
      .click();
    await part.getByLabel('Key of Own pilot').fill('own_one');
    await page.keyboard.press('Enter');
    const preview = part.getByRole('region', { name: 'What renaming changes' });
    await expect(preview.getByText('own_one').first()).toBeVisible();
    expect(await focused(page)).toBe('The key own is in use');
    await part.getByRole('button', { name: 'Change it everywhere' }).click();
    const done = page.getByText('own is own_one everywhere now.');
    await expect(done).toBeVisible();
    await expect(page.locator('#field-pilot_choice')).toHaveValue('own_one');
    await expect(page.getByRole('button', { name: '✓ 7 scenarios' })).toBeVisible();
    await done.getByRole('button', { name: 'Undo' }).click();
    await expect(page.locator('#field-pilot_choice')).toHaveValue('own');
    await expect(page.getByRole('button', { name: '✓ 7 scenarios' })).toBeVisible();
  },
);

test(
  'the page of forms: copied, renamed, removed and back; sorted and searched; what changed since the release',
  WHOLE,
  async ({ page }) => {
    await page.goto('/');
    const row = (title: string) => page.getByRole('row').filter({ hasText: title });
    await expect(row('Quay works permit').getByText('✓ no problems')).toBeVisible();
    await expect(row('Quay works permit').getByText('nothing changed since')).toBeVisible();
    expect(await seriousOn(page)).toEqual([]);
    await page.getByRole('button', { name: 'Copy Quay works permit' }).click();
    const title = page.getByLabel('Title of Copy of Quay works permit');
    await expect(title).toBeFocused();
    await title.fill('Night works');
    await page.keyboard.press('Enter');
    await expect(row('Night works').getByText('copy_of_quay_works_permit')).toBeVisible();
    await page.getByLabel('Search').fill('night');
    await expect(page.getByRole('row')).toHaveCount(2);
    await page.getByRole('button', { name: 'Remove Night works' }).click();
    await expect(page.getByText('Night works was removed.')).toBeVisible();
    await expect(page.getByText('No form is called that.')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(row('Night works')).toHaveCount(1);
    await page.getByLabel('Search').fill('');
    await page.getByRole('button', { name: 'Form', exact: false }).first().focus();
    await page.getByRole('columnheader', { name: /^Form/ }).getByRole('button').click();
    await expect(page.getByRole('row').nth(1)).toContainText('Waste declaration');
    await page.getByRole('button', { name: 'Remove Night works' }).click();
    await expect(page.getByText('Night works was removed.')).toBeVisible();
    await expect(row('copy_of_quay_works_permit')).toHaveCount(0);
    // Another form lists its records.
    await page
      .getByRole('row')
      .filter({ has: page.getByText('berth_visit', { exact: true }) })
      .getByRole('button', { name: 'Remove Berth visit request' })
      .click();
    await expect(
      page.getByRole('alert').getByText('Vessel lists records of this form'),
    ).toBeVisible();
  },
);

test('from anywhere to everywhere', WHOLE, async ({ page }) => {
  await beSomebody(page, 'mira');
  await page.goto('/bench/vessel');
  for (const section of ['Records', 'Tables', 'Services', 'People', 'Problems', 'Forms']) {
    await page
      .getByRole('navigation', { name: 'Workspace' })
      .getByRole('link', { name: section })
      .click();
    await expect(
      page.getByRole('navigation', { name: 'Workspace' }).getByRole('link', { name: section }),
    ).toHaveAttribute('aria-current', 'page');
    expect(await seriousOn(page)).toEqual([]);
  }
});
