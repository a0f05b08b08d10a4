/** The threads in which tasks run (`workers/tasks.ts`). One that takes too long is ended, and whoever asked is told. */
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Piscina } from 'piscina';
import type { AnswerOf, RequestOf, TaskName, TaskReply } from '../workers/tasks';
import { Refusal } from './http/refusal';

/** Real milliseconds a task may take, the wait for a thread not counted. */
const LIMITS: Readonly<Record<TaskName, number>> = {
  compile: 20_000,
  material: 20_000,
  check: 60_000,
  checkShared: 60_000,
  search: 2000,
  mentions: 20_000,
  preview: 20_000,
  planRename: 60_000,
  planExportRename: 60_000,
  uses: 60_000,
  pack: 60_000,
  unpack: 20_000,
  jsonSchema: 20_000,
  takenFrom: 10_000,
  readRecords: 20_000,
  readDirectory: 20_000,
  sync: 20_000,
  settle: 20_000,
  changes: 20_000,
  savings: 20_000,
};

const TOO_LONG: Readonly<Record<TaskName, string>> = {
  compile: 'The behaviours take too long to compile.',
  material: 'The behaviours take too long to compile.',
  check: 'The behaviours take too long to check.',
  checkShared: 'The shared modules take too long to check.',
  search: 'The pattern takes too long to be searched for. Make it simpler, or search for a text.',
  mentions: 'The workspace takes too long to be read.',
  preview: 'The file takes too long to be read. Split it.',
  planRename: 'The workspace takes too long to be read.',
  planExportRename: 'The workspace takes too long to be read.',
  uses: 'The workspace takes too long to be read.',
  pack: 'The workspace takes too long to be packed.',
  unpack: 'The folder takes too long to be read.',
  jsonSchema: 'The behaviours take too long to be read.',
  takenFrom: 'It takes too long to be read.',
  readRecords: 'The file takes too long to be read. Split it.',
  readDirectory: 'The folder takes too long to be read.',
  sync: 'The folder takes too long to be read.',
  settle: 'The folder takes too long to be read.',
  changes: 'The folder takes too long to be compared.',
  savings: 'The folder takes too long to be taken.',
};

const kept = globalThis as { tavroTasks?: Piscina };

function threads(): Piscina {
  return (kept.tavroTasks ??= new Piscina({
    filename: join(process.cwd(), 'dist/tasks.thread.mjs'),
    minThreads: 0,
    maxThreads: Math.max(2, availableParallelism() - 1),
    idleTimeout: 60_000,
    maxQueue: 500,
  }));
}

/** Runs a task. Throws a Refusal: 422 with words for what people got wrong or what takes too long, 503 when too much waits. */
export async function task<N extends TaskName>(
  name: N,
  request: RequestOf<N>,
): Promise<AnswerOf<N>> {
  const limit = new AbortController();
  let timer: ReturnType<typeof setTimeout> | undefined;
  // The clock starts with the work, not with the wait for a thread.
  const started = () => (timer ??= setTimeout(() => limit.abort(), LIMITS[name]));
  const pool = threads();
  if (pool.queueSize >= 500)
    throw new Refusal(503, 'The server is busy. Try again in a few seconds.', {
      'retry-after': '5',
    });
  const waiting = setInterval(() => {
    if (pool.queueSize === 0) started();
  }, 50);
  if (pool.queueSize === 0) started();
  try {
    const reply = (await pool.run({ name, request }, { signal: limit.signal })) as TaskReply;
    if (!reply.ok) throw new Refusal(422, reply.says);
    return reply.answer as AnswerOf<N>;
  } catch (caught) {
    if (limit.signal.aborted) throw new Refusal(422, TOO_LONG[name]);
    throw caught;
  } finally {
    clearTimeout(timer);
    clearInterval(waiting);
  }
}
