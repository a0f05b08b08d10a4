/** What a command is called with, and the workspace it is called on. */
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Mode } from '../core/language/compile';
import type { CompiledScript } from '../core/session/ties';
import type { Engine } from '../core/sandbox/engine';
import {
  BrokenWorkspace,
  readWorkspace,
  type Workspace,
  type WorkspaceForm,
} from '../core/workspace/workspace';
import { engineInThread } from '../workers/engine-in-thread';
import { readFolder } from '../workers/files';

export interface Call {
  folder: string;
  form?: string | undefined;
  scenario?: string | undefined;
  steps?: string | undefined;
  reporter?: string | undefined;
  tape?: boolean | undefined;
  coverage?: string | undefined;
}

/** The command was called wrongly. */
export class CallFault extends Error {}

export function open(call: Call): Workspace {
  let files: Map<string, string>;
  try {
    files = readFolder(call.folder);
  } catch (caught) {
    if (caught instanceof BrokenWorkspace) throw caught;
    throw new CallFault(`cannot read the folder ${call.folder}: ${folderFault(caught)}`);
  }
  return readWorkspace(files);
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
    throw new CallFault(
      `there is no form "${call.form}". There is ${workspace.forms.map(({ form }) => form.name).join(', ') || 'none'}.`,
    );
  }
  return found;
}

/** The one form a command needs. */
export function formOf(call: Call, workspace: Workspace): WorkspaceForm {
  if (call.form === undefined && workspace.forms.length !== 1)
    throw new CallFault('say which form with --form.');
  return formsOf(call, workspace)[0]!;
}

export function newEngine(): Engine {
  return engineInThread(join(dirname(fileURLToPath(import.meta.url)), 'engine.thread.mjs'));
}

/** Loads a form of the workspace into an engine. The compiler is loaded only now: it is by far the largest part. */
export async function load(
  engine: Engine,
  workspace: Workspace,
  { form, behaviours }: WorkspaceForm,
  mode: Mode,
): Promise<readonly CompiledScript[]> {
  const { materialOf } = await import('../core/language/material');
  const material = materialOf(form, workspace, behaviours, mode);
  await engine.load(material);
  return material.scripts;
}
