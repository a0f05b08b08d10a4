/** The thread that runs forms for a command. */
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { setFlagsFromString } from 'node:v8';
import { Worker } from 'node:worker_threads';

/** Bundled into dist/ or dist/cli/; the thread's bundle is in dist/. */
const here = dirname(fileURLToPath(import.meta.url));
const dist = here.endsWith('cli') ? dirname(here) : here;
const THREAD = join(dist, 'engine.thread.mjs');

/** The program that works through the queue of searches. */
export const WORKER = join(dist, 'worker.mjs');

/** The thread that searches a form. */
export const SEARCH_THREAD = join(dist, 'search.thread.mjs');

/** The thread that compares two versions of a form. */
export const COMPARE_THREAD = join(dist, 'compare.thread.mjs');

const started: Worker[] = [];

// Each function of the machine is compiled once and fast, and not again for speed: that pays only after thousands of
// scenarios, and until then keeps both cores from the command's own work.
setFlagsFromString('--liftoff-only');

function start(): Worker {
  // Read by workers/brief.ts.
  const worker = new Worker(THREAD, { workerData: 'brief' });
  // An idle thread keeps no process alive.
  worker.unref();
  return worker;
}

/** Starts a thread before anybody asks for it. */
export function startThread(): void {
  started.push(start());
}

/** A thread: one that was started already, else another one. */
export function takeThread(): Worker {
  return started.shift() ?? start();
}
