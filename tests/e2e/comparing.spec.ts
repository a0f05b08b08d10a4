/** What an edit changes for people: found on the bench, both versions side by side, accepted; and said before a release. */
import type { Page } from '@playwright/test';
import { copyOf, editor, expect, OWN, seriousOn, test, workspaceOf } from './workspace';

test.use({ file: workspaceOf('comparing') });

const PILOT = 'fields.pilot_licence.required = choice === "own";';
const VALUES = {
  vessel: 'Aurelle 7',
  vessel_kind: 'survey',
  length: 42.5,
  draught: 3.1,
  contact: 'desk@varrick.example',
  arrival: '2031-06-01',
  departure: '2031-06-02',
  berth: 'sq1',
};

/** A copy of the demo's form with a release, on the bench with the pilot's behaviour open. */
async function openPilot(page: Page): Promise<string> {
  const form = await copyOf(page.request, 'berth_visit');
  const made = await page.request.post(`/api/forms/${form}/releases`, { headers: OWN, data: {} });
  expect(made.status()).toBe(201);
  await page.goto(`/bench/${form}`);
  await expect(editor(page)).toBeVisible();
  await page.getByRole('tab', { name: 'Pilot details' }).click();
  await expect(editor(page)).toContainText(PILOT);
  return form;
}

/** Puts other text in place of the line about the licence. */
async function edit(page: Page, form: string, text: string): Promise<void> {
  const { text: now } = (
    (await (
      await page.request.get(`/api/forms/${form}/behaviours/20-pilot.ts/revisions`)
    ).json()) as { text: string }[]
  )[0]!;
  await editor(page).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText(now.replace(PILOT, text));
  await expect(page.getByText(/saved, revision/)).toBeVisible();
}

test('an edit, what it changes for people, both versions side by side, and accepted', async ({
  page,
}) => {
  test.slow();
  const form = await openPilot(page);
  await edit(page, form, 'fields.pilot_licence.required = false;');
  await page.getByRole('button', { name: 'For people: 1 change since release 1' }).click();
  const list = page.getByRole('list', { name: 'What changed for people' });
  const told =
    'Whoever sets Pilot to Own pilot does not have to fill in Pilot licence. In the former version, Pilot licence is required.';
  await expect(list).toContainText(told);
  await expect(page.getByText(/^1 difference in .* which reached/)).toBeVisible();
  expect(await seriousOn(page)).toEqual([]);

  await list.getByRole('button', { name: `Both side by side: ${told}` }).click();
  const former = page.getByRole('region', { name: 'The former version' });
  const live = page.getByRole('region', { name: 'Live form' });
  await expect(page.getByText(/Live form after step 1 of 1/)).toBeVisible();
  await expect(former).toContainText(
    'Pilot licence is not required; in the former version it is required.',
  );
  await expect(former.getByLabel(/^Pilot licence/)).toHaveAttribute('aria-required', 'true');
  await expect(live.getByLabel(/^Pilot licence/)).not.toHaveAttribute('aria-required', 'true');
  expect(await seriousOn(page)).toEqual([]);
  // Done in the former version, it is done in the live form too; and taken back in both.
  await former.getByRole('combobox', { name: /^Pilot required/ }).selectOption('harbour_pilot');
  await expect(live.getByLabel(/^Boarding at/)).toHaveValue('fairway_buoy');
  await expect(former).toContainText('Nothing differs here.');
  await page.getByRole('button', { name: 'Undo step' }).click();
  await expect(former).toContainText('Pilot licence is not required');

  await former.getByRole('button', { name: 'accept as meant' }).click();
  await expect(page.getByText('1 accepted as meant')).toBeVisible();
  await expect(
    page.getByRole('button', { name: 'For people: nothing changed since release 1' }),
  ).toBeVisible();
});

test('before a release what people did is replayed; it is refused, made with a reason, and put back', async ({
  page,
}) => {
  test.slow();
  const form = await openPilot(page);
  const fill = async (pilot: Record<string, unknown>) => {
    const reply = await page.request.post(`/api/fill/${form}/submissions`, {
      headers: OWN,
      data: { values: { ...VALUES, ...pilot } },
    });
    expect(reply.status(), await reply.text()).toBe(201);
  };
  await fill({ pilot_choice: 'none' });
  await fill({ pilot_choice: 'own', pilot_licence: 'QH-1204' });
  await fill({ pilot_choice: 'none' });
  await edit(page, form, 'fields.pilot_licence.required = choice !== "own";');
  await expect(page.getByRole('button', { name: /of 7 fail/ })).toBeVisible();
  await page.getByRole('button', { name: 'Make release 2' }).click();
  const dialog = page.getByRole('dialog');
  const changes = dialog.getByRole('region', { name: 'What changes for people' });
  await expect(changes).toContainText('Pilot licence');
  await expect(changes).toContainText('Of the last 3 filling-ins, 1 ends differently.');
  await expect(
    changes.getByRole('list', { name: 'Filling-ins that end differently' }),
  ).toContainText(
    'Whoever did this does not have to fill in Pilot licence. In the former version, Pilot licence is required.',
  );
  // One of them as a recording, in the release that it was done in.
  const opened = page.waitForEvent('popup');
  await changes.getByRole('button', { name: /^record / }).click();
  await expect((await opened).getByText(/Filling-in \d+, saved as record/)).toBeVisible();

  const make = dialog.getByRole('button', { name: 'Make release 2' });
  await expect(make).toBeDisabled();
  await dialog.getByLabel('Why it is released all the same').fill('The office asks for it.');
  await make.click();
  await expect(page.getByText('Release 2 is out.')).toBeVisible();
  await page.getByRole('button', { name: 'Make release 3' }).click();
  await dialog.getByText('All releases').click();
  await expect(dialog.getByRole('list', { name: 'All releases' })).toContainText(
    '“The office asks for it.”',
  );
  await dialog.getByRole('button', { name: 'put back release 1…' }).click();
  await dialog.getByLabel('Why it is put back').fill('Nobody can submit.');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Release 1 is back, as release 3.')).toBeVisible();
  await page.goto(`/fill/${form}`);
  await page.getByRole('combobox', { name: /^Pilot required/ }).selectOption('own');
  await expect(page.getByLabel(/^Pilot licence/)).toHaveAttribute('aria-required', 'true');
});
