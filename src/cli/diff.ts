/** `tavro diff`: what differs between two versions of a workspace, in words and by the lines of scripts. */
import { differences } from '../core/workspace/difference';
import { InvalidCall, type Call, type Command } from './call';
import { onOneLine, print } from './print';
import { GIT_OPTION, versionsOf } from './two-versions';

async function run(call: Call): Promise<number> {
  const [before, after] = await versionsOf(call);
  if (before.releases !== undefined || after.releases !== undefined)
    throw new InvalidCall(
      'tavro diff takes folders and zips; tavro compare takes releases of an app.',
    );
  const found = differences(before.workspace, after.workspace);
  for (const { file, says, lines = [] } of found) {
    print(`${file}: ${onOneLine(says)}\n`);
    for (const one of lines)
      print(`    ${one.in === 'after' ? '+' : '-'} ${one.line}: ${onOneLine(one.text)}\n`);
  }
  return found.length === 0 ? 0 : 1;
}

export const diff: Command = {
  says: 'Says what differs between two workspaces, thing by thing. Ends with 1 when something does.',
  folders: ['BEFORE', 'AFTER'],
  options: { ...GIT_OPTION },
  run,
};
