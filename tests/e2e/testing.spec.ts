/** The tests of a form on the bench: scenarios, tables, grids, mutation, releases. */
import { readFileSync } from 'node:fs';
import {
  copyOf,
  expect,
  openBench,
  OWN,
  replaceInScript,
  seriousOn,
  test,
  WHOLE,
  workspaceOf,
} from './workspace';
import type { Page } from '@playwright/test';

test.use({ file: workspaceOf('testing') });

async function openTests(page: Page, tab = 'Scenarios'): Promise<void> {
  await page.getByRole('tab', { name: 'Tests', exact: true }).click();
  await page.getByRole('tab', { name: tab, exact: true }).click();
}

const passed = (page: Page) => page.getByText('7 of 7 passed');

test('a scenario is edited beside the live form, fails with its reason, opens at its moment, and is undone', async ({
  page,
}) => {
  await openBench(page, 'Pilot details');
  await openTests(page);
  await expect(passed(page)).toBeVisible();
  await page.getByRole('button', { name: 'Pilot details follow the choice', exact: true }).click();
  await expect(page.getByText('Live form after step 6 of 6')).toBeVisible();
  // Changed in place.
  await page.getByLabel('Boarding at required').first().selectOption('false');
  await expect(page.getByText('× failed')).toBeVisible();
  const miss = page.getByText('pilot_boarding.required');
  await expect(miss.first()).toBeVisible();
  await expect(page.getByText('Pilot details, line 6, said so last.')).toBeVisible();
  await page.getByRole('button', { name: /^Open at step 1/ }).click();
  await expect(page.getByText('Live form after step 1 of 6')).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText('✓ passed')).toBeVisible();
  // Inserted in its place.
  await page.getByRole('button', { name: 'Insert above step 2', exact: true }).click();
  await page.getByLabel(/^Insert a step above entry/).selectOption('wait');
  await expect(page.getByLabel('Milliseconds of step 2')).toHaveValue('1000');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByLabel('Milliseconds of step 2')).toHaveCount(0);
  // A step more, done in the live form, with what it changed.
  await page.getByRole('button', { name: 'Run to step 6' }).click();
  await expect(page.getByText('Live form after step 6 of 6')).toBeVisible();
  await page.selectOption('#field-pilot_choice', 'own');
  await page.getByRole('button', { name: 'Add the step done in the live form' }).click();
  await expect(page.getByLabel('Part of step 7')).toHaveValue('pilot_choice');
  await expect(page.getByText('✓ passed')).toBeVisible();
  // Moved and removed.
  await page.getByRole('button', { name: 'Remove step 7', exact: true }).click();
  await expect(page.getByLabel('Part of step 7')).toHaveCount(0);
  // It is saved.
  await page.reload();
  await openTests(page);
  await page.getByRole('button', { name: 'Pilot details follow the choice', exact: true }).click();
  await expect(page.getByLabel('Part of step 6')).toBeVisible();
  await expect(page.getByLabel('Part of step 7')).toHaveCount(0);
});

test(
  'one that shows a wrong part besides fails, since nothing else was to change',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'Pilot details');
    await page.selectOption('#field-pilot_choice', 'harbour_pilot');
    await page.getByRole('button', { name: 'Keep as scenario' }).click();
    await page.getByLabel('Title', { exact: true }).fill('Boarding at the buoy');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: '✓ 8 scenarios' })).toBeVisible();
    await page.getByRole('tab', { name: 'Pilot details' }).click();
    await replaceInScript(
      page,
      'fields.pilot_boarding.value = "fairway_buoy";',
      'fields.pilot_boarding.value = "fairway_buoy"; fields.contact.locked = true;',
    );
    await expect(page.getByRole('button', { name: /of 8 fail/ })).toBeVisible();
    await openTests(page);
    await expect(page.getByText('contact.locked').first()).toBeVisible();
    // On purpose after all.
    await page.getByRole('button', { name: 'Review' }).click();
    await page.getByRole('button', { name: 'Accept all' }).click();
    await expect(page.getByText('8 of 8 passed')).toBeVisible();
    // A title that exists is replaced only when that is asked for.
    await page.getByLabel('Title of a new scenario').fill('Boarding at the buoy');
    await expect(page.getByText('it would be replaced')).toBeVisible();
    await page.getByRole('button', { name: 'Remove Boarding at the buoy' }).click();
    await expect(page.getByText('7 of 7 passed')).toBeVisible();
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await expect(page.getByText('8 of 8 passed')).toBeVisible();
  },
);

test(
  'steps of any kind are made by choosing, rows and cells among them, and run on the way',
  WHOLE,
  async ({ page }) => {
    const form = await copyOf(page.request, 'crew_change');
    await openBench(page, undefined, form, 'Crew change');
    await openTests(page);
    await page.getByLabel('Title of a new scenario').fill('By choosing');
    await page.getByRole('button', { name: 'Keep', exact: true }).last().click();
    await expect(page.getByLabel('Title of the scenario')).toHaveValue('By choosing');
    const add = page.getByLabel('Add a step');
    await add.selectOption('set');
    await page.getByLabel('Part of step 1').selectOption('on_board');
    await page.getByLabel('Value of step 1').fill('many');
    await expect(page.getByText('This takes a number.')).toBeVisible();
    await page.getByLabel('Value of step 1').fill('14');
    await page.keyboard.press('Enter');
    await add.selectOption('addRow');
    await page.getByLabel('A cell of the row in step 2').selectOption('movement');
    await page.getByLabel('Movement of step 2').selectOption('sign_on');
    await add.selectOption('set');
    await page.getByLabel('Part of step 3').selectOption('people_rows[0].name');
    // Digits in a text stay a text.
    await page.getByLabel('Value of step 3').fill('0815');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Run to step 3' }).click();
    await expect(page.getByText('Live form after step 3 of 3')).toBeVisible();
    await expect(page.getByText('✓ passed')).toBeVisible();
    await page.getByRole('button', { name: 'expect what this step changed' }).nth(1).click();
    await expect(page.getByText('✓ passed')).toBeVisible();
    await add.selectOption('removeRow');
    await page.getByLabel('Row of step 4').fill('2');
    // There is no second row to remove.
    await expect(page.getByText('× failed')).toBeVisible();
    await page.getByLabel('Row of step 4').fill('1');
    await expect(page.getByText('✓ passed')).toBeVisible();
    // It is opened by somebody else, with all else left as it is.
    await page.getByLabel('Opened by').selectOption('teo');
    await page.reload();
    await openTests(page);
    await page.getByRole('button', { name: 'By choosing', exact: true }).click();
    await expect(page.getByLabel('Opened by')).toHaveValue('teo');
    await expect(page.getByLabel('Value of step 3')).toHaveValue('0815');
  },
);

test(
  'a table of inputs says of each row how it came out, goes out as CSV and comes in',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'Pilot details');
    await openTests(page);
    await page.getByLabel('Title of a new scenario').fill('Pilots');
    await page.getByRole('button', { name: 'Keep', exact: true }).last().click();
    await page.getByLabel('Make a table of cases').selectOption('pilot_choice');
    await page.getByLabel('pilot_choice of case 1').selectOption('own');
    await page.getByLabel('Add what is expected').selectOption('pilot_licence.required');
    await page.getByLabel('pilot_licence.required expected of case 1').selectOption('true');
    await expect(page.getByRole('button', { name: 'Case 1 passed: open it' })).toBeVisible();
    await page.getByLabel('Title of case 1').fill('a pilot of their own');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: '+ case' }).click();
    await page.getByLabel('pilot_choice of case 2').selectOption('none');
    await page.getByLabel('pilot_licence.required expected of case 2').selectOption('true');
    await expect(page.getByRole('button', { name: 'Case 2 failed: open it' })).toBeVisible();
    await page.getByRole('button', { name: 'Case 2 failed: open it' }).click();
    await expect(page.locator('#field-pilot_choice')).toHaveValue('none');
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Write as CSV' }).click();
    const text = readFileSync(await (await download).path(), 'utf8');
    expect(text.split('\n').slice(0, 2)).toEqual([
      'title,pilot_choice,→ pilot_licence.required',
      'a pilot of their own,own,true',
    ]);
    await page.getByLabel('CSV file with cases').setInputFiles({
      name: 'cases.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(
        'title;pilot_choice;→ pilot_licence.required\nown one;own;true\nnone;none;false\n',
      ),
    });
    await expect(page.getByRole('button', { name: 'Case 2 passed: open it' })).toBeVisible();
    await page.getByLabel('CSV file with cases').setInputFiles({
      name: 'cases.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('title,pilot_choise\nx,own\n'),
    });
    await expect(page.getByText('The form has no part "pilot_choise".')).toBeVisible();
  },
);

test(
  'a grid is tried, accepted, and broken by an edit, with before and after',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'Pilot details');
    await openTests(page, 'Outcome grid');
    await page.getByLabel('Add what varies').selectOption('pilot_choice');
    await page.getByLabel('Add what varies').selectOption('vessel_kind');
    await page.getByRole('button', { name: 'Try them' }).click();
    await expect(page.getByText('All 28 combinations.')).toBeVisible();
    const outcomes = page.getByRole('region', { name: 'Outcomes' });
    await expect(
      outcomes.getByRole('columnheader', { name: /Pilot licence/ }).first(),
    ).toBeVisible();
    // A cell leads to the live form in that state.
    await outcomes
      .getByRole('button', { name: /^Pilot licence shown yes/ })
      .first()
      .click();
    await expect(page.locator('#field-pilot_choice')).toHaveValue('own');
    await page.getByLabel('Title of the grid as a test').fill('Pilots by kind');
    await page.getByRole('button', { name: 'Accept as it is now' }).click();
    await expect(page.getByRole('button', { name: '✓ 8 scenarios' })).toBeVisible();
    await page.getByRole('tab', { name: 'Pilot details' }).click();
    await replaceInScript(
      page,
      'fields.pilot_licence.required = choice === "own";',
      'fields.pilot_licence.required = false;',
    );
    await openTests(page);
    await expect(page.getByText('pilot_licence.required').first()).toBeVisible();
    await expect(page.getByText('6 of 8 passed')).toBeVisible();
    // Under the grid the edit stands out.
    await page.getByRole('tab', { name: 'Outcome grid' }).click();
    await expect(
      page.getByText(/7 cells have changed: Pilot licence required yes → no/),
    ).toBeVisible();
    await expect(
      outcomes.getByRole('button', { name: /^Pilot licence required no/ }).first(),
    ).toBeVisible();
    // So it does under the test that keeps it, which is replaced when it was meant.
    await page.reload();
    await openTests(page);
    await page.getByRole('button', { name: 'Pilots by kind', exact: true }).click();
    await page.getByRole('button', { name: 'Compare with now' }).click();
    await expect(page.getByText(/7 cells have changed/)).toBeVisible();
    await page.getByRole('button', { name: 'Replace it as it is now' }).click();
    await openTests(page);
    await page.getByRole('button', { name: '‹ All scenarios' }).click();
    await expect(page.getByText('7 of 8 passed')).toBeVisible();
  },
);

test('a grid varies numbers that are written, and what is handed over', WHOLE, async ({ page }) => {
  await openBench(page);
  await openTests(page, 'Outcome grid');
  await page.getByLabel('Add what varies').selectOption('length');
  const length = page.getByLabel(/^A value for Length/);
  await length.fill('long');
  await expect(page.getByRole('button', { name: /^Add the value for Length/ })).toBeDisabled();
  for (const value of ['90', '120,5']) {
    await length.fill(value);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByRole('checkbox', { name: '120.5' })).toBeChecked();
  await page.getByLabel('Add what varies').selectOption('@launch.vessel');
  await page.getByLabel(/^A value for Handed over/).fill('Aurelle');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Try them' }).click();
  await expect(page.getByText('All 6 combinations.')).toBeVisible();
  const outcomes = page.getByRole('region', { name: 'Outcomes' });
  await expect(outcomes.getByRole('button', { name: /^Vessel value Aurelle/ })).toHaveCount(3);
});

test(
  'mutation is stopped, goes on, and offers a scenario for what nobody notices',
  WHOLE,
  async ({ page }) => {
    await openBench(page);
    await openTests(page, 'Mutation');
    await page.getByRole('button', { name: 'Try the changes' }).click();
    await expect(page.getByText(/of 136 changes/)).toBeVisible();
    await expect(page.getByText(/\d+ % of the changes were noticed/)).toBeVisible();
    await page.getByRole('button', { name: 'Stop' }).click();
    const left = page.getByText(/\d+ are not tried yet\./);
    await expect(left).toBeVisible();
    await page.getByRole('button', { name: 'Go on', exact: true }).click();
    await expect(page.getByText(/9\d % of the changes were noticed: 114 of 12\d\./)).toBeVisible();
    await page
      .getByRole('button', { name: 'Keep a scenario that notices line 26 of 10-arrival' })
      .click();
    await expect(page.getByRole('button', { name: '✓ 8 scenarios' })).toBeVisible();
    // The list stays, with the title that it was given; the others are kept all at once.
    await expect(page.getByText(/✓ kept as “/)).toHaveCount(1);
    await page.getByRole('button', { name: /^keep a scenario for each of the \d+/ }).click();
    await expect(page.getByRole('button', { name: /^Keep a scenario that notices/ })).toHaveCount(
      0,
    );
    await expect(page.getByRole('button', { name: /✓ (?:9|1\d) scenarios/ })).toBeVisible();
  },
);

test('coverage leads to lines that nothing reached', WHOLE, async ({ page }) => {
  await openBench(page);
  await openTests(page, 'Coverage');
  await page.getByRole('button', { name: 'Measure' }).click();
  const row = page.getByRole('row').filter({ hasText: '10-arrival' });
  await expect(row).toBeVisible();
  await row.locator('summary').click();
  await row.getByRole('button', { name: 'line 26' }).click();
  await expect(page.getByRole('tab', { name: 'Arrival and stay' })).toHaveAttribute(
    'aria-selected',
    'true',
  );
});

test(
  'a release is refused while a scenario fails, and made with a reason that is kept',
  WHOLE,
  async ({ page, request }) => {
    const form = await openBench(page, 'Pilot details');
    const releases = `/api/forms/${form}/releases`;
    expect((await request.post(releases, { headers: OWN, data: {} })).status()).toBe(201);
    await page.reload();
    await page.getByRole('tab', { name: 'Pilot details' }).click();
    await replaceInScript(
      page,
      'fields.pilot_licence.required = choice === "own";',
      'fields.pilot_licence.required = false;',
    );
    await expect(page.getByRole('button', { name: /of 7 fail/ })).toBeVisible();
    await expect(page.getByText(/saved, revision/)).toBeVisible();
    // The server does not take anybody's word for it.
    const forged = await request.post(releases, { headers: OWN, data: { reason: null } });
    expect(forged.status()).toBe(409);
    await page.getByRole('button', { name: 'Make release 2' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.getByText('1 scenario fails')).toBeVisible();
    await expect(dialog.getByText('20-pilot.ts')).toBeVisible();
    await dialog.getByText('20-pilot.ts').click();
    await expect(dialog.getByLabel('What changed in 20-pilot.ts')).toContainText(
      'fields.pilot_licence.required = false;',
    );
    const make = dialog.getByRole('button', { name: 'Make release 2' });
    await expect(make).toBeDisabled();
    await dialog
      .getByLabel('Why it is released all the same')
      .fill('The licence comes by post this week.');
    await make.click();
    await expect(page.getByText('Release 2 is out.')).toBeVisible();
    await page.getByRole('button', { name: 'Make release 3' }).click();
    await expect(dialog.getByText('“The licence comes by post this week.”')).toBeVisible();
    await dialog.getByRole('button', { name: 'Cancel' }).click();
  },
);

test('axe finds nothing serious in the tests', WHOLE, async ({ page }) => {
  await openBench(page);
  await openTests(page);
  await expect(passed(page)).toBeVisible();
  expect(await seriousOn(page)).toEqual([]);
  await page.getByRole('button', { name: 'Pilot details follow the choice', exact: true }).click();
  await expect(page.getByText('Live form after step 6 of 6')).toBeVisible();
  expect(await seriousOn(page)).toEqual([]);
  await page.getByRole('tab', { name: 'Outcome grid' }).click();
  await page.getByLabel('Add what varies').selectOption('pilot_choice');
  await page.getByRole('button', { name: 'Try them' }).click();
  await expect(page.getByRole('region', { name: 'Outcomes' })).toBeVisible();
  expect(await seriousOn(page)).toEqual([]);
});
