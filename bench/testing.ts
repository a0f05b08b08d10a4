/**
 * What testing costs: the demo's scenario of the pilot in Tavro's thread and on the command line (one core and all),
 * against the same scenario written by hand for jsdom with user-event, jsdom with fireEvent and Chromium through
 * Playwright, over a page that does the same. Then cells of a grid and mutants a second. All in one run.
 */
import { execFileSync } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { fireEvent } from '@testing-library/dom';
import userEvent from '@testing-library/user-event';
import { JSDOM } from 'jsdom';
import { compileMutants } from '../src/core/language/mutating';
import { materialOf } from '../src/core/language/material';
import { combinationsOf, playGrid } from '../src/core/scenario/grid';
import { runScenario } from '../src/core/scenario/run-scenario';
import { takingPart } from '../src/core/script/header';
import { modulesUsed } from '../src/core/script/imports';
import type { Mutant } from '../src/core/script/mutants';
import { scriptsOf } from '../src/core/script/of-form';
import {
  RANDOM_SESSIONS,
  inTrialOrder,
  judge,
  prepare,
  scoreOf,
  type MutantHost,
} from '../src/core/testing/mutation';
import { randomSessions } from '../src/core/testing/random-session';
import { spread } from '../src/core/testing/spread';
import { mentionedIn } from '../src/core/testing/values';
import { readWorkspace } from '../src/core/workspace/workspace';
import { engineInThread } from '../src/workers/engine-in-thread';
import { readFolder } from '../src/workers/files';

const workspace = readWorkspace(readFolder('demo'));
const entry = workspace.forms.find(({ form }) => form.name === 'berth_visit')!;
const { form } = entry;
const sources = scriptsOf(form, entry.behaviours, workspace.shared);
const cast = {
  people: workspace.people,
  records: entry.records,
  forms: workspace.forms,
  scenarios: entry.scenarios,
};
const pilot = entry.scenarios.find(({ name }) => name === 'pilot')!.scenario;

/** The page of the pilot's behaviours by hand: what the scenario touches and no more. */
const PAGE = `<form>
<select id="vessel_kind"><option value=""></option><option value="tanker">Tanker</option><option value="tug">Tug</option></select>
<select id="pilot_choice"><option value=""></option><option value="none">No pilot</option><option value="own">Own pilot</option><option value="harbour_pilot">Harbour pilot</option></select>
<input id="refusal_reason"><div id="pilot"><input id="pilot_licence"><select id="pilot_boarding"><option value=""></option><option value="fairway_buoy">Fairway buoy</option></select></div>
<div id="cargo_part"></div></form>`;
const SCRIPT = `
const by = (id) => document.getElementById(id);
const show = (id, on) => { by(id).hidden = !on; };
function follow() {
  const choice = by('pilot_choice').value, kind = by('vessel_kind').value;
  show('pilot', choice === 'harbour_pilot' || choice === 'own');
  by('pilot_boarding').required = choice === 'harbour_pilot';
  show('pilot_licence', choice === 'own');
  by('pilot_licence').required = choice === 'own';
  const without = kind === 'tanker' && choice === 'none';
  show('refusal_reason', without);
  by('refusal_reason').required = without;
  show('cargo_part', kind !== 'tug');
}
by('pilot_choice').addEventListener('change', () => { if (by('pilot_choice').value === 'harbour_pilot' && by('pilot_boarding').value === '') by('pilot_boarding').value = 'fairway_buoy'; follow(); });
by('vessel_kind').addEventListener('change', follow);
follow();`;

const demand = (holds: unknown): void => {
  if (holds !== true) throw new Error('the scenario by hand does not pass');
};

async function inJsdom(how: 'user-event' | 'fireEvent'): Promise<void> {
  const dom = new JSDOM(`<!doctype html><body>${PAGE}</body>`, { runScripts: 'outside-only' });
  const { document } = dom.window;
  dom.window.eval(SCRIPT);
  const user = userEvent.setup({ document });
  const by = <T extends HTMLElement>(id: string) => document.getElementById(id) as T;
  const choose = async (id: string, value: string) => {
    if (how === 'user-event') return user.selectOptions(by(id), value);
    fireEvent.change(by(id), { target: { value } });
  };
  const type = async (id: string, value: string) => {
    if (how === 'user-event') return user.type(by(id), value);
    fireEvent.change(by(id), { target: { value } });
  };
  demand(by('pilot').hidden);
  await choose('pilot_choice', 'harbour_pilot');
  demand(
    !by('pilot').hidden &&
      by('pilot_licence').hidden &&
      by<HTMLSelectElement>('pilot_boarding').required,
  );
  await choose('pilot_choice', 'own');
  demand(!by('pilot_licence').hidden && by<HTMLInputElement>('pilot_licence').required);
  await choose('pilot_choice', 'none');
  demand(by('pilot').hidden);
  await choose('vessel_kind', 'tanker');
  demand(!by('refusal_reason').hidden && by<HTMLInputElement>('refusal_reason').required);
  await type('refusal_reason', 'Escorted by tugs');
  await choose('vessel_kind', 'tug');
  demand(by('refusal_reason').hidden && by('cargo_part').hidden);
  dom.window.close();
}

/** Runs a second what is done again and again for about so many seconds. */
async function rate(seconds: number, once: () => Promise<unknown>): Promise<number> {
  await once();
  const begun = performance.now();
  let count = 0;
  while (performance.now() - begun < seconds * 1000) {
    await once();
    count++;
  }
  return count / ((performance.now() - begun) / 1000);
}

const thread = join(process.cwd(), 'dist/engine.thread.mjs');
const material = materialOf(form, workspace, sources, 'untraced');
const engine = engineInThread(thread);
await engine.load(material);
const play = async () => {
  const { passed } = await runScenario(pilot, form, workspace, cast, (opening, steps) =>
    engine.play(opening, steps),
  );
  demand(passed);
};
const inThread = await rate(3, play);
const userEvents = await rate(3, () => inJsdom('user-event'));
const fireEvents = await rate(3, () => inJsdom('fireEvent'));
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox'],
});
const inChromium = await rate(3, async () => {
  const page = await browser.newPage();
  await page.setContent(`<!doctype html><body>${PAGE}<script>${SCRIPT}</script></body>`);
  const by = (id: string) => page.locator(`#${id}`);
  demand(!(await by('pilot').isVisible()));
  await by('pilot_choice').selectOption('harbour_pilot');
  demand((await by('pilot').isVisible()) && !(await by('pilot_licence').isVisible()));
  await by('pilot_choice').selectOption('own');
  demand(await by('pilot_licence').isVisible());
  await by('pilot_choice').selectOption('none');
  demand(!(await by('pilot').isVisible()));
  await by('vessel_kind').selectOption('tanker');
  demand(await by('refusal_reason').isVisible());
  await by('refusal_reason').fill('Escorted by tugs');
  await by('vessel_kind').selectOption('tug');
  demand(!(await by('refusal_reason').isVisible()));
  await page.close();
});
await browser.close();
const times = (by: number) => `${(inThread / by).toFixed(1)} times`;
console.log(
  `scenario of six steps, a second: ${inThread.toFixed(0)} in a thread; by hand ${userEvents.toFixed(0)} in jsdom with user-event (${times(userEvents)}), ${fireEvents.toFixed(0)} with fireEvent (${times(fireEvents)}), ${inChromium.toFixed(0)} in Chromium (${times(inChromium)})`,
);

// The command line, on many scenarios: its start is told apart.
const folder = mkdtempSync(join(tmpdir(), 'tavro-bench-'));
cpSync('demo', folder, { recursive: true });
const COPIES = 60;
for (const name of readdirSync(join(folder, 'forms'))) {
  const at = join(folder, 'forms', name, 'scenarios');
  for (const file of readdirSync(at))
    for (let i = 0; i < COPIES; i++)
      writeFileSync(join(at, file.replace('.json', `-${i}.json`)), readFileSync(join(at, file)));
}
const seconds = (args: string[], cold = false): number => {
  const cache = mkdtempSync(join(tmpdir(), 'tavro-cache-'));
  const env = { ...process.env, TAVRO_CACHE: cache };
  if (!cold) execFileSync('node', ['dist/tavro.mjs', 'test', args.at(-1)!], { env });
  const begun = performance.now();
  execFileSync(args[0]!, args.slice(1), { env });
  const took = (performance.now() - begun) / 1000;
  rmSync(cache, { recursive: true });
  return took;
};
const command = ['node', 'dist/tavro.mjs', 'test'];
const small = seconds([...command, 'demo']);
const one = seconds(['taskset', '-c', '0', ...command, folder]);
const all = seconds([...command, folder]);
const cold = Math.min(...[1, 2, 3].map(() => seconds([...command, 'demo'], true)));
const count = workspace.forms.reduce((sum, { scenarios }) => sum + scenarios.length, 0) * COPIES;
console.log(
  `tavro test: demo from cold ${cold.toFixed(2)} s, warm ${small.toFixed(2)} s; ${(count / (one - small)).toFixed(0)} scenarios a second on one core, ${(count / (all - small)).toFixed(0)} on ${availableParallelism()} (${((one - small) / (all - small)).toFixed(1)} times)`,
);
rmSync(folder, { recursive: true });

const axes = [
  { input: 'pilot_choice', values: [null, 'none', 'own', 'harbour_pilot'] },
  { input: 'vessel_kind', values: ['tanker', 'tug', 'yacht', 'coaster'] },
  { input: '@as', values: workspace.people.map(({ key }) => key) },
];
const { tried } = combinationsOf(axes, null);
const ground = { form, source: workspace, cast };
let cells = 0;
const begun = performance.now();
const scenario = { title: 'grid', open: { as: workspace.people[0]!.key }, steps: [] };
for (const { outcome } of await playGrid(
  scenario,
  { axes, parts: null },
  tried,
  ground,
  (opening, steps) => engine.play(opening, steps),
))
  cells += Object.values(outcome).reduce((sum, aspects) => sum + Object.keys(aspects).length, 0);
const took = (performance.now() - begun) / 1000;
console.log(
  `grid: ${(tried.length / took).toFixed(0)} combinations and ${(cells / took).toFixed(0)} cells a second in one thread`,
);

const mutants: Mutant[] = [];
const compileAll = (some: readonly { name: string; text: string }[]) =>
  some.map((source) => {
    const made = compileMutants(source, form, mutants.length + 1);
    mutants.push(...made.mutants);
    return made.script;
  });
const mutated = {
  ...material,
  scripts: compileAll(takingPart(sources)),
  modules: compileAll(modulesUsed(sources)),
};
const round = async (cores: number): Promise<string> => {
  const engines = Array.from({ length: cores }, () => engineInThread(thread));
  const hosts = engines.map((host): MutantHost => ({
    load: (mutant) => host.load({ ...mutated, mutant }),
    play: (opening, steps, mutant) =>
      host.tryMutant(opening, steps, mutant, mutant === 0 ? mutants.length : 0),
  }));
  const start = performance.now();
  await Promise.all(hosts.map((host) => host.load(0)));
  const plans = randomSessions(
    { form, tables: workspace.tables, cast, mentioned: mentionedIn(sources) },
    RANDOM_SESSIONS,
  );
  const bench = await prepare(ground, entry.scenarios, plans, hosts[0]!);
  const verdicts = await spread(hosts, inTrialOrder(mutants), (host, mutant) =>
    judge(mutant, bench, host),
  );
  const all = (performance.now() - start) / 1000;
  for (const host of engines) host.close();
  const { caught, survived, equivalent } = scoreOf(verdicts);
  return `${all.toFixed(1)} s on ${cores} (${(mutants.length / all).toFixed(0)} a second; ${caught} caught, ${survived} not, ${equivalent} equivalent)`;
};
console.log(
  `mutation, a full round of ${mutants.length} mutants of the largest form: ${await round(1)}, ${await round(2)}`,
);
engine.close();
