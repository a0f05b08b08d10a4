/**
 * What tests in the browser stand on: the demo in a database and on a server of its own for each worker, and afresh after
 * a test that failed. Where all tests run, each file has its own; those of `npm test` leave each other alone. Where TAVRO_URL names an app that runs already, that one is used.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { AxeBuilder } from '@axe-core/playwright';
import {
  expect,
  test as base,
  type APIRequestContext,
  type Locator,
  type Page,
} from '@playwright/test';
import { Client } from 'pg';
import { mutatedServer, mutatePages } from '../support/mutants';
import { thorough } from '../support/thorough';

const RUNNING = process.env.TAVRO_URL;

/** A fresh copy of the prepared database. */
async function freshDatabase(name: string): Promise<string> {
  const url = new URL(process.env.DATABASE_URL!);
  const admin = new Client({ connectionString: url.href });
  await admin.connect();
  await admin.query(`drop database if exists ${name} with (force)`);
  await admin.query(`create database ${name} template ${process.env.TAVRO_E2E_TEMPLATE!}`);
  await admin.end();
  url.pathname = `/${name}`;
  return url.href;
}

/** A port that nothing listens on, such as a server that an ended run left behind. */
function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });
}

async function untilServed(url: string, server: ChildProcess): Promise<void> {
  for (;;) {
    if (server.exitCode !== null) throw new Error(`the app at ${url} ended`);
    const there = await fetch(url).then(
      (response) => response.ok,
      () => false,
    );
    if (there) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/** Whose workspace the tests of a file meet. A mutated server notes which file comes to what, and so is its own. */
export const workspaceOf = (file: string) =>
  thorough || process.env.TAVRO_MUTANT !== undefined ? file : 'all';

export const test = base.extend<object, { file: string; app: string }>({
  /** What `workspaceOf` gives: another one gets another worker, and so another workspace. */
  file: ['', { option: true, scope: 'worker' }],
  app: [
    async ({ file }, use, { parallelIndex }) => {
      expect(file, 'each file says test.use({ file: workspaceOf(its name) })').not.toBe('');
      if (RUNNING !== undefined) return use(RUNNING);
      const database = await freshDatabase(`tavro_e2e_${parallelIndex}`);
      const port = await freePort();
      // Folders below this one can be opened.
      const folders = mkdtempSync(join(tmpdir(), 'tavro-e2e-'));
      process.env.TAVRO_E2E_FOLDERS = folders;
      const server = spawn('node', ['scripts/serve.mjs', String(port)], {
        stdio: ['ignore', 'ignore', 'inherit'],
        env: {
          ...process.env,
          NODE_ENV: 'production',
          DATABASE_URL: database,
          TAVRO_FOLDERS: folders,
          NEXT_TELEMETRY_DISABLED: '1',
          ...mutatedServer(`${file}.spec.ts`),
        },
      });
      const gone = new Promise((resolve) => server.once('exit', resolve));
      try {
        process.env.TAVRO_URL = `http://127.0.0.1:${port}`;
        await untilServed(process.env.TAVRO_URL, server);
        await use(process.env.TAVRO_URL);
      } finally {
        server.kill('SIGKILL');
        await gone;
        rmSync(folders, { recursive: true, force: true });
      }
    },
    { scope: 'worker', timeout: 1_200_000 },
  ],
  baseURL: ({ app }, use) => use(app),
  context: async ({ context }, use, { file, line }) => {
    await mutatePages(context, `${basename(file)}:${line}`);
    // What it finds depends on when; only tests of what goes on beside the page have it.
    if (!/(?:finding|comparing)\.spec\.ts$/.test(file))
      await context.addInitScript(() => localStorage.setItem('tavro.search', 'stopped'));
    await use(context);
  },
  page: async ({ page }, use) => {
    pressLikePeople(page);
    await use(page);
  },
});

/** Milliseconds for which a mouse button stays down, at people's usual pace. */
const PRESS = 100;

/** Whatever moves the page under a press takes the click away, which one that lasts no time would not notice. */
function pressLikePeople(page: Page): void {
  const locators = Object.getPrototypeOf(page.locator('body')) as Locator & { patient?: true };
  if (locators.patient) return;
  locators.patient = true;
  const { click } = locators;
  locators.click = function (options) {
    return click.call(this, { delay: PRESS, ...options });
  };
}

export { expect };

/** Marks a test that `npm run attack` runs and `npm test` leaves out: what it shows is shown elsewhere too, in less time. */
export const WHOLE = { tag: '@whole' };

/** Requests that change something say where they come from, as the app's own pages do. */
export const OWN = {
  get origin() {
    return process.env.TAVRO_URL!;
  },
};

const TITLES: Readonly<Record<string, string>> = {
  berth_visit: 'Berth visit request',
  crew_change: 'Crew change',
  vessel: 'Vessel',
  waste_declaration: 'Waste declaration',
  works_permit: 'Quay works permit',
};

/** A copy of one of the demo's forms with its behaviours and scenarios, for a test that changes it. Its technical name. */
export async function copyOf(request: APIRequestContext, form: string): Promise<string> {
  const made = await request.post(`/api/forms/${form}/copies`, {
    headers: OWN,
    data: { title: TITLES[form] },
  });
  expect(made.status()).toBe(201);
  return ((await made.json()) as { name: string }).name;
}

/** Uses the app as one of the demo's people. */
export async function beSomebody({ request }: Page, key: string): Promise<void> {
  expect((await request.post('/api/person', { headers: OWN, data: { key } })).status()).toBe(204);
}

const VISIT = {
  vessel: 'Aurelle',
  vessel_kind: 'coaster',
  length: 60,
  draught: 3,
  contact: 'desk@varrick.example',
  arrival: '2031-06-01',
  departure: '2031-06-02',
  berth: 'nq1',
  pilot_choice: 'none',
};

/** Fills in a berth visit without a page; the id of its record. */
export async function visited(request: APIRequestContext, more: object = {}): Promise<string> {
  const made = await request.post('/api/fill/berth_visit/submissions', {
    headers: OWN,
    data: { values: { ...VISIT, ...more } },
  });
  expect(made.status()).toBe(201);
  return ((await made.json()) as { id: string }).id;
}

/** What axe finds that is serious on a page. */
export async function seriousOn(page: Page): Promise<unknown[]> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => [id, nodes.map(({ html }) => html.slice(0, 160))]);
}

/** The editor of the code. */
export const editor = (page: Page) => page.locator('.cm-content');

/** Opens the bench of a form, or of a copy of the demo's berth visit; gives the form's name. */
export async function openBench(
  page: Page,
  behaviour?: string,
  own?: string,
  title = TITLES.berth_visit,
): Promise<string> {
  const form = own ?? (await copyOf(page.request, 'berth_visit'));
  await page.goto(`/bench/${form}`);
  await expect(page.getByRole('heading', { name: title, level: 2 })).toBeVisible();
  await expect(editor(page)).toBeVisible();
  if (behaviour !== undefined) await page.getByRole('tab', { name: behaviour }).click();
  return form;
}

/** Replaces a text in the script by selecting it, as somebody typing would. */
export async function replaceInScript(page: Page, from: string, to: string): Promise<void> {
  await editor(page).click();
  await page.keyboard.press('Control+f');
  const search = page.locator('.cm-search');
  await search.locator('input[name=search]').fill(from);
  await search.locator('input[name=replace]').fill(to);
  await search.locator('button[name=replaceAll]').click();
  await page.keyboard.press('Escape');
}

/** A press beside a line of the code, where breakpoints are set. */
export async function breakAt(page: Page, line: number): Promise<void> {
  const number = page.locator('.cm-lineNumbers .cm-gutterElement', {
    hasText: new RegExp(`^${line}$`),
  });
  const box = (await number.boundingBox())!;
  await page.mouse.click(box.x - 5, box.y + box.height / 2);
}
