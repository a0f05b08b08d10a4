/** The server's end of the thread that watches live folders. One thread watches all; one that is lost is replaced. */
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { WatchReplySchema, type WatchRequest } from '../../workers/watching';

interface Watched {
  folder: string;
  changed: () => void;
  failed: (says: string) => void;
}

/** Milliseconds until a lost thread is replaced. */
const AGAIN_AFTER = 2000;

class Watcher {
  readonly #watched = new Map<number, Watched>();
  #thread: Worker | null = null;
  #ids = 0;

  /** Watches a folder; gives what ends that. */
  watch(watched: Watched): () => void {
    const id = ++this.#ids;
    this.#watched.set(id, watched);
    this.#ask({ id, folder: watched.folder });
    return () => {
      this.#watched.delete(id);
      this.#ask({ id, folder: null });
    };
  }

  #ask(request: WatchRequest): void {
    this.#thread ??= this.#start();
    this.#thread.postMessage(request);
  }

  #start(): Worker {
    const thread = new Worker(join(process.cwd(), 'dist/watch.thread.mjs'));
    thread.unref();
    thread.on('message', (message: unknown) => {
      const { id, failed } = WatchReplySchema.parse(message);
      const watched = this.#watched.get(id);
      if (failed === null) watched?.changed();
      else watched?.failed(failed);
    });
    const lost = (why: unknown) => {
      if (this.#thread !== thread) return;
      this.#thread = null;
      console.error('the thread that watches folders is started anew', why);
      setTimeout(() => {
        for (const [id, { folder }] of this.#watched) this.#ask({ id, folder });
      }, AGAIN_AFTER).unref();
    };
    thread.on('error', lost);
    thread.on('exit', lost);
    return thread;
  }
}

// On globalThis, since Next.js bundles pages and routes apart.
const kept = globalThis as { tavroWatcher?: Watcher };

export function watcher(): Watcher {
  return (kept.tavroWatcher ??= new Watcher());
}
