/** Writing a behaviour: an editor that knows the form, names in reach, starters, behaviours as a set, history, problems, the handbook. */
import type { Page } from '@playwright/test';
import { copyOf, editor, expect, seriousOn, test, WHOLE, workspaceOf } from './workspace';

test.use({ file: workspaceOf('writing') });

const sheet = (page: Page) => page.getByRole('region', { name: 'Live form' });
const list = (page: Page) => page.getByRole('region', { name: 'Behaviours' });
const foot = (page: Page) => page.getByRole('region', { name: 'Code' }).getByRole('status');

/** The bench of a copy of a form; its name. */
async function openBench(page: Page, of: string): Promise<string> {
  const form = await copyOf(page.request, of);
  await page.goto(`/bench/${form}`);
  await expect(editor(page)).toBeVisible();
  // The language worker is ready once it has found nothing to say of the demo.
  await expect(foot(page).getByText('no problems')).toBeVisible();
  await expect(page.getByRole('button', { name: '✓ no problems' })).toBeVisible();
  return form;
}

async function newBehaviour(page: Page, title: string): Promise<void> {
  await list(page).getByRole('button', { name: '+ new' }).click();
  await page.getByLabel('Title of the new behaviour').fill(title);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('tab', { name: title, selected: true })).toBeVisible();
  await editor(page).click();
  await page.keyboard.press('Control+End');
}

async function remove(page: Page, title: string): Promise<void> {
  await act(page, title, 'Delete');
  await expect(page.getByText(`“${title}” is deleted.`)).toBeVisible();
}

async function act(page: Page, title: string, what: string): Promise<void> {
  await list(page)
    .getByRole('button', { name: `What to do with ${title}`, exact: true })
    .click();
  await page.getByRole('menuitem', { name: what }).click();
}

test(
  'completions offer fields and keys with their labels, the call says its parameters, and the pointer says what a name is and holds now',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'works_permit');
    await page.selectOption('#field-works_kind', 'hot');
    await newBehaviour(page, 'Completed');
    await page.keyboard.type('keep(');
    await expect(page.locator('.tv-signature')).toContainText('title: string');
    await page.keyboard.type('() => { fields.lea', { delay: 30 });
    const offered = page.locator('.cm-tooltip-autocomplete li');
    await expect(offered.filter({ hasText: 'leader_phone' })).toContainText('Telephone on site');
    await offered.filter({ hasText: 'leader_phone' }).click();
    await expect(editor(page)).toContainText('keep(() => { fields.leader_phone');
    await editor(page).click();
    await page.keyboard.press('Control+a');
    await page.keyboard.insertText(
      '/** Completed: x. */\non.load(() => log(fields.works_kind.value === "));\n',
    );
    for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Control+Space');
    await expect(offered.filter({ hasText: 'lifting' })).toContainText('Heavy lifting');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Control+a');
    await page.keyboard.insertText(
      '/** Completed: x. */\non.load(() => log(fields.works_kind.value));\n',
    );
    await expect(page.getByText(/saved, revision/)).toBeVisible();
    await page
      .locator('.cm-line', { hasText: 'on.load' })
      .getByText('works_kind', { exact: false })
      .first()
      .hover();
    const line = page.locator('.cm-line', { hasText: 'on.load' });
    const box = (await line.boundingBox())!;
    await page.mouse.move(box.x + 240, box.y + 10, { steps: 4 });
    await expect(page.locator('.tv-explain', { hasText: 'Kind of works — choice.' })).toContainText(
      'Stands in Works › What is to be done.',
    );
    await expect(page.locator('.tv-now')).toHaveText('now "hot"');
    await expect(sheet(page).locator('[data-part=works_kind][data-lit]')).toBeVisible();
    await page.locator('.tv-acts').getByRole('button', { name: 'Uses' }).click();
    const uses = page.getByRole('dialog');
    await expect(uses.getByText('Uses of works_kind')).toBeVisible();
    await uses.getByRole('button', { name: 'Track, line 4' }).click();
    await expect(page.getByRole('tab', { name: 'Track', selected: true })).toBeVisible();
  },
);

test('a mistake is explained with the form’s own parts, read on in the handbook and mended by its change', async ({
  page,
}) => {
  await openBench(page, 'works_permit');
  await newBehaviour(page, 'Slips');
  await page.keyboard.insertText(
    'keep(() => {\n  fields.leader.hint = fields.works_kind.value === "Diving" ? "A diver." : null;\n});\n',
  );
  await expect(foot(page)).toContainText(
    '“Diving” is a label of Kind of works (works_kind), which holds keys.',
  );
  await expect(page.getByRole('button', { name: '× 1 problem' })).toBeVisible();
  await foot(page).getByRole('button', { name: 'Read on' }).click();
  await expect(
    page
      .getByRole('region', { name: 'Page of the handbook' })
      .getByRole('heading', { name: 'A label where the key belongs' }),
  ).toBeVisible();
  await page.getByRole('searchbox', { name: 'Search the handbook' }).fill('superseded');
  await page.getByRole('button', { name: 'An answer that may be about an old value' }).click();
  await expect(page.getByRole('region', { name: 'Page of the handbook' })).toContainText(
    'Ask after the await',
  );
  await page.getByRole('button', { name: 'Live form', exact: true }).click();
  await foot(page).getByRole('button', { name: 'Use the key "diving"' }).click();
  await expect(editor(page)).toContainText('=== "diving"');
  await expect(page.getByRole('button', { name: '✓ no problems' })).toBeVisible();
  // By keyboard, in the line itself.
  await editor(page).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText('/** Slips: x. */\non.load(() => log(fields.leadr.value));\n');
  await expect(foot(page)).toContainText('There is no field "leadr". Did you mean leader?');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Control+.');
  await expect(editor(page)).toContainText('fields.leader.value');
});

test(
  'a name pressed in the live form goes into the code, and the part under the pointer lights up there',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'works_permit');
    await newBehaviour(page, 'Inserted');
    await page.keyboard.insertText('on.load(() => log());');
    for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowLeft');
    await sheet(page).getByRole('button', { name: 'works_kind', exact: true }).click();
    await expect(editor(page)).toContainText('log(fields.works_kind)');
    await page.locator('#field-works_kind').hover();
    await expect(page.locator('.tv-lit', { hasText: 'fields.works_kind' })).toBeVisible();
    await expect(
      page.locator('#field-works_kind option', { hasText: 'Diving · diving' }),
    ).toHaveCount(1);
    // From under Structure the code is opened for it.
    await page.getByRole('tab', { name: 'Structure' }).click();
    await sheet(page).getByRole('button', { name: 'description', exact: true }).click();
    await expect(page.getByRole('tab', { name: 'Inserted', selected: true })).toBeVisible();
    await expect(editor(page)).toContainText('fields.description');
  },
);

test('from a need to a behaviour with a scenario that proves it both ways', async ({ page }) => {
  await openBench(page, 'waste_declaration');
  await expect(page.getByRole('button', { name: '✓ 4 scenarios' })).toBeVisible();
  await list(page).getByRole('button', { name: '+ for a need' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('its scenario passes beside the other behaviours')).toBeVisible();
  await dialog.getByRole('button', { name: 'Switch a track' }).click();
  await expect(dialog.getByText('The form has no track. Add one under Structure.')).toBeVisible();
  await dialog
    .getByRole('button', { name: 'Show or require parts by a choice', exact: true })
    .click();
  await dialog.getByLabel('Decided by').selectOption('keeps_some');
  await dialog
    .getByRole('group', { name: 'These parts' })
    .getByLabel('Account for the refund (account)')
    .check();
  await dialog.getByRole('group', { name: 'These parts' }).getByLabel('Vessel (vessel)').uncheck();
  await dialog.getByRole('group', { name: 'Do' }).getByLabel('require').check();
  await dialog.getByRole('group', { name: 'Do' }).getByLabel('show').uncheck();
  await expect(dialog.getByTestId('starter-code')).toContainText(
    'fields.account.required = applies;',
  );
  await expect(dialog.getByTestId('starter-code')).not.toContainText('shown');
  await expect(dialog.getByRole('row', { name: 'yes required', exact: true })).toBeVisible();
  await expect(dialog.getByRole('row', { name: 'no not required', exact: true })).toBeVisible();
  await dialog.getByRole('button', { name: 'Add it as a behaviour' }).click();
  await expect(page.getByText('with a scenario that proves it.')).toBeVisible();
  await expect(page.getByRole('button', { name: '✓ 5 scenarios' })).toBeVisible();
  await expect(page.getByRole('button', { name: '✓ no problems' })).toBeVisible();
  await expect(editor(page)).toContainText('const applies = fields.keeps_some.value === true;');
  const title = 'Account for the refund by Some of it stays on board';
  await act(page, title, 'Turn off');
  // Without it the scenario fails, and the problems lead to it.
  await expect(page.getByRole('button', { name: '× 1 of 5 fail' })).toBeVisible();
  await page.keyboard.press('Alt+p');
  await expect(
    page.getByRole('dialog').getByText('account.required is no (false), expected yes (true)'),
  ).toBeVisible();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: `scenario “${title}”, step 1` })
    .click();
  await expect(page.getByText('Live form after step 1 of 2')).toBeVisible();
  await page.getByRole('button', { name: '× 1 of 5 fail' }).click();
  await page.getByRole('button', { name: `Remove ${title}` }).click();
  await remove(page, title);
  await expect(page.getByRole('button', { name: '✓ 4 scenarios' })).toBeVisible();
});

test(
  'behaviours are turned off, moved, copied, deleted and brought back, with every revision kept',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'crew_change');
    const order = () =>
      list(page)
        .locator('[data-behaviour]')
        .evaluateAll((rows) => rows.map((row) => (row as HTMLElement).dataset.behaviour));
    expect(await order()).toEqual(['10-flags.ts', '20-papers.ts', '30-numbers.ts']);
    await page.getByRole('tab', { name: 'Numbers' }).click();
    await act(page, 'Numbers', 'Turn off');
    await expect(editor(page)).toContainText('@off');
    await expect(foot(page)).toContainText('turned off: it takes no part in the form');
    await expect(page.getByText(/saved, revision 2/)).toBeVisible();
    await page.locator('#field-on_board').fill('12');
    await page.keyboard.press('Tab');
    await expect(page.locator('#field-after')).toHaveValue('');
    await act(page, 'Numbers', 'Turn on');
    await expect(page.locator('#field-after')).toHaveValue('12');
    await expect(page.getByText(/saved, revision 3/)).toBeVisible();

    await act(page, 'Numbers', 'Title and purpose…');
    await page.getByRole('textbox', { name: 'Purpose' }).fill('how many are on board afterwards.');
    await page.keyboard.press('Enter');
    await expect(editor(page)).toContainText('/** Numbers: how many are on board afterwards. */');
    await expect(page.getByText(/saved, revision 4/)).toBeVisible();
    await foot(page).getByRole('button', { name: 'History' }).click();
    const history = page.getByRole('list', { name: 'Revisions' });
    await expect(history.getByRole('button')).toHaveCount(4);
    await history.getByRole('button', { name: /revision 2/ }).click();
    await expect(
      page.locator('.cm-changedLine, .cm-insertedLine').filter({ hasText: '@off' }).first(),
    ).toBeVisible();
    await history.getByRole('button', { name: /revision 1/ }).click();
    await page.getByRole('button', { name: 'Bring back revision 1' }).click();
    await expect(editor(page)).toContainText('and whether that is enough.');
    await expect(page.getByText(/saved, revision 5/)).toBeVisible();

    // By keyboard, to the top.
    await list(page).getByRole('button', { name: 'Move Numbers' }).focus();
    await page.keyboard.press('Space');
    const isOver = (name: string, timeout = 300_000) =>
      expect(page.getByText(`was moved over droppable area ${name}`)).toHaveCount(1, { timeout });
    await isOver('30-numbers.ts');
    for (const name of ['20-papers.ts', '10-flags.ts'])
      // A key that comes before everything is measured is lost, as people notice who press it again.
      await expect(async () => {
        await page.keyboard.press('ArrowUp');
        await isOver(name, 5000);
      }).toPass();
    await page.keyboard.press('Space');
    await expect.poll(order).toEqual(['5-numbers.ts', '10-flags.ts', '20-papers.ts']);
    await expect(page.getByRole('button', { name: '✓ 4 scenarios' })).toBeVisible();
    await page.reload();
    await expect.poll(order).toEqual(['5-numbers.ts', '10-flags.ts', '20-papers.ts']);
    const titles = async () => (await order()).map((name) => name?.replace(/^\d+-/, ''));
    await act(page, 'Numbers', 'Later');
    await expect.poll(titles).toEqual(['flags.ts', 'numbers.ts', 'papers.ts']);
    await act(page, 'Numbers', 'Later');
    await expect.poll(titles).toEqual(['flags.ts', 'papers.ts', 'numbers.ts']);

    await act(page, 'Numbers', 'Duplicate');
    await expect(page.getByRole('tab', { name: 'Numbers copy', selected: true })).toBeVisible();
    await expect(editor(page)).toContainText('@off');
    await remove(page, 'Numbers copy');
    await page.getByRole('button', { name: 'Bring it back' }).click();
    await expect(page.getByRole('tab', { name: 'Numbers copy', selected: true })).toBeVisible();
    await expect(page.getByText(/saved, revision 3/)).toBeVisible();
    await remove(page, 'Numbers copy');
  },
);

test(
  'the map tells who steers what, from the sources and from the tape, and says conflicts',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'vessel');
    await page.getByRole('tab', { name: 'Map' }).click();
    const told = page.getByRole('region', { name: 'Who reads and steers what' });
    await expect(page.getByText('no conflicts, no circles')).toBeVisible();
    await expect(page.locator('[data-testid=map] canvas')).toBeVisible();
    await told.getByRole('button', { name: 'Visits' }).click();
    await expect(told).toContainText('steers Standing: locked, value · Visits: shown');
    await told.getByRole('button', { name: 'Standing: locked, value' }).click();
    await expect(told).toContainText('steered in this session by Visits: locked');
    await newBehaviour(page, 'Rival');
    await page.keyboard.insertText(
      'keep(() => {\n  fields.standing.locked = fields.imo.empty;\n  fields.length.value = fields.draught.value;\n});\nkeep(() => {\n  fields.draught.value = fields.length.value;\n});\n',
    );
    await expect(foot(page)).toContainText('locked is also steered by “Visits”');
    await page.keyboard.press('Alt+m');
    await expect(page.getByText('Standing: locked is steered by Visits and Rival')).toBeVisible();
    await expect(
      page.getByText(
        /↻ (Draught → Rival → Length over all → Rival → Draught|Length over all → Rival → Draught → Rival → Length over all)/,
      ),
    ).toBeVisible();
  },
);

test(
  'a helper is gone to, renamed and formatted, and all scripts of the workspace are searched',
  WHOLE,
  async ({ page }) => {
    await openBench(page, 'vessel');
    await newBehaviour(page, 'Helped');
    await page.keyboard.insertText(
      'const deep=(metres: number|null)=>(metres??0)>9;\non.load(()=>log(deep(fields.draught.value)));\n',
    );
    await expect(page.getByText(/saved, revision/)).toBeVisible();
    await page.keyboard.press('Shift+Alt+f');
    await expect(
      page
        .locator('.cm-line')
        .filter({ hasText: 'const deep = (metres: number | null) => (metres ?? 0) > 9;' }),
    ).toBeVisible();
    await page.keyboard.press('Control+Home');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowDown');
    for (let i = 0; i < 7; i++) await page.keyboard.press('ArrowRight');
    await page.keyboard.press('F2');
    await page.getByRole('textbox', { name: 'New name' }).fill('isDeep');
    await page.keyboard.press('Enter');
    await expect(editor(page)).toContainText('log(isDeep(fields.draught.value))');
    await editor(page).click();
    await page.keyboard.press('Alt+g');
    await page.getByLabel('Search for').fill('services\\.\\w+\\.level');
    await page.getByLabel('pattern').check();
    await page.getByRole('dialog').getByRole('button', { name: 'Search', exact: true }).click();
    await expect(
      page.getByRole('dialog').getByRole('button', { name: /^works_permit\/40-safety\.ts, \d+/ }),
    ).toHaveCount(1);
    await page.getByLabel('Search for').fill('isDeep');
    await page.getByRole('dialog').getByRole('button', { name: 'Search', exact: true }).click();
    await expect(page.getByRole('dialog').getByText('2 places')).toBeVisible();
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /^vessel_\d+\/.*helped\.ts, 4/ })
      .click();
    await expect(page.getByRole('tab', { name: 'Helped', selected: true })).toBeVisible();
  },
);

test('the problems of the workspace lead to their places', WHOLE, async ({ page }) => {
  await openBench(page, 'vessel');
  await newBehaviour(page, 'Faulty');
  await page.keyboard.insertText('on.load(() => { fields.draught.value = "3"; });\n');
  await expect(page.getByText(/saved, revision/)).toBeVisible();
  await page.goto('/');
  await page.getByRole('link', { name: 'Problems', exact: true }).click();
  await expect(page.getByText('Draught (draught) takes a finite number, not "3".')).toBeVisible();
  await page.getByRole('button', { name: 'Vessel, Faulty, line 3' }).click();
  await expect(page.getByRole('tab', { name: 'Faulty', selected: true })).toBeVisible();
  await expect(page.locator('.cm-activeLine', { hasText: 'on.load' })).toBeVisible();
});

test('axe finds nothing serious in what writing needs, light and dark', WHOLE, async ({ page }) => {
  test.slow();
  await openBench(page, 'vessel');
  const audit = async (what: string) => {
    expect({ what, found: await seriousOn(page) }).toEqual({ what, found: [] });
  };
  for (const theme of ['light', 'dark']) {
    await page.getByRole('tab', { name: 'Map' }).click();
    await expect(page.locator('[data-testid=map] canvas')).toBeVisible();
    await audit(`map, ${theme}`);
    await page.keyboard.press('Alt+h');
    await expect(
      page.getByRole('region', { name: 'Page of the handbook' }).getByRole('heading').first(),
    ).toBeVisible();
    await audit(`handbook, ${theme}`);
    await page.keyboard.press('Alt+h');
    await page.keyboard.press('Alt+w');
    await expect(page.getByRole('dialog').getByTestId('starter-code')).toBeVisible();
    await audit(`starters, ${theme}`);
    await page.keyboard.press('Escape');
    await page.getByRole('tab', { name: 'Measures' }).click();
    await foot(page).getByRole('button', { name: 'History' }).click();
    await expect(page.getByRole('list', { name: 'Revisions' })).toBeVisible();
    await audit(`history, ${theme}`);
    if (theme === 'light') await page.getByRole('button', { name: 'Dark theme' }).click();
  }
});
