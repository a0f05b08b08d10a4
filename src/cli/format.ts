/** `tavro format`: puts the files of a workspace into their one canonical form. */
import { join } from 'node:path';
import { uncanonical } from '../core/workspace/canonical';
import { writeWhole } from '../workers/files';
import { filesOf, type Call, type Command } from './call';
import { print } from './print';

async function run(call: Call): Promise<number> {
  const files = uncanonical(filesOf(call.folder));
  for (const [path, text] of files) {
    if (call.check !== true) writeWhole(join(call.folder, path), text);
    print(`${call.check === true ? 'not formatted:' : 'formatted'} ${join(call.folder, path)}\n`);
  }
  return call.check === true && files.size > 0 ? 1 : 0;
}

export const format: Command = {
  says: 'Puts every file into its canonical form: order of keys, indents, line ends.',
  options: { check: { says: 'changes nothing, and ends with 1 when a file would change' } },
  run,
};
