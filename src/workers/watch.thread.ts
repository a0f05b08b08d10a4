/** The thread that watches all live folders, so that a folder of any size keeps no page waiting. */
import { parentPort } from 'node:worker_threads';
import type { FSWatcher } from 'chokidar';
import { WatchRequestSchema, type WatchReply } from './watching';
import { watchFolder } from './watch-folder';

const port = parentPort!;
const watchers = new Map<number, FSWatcher>();
const reply = (message: WatchReply) => port.postMessage(message);

port.on('message', (message: unknown) => {
  const { id, folder } = WatchRequestSchema.parse(message);
  void watchers.get(id)?.close();
  watchers.delete(id);
  if (folder !== null)
    watchers.set(
      id,
      watchFolder(folder, {
        changed: () => reply({ id, failed: null }),
        failed: (says) => reply({ id, failed: says }),
        // What changed before all was watched is looked at now.
        ready: () => reply({ id, failed: null }),
      }),
    );
});
