/** `tavro new`: a workspace folder to begin with: one form, one behaviour, and a scenario that proves it. */
import { mkdirSync, readdirSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { firstWorkspace } from '../core/workspace/first';
import { writeWorkspace } from '../core/workspace/write';
import { writeWhole } from '../workers/files';
import { InvalidCall, type Call, type Command } from './call';
import { print } from './print';

async function run({ folder, title }: Call): Promise<number> {
  mkdirSync(folder, { recursive: true });
  if (readdirSync(folder).some((entry) => !entry.startsWith('.')))
    throw new InvalidCall(`the folder ${folder} is not empty.`);
  for (const [path, text] of writeWorkspace(firstWorkspace(title ?? basename(resolve(folder))))) {
    const file = join(folder, path);
    mkdirSync(dirname(file), { recursive: true });
    writeWhole(file, text);
    print(`wrote ${file}\n`);
  }
  return 0;
}

export const create: Command = {
  says: 'Makes a workspace folder with one form, one behaviour and a scenario that proves it.',
  options: { title: { value: 'TITLE', says: 'its title; the name of the folder unless said' } },
  run,
};
