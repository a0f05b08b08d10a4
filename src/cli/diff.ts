/** `tavro diff`: what differs between two workspace folders, in words. */
import { differences } from '../core/workspace/difference';
import { readWorkspace } from '../core/workspace/workspace';
import { filesOf, type Call, type Command } from './call';
import { onOneLine, print } from './print';

async function run({ folder, other }: Call): Promise<number> {
  const [before, after] = [folder, other!].map((one) => readWorkspace(filesOf(one)));
  const found = differences(before!, after!);
  for (const { file, says } of found) print(`${file}: ${onOneLine(says)}\n`);
  return found.length === 0 ? 0 : 1;
}

export const diff: Command = {
  says: 'Says what differs between two workspaces, thing by thing. Ends with 1 when something does.',
  folders: ['BEFORE', 'AFTER'],
  options: {},
  run,
};
