/** Release, fill, record: what the people meet for whom the forms are made. */
import { beSomebody, expect, OWN, seriousOn, test, visited, WHOLE, workspaceOf } from './workspace';

test.use({ file: workspaceOf('fill') });

test('a form without a release cannot be filled in and says so', async ({ page }) => {
  const made = await page.request.post('/api/forms', {
    headers: OWN,
    data: { title: 'Unreleased' },
  });
  const { name } = (await made.json()) as { name: string };
  await page.goto(`/fill/${name}`);
  await expect(page.getByText('This form has no release yet')).toBeVisible();
  expect(await seriousOn(page)).toEqual([]);
});

test('a release is made on the bench and stands in the list of forms', WHOLE, async ({ page }) => {
  await page.goto('/bench/berth_visit');
  await page.getByRole('button', { name: 'Make release 2' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Make release 2' }).click();
  await expect(page.getByText('Release 2 is out.')).toBeVisible();
  await expect(page.getByRole('button', { name: '✓ 7 scenarios' })).toBeVisible();
  // How they came out is kept once they have run.
  await expect(async () => {
    await page.goto('/');
    await expect(page.getByText('✓ 7 of 7 passed')).toBeVisible({ timeout: 10_000 });
  }).toPass();
  await expect(page.getByRole('cell', { name: /^2, \d{4}-\d{2}-\d{2}/ })).toBeVisible();
  expect(await seriousOn(page)).toEqual([]);
});

test('by keyboard alone: the form is filled in, mended where it is wrong, submitted, and a record comes out', async ({
  page,
}) => {
  await beSomebody(page, 'mira');
  await page.goto('/fill/berth_visit');
  await expect(page.locator('#field-vessel')).toBeVisible();
  const keys = page.keyboard;
  /** Tabs until a part has the focus; a part that cannot be reached that way fails the test. */
  const reach = async (id: string) => {
    for (let i = 0; i < 40; i++) {
      if (
        await page.evaluate(
          (wanted) =>
            document.activeElement?.id === wanted || document.activeElement?.textContent === wanted,
          id,
        )
      )
        return;
      await keys.press('Tab');
    }
    throw new Error(`${id} cannot be reached by keyboard`);
  };
  const enter = async (id: string, typed: string) => {
    await reach(`field-${id}`);
    await keys.type(typed);
  };
  await enter('vessel', 'Aurelle');
  await enter('vessel_kind', 'Survey');
  await enter('length', '42.5');
  await enter('draught', '3.1');
  await enter('contact', 'not an address');
  // Any common separator will do.
  await enter('arrival', '2031/6/1');
  await enter('departure', '2.6.2031');
  await enter('berth', 'South quay 1');
  await enter('pilot_choice', 'No pilot');
  await reach('Submit');
  await expect(page.locator('#field-arrival')).toHaveValue('2031-06-01');
  await keys.press('Enter');
  await expect(page.getByText('This is not an e-mail address').first()).toBeVisible();
  await expect(page.locator('#field-contact')).toBeFocused();
  await keys.press('Control+a');
  await keys.type('desk@varrick.example');
  await reach('2 Cargo and dues');
  await keys.press('Enter');
  await expect(page.locator('#field-dues')).toHaveValue('51.00');
  await reach('Submit');
  await keys.press('Enter');
  await expect(page.getByRole('heading', { name: 'Saved as record 7' })).toBeVisible();
  await page.getByRole('link', { name: 'All records' }).click();
  await expect(
    page.getByRole('row', {
      name: /^7 View record 7 History of record 7 Aurelle Survey vessel 42.5 m 3.1 m desk@varrick.example/,
    }),
  ).toBeVisible();
  expect(await seriousOn(page)).toEqual([]);
});

test('a record is opened again, changed and saved; one saved meanwhile is a conflict that shows both', async ({
  page,
  context,
}) => {
  await beSomebody(page, 'mira');
  const id = await visited(page.request);
  await page.goto('/records/berth_visit');
  await page.getByRole('link', { name: id, exact: true }).click();
  await expect(page.locator('#field-vessel')).toHaveValue('Aurelle');
  const other = await context.newPage();
  await other.goto(`/fill/berth_visit?record=${id}`);
  await other.locator('#field-vessel').fill('Aurelle II');
  await other.keyboard.press('Tab');
  await other.getByRole('button', { name: 'Save' }).click();
  await expect(other.getByText(`Saved as record ${id}`)).toBeVisible();
  await page.locator('#field-vessel').fill('Aurelle III');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('row', { name: 'Vessel Aurelle III Aurelle II' })).toBeVisible();
  await page.getByRole('button', { name: 'Save mine over it' }).click();
  await expect(page.getByText(`Saved as record ${id}`)).toBeVisible();
  await page.goto('/bench/berth_visit');
  await page.getByLabel('Which record').selectOption(id);
  await expect(page.locator('#field-vessel')).toHaveValue('Aurelle III');
});

test(
  'with a finger too, one tap saves what was typed last',
  WHOLE,
  async ({ browser, baseURL }) => {
    const context = await browser.newContext({ hasTouch: true, baseURL: baseURL! });
    const page = await context.newPage();
    await beSomebody(page, 'mira');
    const id = await visited(page.request);
    await page.goto(`/fill/berth_visit?record=${id}`);
    const vessel = page.locator('#field-vessel');
    await expect(vessel).toHaveValue('Aurelle');
    await vessel.fill('');
    await page.getByRole('button', { name: 'Save' }).tap();
    await expect(page.getByText('Not saved yet')).toBeVisible();
    await vessel.fill('Aurelle IV');
    // What was wrong goes, and the button with it, while the input is left.
    await page.getByRole('button', { name: 'Save' }).tap();
    await expect(page.getByText(`Saved as record ${id}`)).toBeVisible();
    await context.close();
  },
);

test('a refused submission loses nothing that was typed', async ({ page }) => {
  await beSomebody(page, 'mira');
  await page.goto('/fill/berth_visit?record=1');
  await page.locator('#field-vessel').fill('Tern');
  await page.keyboard.press('Tab');
  await page.route('**/submissions', (route) =>
    route.fulfill({
      status: 503,
      json: { says: 'The database is out of reach. Nothing was saved.' },
    }),
  );
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(
    page.getByText(
      'The database is out of reach. Nothing was saved. What you entered is still here.',
    ),
  ).toBeVisible();
  await expect(page.locator('#field-vessel')).toHaveValue('Tern');
  await page.unroute('**/submissions');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved as record 1')).toBeVisible();
});

test('when a script hides what has the focus, the focus goes on to the next input', async ({
  page,
}) => {
  await beSomebody(page, 'mira');
  await page.goto('/fill/berth_visit?record=4');
  await page.locator('#field-pilot_licence').focus();
  await page.locator('#field-pilot_choice').selectOption('none');
  await expect(page.locator('#field-pilot_licence')).toHaveCount(0);
  const focused = await page.evaluate(() => document.activeElement?.tagName);
  expect(focused).not.toBe('BODY');
});

test(
  'the page people fill in loads no editor and no compiler, and axe finds nothing serious',
  WHOLE,
  async ({ page }) => {
    const scripts: number[] = [];
    page.on('response', async (response) => {
      if (response.url().endsWith('.js'))
        scripts.push((await response.body().catch(() => Buffer.alloc(0))).length);
    });
    await page.goto('/fill/berth_visit?record=4');
    await expect(page.locator('#field-vessel')).toHaveValue('Sable Meridian');
    expect(await seriousOn(page)).toEqual([]);
    // The TypeScript compiler alone is over three megabytes.
    expect(Math.max(...scripts)).toBeLessThan(2_000_000);
  },
);

test('submissions made by hand get a reason and save nothing', async ({ page }) => {
  await beSomebody(page, 'mira');
  const send = (data: unknown) =>
    page.request.post('/api/fill/berth_visit/submissions', {
      headers: { ...OWN, 'content-type': 'application/json' },
      data,
    });
  const says = async (response: Awaited<ReturnType<typeof send>>) => [
    response.status(),
    ((await response.json()) as { says: string }).says.split('\n')[0],
  ];
  expect(await says(await send({ values: { dues: 5 } }))).toEqual([
    422,
    'Step 1 could not be done by Mira Oldane: Dues is locked.',
  ]);
  expect(await says(await send({ values: { nothing: 5 } }))).toEqual([
    422,
    'The form has no field "nothing".',
  ]);
  expect(await says(await send({ values: { vessel: 'x' }, record: 'nowhere' }))).toEqual([
    404,
    'There is no record nowhere.',
  ]);
  expect(await says(await send({ steps: [{ fly: 'x' }] }))).toEqual([
    400,
    'The body is not what is asked for:',
  ]);
  expect(
    await says(await send(`{"values": {"vessel": "${'x'.repeat(20 * 1024 * 1024)}"}}`)),
  ).toEqual([413, 'The body is larger than 2 MB.']);
  expect(
    (
      await page.request.post('/api/fill/nowhere/submissions', {
        headers: OWN,
        data: { values: {} },
      })
    ).status(),
  ).toBe(404);
});
