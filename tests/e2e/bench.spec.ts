/** The bench as a developer uses it: react on change, live replay after an edit, errors, scenarios, conflicts. */
import type { Page } from '@playwright/test';
import {
  editor,
  expect,
  openBench,
  replaceInScript,
  seriousOn,
  test,
  WHOLE,
  workspaceOf,
} from './workspace';

test.use({ file: workspaceOf('bench') });

const sheet = (page: Page) => page.getByRole('region', { name: 'Live form' });
const tape = (page: Page) => page.getByRole('region', { name: 'Tape' });

async function type(page: Page, label: string, value: string): Promise<void> {
  await sheet(page).getByLabel(label, { exact: false }).first().fill(value);
  await page.keyboard.press('Tab');
}

test('the form reacts on change, the margin and the tape say which line did it, and asking why answers', async ({
  page,
}) => {
  await openBench(page, 'Pilot details');
  await expect(sheet(page).getByRole('heading', { name: 'Pilot details' })).toHaveCount(0);
  await page.selectOption('#field-pilot_choice', 'own');
  await expect(sheet(page).getByRole('heading', { name: 'Pilot details' })).toBeVisible();
  await expect(sheet(page).getByRole('button', { name: 'shown, required' })).toBeVisible();
  await expect(sheet(page).getByRole('button', { name: 'Pilot details, 7, 8' })).toBeVisible();
  // The strip says in one line what the step caused; the drawer tells all of it.
  await expect(tape(page).getByText('Pilot details: shown').first()).toBeVisible();
  await expect(page.locator('.tv-value', { hasText: 'own' })).toBeVisible();
  await sheet(page).getByRole('button', { name: 'Why is pilot_licence like that?' }).click();
  await expect(tape(page).getByText('rule “asked only with a pilot”').first()).toBeVisible();
  const why = tape(page).getByRole('region', { name: 'Why' });
  await expect(why).toContainText(
    'rule “asked only with a pilot” of Pilot details says so on line',
  );
  await why.getByRole('button', { name: 'Pilot ("own")' }).click();
  await expect(why).toContainText('Pilot is own because Mira Oldane set Pilot to own (step 1).');
  await expect(page.getByTestId('announcements')).toContainText('Pilot details is shown.');
});

test('an edit is seen at once, with everything done so far replayed; one that does not parse leaves the last good one running', async ({
  page,
}) => {
  await openBench(page, 'Berths that fit');
  await type(page, 'Length over all', '120');
  await type(page, 'Draught', '6.4');
  const berths = page.locator('#field-berth option');
  await expect(berths).toHaveCount(5);
  await replaceInScript(page, 'UNDER_KEEL = 0.5', 'UNDER_KEEL = 3.0');
  await expect(berths).toHaveCount(4);
  await expect(page.locator('#field-draught')).toHaveValue('6.4');
  await expect(page.getByText(/replayed: .*Berth.* changed/i)).toBeVisible();
  await replaceInScript(page, 'UNDER_KEEL = 3.0;', 'UNDER_KEEL = = 3.0;');
  await expect(
    page.getByText('The last version that worked goes on running.').first(),
  ).toBeVisible();
  await expect(berths).toHaveCount(4);
  await replaceInScript(page, 'UNDER_KEEL = = 3.0;', 'UNDER_KEEL = 0.5;');
  await expect(berths).toHaveCount(5);
  await expect(page.getByText(/saved, revision \d+/)).toBeVisible();
  await page.reload();
  await page.getByRole('tab', { name: 'Berths that fit' }).click();
  await expect(editor(page)).toContainText('UNDER_KEEL = 0.5');
});

test(
  'a failing script says so in the line, on the tape and as a bar, in the same words, and the form goes on',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'Pilot details');
    await replaceInScript(
      page,
      'if (value === "harbour_pilot" && by',
      'while (value === "none") {}\n  if (value === "harbour_pilot" && by',
    );
    await expect(page.getByText(/saved, revision/)).toBeVisible();
    await page.selectOption('#field-pilot_choice', 'none');
    const words =
      'ran too long without coming to an end. Look for a loop whose condition never becomes false.';
    await expect(sheet(page).getByRole('alert').filter({ hasText: words })).toBeVisible();
    await expect(tape(page).getByText(words)).toBeVisible();
    await expect(page.locator('.tv-failed', { hasText: words })).toBeVisible();
    await type(page, 'Draught', '4');
    await expect(page.locator('#field-draught')).toHaveValue('4.0');
    await page.selectOption('#field-pilot_choice', 'own');
    await expect(sheet(page).getByRole('alert')).toHaveCount(0);
  },
);

test(
  'a script stuck in a built-in is stopped within seconds, and what was typed is still there',
  WHOLE,
  async ({ page }) => {
    const form = await openBench(page, 'Dues');
    await type(page, 'Draught', '5');
    await page.getByRole('button', { name: '+ new' }).click();
    await page.getByLabel('Title of the new behaviour').fill('Stuck');
    await page.keyboard.press('Enter');
    await editor(page).click();
    await page.keyboard.press('Control+End');
    await page.keyboard.insertText(
      'on.change(fields.length, () => {\n  const list: number[] = [];\n  list.length = 2 ** 32 - 1;\n  list.indexOf(1);\n});\n',
    );
    await expect(page.getByText(/saved, revision/)).toBeVisible();
    await type(page, 'Length over all', '20');
    await expect(
      sheet(page)
        .getByRole('alert')
        .filter({ hasText: 'kept the form busy in a single built-in call' }),
    ).toBeVisible();
    await expect(page.locator('#field-draught')).toHaveValue('5.0');
    await expect(page.locator('#field-length')).toHaveValue('20.0');
    await editor(page).click();
    await page.keyboard.press('Control+a');
    await page.keyboard.insertText('/** Stuck: no longer. */\n');
    // Left at once: what was typed is saved all the same.
    await page.goto('/');
    await openBench(page, 'Stuck', form);
    await expect(editor(page)).toHaveText('/** Stuck: no longer. */');
  },
);

test('what was clicked becomes a scenario, it runs, and a failing one opens at its step', async ({
  page,
}) => {
  await openBench(page, 'Pilot details');
  await expect(page.getByRole('button', { name: '✓ 7 scenarios' })).toBeVisible();
  await page.selectOption('#field-pilot_choice', 'harbour_pilot');
  await page.getByRole('button', { name: 'Keep as scenario' }).click();
  await page.getByLabel('Title', { exact: true }).fill('Boarding at the buoy');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Kept as the scenario “Boarding at the buoy”.')).toBeVisible();
  await expect(page.getByRole('button', { name: '✓ 8 scenarios' })).toBeVisible();
  await page.keyboard.press('Escape');
  await replaceInScript(page, '"fairway_buoy"', '"inner_mark"');
  await page.getByRole('button', { name: /of 8 fail/ }).click();
  const tests = page.getByRole('region', { name: 'Scenarios' });
  const failed = tests.getByRole('listitem').filter({ hasText: 'Boarding at the buoy' });
  await expect(failed).toContainText('expected “fairway_buoy” is “inner_mark”');
  await failed
    .getByRole('button', { name: /^Open at step 1/ })
    .first()
    .click();
  await expect(page.getByText('Live form after step 1 of 1')).toBeVisible();
  await expect(page.locator('#field-pilot_boarding')).toHaveValue('inner_mark');
  await page.getByRole('tab', { name: 'Pilot details' }).click();
  await replaceInScript(page, '"inner_mark"', '"fairway_buoy"');
  await expect(page.getByRole('button', { name: '✓ 8 scenarios' })).toBeVisible();
  await page.getByRole('button', { name: '✓ 8 scenarios' }).click();
  await tests.getByRole('button', { name: 'Remove Boarding at the buoy' }).click();
  await expect(failed).toHaveCount(0);
});

test(
  'a long tape scrolls in its place, with its buttons and the step looked at in sight',
  WHOLE,
  async ({ page }) => {
    await openBench(page);
    for (const key of [
      'own',
      'none',
      'own',
      'none',
      'own',
      'none',
      'own',
      'none',
      'own',
      'none',
      'own',
      'none',
    ])
      await page.selectOption('#field-pilot_choice', key);
    await expect(page.getByText('Live form after step 12 of 12')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Undo step' })).toBeInViewport();
    await expect(
      tape(page)
        .getByRole('listitem')
        .filter({ has: page.locator('[aria-current=step]') }),
    ).toBeInViewport();
  },
);

test(
  'the tape can be looked back through, and the form is as it was then',
  WHOLE,
  async ({ page }) => {
    await openBench(page);
    await page.selectOption('#field-pilot_choice', 'own');
    await page.selectOption('#field-pilot_choice', 'none');
    await expect(page.getByText('Live form after step 2 of 2')).toBeVisible();
    await page.keyboard.press('Alt+ArrowLeft');
    await expect(page.getByText('Live form after step 1 of 2')).toBeVisible();
    await expect(page.locator('#field-pilot_choice')).toHaveValue('own');
    await expect(page.locator('#field-pilot_choice')).toBeDisabled();
    await page.getByRole('button', { name: 'The step after' }).click();
    await page.getByRole('button', { name: 'Undo step' }).click();
    await expect(page.getByText('Live form after step 1 of 1')).toBeVisible();
    await expect(page.locator('#field-pilot_choice')).toHaveValue('own');
  },
);

test('every action has a name in the command list', WHOLE, async ({ page }) => {
  await openBench(page);
  await page.selectOption('#field-pilot_choice', 'own');
  await expect(page.getByText('Live form after step 1 of 1')).toBeVisible();
  await page.keyboard.press('Alt+k');
  await page.keyboard.type('go to dues');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('tab', { name: 'Dues', selected: true })).toBeVisible();
  await page.keyboard.press('Alt+k');
  await page.keyboard.type('undo');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Live form after step 0 of 0')).toBeVisible();
});

test(
  'from anywhere to any pane and any behaviour in two presses, and an empty one begins with the cursor in it',
  WHOLE,
  async ({ page }) => {
    await openBench(page);
    await page.keyboard.press('Alt+b');
    await page.keyboard.press('4');
    await expect(page.getByRole('tab', { name: 'Dues', selected: true })).toBeVisible();
    await expect(editor(page)).toBeFocused();
    const pane = () =>
      page.evaluate(() => document.activeElement?.closest('main [aria-label]')?.ariaLabel ?? '');
    const within = async (label: string) =>
      expect(
        await page.evaluate(
          (name) =>
            document.querySelector(`main [aria-label="${name}"]`)!.contains(document.activeElement),
          label,
        ),
        await pane(),
      ).toBe(true);
    await page.keyboard.press('F6');
    await expect(async () => within('Live form')).toPass();
    await page.keyboard.press('F6');
    await expect(async () => within('Tape')).toPass();
    await page.keyboard.press('F6');
    await expect(async () => within('Outline')).toPass();
    await page.keyboard.press('Shift+F6');
    await expect(async () => within('Tape')).toPass();
    // Esc gives the focus back to where it was.
    await page.keyboard.press('Shift+F6');
    await page.keyboard.press('Shift+F6');
    await expect(editor(page)).toBeFocused();
    await page.keyboard.press('Alt+k');
    await expect(page.getByLabel('Find a command')).toBeFocused();
    await page.keyboard.press('Escape');
    await expect(editor(page)).toBeFocused();
    await page.keyboard.press('Alt+e');
    await page.keyboard.type('Night rate');
    await page.getByLabel('What it is for').selectOption('js');
    await page.getByLabel('Title of the new behaviour').press('Enter');
    await expect(page.getByRole('tab', { name: 'Night rate', selected: true })).toBeVisible();
    await expect(editor(page)).toBeFocused();
    await page.keyboard.type('log(1);');
    await expect(editor(page)).toContainText('log(1);');
    await page.keyboard.press('Alt+k');
    await page.keyboard.type('delete the behaviour');
    await page.keyboard.press('Enter');
    await expect(page.getByText('“Night rate” is deleted.')).toBeVisible();
  },
);

test(
  'opened as somebody else and with a record, the form is as they meet it',
  WHOLE,
  async ({ page }) => {
    await openBench(page, undefined, 'berth_visit');
    await page.getByLabel('As whom').selectOption({ label: 'Teo Varrick' });
    await expect(sheet(page).getByText('Welcome, Teo Varrick.')).toBeVisible();
    await page.getByLabel('Which record').selectOption('4');
    await expect(page.locator('#field-vessel')).toHaveValue('Sable Meridian');
    await expect(page.locator('#field-pilot_licence')).toHaveValue('QH-0417');
    await sheet(page).getByRole('button', { name: '2 Cargo and dues' }).click();
    await expect(page.locator('#field-dues_accepted')).toBeEnabled();
    await page.getByLabel('As whom').selectOption({ label: 'Mira Oldane' });
    await sheet(page).getByRole('button', { name: '2 Cargo and dues' }).click();
    await expect(page.locator('#field-dues_accepted')).toBeDisabled();
  },
);

test(
  'two tabs that edit one behaviour get a conflict that shows both',
  WHOLE,
  async ({ page, context }) => {
    const form = await openBench(page, 'Dues');
    const other = await context.newPage();
    await openBench(other, 'Dues', form);
    await replaceInScript(page, 'a tenth less', 'one tenth less');
    await expect(page.getByText(/saved, revision/)).toBeVisible();
    await replaceInScript(other, 'a tenth less', 'ten percent less');
    await expect(other.getByText('Somebody else saved this behaviour meanwhile.')).toBeVisible();
    await expect(other.getByLabel('Their version')).toContainText('one tenth less');
    await expect(editor(other)).toContainText('ten percent less');
    await other.getByRole('button', { name: 'Keep mine' }).click();
    await expect(other.getByText(/saved, revision/)).toBeVisible();
    await page.reload();
    await page.getByRole('tab', { name: 'Dues' }).click();
    await expect(editor(page)).toContainText('ten percent less');
  },
);

test(
  'when the server is gone the bench says what is not saved, and saves it when it is back',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'Dues');
    await page.route('**/api/forms/**', (route) =>
      route.fulfill({
        status: 503,
        json: { says: 'The database is out of reach. Nothing was saved.' },
      }),
    );
    await replaceInScript(page, 'a tenth less', 'less by a tenth');
    await expect(page.getByText('not saved: The database is out of reach.')).toBeVisible();
    await page.unroute('**/api/forms/**');
    await expect(page.getByText(/saved, revision/)).toBeVisible();
  },
);

test('a slip is underlined while typing', WHOLE, async ({ page }) => {
  await openBench(page, 'Pilot details');
  await replaceInScript(
    page,
    'choice === "harbour_pilot" || choice',
    'choice === "Harbour pilot" || choice',
  );
  await expect(page.locator('.cm-lintRange-error').first()).toBeVisible();
  await expect(page.getByText(/“Harbour pilot” is a label of Pilot/)).toBeVisible();
});

test('axe finds nothing serious on the bench, light and dark', WHOLE, async ({ page }) => {
  await openBench(page, 'Pilot details');
  await page.selectOption('#field-pilot_choice', 'own');
  await sheet(page).getByRole('button', { name: 'Why is pilot_licence like that?' }).click();
  for (const theme of ['light', 'dark']) {
    expect(await seriousOn(page)).toEqual([]);
    if (theme === 'light') await page.getByRole('button', { name: 'Dark theme' }).click();
  }
});
