/**
 * `tavro pull` and `tavro push`: a workspace of a running app and a folder, each brought up to date from the other. The
 * folder keeps what both had in common last (`.tavro-base.json`), so that what changed on both sides is known.
 */
import { counted } from '../core/counted';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as z from 'zod';
import { differences } from '../core/workspace/difference';
import { reconcile } from '../core/workspace/reconcile';
import { digestsOf } from '../core/workspace/taking';
import { filesOfUnit, placeOfUnit, unitOf } from '../core/workspace/units';
import { readWorkspace, type Workspace } from '../core/workspace/workspace';
import { writeWorkspace } from '../core/workspace/write';
import { BASE_FILE, baseIn, textsIn } from '../core/workspace/zip';
import { writeIntoFolder, writeWhole } from '../workers/files';
import { filesOf, InvalidCall, type Call, type Command } from './call';
import { appAt, ask, jsonIn } from './app';
import { complain, onOneLine, print } from './print';

const DEFAULT_APP = 'http://127.0.0.1:3000';

const digest = (text: string) => createHash('sha256').update(text).digest('hex');

/** The address of the app with the workspace, such as `http://127.0.0.1:3000/w/ferry`. Throws InvalidCall for another machine. */
function appOf({ app, workspace }: Call): URL {
  const url = appAt(app ?? DEFAULT_APP, '--app');
  if (workspace !== undefined) url.pathname = `/w/${encodeURIComponent(workspace)}`;
  url.pathname = url.pathname.replace(/\/$/, '');
  return url;
}

/** What the folder and the app had in common last. */
function readBase(folder: string): Map<string, string> {
  const file = join(folder, BASE_FILE);
  const text = existsSync(file) ? readFileSync(file, 'utf8') : null;
  return new Map(text === null ? [] : baseIn(new Map([[BASE_FILE, text]])));
}

function keepBase(folder: string, base: ReadonlyMap<string, string>): void {
  const sorted = Object.fromEntries([...base].toSorted(([a], [b]) => (a < b ? -1 : 1)));
  writeWhole(join(folder, BASE_FILE), `${JSON.stringify(sorted, null, 2)}\n`);
}

/** What differs, said for some units alone. */
function tell(before: Workspace, after: Workspace, units: ReadonlySet<string>): void {
  for (const { file, says } of differences(before, after))
    if (units.has(unitOf(file) ?? file)) print(`${file}: ${onOneLine(says)}\n`);
}

function tellConflicts(conflicts: readonly string[], how: string): number {
  for (const unit of conflicts) complain(`${unit}: changed here and in the app; left as it is\n`);
  if (conflicts.length === 0) return 0;
  complain(`${counted(conflicts.length, 'conflict')}. ${how}\n`);
  return 1;
}

const EMPTY: Workspace = {
  title: '',
  roles: [],
  people: [],
  tables: [],
  services: [],
  forms: [],
  shared: [],
};

async function pullInto(call: Call): Promise<number> {
  const { folder } = call;
  const app = appOf(call);
  const zip = await ask(app, '/api/workspace');
  const theirs = readWorkspace(textsIn(zip));
  mkdirSync(folder, { recursive: true });
  const files = filesOf(folder);
  const mine = files.size === 0 ? EMPTY : readWorkspace(files);
  const [appHas, folderHas] = [
    digestsOf(theirs, digest),
    files.size === 0 ? new Map<string, string>() : digestsOf(mine, digest),
  ];
  // Records in a folder are its own affair.
  for (const unit of folderHas.keys())
    if (placeOfUnit(unit)?.kind === 'records' && !appHas.has(unit)) folderHas.delete(unit);
  const { fromApp, conflicts, base } = reconcile(readBase(folder), appHas, folderHas);
  const wanted = call.force === true ? [...fromApp, ...conflicts] : fromApp;
  const texts = writeWorkspace(theirs);
  const writes = wanted
    .flatMap(filesOfUnit)
    .map((path) => ({ path, text: texts.get(path) ?? null }));
  if (!writeIntoFolder(folder, writes))
    throw new InvalidCall(
      `${folder} holds links or other things where files of the workspace belong; nothing is written through them.`,
    );
  for (const unit of wanted) {
    const has = appHas.get(unit);
    if (has === undefined) base.delete(unit);
    else base.set(unit, has);
  }
  keepBase(folder, base);
  tell(mine, theirs, new Set(wanted));
  print(wanted.length === 0 ? 'nothing to pull\n' : `pulled ${wanted.length}\n`);
  return call.force === true
    ? 0
    : tellConflicts(conflicts, 'Settle them by hand, or take what the app has with --force.');
}

const Plan = z.object({
  changes: z.array(
    z.object({ unit: z.string(), conflict: z.boolean(), says: z.array(z.string()) }),
  ),
});

async function pushFrom(call: Call): Promise<number> {
  const { folder } = call;
  const app = appOf(call);
  const files = filesOf(folder);
  // Broken files are named here, before anything is sent.
  const mine = readWorkspace(files);
  const base = readBase(folder);
  const sent = {
    files: [...files, [BASE_FILE, JSON.stringify(Object.fromEntries(base))] as [string, string]],
  };
  const records = call.records === true;
  const plan = Plan.safeParse(
    jsonIn(await ask(app, '/api/workspace/changes', { folder: sent, records })),
  );
  if (!plan.success)
    throw new InvalidCall(`what answers at ${app.origin} is no app of this version.`);
  const { changes } = plan.data;
  const wanted = changes.filter(({ conflict }) => !conflict || call.force === true);
  if (wanted.length > 0)
    await ask(app, '/api/workspace/takings', {
      folder: sent,
      units: wanted.map(({ unit }) => unit),
      what: `tavro push ${folder}`.slice(0, 200),
    });
  for (const { unit, says } of wanted)
    for (const line of says.length === 0 ? ['changed'] : says)
      print(`${unit}: ${onOneLine(line)}\n`);
  const left = new Set(
    changes.flatMap(({ unit }) => (wanted.some((one) => one.unit === unit) ? [] : [unit])),
  );
  const has = digestsOf(mine, digest);
  const inApp = new Set(wanted.map(({ unit }) => unit));
  for (const unit of new Set([...base.keys(), ...has.keys()])) {
    if (left.has(unit)) continue;
    const now = has.get(unit);
    // What only the app changed is still to be pulled.
    if (inApp.has(unit)) {
      if (now === undefined) base.delete(unit);
      else base.set(unit, now);
    }
  }
  keepBase(folder, base);
  print(wanted.length === 0 ? 'nothing to push\n' : `pushed ${wanted.length}\n`);
  return tellConflicts([...left], 'Pull first and settle them, or push what is here with --force.');
}

const OF_APP = {
  app: { value: 'URL', says: `where the app runs, on this machine; ${DEFAULT_APP} unless said` },
  workspace: { value: 'NAME', says: 'which of its workspaces; the first one unless said' },
};

export const pull: Command = {
  says: 'Brings a folder up to date from a running app. Ends with 1 when something changed on both sides.',
  options: { ...OF_APP, force: { says: 'takes what the app has where both changed' } },
  run: pullInto,
};

export const push: Command = {
  says: 'Takes what changed in a folder into a running app. Ends with 1 when something changed on both sides.',
  options: {
    ...OF_APP,
    records: { says: 'takes the sample records as well' },
    force: { says: 'takes what the folder has where both changed' },
  },
  run: pushFrom,
};
