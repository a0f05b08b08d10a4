/**
 * Two versions of a workspace, as they are named on the command line: folders, zips of them, releases of a running app, or
 * one folder and a revision.
 */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import * as z from 'zod';
import { FormSchema } from '../core/form/definition';
import { ServiceSchema } from '../core/form/service';
import { TableSchema } from '../core/form/table';
import { isOwn } from '../core/script/script-name';
import { readWorkspace, type Workspace } from '../core/workspace/workspace';
import { textsIn } from '../core/workspace/zip';
import { appAt, ask, jsonIn } from './app';
import { filesOf, InvalidCall, type Call } from './call';
import { textError } from './text-error';

export interface Named {
  /** As files of it are named. */
  name: string;
  workspace: Workspace;
  /** Of a running app's releases: what each form was released with, by its name. */
  releases?: ReadonlyMap<string, Workspace>;
}

/** The workspace that a form of this version runs in. */
export const aroundOf = ({ workspace, releases }: Named, form: string): Workspace =>
  releases?.get(form) ?? workspace;

/** The two workspaces; with `--git` the former one is the folder as it was in that revision. */
export async function versionsOf({ folder, other, git }: Call): Promise<[Named, Named]> {
  if (git === undefined) return [await named(folder), await named(other!)];
  return [
    { name: `${git}:${folder}`, workspace: readWorkspace(filesInRevision(folder, git)) },
    await named(folder),
  ];
}

async function named(path: string): Promise<Named> {
  if (/^https?:\/\//.test(path)) return released(path);
  return {
    name: path,
    workspace: readWorkspace(path.endsWith('.zip') ? filesInZip(path) : filesOf(path)),
  };
}

const Versions = z.object({ releases: z.array(z.object({ number: z.int() })) });
const Released = z.object({
  form: FormSchema,
  tables: z.array(TableSchema),
  services: z.array(ServiceSchema),
  sources: z.array(z.object({ name: z.string(), text: z.string() })),
});

/** The releases of a running app: of each form the last one, or with `@3` behind the address the third. */
async function released(address: string): Promise<Named> {
  const [, of = '', number] = /^(.*?)(?:@([1-9]\d{0,8}))?$/.exec(address)!;
  const app = appAt(of, 'a version');
  const workspace = readWorkspace(new Map(textsIn(await ask(app, '/api/workspace'))));
  const read = async <T>(path: string, schema: z.ZodType<T>): Promise<T> => {
    const answer = schema.safeParse(jsonIn(await ask(app, path)));
    if (!answer.success) throw new InvalidCall(`${app.href} answers what no app does.`);
    return answer.data;
  };
  const releases = new Map<string, Workspace>();
  for (const entry of workspace.forms) {
    const path = `/api/forms/${entry.form.name}/versions`;
    const all = (await read(path, Versions)).releases.map((one) => one.number);
    const wanted = number === undefined ? all[0] : all.find((one) => one === Number(number));
    if (wanted === undefined) continue;
    const { form, tables, services, sources } = await read(`${path}/release-${wanted}`, Released);
    const own = sources.filter(({ name }) => isOwn(name));
    releases.set(form.name, {
      ...workspace,
      tables,
      services,
      shared: sources.filter((one) => !own.includes(one)),
      forms: [
        { ...entry, form, behaviours: own },
        ...workspace.forms.filter((other) => other !== entry),
      ],
    });
  }
  if (releases.size === 0)
    throw new InvalidCall(
      `no form of ${of} has ${number === undefined ? 'a release' : `a release ${number}`}.`,
    );
  return {
    name: address,
    workspace: { ...workspace, forms: [...releases.values()].map(({ forms }) => forms[0]!) },
    releases,
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
