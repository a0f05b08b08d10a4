/** `tavro worker`: takes searches from the queue of an app's database, on this machine or another, until it is ended. */
import { spawn } from 'node:child_process';
import { InvalidCall, type Command } from './call';
import { WORKER } from './thread';

function run(): Promise<number> {
  if (process.env.DATABASE_URL === undefined)
    throw new InvalidCall(
      'DATABASE_URL names the database of the app, such as postgresql://tavro@127.0.0.1:54329/tavro.',
    );
  const worker = spawn(process.execPath, [WORKER], { stdio: 'inherit' });
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.on(signal, () => worker.kill(signal));
  return new Promise((resolve) => {
    worker.once('exit', (code) => resolve(code ?? 0));
  });
}

export const worker: Command = {
  says: 'Searches what the app has put into its queue, beside any number of other workers.',
  folders: [],
  options: {},
  run,
};
