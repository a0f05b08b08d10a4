/** Workspaces of one's own: from a new one to a filled-in record, out as a folder and in again, removed and back. */
import { readFileSync } from 'node:fs';
import { expect, seriousOn, test, WHOLE, workspaceOf } from './workspace';

test.use({ file: workspaceOf('workspaces') });

test('from a new workspace to a filled-in record, and nothing of it in the demo', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Quillhaven harbour office' }).click();
  // The page listens once its scripts are there.
  await expect(async () => {
    await page.getByLabel('Title of a new workspace').fill('');
    await page.getByLabel('Title of a new workspace').fill('Ferry office');
    await expect(page.getByRole('button', { name: 'Make workspace' })).toBeEnabled({
      timeout: 10_000,
    });
  }).toPass();
  await page.getByLabel('Title of its first form (optional)').fill('Crossing');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/w\/ferry-office$/);
  await page.getByRole('link', { name: 'Crossing', exact: true }).click();
  await expect(page).toHaveURL(/\/w\/ferry-office\/bench\/crossing$/);
  await page.getByRole('button', { name: '+ new' }).click();
  await page.getByLabel('Title of the new behaviour').fill('Greeting');
  await page.keyboard.press('Enter');
  // Else what is typed is saved together with it, as its first revision.
  await expect(page.getByText(/saved, revision 1/)).toBeVisible();
  await page.locator('.cm-content').click();
  await page.keyboard.press('Control+End');
  await page.keyboard.insertText('on.load(() => form.message("Have a calm crossing."));\n');
  await expect(
    page.getByRole('region', { name: 'Live form' }).getByText('Have a calm crossing.'),
  ).toBeVisible();
  await expect(page.getByText(/saved, revision 2/)).toBeVisible();
  await page.getByRole('button', { name: 'Make release 1' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Make release 1' }).click();
  await expect(page.getByText('Release 1 is out.')).toBeVisible();
  await page.goto('/w/ferry-office/fill/crossing');
  await expect(page.getByText('Have a calm crossing.')).toBeVisible();
  await page.getByLabel('First field').fill('Two adults');
  await page.getByRole('button', { name: 'Submit' }).click();
  await expect(page.getByRole('heading', { name: 'Saved as record 1' })).toBeVisible();
  await page.getByRole('link', { name: 'All records' }).click();
  await expect(page).toHaveURL(/\/w\/ferry-office\/records\/crossing$/);
  await expect(page.getByRole('row').filter({ hasText: 'Two adults' })).toHaveCount(1);
  await page.goto('/bench/crossing');
  await expect(page.getByText('The form or record does not exist.')).toBeVisible();
});

test(
  'a workspace goes out as a zip and comes in again; a broken one is refused by file and line',
  WHOLE,
  async ({ page }) => {
    await page.goto('/workspaces');
    const downloading = page.waitForEvent('download');
    await page.getByRole('link', { name: /^Download Quillhaven harbour office/ }).click();
    const zip = await (await downloading).path();
    await page.getByLabel('Zip of a workspace folder').setInputFiles({
      name: 'broken.zip',
      mimeType: 'application/zip',
      buffer: readFileSync(zip).subarray(0, 2000),
    });
    await expect(page.getByText('broken.zip was not taken.')).toBeVisible();
    await expect(page.getByText('it is no zip, or is damaged')).toBeVisible();
    await page.getByLabel('Zip of a workspace folder').setInputFiles(zip);
    await expect(page).toHaveURL(/\/w\/quillhaven-harbour-office$/);
    await expect(
      page.getByRole('link', { name: 'Berth visit request', exact: true }),
    ).toBeVisible();
  },
);

test(
  'workspaces are copied, renamed, archived, removed and brought back',
  WHOLE,
  async ({ page }) => {
    await page.goto('/workspaces');
    expect(await seriousOn(page)).toEqual([]);
    const row = (title: string) => page.getByRole('row').filter({ hasText: title });
    await page.getByRole('button', { name: 'Copy Quillhaven harbour office' }).first().click();
    const title = page.getByLabel('Title of Copy of Quillhaven harbour office');
    await expect(title).toBeFocused();
    await title.fill('Winter harbour');
    await page.keyboard.press('Enter');
    await expect(
      row('Winter harbour').getByRole('link', { name: 'Winter harbour', exact: true }),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Archive Winter harbour' }).click();
    await expect(row('Winter harbour')).toHaveCount(0);
    await page.getByRole('button', { name: 'Archive (1)' }).click();
    await page.getByRole('button', { name: /^Take out of the archive: Winter/ }).click();
    await expect(page.getByText('Nothing is archived.')).toBeVisible();
    await page.getByRole('button', { name: 'Back to the workspaces' }).click();
    await page.getByRole('button', { name: 'Remove Winter harbour' }).click();
    await expect(page.getByText('Winter harbour was removed.').first()).toBeVisible();
    await expect(row('Winter harbour')).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(row('Winter harbour')).toHaveCount(1);
    await expect(
      page.getByRole('button', { name: /^Remove Quillhaven harbour office/ }),
    ).toHaveCount(1);
  },
);
