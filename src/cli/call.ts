/** What a command is called with, and the workspace it is called on. */
import { availableParallelism } from 'node:os';
import * as z from 'zod';
import type { Mode } from '../core/language/compile';
import { takingPart, type Source } from '../core/script/header';
import { modulesUsed } from '../core/script/imports';
import { scriptsOf } from '../core/script/of-form';
import { isOwn } from '../core/script/script-name';
import { servicesAsSources } from '../core/script/service-sources';
import type { Material } from '../core/session/material';
import type { CompiledScript } from '../core/session/tie';
import type { Engine } from '../core/sandbox/engine';
import type { Cast } from '../core/scenario/opening';
import { CompiledSchema } from '../core/sandbox/protocol';
import {
  BrokenWorkspace,
  readWorkspace,
  type FilesRead,
  type Workspace,
  type WorkspaceForm,
} from '../core/workspace/workspace';
import { engineOnThreads } from '../workers/engine-in-thread';
import { readFolder } from '../workers/files';
import { Cache } from './cache';
import { takeThread } from './thread';

export interface Call {
  folder: string;
  /** The second folder, for a command that takes two. */
  other?: string | undefined;
  form?: string | undefined;
  scenario?: string | undefined;
  steps?: string | undefined;
  reporter?: string | undefined;
  tape?: boolean | undefined;
  part?: string | undefined;
  aspect?: string | undefined;
  at?: string | undefined;
  words?: boolean | undefined;
  coverage?: string | undefined;
  check?: boolean | undefined;
  watch?: boolean | undefined;
  title?: string | undefined;
  app?: string | undefined;
  workspace?: string | undefined;
  force?: boolean | undefined;
  records?: boolean | undefined;
  axes?: string | undefined;
  strength?: string | undefined;
  csv?: string | undefined;
  html?: string | undefined;
  accept?: string | undefined;
  least?: string | undefined;
  shard?: string | undefined;
  budget?: string | undefined;
  seed?: string | undefined;
  sessions?: string | undefined;
  baseline?: string | undefined;
  hints?: boolean | undefined;
  git?: string | undefined;
}

export interface Option {
  /** What stands for its value in the help; none for one that is only set. */
  value?: string;
  says: string;
}

export interface Command {
  says: string;
  /** What its folders are called in the help; one workspace unless said. */
  folders?: readonly string[];
  options: Readonly<Partial<Record<Exclude<keyof Call, 'folder' | 'other'>, Option>>>;
  /** Gives the exit code. */
  run(call: Call): Promise<number>;
}

/** The command was called wrongly. */
export class InvalidCall extends Error {}

/** What the files of a folder came to when they were read by their schemas, by path. */
const ContentsSchema = z.record(z.string(), z.unknown());

/**
 * Reads the workspace. Going through the schemas takes longer than all else, so the result is kept for a folder
 * whose files are all the same; what files have to do with each other is looked at every time.
 */
export function open(call: Call): Workspace {
  const files = filesOf(call.folder);
  const cache = new Cache();
  const of = [...files].flat();
  const kept = cache.read('files', of, ContentsSchema);
  const read: FilesRead = new Map(
    Object.entries(kept ?? {}).map(([path, content]) => [
      path,
      { text: files.get(path)!, content },
    ]),
  );
  const workspace = readWorkspace(files, read);
  if (kept === null)
    cache.keep(
      'files',
      of,
      Object.fromEntries([...read].map(([path, { content }]) => [path, content])),
    );
  return workspace;
}

/** The texts of a workspace folder. Throws InvalidCall when there is no such folder, and BrokenWorkspace. */
export function filesOf(folder: string): Map<string, string> {
  try {
    return readFolder(folder);
  } catch (caught) {
    if (caught instanceof BrokenWorkspace) throw caught;
    throw new InvalidCall(`cannot read the folder ${folder}: ${folderFault(caught)}`);
  }
}

function folderFault(caught: unknown): string {
  const { code, message } = caught as { code?: string; message: string };
  if (code === 'ENOENT') return 'there is none of that name.';
  if (code === 'ENOTDIR') return 'it is a file.';
  return code === 'EACCES' ? 'this user may not read it.' : message;
}

/** The forms a command is about: the one named, or all. */
export function formsOf(call: Call, workspace: Workspace): WorkspaceForm[] {
  if (call.form === undefined) return workspace.forms;
  const found = workspace.forms.filter(({ form }) => form.name === call.form);
  if (found.length === 0) {
    throw new InvalidCall(
      `there is no form "${call.form}". There is ${workspace.forms.map(({ form }) => form.name).join(', ') || 'none'}.`,
    );
  }
  return found;
}

/** The reporter that is named, or the usual one. */
export function reporterOf<R>(
  { reporter: name }: Call,
  reporters: Readonly<Record<string, R>>,
  usual: string,
): R {
  if (name !== undefined && !Object.hasOwn(reporters, name))
    throw new InvalidCall(
      `there is no reporter "${name}". There is ${Object.keys(reporters).join(', ')}.`,
    );
  return reporters[name ?? usual]!;
}

/** The file of a script: one of a form's own behaviours, or one that forms share. */
export function scriptFile(folder: string, form: string, name: string): string {
  return isOwn(name) ? `${folder}/forms/${form}/behaviours/${name}` : `${folder}/${name}`;
}

/** The one form a command needs. */
export function formOf(call: Call, workspace: Workspace): WorkspaceForm {
  if (call.form === undefined && workspace.forms.length !== 1)
    throw new InvalidCall('say which form with --form.');
  return formsOf(call, workspace)[0]!;
}

/** What the scenarios of a form are opened with. */
export function castOf({ people, forms }: Workspace, { records, scenarios }: WorkspaceForm): Cast {
  return { people, records, forms, scenarios };
}

/** Works with an engine that starts while the workspace is read, and ends whatever comes of it. */
export function withEngine(work: (engine: Engine) => Promise<number>): Promise<number> {
  return withEngines(1, ([engine]) => work(engine!));
}

/** As many engines as there are cores, but no more than pieces of work. */
export function enginesFor(pieces: number): number {
  return Math.max(1, Math.min(availableParallelism(), pieces));
}

/** The same with several. */
export async function withEngines<T>(
  count: number,
  work: (engines: readonly Engine[]) => Promise<T>,
): Promise<T> {
  const engines = Array.from({ length: count }, () => engineOnThreads(takeThread));
  for (const engine of engines) engine.wake();
  try {
    return await work(engines);
  } finally {
    for (const engine of engines) engine.close();
  }
}

/**
 * A form of the workspace as sessions are made of it. Scripts that were compiled before are taken from the cache; the
 * compiler is loaded only when one is missing.
 */
export async function materialFrom(
  cache: Cache,
  { tables, services, shared }: Workspace,
  { form, behaviours }: WorkspaceForm,
  mode: Mode,
): Promise<Material> {
  const sources = scriptsOf(form, behaviours, shared);
  const compileAll = (some: readonly Source[]) =>
    Promise.all(some.map((source) => compiled(cache, source, mode)));
  const [scripts, modules, answering] = await Promise.all([
    compileAll(takingPart(sources)),
    compileAll(modulesUsed(sources)),
    compiledAnswering(cache, services),
  ]);
  return { form, tables, services, answering, scripts, modules, traced: mode === 'traced' };
}

/** Loads a form of the workspace into an engine, and gives its behaviours and shared modules compiled. */
export async function load(
  engine: Engine,
  cache: Cache,
  workspace: Workspace,
  entry: WorkspaceForm,
  mode: Mode,
): Promise<readonly CompiledScript[]> {
  const material = await materialFrom(cache, workspace, entry, mode);
  await engine.load(material);
  return [...material.scripts, ...material.modules];
}

/** The scripts by which services answer. */
export function compiledAnswering(
  cache: Cache,
  services: Workspace['services'],
): Promise<CompiledScript[]> {
  return Promise.all(
    servicesAsSources(services).map(async ({ name, source }) => ({
      ...(await compiled(cache, source, 'untraced')),
      name,
    })),
  );
}

async function compiled(cache: Cache, source: Source, mode: Mode): Promise<CompiledScript> {
  const of = [mode, source.name, source.text];
  const kept = cache.read('script', of, CompiledSchema) as CompiledScript | null;
  if (kept !== null) return kept;
  const { compile } = await import('../core/language/compile');
  const script = compile(source, mode);
  cache.keep('script', of, script);
  return script;
}
