/** A workspace beside its folder, folders brought in, code that forms share, and open formats, as people use them. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { firstWorkspace } from '../../src/core/workspace/first';
import { writeWorkspace } from '../../src/core/workspace/write';
import { beSomebody, editor, expect, seriousOn, test, WHOLE, workspaceOf } from './workspace';

test.use({ file: workspaceOf('folders') });

/** A folder with one form, below the one that the app was started with. */
function newFolder(name: string): string {
  const folder = join(process.env.TAVRO_E2E_FOLDERS!, name);
  for (const [path, text] of writeWorkspace(firstWorkspace(name))) {
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), text);
  }
  return folder;
}

test('a folder is opened, edited outside and inside, and both at once is a conflict that shows both', async ({
  page,
}) => {
  const folder = newFolder('Ferry desk');
  const file = join(folder, 'forms/first_form/behaviours/10-reason.ts');
  await page.goto('/workspaces');
  await page.getByLabel('Folder on this machine').selectOption(folder);
  await page.getByRole('button', { name: 'Open folder' }).click();
  await expect(page).toHaveURL(/\/w\/ferry-desk$/);
  await page.getByRole('link', { name: 'First form', exact: true }).click();
  await expect(editor(page)).toContainText('fields.reason.shown = fields.agreed.value === false');
  const live = page.getByRole('region', { name: 'Live form' });
  // A step done before goes on standing when the code changes outside.
  await expect(async () => {
    await live.getByLabel('Yes', { exact: true }).click();
    await expect(live.getByLabel('Yes', { exact: true })).toBeChecked({ timeout: 10_000 });
  }).toPass();
  await expect(live.getByRole('textbox', { name: /^Reason/ })).toHaveCount(0);
  writeFileSync(file, readFileSync(file, 'utf8').replace('=== false', '=== true'));
  await expect(editor(page)).toContainText('=== true');
  await expect(live.getByRole('textbox', { name: /^Reason/ })).toBeVisible();
  await expect(live.getByLabel('Yes', { exact: true })).toBeChecked();

  await editor(page).click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('// from the bench');
  await expect.poll(() => readFileSync(file, 'utf8')).toContain('// from the bench');

  // A broken file is named with its line, and taken once it is mended.
  const form = join(folder, 'forms/first_form/form.json');
  const text = readFileSync(form, 'utf8');
  writeFileSync(form, text.slice(0, 80));
  await expect(page.getByText(/forms\/first_form\/form\.json:\d+: is not JSON/)).toBeVisible();
  writeFileSync(form, text.replace('"Agreed"', '"Agreed to"'));
  await expect(live.getByText('Agreed to')).toBeVisible();
  await expect(page.getByText(/form\.json:\d+/)).toHaveCount(0);

  await editor(page).click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type(' mine');
  writeFileSync(file, `${readFileSync(file, 'utf8')}// theirs\n`);
  // Whichever of the two was first, both are shown.
  await expect(
    page.getByText(/saved this behaviour meanwhile|changed here and in the folder at once/),
  ).toBeVisible();
  await expect(page.locator('pre').filter({ hasText: '// theirs' })).toBeVisible();
  await page.getByRole('button', { name: /^(Keep mine|Keep what is here)$/ }).click();
  await expect.poll(() => readFileSync(file, 'utf8')).toContain('// from the bench mine');

  await expect(async () => {
    await page.goto('/workspaces');
    await expect(page.getByText(`kept the same as ${folder}`)).toBeVisible({ timeout: 10_000 });
  }).toPass();
  await page.getByRole('button', { name: 'Close the folder of Ferry desk' }).click();
  await expect(page.getByText('Both stay as they are.')).toBeVisible();
  expect(existsSync(file)).toBe(true);
});

test(
  'a zip is brought into a workspace that is there: seen before, taken in part, undone',
  WHOLE,
  async ({ page }) => {
    await page.goto('/workspaces');
    const downloading = page.waitForEvent('download');
    await page.getByRole('link', { name: /^Download Quillhaven harbour office/ }).click();
    const out = unzipSync(readFileSync(await (await downloading).path()));
    const pilot = 'home/forms/berth_visit/behaviours/20-pilot.ts';
    const form = 'home/forms/vessel/form.json';
    const zip = zipSync({
      ...out,
      [pilot]: strToU8(`${strFromU8(out[pilot]!)}// from afar\n`),
      [form]: strToU8(
        strFromU8(out[form]!).replace('"title": "Vessel"', '"title": "Vessel as known"'),
      ),
      'home/shared/money.ts': strToU8('export const FREE = 0;\n'),
    });
    await page.getByRole('link', { name: 'Bring a folder into Quillhaven harbour office' }).click();
    await expect(page).toHaveURL(/\/take$/);
    await expect(async () => {
      await page
        .getByLabel('Zip of the folder')
        .setInputFiles({ name: 'afar.zip', mimeType: 'application/zip', buffer: Buffer.from(zip) });
      await expect(page.getByText('afar.zip would change 3 things.')).toBeVisible({
        timeout: 10_000,
      });
    }).toPass();
    await expect(page.getByRole('row').filter({ hasText: 'forms/vessel/form.json' })).toContainText(
      'title',
    );
    expect(await seriousOn(page)).toEqual([]);
    await page.getByLabel('Take forms/berth_visit/behaviours/20-pilot.ts').uncheck();
    await page.getByRole('button', { name: 'Take 2 things' }).click();
    await expect(page.getByText('2 things of afar.zip are in the workspace now.')).toBeVisible();
    await page.getByRole('link', { name: 'Forms', exact: true }).click();
    await expect(page.getByRole('link', { name: 'Vessel as known', exact: true })).toBeVisible();
    await page.goto('/take');
    await page.getByRole('button', { name: 'Undo afar.zip' }).click();
    await expect(page.getByText('It is as it was before.')).toBeVisible();
    await page.goto('/');
    await expect(page.getByRole('link', { name: 'Vessel', exact: true })).toBeVisible();
  },
);

test('records come in from a file as entries by hand, with the refused lines named', async ({
  page,
}) => {
  await beSomebody(page, 'mira');
  await page.goto('/records/waste_declaration');
  await expect(async () => {
    await page.getByRole('button', { name: 'Bring in…' }).click();
    await expect(page.getByRole('button', { name: /^Choose CSV/ })).toBeVisible({
      timeout: 10_000,
    });
  }).toPass();
  await page.getByLabel('File with records').setInputFiles({
    name: 'wastes.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'vessel;wastes;keeps_some;tank;sewage_volume\nHalcyon Ore;sewage;no;Tank 2;4,5\nTern;sewage;no;;\nTern;nothing;no;;\n',
    ),
  });
  await page.getByRole('button', { name: 'Enter 3 records' }).click();
  await expect(page.getByText('1 of 3 records entered, 2 records refused')).toBeVisible();
  const refused = page.getByRole('region', { name: 'Refused lines' });
  await expect(refused).toContainText('line 3: Tank or drum: This has to be filled in.');
  await expect(refused).toContainText('line 4: What is on board (choices) takes one of the keys');
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'Halcyon Ore' })).toHaveCount(1);
});

test('a page with an HTML form becomes a form, after it was seen', WHOLE, async ({ page }) => {
  await page.goto('/');
  await expect(async () => {
    await page.getByLabel('JSON Schema or HTML page').setInputFiles({
      name: 'light.html',
      mimeType: 'text/html',
      buffer: Buffer.from(
        '<h1>Quay light</h1><form><label>Light <select name=light required><option value="">Choose<option value=n>North</select></label><label><input type=checkbox name=seen required> Seen by myself</label><input type=color name=shade></form>',
      ),
    });
    await expect(page.getByText('What light.html becomes')).toBeVisible({ timeout: 10_000 });
  }).toPass();
  await expect(page.getByRole('region', { name: 'Preview' })).toContainText(
    'shade: type "color" is taken as a text',
  );
  await page.getByRole('button', { name: 'Make form' }).click();
  await expect(page).toHaveURL(/\/bench\/quay_light$/);
  await expect(
    page.getByRole('region', { name: 'Live form' }).getByText('Seen by myself'),
  ).toBeVisible();
  await expect(editor(page)).toContainText('This has to be ticked.');
});

test(
  'shared code changed on one form: a scenario of another one fails for it, and says so there',
  WHOLE,
  async ({ page }) => {
    await page.goto('/bench/waste_declaration?behaviour=shared/dates.ts&line=5');
    await expect(editor(page)).toContainText('export function daysFromTo');
    const others = page.getByRole('group', { name: 'In other forms' });
    await expect(others).toContainText(
      'Also in Berth visit request, Crew change: ✓ nothing found there',
    );
    // A name that a form has is none here.
    await editor(page).click();
    await page.keyboard.press('Control+End');
    await page.keyboard.insertText('export const first = () => fields.vessel.value;\n');
    await expect(page.getByText(/A shared module has no form of its own/).first()).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(page.getByText(/A shared module has no form of its own/)).toHaveCount(0);

    const line = editor(page).locator('.cm-line').filter({ hasText: '.days + 1;' });
    await line.click();
    await page.keyboard.press('End');
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.insertText('0');
    await expect(others).toContainText(
      'Berth visit request, scenario “Dues, with a tenth less from the eighth day”',
    );
    // The form on the bench does not use it for anything that its own scenarios see.
    await expect(page.getByRole('button', { name: '✓ 4 scenarios' })).toBeVisible();
    await page.keyboard.press('Backspace');
    await expect(others).toContainText('✓ nothing found there');

    // Renamed in the module and in every script that imports it.
    await editor(page)
      .locator('.cm-line')
      .filter({ hasText: 'export function daysFromTo' })
      .click();
    await page.keyboard.press('Home');
    for (const _ of ['export', 'function']) await page.keyboard.press('Control+ArrowRight');
    for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
    await page.keyboard.press('F2');
    await page.getByLabel('New name').fill('daysOfStay');
    await page.keyboard.press('Enter');
    await expect(page.getByText('Renamed in 2 scripts, of other forms too.')).toBeVisible();
    await page.goto('/bench/berth_visit?behaviour=40-dues.ts&line=3');
    await expect(editor(page)).toContainText('import { daysOfStay } from "shared/dates"');
    await editor(page).locator('.cm-line').filter({ hasText: 'import { daysOfStay }' }).click();
    await expect(page.getByRole('button', { name: '✓ 7 scenarios' })).toBeVisible();
    // F12 leads from the call to the module.
    await page.keyboard.press('Home');
    for (const _ of ['import', '{']) await page.keyboard.press('Control+ArrowRight');
    for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
    await page.keyboard.press('F12');
    await expect(page.getByRole('tab', { name: 'Dates' })).toHaveAttribute('aria-selected', 'true');
  },
);

test(
  'a behaviour for several forms and a module are made on the bench',
  WHOLE,
  async ({ page }) => {
    await page.goto('/bench/works_permit');
    await expect(editor(page)).toBeVisible();
    const add = async (title: string, sort: string) => {
      await page.getByRole('button', { name: '+ new' }).click();
      await page.getByLabel('What it is for').selectOption({ label: sort });
      await page.getByLabel('Title of the new behaviour').fill(title);
      await page.keyboard.press('Enter');
    };
    await add('Greeting', 'for several forms');
    await expect(editor(page)).toContainText('@forms works_permit');
    await page.keyboard.insertText('on.load(() => form.message("Mind the edge."));\n');
    const live = page.getByRole('region', { name: 'Live form' });
    await expect(live.getByText('Mind the edge.')).toBeVisible();
    await editor(page).getByText('@forms works_permit').click();
    await page.keyboard.press('End');
    await page.keyboard.insertText(', vessel');
    await expect(page.getByRole('group', { name: 'In other forms' })).toContainText(
      'Also in Vessel',
    );
    await page.goto('/bench/vessel');
    await expect(live.getByText('Mind the edge.')).toBeVisible();
    await add('Knots', 'shared module');
    await expect(page.getByRole('tab', { name: 'Knots' })).toHaveAttribute('aria-selected', 'true');
    await expect(editor(page)).toContainText('export function name(): void {}');
  },
);

test(
  'a folder is pulled from the app and pushed to it, and what both changed is named',
  WHOLE,
  async ({ page }) => {
    const folder = join(process.env.TAVRO_E2E_FOLDERS!, 'pulled');
    const tavro = (...args: string[]) =>
      spawnSync('node', ['dist/tavro.mjs', ...args, '--app', process.env.TAVRO_URL!], {
        encoding: 'utf8',
      });
    expect(tavro('pull', folder).stdout).toMatch(/pulled \d+\n$/);
    expect(tavro('pull', folder).stdout).toBe('nothing to pull\n');
    const file = join(folder, 'forms/crew_change/behaviours/30-numbers.ts');
    writeFileSync(file, `${readFileSync(file, 'utf8')}// pushed\n`);
    expect(tavro('push', folder).stdout).toBe(
      'forms/crew_change/behaviours/30-numbers.ts: 1 line added, 0 lines removed\npushed 1\n',
    );
    await page.goto('/bench/crew_change?behaviour=30-numbers.ts&line=1');
    await expect(editor(page)).toContainText('// pushed');
    await editor(page).click();
    await page.keyboard.press('Control+Home');
    await page.keyboard.insertText('// from the bench\n');
    await expect(page.getByText(/saved, revision 3/)).toBeVisible();
    // Changed on both sides: named, and left as it is on both.
    writeFileSync(file, `${readFileSync(file, 'utf8')}// pushed again\n`);
    const pushed = tavro('push', folder);
    expect([pushed.status, pushed.stdout]).toEqual([1, 'nothing to push\n']);
    expect(pushed.stderr).toContain('30-numbers.ts: changed here and in the app; left as it is');
    expect(tavro('pull', folder).status).toBe(1);
    expect(readFileSync(file, 'utf8')).toContain('// pushed again');
    expect(tavro('pull', folder, '--force').status).toBe(0);
    expect(readFileSync(file, 'utf8')).toContain('// from the bench');
    // A broken folder is named by file and line before anything is sent.
    writeFileSync(join(folder, 'workspace.json'), '{');
    expect(tavro('push', folder).stderr).toContain('workspace.json:1:');
  },
);
