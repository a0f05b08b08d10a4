/** Looking into what was done: travel, why and why not, breakpoints and watches, the prompt, recordings. */
import type { Page } from '@playwright/test';
import {
  breakAt,
  copyOf,
  editor,
  expect,
  openBench,
  OWN,
  seriousOn,
  test,
  WHOLE,
  workspaceOf,
} from './workspace';

test.use({ file: workspaceOf('debugging') });

const sheet = (page: Page) => page.getByRole('region', { name: 'Live form' });
const tape = (page: Page) => page.getByRole('region', { name: 'Tape' });
const why = (page: Page) => tape(page).getByRole('region', { name: 'Why' });
const tree = (page: Page) => page.getByRole('tree', { name: 'What this step caused' });

/** A copy of the form with a release, to be filled in. */
async function released(page: Page): Promise<string> {
  const form = await copyOf(page.request, 'berth_visit');
  const made = await page.request.post(`/api/forms/${form}/releases`, { headers: OWN, data: {} });
  expect(made.status()).toBe(201);
  return form;
}

async function type(page: Page, label: string, value: string): Promise<void> {
  await sheet(page).getByLabel(label, { exact: false }).first().fill(value);
  await page.keyboard.press('Tab');
}

test(
  'arrow keys travel: into a run, from line to line, out again, and Esc goes back to now',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'Berths that fit');
    await type(page, 'Length over all', '120');
    await type(page, 'Draught', '9');
    await page.keyboard.press('Alt+t');
    await tree(page).getByText('rule “berths that fit”').click();
    await expect(sheet(page).getByText(/The form as it was at step 2/)).toBeVisible();
    await tree(page).press('ArrowRight');
    await expect(sheet(page).getByText(/step 2, line 7/)).toBeVisible();
    await expect(page.locator('.tv-standing')).toContainText('const draught');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowDown');
    await expect(sheet(page).getByText(/step 2, line 9/)).toBeVisible();
    // The values of the lines before it stand beside them, none of those behind it.
    await expect(page.locator('.tv-value', { hasText: '9' })).toBeVisible();
    await page.keyboard.press('ArrowRight');
    await expect(sheet(page).getByText(/step 2, line 10/)).toBeVisible();
    await page.keyboard.press('ArrowUp');
    await page.keyboard.press('ArrowLeft');
    await expect(page.locator('#field-draught')).not.toBeEditable();
    await page.keyboard.press('Escape');
    await expect(page.locator('#field-draught')).toBeEditable();
    await expect(sheet(page).getByText(/The form as it was/)).toHaveCount(0);
  },
);

test('why and why not: the line, its sides, each cause in turn, and the option that was left out', async ({
  page,
}) => {
  await openBench(page);
  await type(page, 'Length over all', '120');
  await type(page, 'Draught', '6.4');
  await sheet(page).getByRole('button', { name: 'Why is berth like that?' }).click();
  await expect(why(page)).toContainText('Berth offers 4 options');
  await expect(why(page)).toContainText('North quay 1 ("nq1") is not offered');
  await expect(why(page)).toContainText('left it out, since 6.2 < 6.9');
  await why(page).getByRole('button', { name: 'Draught (6.4)' }).click();
  await expect(why(page)).toContainText(
    'Draught is 6.4 because Mira Oldane set Draught to 6.4 (step 2).',
  );
  await why(page).getByRole('button', { name: '‹ back' }).click();
  await expect(why(page)).toContainText('Berth offers 4 options');
  await why(page).getByRole('button', { name: 'Since when?' }).click();
  await expect(why(page)).toContainText('The line has been as it is from the start');
  // What touched the part alone is listed now.
  await expect(tree(page).getByText('rule “berths that fit”').first()).toBeVisible();
  await expect(tree(page).getByText('Pilot: hint')).toHaveCount(0);
  // What is not on screen is asked about below the form.
  await sheet(page).getByRole('button', { name: 'Reason for going without a pilot' }).click();
  await expect(why(page)).toContainText('Reason for going without a pilot is hidden');
  await expect(why(page)).toContainText('needed does not hold');
});

test(
  'why goes on through a sum to its rows and the steps behind them, by key from the field in focus',
  WHOLE,
  async ({ page }) => {
    await page.goto('/bench/berth_visit?record=2');
    const form = sheet(page);
    await form.getByRole('button', { name: '2 Cargo and dues' }).click();
    await form.getByLabel(/^Weight.*row 1/).fill('4');
    await page.keyboard.press('Tab');
    await form.getByRole('button', { name: 'Why is cargo like that?' }).click();
    await expect(why(page)).toContainText(/has the hint “[\d.]+ t in 2 lots\.”/);
    await why(page)
      .getByRole('button', { name: /^the sum of Weight/ })
      .click();
    await expect(why(page)).toContainText(
      /The sum of Weight.* is [\d.]+: 4 in row 1 and [\d.]+ in row 2\./,
    );
    await why(page).getByRole('button', { name: 'row 2' }).click();
    await expect(why(page)).toContainText(/in row 2 of .*: it came with the record\./);
    // The same from the keyboard.
    await form.getByLabel(/^Weight.*row 1/).focus();
    await page.keyboard.press('Alt+y');
    await expect(why(page)).toContainText(
      /in row 1 of .* is 4 because Mira Oldane set .* \(step 2\)\./,
    );
  },
);

test('what submitting came to can be asked, and who stopped it', WHOLE, async ({ page }) => {
  await openBench(page);
  await sheet(page).getByRole('button', { name: 'Submit', exact: true }).click();
  await sheet(page).getByRole('button', { name: 'Why what submitting came to?' }).click();
  await expect(why(page)).toContainText('Not saved in step 1: the check found');
  await expect(why(page)).toContainText('required (true)');
});

test(
  'a breakpoint with a condition lists all its hits, with watches as columns, and each can be stood on',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'Berths that fit');
    await type(page, 'Length over all', '120');
    await type(page, 'Draught', '6.4');
    await type(page, 'Draught', '9');
    await breakAt(page, 13);
    const hits = page.getByRole('table', { name: 'Hits' }).getByRole('row');
    // The opening and three steps, below a head.
    await expect(hits).toHaveCount(5);
    await page.getByLabel(/Condition of the breakpoint/).fill('draught > 5');
    await page.keyboard.press('Enter');
    await expect(hits).toHaveCount(3);
    await page.getByLabel(/What the breakpoint .* shows/).fill('draught * 10');
    await page.keyboard.press('Enter');
    await expect(hits.nth(1)).toContainText('64');
    await page.getByLabel('Watch an expression').fill('fitting.length');
    await page.keyboard.press('Enter');
    await expect(hits.nth(1).getByRole('cell').nth(1)).toHaveText('4');
    await expect(hits.nth(2).getByRole('cell').nth(1)).toHaveText('2');
    await page.getByLabel('Watch an expression').fill('draught = 3');
    await page.keyboard.press('Enter');
    await expect(tape(page).getByText(/That assigns something/)).toBeVisible();
    await hits.nth(1).getByRole('button').click();
    await expect(page.locator('#field-draught')).toHaveValue('6.4');
    await expect(page.locator('.tv-standing')).toContainText('fields.berth.options = fitting');
    // The form says what stood before the line ran.
    await hits.nth(2).getByRole('button').click();
    await expect(page.locator('#field-draught')).toHaveValue('9.0');
    await expect(sheet(page).getByText('4 of 11 offered').filter({ visible: true })).toBeVisible();
    await expect(sheet(page).getByText('2 of 11 offered')).toHaveCount(0);
  },
);

test(
  'the prompt reads everything at the moment that is stood on, shows trees and changes nothing',
  WHOLE,
  async ({ page }) => {
    await openBench(page);
    await page.selectOption('#field-vessel_kind', { index: 2 });
    await page.keyboard.press('Alt+t');
    await page.getByRole('tab', { name: 'Watches' }).click();
    const prompt = page.getByLabel('Ask at this moment');
    await prompt.fill('fields.vessel_kind.r');
    const list = `#${await prompt.getAttribute('list')}`.replaceAll(':', '\\:');
    await expect(page.locator(`${list} option[value="fields.vessel_kind.row"]`)).toBeAttached();
    await prompt.fill('fields.vessel_kind.row');
    await prompt.press('Enter');
    await expect(tape(page).getByText('pilot_required')).toBeVisible();
    await prompt.fill('tables.berths.rows.length + 1');
    await prompt.press('Enter');
    await expect(tape(page).getByText('12', { exact: true })).toBeVisible();
    await prompt.fill('log("mine")');
    await prompt.press('Enter');
    await prompt.fill('fields.draught.value = 4.5');
    await prompt.press('Enter');
    // An assignment is done as a step, and shows as one.
    await expect(page.locator('#field-draught')).toHaveValue('4.5');
    await expect(page.getByText('Live form after step 2 of 2')).toBeVisible();
  },
);

test(
  'going on from a moment drops the later steps, and they can be brought back',
  WHOLE,
  async ({ page }) => {
    await openBench(page);
    for (const key of ['own', 'none', 'own']) await page.selectOption('#field-pilot_choice', key);
    await expect(page.getByText('Live form after step 3 of 3')).toBeVisible();
    await page.keyboard.press('Alt+ArrowLeft');
    await page.keyboard.press('Alt+ArrowLeft');
    await page.getByRole('button', { name: 'Go on from here' }).click();
    await expect(page.getByText('Live form after step 1 of 1')).toBeVisible();
    await expect(page.locator('#field-pilot_choice')).toBeEnabled();
    await page.getByRole('button', { name: 'Bring the 2 later steps back' }).click();
    await expect(page.getByText('Live form after step 3 of 3')).toBeVisible();
  },
);

test(
  'values are told with who decides them, and copied as JSON',
  WHOLE,
  async ({ page, context }) => {
    await context.grantPermissions(['clipboard-read', 'clipboard-write']);
    await openBench(page);
    await type(page, 'Draught', '6.4');
    await page.keyboard.press('Alt+t');
    const values = tape(page).getByRole('region', { name: 'Values' });
    await expect(values).toContainText('Berths that fit, line 13');
    await values.getByRole('button', { name: 'copy' }).click();
    const copied = JSON.parse(await page.evaluate(() => navigator.clipboard.readText())) as Record<
      string,
      unknown
    >;
    expect(copied.berth).toMatchObject({ said: [{ aspect: 'options' }, {}, {}] });
    await page.getByLabel('Which values').selectOption('sent');
    await values.getByRole('button', { name: 'copy' }).click();
    await expect
      .poll(
        async () => JSON.parse(await page.evaluate(() => navigator.clipboard.readText())) as object,
      )
      .toMatchObject({ draught: 6.4, vessel: null });
  },
);

test(
  'the same steps under other conditions, and what an edit changed, are told in words',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'Berths that fit');
    await type(page, 'Draught', '6.4');
    await page.keyboard.press('Alt+t');
    await page.getByRole('tab', { name: 'Other conditions' }).click();
    await page.getByLabel('Under which conditions').selectOption({ label: 'as Teo Varrick' });
    await page.getByRole('button', { name: 'Compare' }).click();
    await expect(tape(page).getByText('as Teo Varrick', { exact: true }).last()).toBeVisible();
    await expect(
      tape(page)
        .getByText(/Nothing differs|:/)
        .first(),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Orders of answers' }).click();
    await expect(tape(page).getByText(/Fewer than two calls wait now/)).toBeVisible();
  },
);

test(
  'a recording from the fill page opens in its release, is travelled through, and is played with today’s code',
  WHOLE,
  async ({ page }) => {
    const form = await released(page);
    await page.goto(`/fill/${form}`);
    await page.locator('#field-length').fill('120');
    await page.keyboard.press('Tab');
    await page.locator('#field-draught').fill('6.4');
    await page.keyboard.press('Tab');
    await expect(page.locator('#field-berth option')).toHaveCount(5);
    await page.getByRole('button', { name: /Keep a recording/ }).click();
    await page.getByLabel('What surprised you?').fill('My berth is missing.');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByRole('heading', { name: /Kept as recording \d+/ })).toBeVisible();

    // Meanwhile the code has been changed.
    const path = `/api/forms/${form}/behaviours/30-berths.ts`;
    const before = (await (await page.request.get(`${path}/revisions`)).json()) as {
      text: string;
      revision: number;
    }[];
    const changed = await page.request.put(path, {
      data: {
        text: before[0]!.text.replace('UNDER_KEEL = 0.5', 'UNDER_KEEL = 3'),
        from: before[0]!.revision,
      },
      headers: OWN,
    });
    expect(changed.ok()).toBe(true);

    await page.goto(`/recordings?form=${form}`);
    await expect(page.getByText('My berth is missing.')).toBeVisible();
    await page.getByRole('link', { name: /Recording \d+/ }).click();
    const banner = sheet(page).getByRole('region', { name: 'Recording' });
    await expect(banner).toContainText('played in release 1, which cannot be changed');
    await expect(banner).toContainText('✓ it ends as the person saw it');
    await expect(page.locator('#field-berth option')).toHaveCount(5);
    await sheet(page).getByRole('button', { name: 'Why is berth like that?' }).click();
    // The answer comes though something else is asked for meanwhile.
    await banner.getByRole('button', { name: 'Replay with today’s code' }).click();
    await expect(why(page)).toContainText('Berth offers 4 options: rule');
    await expect(tape(page).getByText('today’s code', { exact: true })).toBeVisible();
    await expect(tape(page).getByRole('region', { name: 'Other conditions' })).toContainText(
      'Berth',
    );
    // The release itself stays as it was, whatever is typed.
    await page.getByRole('tab', { name: 'Berths that fit' }).click();
    await editor(page).click();
    await page.keyboard.type('x');
    await expect(editor(page)).toContainText('UNDER_KEEL = 0.5');
    await banner.getByRole('link', { name: 'Open with today’s code' }).click();
    await expect(banner).toContainText('played with today’s code');
    await expect(page.locator('#field-berth option')).toHaveCount(4);
  },
);

test(
  'a recording goes out as a file and comes in again; what is none is refused in words',
  WHOLE,
  async ({ page }) => {
    const form = await released(page);
    await page.goto(`/fill/${form}`);
    await page.locator('#field-draught').fill('4');
    await page.keyboard.press('Tab');
    await page.getByRole('button', { name: /Keep a recording/ }).click();
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByRole('heading', { name: /Kept as recording/ })).toBeVisible();
    await page.goto(`/recordings?form=${form}`);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: /Save recording \d+ as a file/ }).click(),
    ]);
    const file = await download.path();
    await page.getByRole('button', { name: /Remove recording/ }).click();
    await expect(page.getByText('Nothing has been kept.')).toBeVisible();
    await page.getByRole('button', { name: 'Bring it back' }).click();
    await expect(page.getByRole('link', { name: /^Recording \d+/ })).toBeVisible();
    const chooser = page.getByLabel('A recording as a file');
    await chooser.setInputFiles({
      name: 'x.json',
      mimeType: 'application/json',
      buffer: Buffer.from('{"a":1}'),
    });
    await expect(page.getByText(/x.json was not taken/)).toBeVisible();
    await chooser.setInputFiles(file);
    await page.waitForURL(/recording=\d+/);
    await expect(page.locator('#field-draught')).toHaveValue('4.0');
  },
);

test(
  'axe finds nothing serious in the drawer and on the page of recordings',
  WHOLE,
  async ({ page }) => {
    await openBench(page);
    await type(page, 'Draught', '6.4');
    await sheet(page).getByRole('button', { name: 'Why is berth like that?' }).click();
    await expect(why(page)).toContainText('Berth offers');
    for (const tab of ['Values', 'Watches', 'Calls', 'Other conditions', 'Cost']) {
      await page.getByRole('tab', { name: tab, exact: true }).click();
      expect(await seriousOn(page), tab).toEqual([]);
    }
    await page.goto('/recordings');
    expect(await seriousOn(page)).toEqual([]);
  },
);
