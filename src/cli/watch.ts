/** `--watch`: does a command again whenever something in the folder changes, however many files change at once. */
import type { Call } from './call';
import { errorInWords } from './error';
import { complain, print } from './print';

/** Milliseconds without another change after which a change is looked at: a checkout changes many files. */
const REST = 150;

export const WATCH = { says: 'does it again whenever a file changes, until Ctrl-C' };

/** Runs a command, again and again where the call says so. */
export async function watched(call: Call, run: (call: Call) => Promise<number>): Promise<number> {
  if (call.watch !== true) return run(call);
  const { watchFolder } = await import('../workers/watch-folder');
  let timer: ReturnType<typeof setTimeout> | undefined;
  let running = false;
  let again = false;
  const go = async () => {
    again = running;
    if (running) return;
    running = true;
    // A file that is half written or broken is named, and looked at again when it changes.
    await run(call).catch((error: unknown) => complain(errorInWords(error)));
    print(`watching ${call.folder}\n`);
    running = false;
    if (again) await go();
  };
  await new Promise<void>((resolve) =>
    watchFolder(call.folder, {
      changed: () => {
        clearTimeout(timer);
        timer = setTimeout(() => void go(), REST);
      },
      failed: (says) => void complain(`${says}\n`),
      ready: () => resolve(),
    }),
  );
  await go();
  return new Promise(() => undefined);
}
