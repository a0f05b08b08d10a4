/** Rows, pages, search, files, parent and child: the larger parts of a form as people and developers meet them. */
import { createHash } from 'node:crypto';
import type { Locator, Page } from '@playwright/test';
import {
  beSomebody,
  copyOf,
  expect,
  OWN,
  seriousOn,
  test,
  visited,
  WHOLE,
  workspaceOf,
} from './workspace';

test.use({ file: workspaceOf('kinds') });

/** Answers what a visit opened from a vessel still asks for. */
async function fillVisit(visit: Locator | Page): Promise<void> {
  await visit.locator('[id$="field-vessel_kind"]').selectOption('coaster');
  await visit.locator('[id$="field-contact"]').fill('crew@marrow.example');
  await visit.locator('[id$="field-arrival"]').fill('2031-06-01');
  await visit.locator('[id$="field-departure"]').fill('2031-06-03');
  await visit.locator('[id$="field-berth"]').selectOption({ index: 1 });
  await visit.locator('[id$="field-pilot_choice"]').selectOption('none');
}

test.beforeEach(({ page }) => beSomebody(page, 'mira'));

test('rows by keyboard: Enter goes down and adds, arrows go up and down, Alt with an arrow moves, and scripts see each row by itself', async ({
  page,
}) => {
  await page.goto('/fill/berth_visit?record=2');
  await page.getByRole('button', { name: '2 Cargo and dues' }).click();
  const table = page.getByRole('table', { name: /Cargo on board/ });
  const goods = table.getByLabel(/^Goods, row/);
  await expect(goods).toHaveCount(2);
  await goods.nth(1).focus();
  await page.keyboard.press('Enter');
  await expect(goods).toHaveCount(3);
  await expect(goods.nth(2)).toBeFocused();
  await page.keyboard.type('Turpentine');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Class 3');
  await expect(table.getByLabel('UN number, row 3')).toBeVisible();
  await expect(table.getByLabel('UN number, row 1')).toHaveCount(0);
  await expect(page.getByTestId('announcements')).toContainText('UN number in row 3 is shown.');
  await goods.nth(2).focus();
  await page.keyboard.press('ArrowUp');
  await expect(goods.nth(1)).toBeFocused();
  await page.keyboard.press('Alt+ArrowUp');
  await expect(goods.first()).toHaveValue('Marine paint');
  await expect(goods.first()).toBeFocused();
  await expect(table.getByLabel('UN number, row 1')).toHaveValue('1263');
  await page.getByRole('button', { name: 'Remove row 3' }).click();
  await expect(goods).toHaveCount(2);
  await expect(page.locator(':focus')).toHaveCount(1);
  expect(await seriousOn(page)).toEqual([]);
});

test(
  'five thousand rows scroll, and only those in view are drawn',
  WHOLE,
  async ({ page, request }) => {
    test.slow();
    const cargo = Array.from({ length: 5000 }, (_, i) => ({
      goods: `Lot ${i + 1}`,
      goods_class: i % 7 === 0 ? 'class_3' : 'general',
      weight: 1,
      un_number: i % 7 === 0 ? '1263' : null,
    }));
    const id = await visited(request, { vessel: 'Long Haul', cargo });
    await page.goto(`/fill/berth_visit?record=${id}`);
    await page.getByRole('button', { name: '2 Cargo and dues' }).click();
    const table = page.getByRole('table', { name: /Cargo on board/ });
    await expect(page.getByText('5000 rows')).toBeVisible();
    const drawn = await table.getByRole('row').count();
    expect(drawn).toBeLessThan(60);
    await page
      .getByRole('region', { name: /Cargo on board/ })
      .evaluate((element) => element.scrollTo({ top: element.scrollHeight }));
    await expect(table.getByLabel('Goods, row 5000')).toHaveValue('Lot 5000');
    await table.getByLabel('Weight, row 5000').fill('2');
    await page.keyboard.press('Tab');
    await expect(page.getByText('5001 t in 5000 lots.')).toBeVisible();
  },
);

test(
  'a page is checked when it is left, and what is wrong on another page is gone to at the submission',
  WHOLE,
  async ({ page }) => {
    await page.goto('/fill/works_permit');
    await page.locator('#field-works_kind').selectOption('hot');
    await page.getByRole('button', { name: '2 Safety' }).click();
    await expect(page.locator('#field-description')).toHaveAttribute('aria-invalid', 'true');
    await page.locator('#field-description').fill('Weld the ladder.');
    await page.locator('#field-berth').selectOption('nq2');
    await page.locator('#field-begins').fill('2031-05-06T08:00');
    await page.locator('#field-ends').fill('2031-05-06T11:30');
    await page.locator('#field-ends').press('Enter');
    await expect(page.locator('#field-hours')).toHaveValue('3.5');
    await page.getByRole('button', { name: '2 Safety' }).click();
    await expect(page.getByText('Hot works need extinguishers on site.')).toBeVisible();
    await page.getByRole('button', { name: '1 Works' }).click();
    await page.getByRole('button', { name: 'Submit' }).click();
    await expect(page.getByText(/fields need attention/)).toBeVisible();
    await expect(page.locator('#field-leader_phone')).toBeFocused();
    await expect(page.getByRole('list', { name: 'Full examination' })).toBeVisible();
    expect(await seriousOn(page)).toEqual([]);
    await page.getByRole('button', { name: '1 Works' }).click();
    await page.locator('#field-works_kind').selectOption('inspection');
    await expect(page.getByText('An inspection needs no permit.')).toBeVisible();
    await expect(page.locator('#field-works_kind')).toHaveCount(0);
  },
);

test('a file is kept by the server with the record, and only when its content has arrived', async ({
  page,
  request,
}) => {
  await page.goto('/fill/works_permit?record=1');
  await page.locator('#field-works_kind').selectOption('lifting');
  await page.getByRole('button', { name: '2 Safety' }).click();
  const chosen = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose a file' }).click();
  await (
    await chosen
  ).setFiles({
    name: 'plan.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('%PDF-1.4 a plan'),
  });
  await expect(page.getByText('plan.pdf (15 bytes)')).toBeVisible();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved as record 1')).toBeVisible();
  const kept = await request.get(
    `/api/fill/works_permit/files?record=1&field=plan&name=plan.pdf&digest=${createHash('sha256').update('%PDF-1.4 a plan').digest('hex')}`,
  );
  expect([kept.status(), await kept.text(), kept.headers()['content-disposition']]).toEqual([
    200,
    '%PDF-1.4 a plan',
    "attachment; filename*=UTF-8''plan.pdf",
  ]);
  const forged = await request.post('/api/fill/works_permit/submissions', {
    headers: OWN,
    data: {
      record: '1',
      values: { plan: [{ name: 'other.pdf', size: 3, type: 'application/pdf' }] },
    },
  });
  expect([forged.status(), ((await forged.json()) as { says: string }).says]).toEqual([
    422,
    'The content of other.pdf has not arrived. Choose the file again.',
  ]);
});

test(
  'a vessel lists its visits; one added from there sets the vessel’s field when it is saved, and that settles there',
  WHOLE,
  async ({ page }) => {
    await page.goto('/fill/vessel?record=v-021');
    await expect(page.getByText('0 records')).toBeVisible();
    await expect(page.getByLabel('Not seen yet')).toBeChecked();
    await page.getByRole('button', { name: 'Add to visits of this vessel' }).click();
    const child = page.getByRole('dialog');
    await expect(child.locator('#over-field-vessel')).toHaveValue('Marrow Star');
    await expect(child.locator('#over-field-vessel_record')).toHaveValue('v-021');
    await expect(child.locator('#over-field-vessel')).toHaveAttribute('readonly', '');
    await fillVisit(child);
    expect(await seriousOn(page)).toEqual([]);
    await child.getByRole('button', { name: 'Submit' }).click();
    await expect(child).toHaveCount(0);
    await expect(page.getByText('1 record', { exact: true })).toBeVisible();
    await expect(page.getByLabel('Known')).toBeChecked();
    const latest = await page.locator('#field-latest_visit').inputValue();
    expect(latest).not.toBe('');
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('Saved as record v-021')).toBeVisible();
    await page.goto('/fill/vessel');
    await page.locator('#field-imo').fill('9900033');
    await page.keyboard.press('Tab');
    await expect(page.getByText('Asking the ship register…')).toBeVisible();
    await expect(page.locator('#field-name')).toHaveValue('Aurelle');
  },
);

test('next and previous record without leaving the form; changes are asked about, and viewing changes nothing', async ({
  page,
}) => {
  await page.goto('/fill/vessel?record=v-033');
  await expect(page.locator('#field-name')).toHaveValue('Halcyon Ore');
  const button = page.getByRole('button', { name: 'Previous' });
  const away = (await button.isEnabled()) ? button : page.getByRole('button', { name: 'Next' });
  await page.locator('#field-name').fill('Halcyon Ore II');
  await page.keyboard.press('Tab');
  await away.click();
  await expect(page.getByText('What you changed in this record is not saved.')).toBeVisible();
  await page.getByRole('button', { name: 'Go without saving' }).click();
  await expect(page.locator('#field-name')).not.toHaveValue(/Halcyon/);
  await page.goto('/fill/vessel?record=v-033&view');
  await expect(page.locator('#field-name')).toHaveAttribute('readonly', '');
  await expect(page.getByRole('button', { name: 'Save' })).toHaveCount(0);
});

test('a table of ten thousand rows is searched while typing', WHOLE, async ({ page, request }) => {
  const rows = Array.from({ length: 10_000 }, (_, i) => ({
    code: `p${i}`,
    name: `Port ${i} of ${['Ostrel', 'Venn', 'Caldmoor'][i % 3]}`,
  }));
  const table = {
    name: 'ports',
    title: 'Ports',
    key: 'code',
    label: 'name',
    columns: [
      { name: 'code', kind: 'text' },
      { name: 'name', kind: 'text' },
    ],
    rows,
  };
  expect(
    (await request.put('/api/tables/ports', { headers: OWN, data: { table, from: 0 } })).ok(),
  ).toBe(true);
  await page.goto(`/bench/${await copyOf(request, 'crew_change')}`);
  await expect(page.getByRole('heading', { name: 'Crew change', level: 2 })).toBeVisible();
  await page.getByRole('tab', { name: 'Structure' }).click();
  await page
    .locator('[data-item=vessel]')
    .getByRole('button', { name: /^Vessel/ })
    .click();
  await page.getByLabel('What to add').selectOption('reference');
  await page.getByLabel('Label of the new part').fill('Next port');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page
    .getByRole('region', { name: 'The part chosen' })
    .getByRole('combobox', { name: 'Table' })
    .selectOption('ports');
  const search = page.locator('#field-next_port');
  await expect(search).toHaveAttribute('role', 'combobox');
  await search.click();
  await search.fill('9876 venn');
  await expect(page.getByText('Nothing found')).toBeVisible();
  await search.fill('9877 ');
  await page.getByRole('option', { name: 'Port 9877 of Venn' }).click();
  await expect(search).toHaveValue('Port 9877 of Venn');
  await expect(page.getByText('structure saved')).toBeVisible();
});

test(
  'structure is edited on the bench: options, order by keyboard, undo, renaming everywhere, removal with what it breaks',
  WHOLE,
  async ({ page }) => {
    test.slow();
    await page.goto(`/bench/${await copyOf(page.request, 'waste_declaration')}`);
    await expect(page.getByRole('button', { name: '✓ 4 scenarios' })).toBeVisible();
    await page.getByRole('tab', { name: 'Structure' }).click();
    const parts = page.getByRole('region', { name: 'Parts in their order' });
    const part = page.getByRole('region', { name: 'The part chosen' });
    const item = (name: string) => parts.locator(`[data-item="${name}"]`);
    // A new field is at hand at once, in the live form and in the editor.
    await item('vessel')
      .getByRole('button', { name: /^Vessel/ })
      .click();
    await page.getByLabel('Label of the new part').fill('Agent on duty');
    await page.keyboard.press('Enter');
    await expect(page.locator('#field-agent_on_duty')).toBeVisible();
    await item('agent_on_duty').getByRole('button', { name: 'Agent on duty up' }).click();
    await expect(parts.locator('[data-item]').nth(2)).toHaveAttribute('data-item', 'agent_on_duty');
    await page.getByRole('tab', { name: 'Fee' }).click();
    await page.locator('.cm-content').click();
    await page.keyboard.press('Control+End');
    await page.keyboard.type('on.load(() => { fields.agent_on');
    await expect(page.locator('.cm-tooltip-autocomplete')).toContainText('agent_on_duty');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Control+z');
    await expect(page.locator('.cm-content')).not.toContainText('agent_on');
    await page.getByRole('tab', { name: 'Structure' }).click();
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await expect(page.locator('#field-agent_on_duty')).toHaveCount(0);
    // By drag handle and keyboard alone.
    await item('tank').getByRole('button', { name: 'Move Tank or drum' }).focus();
    const isOver = (name: string) =>
      expect(page.getByText(`was moved over droppable area ${name}`)).toHaveCount(1);
    await page.keyboard.press('Space');
    await isOver('tank');
    await page.keyboard.press('ArrowUp');
    await isOver('wastes');
    await page.keyboard.press('Space');
    await expect(parts.locator('[data-item]').nth(3)).toHaveAttribute('data-item', 'tank');
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    // A hidden part that keeps its space leaves its place empty; others close up.
    await expect(page.locator('[data-kept=next_port]')).toHaveCount(0);
    await item('next_port')
      .getByRole('button', { name: /^Port where/ })
      .click();
    await part.getByLabel('keeps its space').check();
    await expect(page.locator('[data-kept=next_port]')).toHaveCount(1);
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    // A key in use warns.
    await item('wastes')
      .getByRole('button', { name: /^What is on board/ })
      .click();
    await part.getByRole('button', { name: 'Remove Sludge' }).click();
    await expect(part.getByText('The key sludge is in use')).toBeVisible();
    await part.getByRole('button', { name: 'Keep it' }).click();
    // Renaming, after a look at what will change; something was done in the form before.
    await page.locator('#field-vessel').fill('Tern');
    await page.keyboard.press('Tab');
    await item('tank')
      .getByRole('button', { name: /^Tank or drum/ })
      .click();
    await expect(page.getByText('structure saved')).toBeVisible();
    await part.getByRole('button', { name: 'rename' }).click();
    await part.getByLabel('New technical name').fill('kept_in');
    await part.getByRole('button', { name: 'Show what changes' }).click();
    const preview = page.getByRole('region', { name: 'What renaming changes' });
    await expect(
      preview.getByText('fields.kept_in.required = fields.kept_in.shown;'),
    ).toBeVisible();
    await expect(
      preview.getByText('The agent declares and finds the reception locked'),
    ).toBeVisible();
    await expect(preview.getByText('1 record will hold it under the new name.')).toBeVisible();
    expect(await seriousOn(page)).toEqual([]);
    await part.getByRole('button', { name: 'Rename everywhere' }).click();
    // It stays in Structure, with the steps done so far, and can be undone.
    const renamed = page.getByText('tank is kept_in everywhere now.');
    await expect(renamed).toBeVisible();
    await expect(page.getByText('after step 1 of 1')).toBeVisible();
    await expect(part.getByRole('heading', { name: 'Tank or drum' })).toBeVisible();
    await page.getByRole('tab', { name: 'What each waste asks for' }).click();
    await expect(page.locator('.cm-content')).toContainText('fields.kept_in.shown');
    await page.getByRole('tab', { name: 'Structure' }).click();
    await renamed.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('kept_in is tank everywhere now.')).toBeVisible();
    await page.getByRole('button', { name: 'Undo renaming' }).click();
    await expect(renamed).toBeVisible();
    // Removing says first what it breaks; the part is still the one chosen.
    await part.getByRole('button', { name: 'Remove this part' }).click();
    await expect(part.getByText('What each waste asks for, lines')).toBeVisible();
    await part.getByRole('button', { name: 'Keep it' }).click();
  },
);

test(
  'a table is edited, and CSV comes in after a preview that names bad cells',
  WHOLE,
  async ({ page }) => {
    await page.goto('/tables/waste_tariffs');
    const csv = (text: string) => ({
      name: 'tariffs.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(text),
    });
    await page.getByRole('button', { name: 'Import CSV…' }).click();
    const box = page.getByRole('region', { name: 'Import CSV' });
    await box
      .locator('input[type=file]')
      .setInputFiles(csv('code,name,rate\noily,Oily waste,dear\nash,Ash,12\n'));
    await expect(box.getByText('line 2, rate: "dear" is not a number')).toBeVisible();
    await expect(box.getByRole('button', { name: 'Replace all rows' })).toBeDisabled();
    await box.locator('input[type=file]').setInputFiles(csv('code,name,rate\nash,Ash,12\n'));
    await box.getByRole('button', { name: 'Add rows with new keys' }).click();
    await expect(page.getByLabel('Name, row 5')).toHaveValue('Ash');
    await page.getByLabel('Crowns a cubic metre, row 5').fill('13');
    await page.keyboard.press('Tab');
    await expect(page.getByText('saved', { exact: true })).toBeVisible();
    expect(await seriousOn(page)).toEqual([]);
    expect(await (await page.request.get('/api/tables/waste_tariffs')).text()).toContain(
      'ash,Ash,13',
    );
    await page.getByRole('button', { name: 'Remove table' }).click();
    await expect(
      page.getByText('The behaviour 30-fee.ts of waste_declaration uses this table. It stays.'),
    ).toBeVisible();
  },
);

test(
  'a service is tried as it stands on its page, and its script is checked',
  WHOLE,
  async ({ page }) => {
    await page.goto('/services/tide_gauge');
    const level = page.getByRole('region', { name: 'tide_gauge.level' });
    await level.getByRole('textbox', { name: 'day', exact: true }).fill('2031-05-02');
    await level.getByRole('button', { name: 'Try level' }).click();
    await expect(level.getByRole('status', { name: 'What level answers' })).toContainText(
      '"level": ',
    );
    await level.getByLabel('Script of level').fill('return { level: dayy };');
    await expect(level.getByText('line 1')).toBeVisible();
    await expect(level).toContainText('dayy');
    await level.getByLabel('Script of level').fill('return { level: 2.5 };');
    await expect(level.getByText('line 1')).toHaveCount(0);
    await level.getByRole('button', { name: 'Try level' }).click();
    await expect(level.getByRole('status', { name: 'What level answers' })).toContainText(
      '"level": 2.5',
    );
    await level.getByRole('textbox', { name: 'day', exact: true }).fill('soon');
    await level.getByRole('button', { name: 'Try level' }).click();
    await expect(level.getByRole('status', { name: 'What level answers' })).toContainText(
      'day takes a date spelled YYYY-MM-DD, not “soon”',
    );
  },
);

test(
  'people and services are edited; what is changed is saved by itself',
  WHOLE,
  async ({ page }) => {
    await page.goto('/people');
    await page.getByLabel('Name of a new person').fill('Orla Fenwick');
    await page.keyboard.press('Enter');
    const roles = page.getByRole('group', { name: 'Roles of Orla Fenwick' });
    await expect(roles.getByLabel('Harbour clerk')).toBeChecked();
    await expect(roles.getByLabel('Harbour clerk')).toBeDisabled();
    await roles.getByLabel('Harbour master').check();
    await roles.getByLabel('Harbour clerk').uncheck();
    await expect(roles.getByLabel('Harbour master')).toBeDisabled();
    await expect(page.getByText('saved', { exact: true })).toBeVisible();
    expect(await seriousOn(page)).toEqual([]);
    await page.goto('/services/ship_register');
    await page.getByLabel('Answers after, ms').fill('150');
    await expect(page.getByText('saved', { exact: true })).toBeVisible();
    expect(await seriousOn(page)).toEqual([]);
    await page.goto('/bench/vessel');
    await expect(page.getByLabel('As whom')).toContainText('Orla Fenwick');
  },
);

test(
  'a form replaced by a message offers its last answer again, and no submission',
  WHOLE,
  async ({ page }) => {
    await page.goto('/fill/works_permit');
    await page.locator('#field-works_kind').selectOption('inspection');
    await expect(page.getByText('An inspection needs no permit.')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Submit' })).toHaveCount(0);
    expect(await seriousOn(page)).toEqual([]);
    await page.getByRole('button', { name: 'Change the last answer' }).press('Enter');
    await expect(page.locator('#field-works_kind')).toBeFocused();
    await expect(page.getByRole('button', { name: 'Submit' })).toHaveCount(0);
    await page.locator('#field-works_kind').selectOption('painting');
    await expect(page.getByText('An inspection needs no permit.')).toHaveCount(0);
    await expect(page.locator('#field-description')).toBeVisible();
  },
);

test(
  'a launch parameter of another kind is refused before the form is opened',
  WHOLE,
  async ({ page }) => {
    await page.goto('/fill/berth_visit?vessel=Aurelle&tide=3');
    await expect(page.locator('#field-vessel')).toHaveValue('Aurelle');
    expect(
      (
        await page.request.post('/api/fill/berth_visit/handouts', {
          headers: OWN,
          data: { launch: { vessel: { deep: true } } },
        })
      ).status(),
    ).toBe(422);
  },
);

test(
  'opened in another time zone, date-times are shown there and scripts reckon in it; a warning does not stop the form',
  WHOLE,
  async ({ page }) => {
    await page.goto('/bench/works_permit');
    await page.keyboard.press('Alt+o');
    await page.getByLabel('Time zone').fill('Nowhere/Else');
    await page.getByRole('button', { name: 'Open like this' }).click();
    await expect(page.getByText('“Nowhere/Else” is not the name of a time zone')).toBeVisible();
    await page.getByLabel('Time zone').fill('Asia/Tokyo');
    await page.getByRole('button', { name: 'Open like this' }).click();
    const form = page.getByRole('region', { name: 'Live form' });
    await page.locator('#field-begins').fill('2031-06-02T18:00');
    await page.locator('#field-ends').fill('2031-06-02T23:00');
    await page.keyboard.press('Tab');
    await expect(
      form.getByText('The works go into the night: a watchman stays with them.'),
    ).toBeVisible();
    await expect(page.locator('#field-ends')).toHaveValue('2031-06-02 23:00');
    await expect(page.locator('#field-ends')).toHaveAttribute('aria-invalid', 'false');
    await expect(page.getByText('2031-06-02T14:00:00Z').first()).toBeVisible();
    expect(await seriousOn(page)).toEqual([]);
  },
);

test(
  'on the bench a service is answered by hand, slow or failing for this session',
  WHOLE,
  async ({ page }) => {
    await page.goto('/bench/vessel');
    await expect(page.getByRole('heading', { name: 'Vessel', level: 2 })).toBeVisible();
    await page.keyboard.press('Alt+o');
    await page.getByLabel('ship_register.find').selectOption({ label: 'I answer by hand' });
    await page.getByRole('button', { name: 'Open like this' }).click();
    await page.locator('#field-imo').fill('9900033');
    await page.keyboard.press('Tab');
    await expect(
      page.getByText(/Waiting for ship_register.find .* until it is answered by hand/),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Answer…' }).click();
    const answer = page.getByLabel('What ship_register.find answers, as JSON');
    await answer.fill(
      '{"imo":"9900033","name":"By Hand","call_sign":"QX","kind":"tug","length":30,"draught":3}',
    );
    await page.getByRole('button', { name: 'Send this answer' }).click();
    await expect(page.locator('#field-name')).toHaveValue('By Hand');
    await page.locator('#field-imo').fill('9900045');
    await page.keyboard.press('Tab');
    await page.getByRole('button', { name: 'Fail', exact: true }).click();
    await expect(
      page
        .getByRole('region', { name: 'Live form' })
        .getByText('The register does not answer. Fill the vessel in by hand.'),
    ).toBeVisible();
  },
);

test(
  'on the bench too a form opened from another hands its value back, and it settles there',
  WHOLE,
  async ({ page, context }) => {
    test.slow();
    await page.goto('/bench/vessel?record=v-021');
    await expect(page.locator('#field-name')).toHaveValue('Marrow Star');
    const opened = context.waitForEvent('page');
    await page.getByRole('button', { name: 'Add to visits of this vessel' }).click();
    const child = await opened;
    await expect(child.locator('#field-vessel')).toHaveValue('Marrow Star');
    await fillVisit(child);
    await child.getByRole('button', { name: 'Submit' }).click();
    await expect(child.getByText('✓ would be saved')).toBeVisible();
    await expect(page.locator('#field-latest_visit')).toHaveValue('new');
    await expect(page.getByLabel('Known')).toBeChecked();
    await page.bringToFront();
    await page.keyboard.press('Alt+t');
    await expect(page.getByText('a form opened from here set Latest visit to new')).toBeVisible();
  },
);
