/** Two versions of a workspace, as they are named on the command line: folders, zips of them, or one folder and a revision. */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { readWorkspace, type Workspace } from '../core/workspace/workspace';
import { textsIn } from '../core/workspace/zip';
import { filesOf, InvalidCall, type Call } from './call';
import { textError } from './text-error';

export interface Named {
  /** As files of it are named. */
  name: string;
  workspace: Workspace;
}

/** The two workspaces; with `--git` the former one is the folder as it was in that revision. */
export function versionsOf({ folder, other, git }: Call): [Named, Named] {
  if (git === undefined) return [named(folder), named(other!)];
  return [
    { name: `${git}:${folder}`, workspace: readWorkspace(filesInRevision(folder, git)) },
    named(folder),
  ];
}

function named(path: string): Named {
  return {
    name: path,
    workspace: readWorkspace(path.endsWith('.zip') ? filesInZip(path) : filesOf(path)),
  };
}

function filesInZip(path: string): Map<string, string> {
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(path);
  } catch (caught) {
    throw new InvalidCall(textError(path, caught));
  }
  return new Map(textsIn(bytes));
}

/** The texts of a folder as a revision of its repository has them. */
function filesInRevision(folder: string, revision: string): Map<string, string> {
  if (revision.startsWith('-'))
    throw new InvalidCall('--git is a revision, such as main or HEAD~1.');
  try {
    const zip = execFileSync('git', ['archive', '--format=zip', revision, '.'], {
      cwd: folder,
      maxBuffer: 1024 * 1024 * 1024,
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    return new Map(textsIn(zip));
  } catch (caught) {
    const { stderr, message } = caught as { stderr?: Buffer; message: string };
    const says = stderr?.toString().trim().split('\n').at(-1) || message;
    throw new InvalidCall(`cannot read ${folder} as it was in ${revision}: ${says}`);
  }
}

export const GIT_OPTION = {
  git: {
    value: 'REV',
    says: 'compares the folder as it was in that revision with what it is; names one folder',
  },
} as const;
