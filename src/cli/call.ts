/** What a command is called with, and the workspace it is called on. */
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Mode } from '../core/language/compile';
import { takingPart, type Source } from '../core/script/header';
import { modulesUsed } from '../core/script/imports';
import { scriptsOf } from '../core/script/of-form';
import { servicesAsSources } from '../core/script/service-sources';
import type { CompiledScript } from '../core/session/ties';
import type { Engine } from '../core/sandbox/engine';
import { CompiledSchema } from '../core/sandbox/protocol';
import {
  BrokenWorkspace,
  readWorkspace,
  type Workspace,
  type WorkspaceForm,
} from '../core/workspace/workspace';
import { engineInThread } from '../workers/engine-in-thread';
import { readFolder } from '../workers/files';
import type { Cache } from './cache';

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

export function open(call: Call): Workspace {
  return readWorkspace(filesOf(call.folder));
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

/** The one form a command needs. */
export function formOf(call: Call, workspace: Workspace): WorkspaceForm {
  if (call.form === undefined && workspace.forms.length !== 1)
    throw new InvalidCall('say which form with --form.');
  return formsOf(call, workspace)[0]!;
}

/** Works with an engine that starts while the workspace is read, and ends whatever comes of it. */
export async function withEngine(work: (engine: Engine) => Promise<number>): Promise<number> {
  const engine = engineInThread(join(dirname(fileURLToPath(import.meta.url)), 'engine.thread.mjs'));
  engine.wake();
  try {
    return await work(engine);
  } finally {
    engine.close();
  }
}

/**
 * Loads a form of the workspace into an engine, and gives its behaviours and shared modules compiled. Scripts that were compiled before are taken from the cache; the compiler
 * is loaded only when one is missing.
 */
export async function load(
  engine: Engine,
  cache: Cache,
  { tables, services, shared }: Workspace,
  { form, behaviours }: WorkspaceForm,
  mode: Mode,
): Promise<readonly CompiledScript[]> {
  const sources = scriptsOf(form, behaviours, shared);
  const compileAll = (some: readonly Source[]) =>
    Promise.all(some.map((source) => compiled(cache, source, mode)));
  const [scripts, modules, answering] = await Promise.all([
    compileAll(takingPart(sources)),
    compileAll(modulesUsed(sources)),
    compiledAnswering(cache, services),
  ]);
  await engine.load({
    form,
    tables,
    services,
    answering,
    scripts,
    modules,
    traced: mode === 'traced',
  });
  return [...scripts, ...modules];
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
