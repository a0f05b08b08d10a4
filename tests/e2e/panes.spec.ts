/** An error while a pane is drawn takes down that pane alone. Each is made to throw by changing what the browser loads. */
import type { Page } from '@playwright/test';
import { expect, openBench, test, WHOLE, workspaceOf } from './workspace';

test.use({ file: workspaceOf('panes') });

interface Fallen {
  pane: string;
  /** A text of the pane that it draws whatever it shows. */
  draws: string;
  /** What brings it on the page; it is there from the start where nothing does. */
  open?: (page: Page) => Promise<unknown>;
}

const drawer = (page: Page) => page.keyboard.press('Alt+t');
const tab = (name: string) => (page: Page) => page.getByRole('tab', { name, exact: true }).click();

function inDrawer(name: string) {
  return async (page: Page) => {
    await drawer(page);
    await tab(name)(page);
  };
}

const PANES: Fallen[] = [
  {
    pane: 'The head of the bench',
    draws: 'Reopen the form without the steps done so far',
  },
  { pane: 'The outline', draws: 'Parts of the form' },
  { pane: 'The live form', draws: 'Show technical names (Alt+N)' },
  { pane: 'The strip of steps', draws: 'The step before' },
  { pane: 'The tree of the tape', draws: 'Which steps', open: drawer },
  { pane: 'The answer', draws: 'Ask about any part', open: drawer },
  { pane: 'The tape', draws: 'next, last', open: drawer },
  { pane: 'This tab', draws: 'Which values', open: drawer },
  { pane: 'This tab', draws: 'Watch an expression', open: inDrawer('Watches') },
  { pane: 'This tab', draws: 'No service has been called', open: inDrawer('Calls') },
  { pane: 'This tab', draws: 'Under which conditions', open: inDrawer('Other conditions') },
  { pane: 'This tab', draws: 'Fuel of all runs so far', open: inDrawer('Cost') },
  { pane: 'This pane', draws: 'Every saved revision and its difference' },
  {
    pane: 'This pane',
    draws: 'Back to the code',
    open: (page) => page.getByRole('button', { name: 'History', exact: true }).click(),
  },
  { pane: 'This pane', draws: 'What to add', open: tab('Structure') },
  { pane: 'This pane', draws: 'Who reads and steers what', open: tab('Map') },
  { pane: 'This pane', draws: 'Title of a new scenario', open: tab('Tests') },
  {
    pane: 'The handbook',
    draws: 'Search the handbook',
    open: (page) => page.keyboard.press('Alt+h'),
  },
];

/** Until `mended`, whatever draws this text throws in place of drawing it. */
async function spoil(page: Page, text: string): Promise<{ found: () => boolean }> {
  let found = false;
  const literal = new RegExp(`(["'\`])[^"'\`]*${text.replace(/[()+?]/g, '\\$&')}[^"'\`]*\\1`, 'g');
  await page.addInitScript(() => {
    (globalThis as { spoilt?: boolean }).spoilt = true;
  });
  await page.route('**/_next/static/chunks/**', async (route) => {
    const response = await route.fetch();
    const code = await response.text();
    const changed = code.replace(literal, (as) => {
      found = true;
      return `(()=>{if(globalThis.spoilt)throw Error("made to fail");return ${as}})()`;
    });
    await route.fulfill({ response, body: changed });
  });
  return { found: () => found };
}

/** `npm run attack` has all. */
const QUICK = new Set(['Ask about any part']);

for (const { pane, draws, open } of PANES)
  test(
    `${pane.toLowerCase()} (${draws}) falls alone, says so, and is tried again`,
    QUICK.has(draws) ? {} : WHOLE,
    async ({ page }) => {
      const spoilt = await spoil(page, draws);
      if (draws === 'Parts of the form' || open !== undefined) await openBench(page);
      else await page.goto('/bench/berth_visit');
      await open?.(page);
      const says = page.getByText(`${pane} could not be drawn: made to fail.`);
      await expect(says).toBeVisible();
      expect(spoilt.found()).toBe(true);
      // The rest goes on: the code, and what one does in the form where that is there.
      if (pane !== 'The live form' && pane !== 'The handbook') {
        await page.selectOption('#field-vessel_kind', 'tug');
        await expect(page.getByText('after step 1 of 1')).toBeVisible();
      } else await expect(page.getByRole('navigation', { name: 'Outline' })).toContainText('Form');
      await page.evaluate(() => {
        (globalThis as { spoilt?: boolean }).spoilt = false;
      });
      // A step may have drawn it again already.
      await page.getByRole('button', { name: 'Try again' }).click();
      await expect(says).toHaveCount(0);
      await page.unrouteAll({ behavior: 'ignoreErrors' });
    },
  );
