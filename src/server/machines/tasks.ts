/** The threads in which tasks run (`workers/tasks.ts`). One that takes too much is ended, its thread is replaced, and whoever asked is told. */
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { TASK_MEGABYTES, TASK_TAKES, TASK_WAITS } from '../../core/limits';
import { TICK, WorkingTime } from '../../core/sandbox/working-time';
import type { AnswerOf, RequestOf, TaskName, TaskReply } from '../../workers/tasks';
import { BegunSchema, threadTime } from '../../workers/thread-time';
import { CutShort, Refusal } from '../http/refusal';
import { Turns } from '../database/turns';
import { whoseWork } from '../database/current-workspace';

/** Milliseconds that a thread may work on a task: of its processor time, so that a busy machine ends none. */
const LIMITS: Readonly<Record<TaskName, number>> = {
  compile: 20_000,
  material: 20_000,
  check: 60_000,
  checkShared: 60_000,
  checkService: 20_000,
  search: 2000,
  mentions: 20_000,
  searchMentions: 20_000,
  changeBetween: 20_000,
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
  write: 20_000,
  offered: 10_000,
  allowed: 2000,
  changes: 20_000,
  savings: 20_000,
};

const TOO_LONG: Readonly<Record<TaskName, string>> = {
  compile: 'The behaviours take too long to compile.',
  material: 'The behaviours take too long to compile.',
  check: 'The behaviours take too long to check.',
  checkShared: 'The shared modules take too long to check.',
  checkService: 'The scripts of this service take too long to check.',
  search: 'The pattern takes too long to be searched for. Make it simpler, or search for a text.',
  mentions: 'The workspace takes too long to be read.',
  searchMentions: 'The behaviours take too long to be read.',
  changeBetween: 'The behaviours take too long to be compared.',
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
  write: 'The folder takes too long to be written.',
  offered: 'The folders take too long to be looked through.',
  allowed: 'The folder takes too long to be found.',
  changes: 'The folder takes too long to be compared.',
  savings: 'The folder takes too long to be taken.',
};

/** Threads; one workspace never has all of them. */
const THREADS = Math.max(3, availableParallelism());

const kept = globalThis as { tavroTasks?: { pool: Piscina; turns: Turns } };

function threads(): { pool: Piscina; turns: Turns } {
  return (kept.tavroTasks ??= {
    pool: new Piscina({
      filename: join(process.cwd(), 'dist/tasks.thread.mjs'),
      minThreads: 0,
      maxThreads: THREADS,
      idleTimeout: 60_000,
      resourceLimits: { maxOldGenerationSizeMb: TASK_MEGABYTES },
    }),
    turns: new Turns({
      size: THREADS,
      mostWaitingOfOne: 300,
      mostWaiting: 500,
      patience: TASK_WAITS,
    }),
  });
}

/**
 * Runs a task. Throws a Refusal: 422 with words for what people got wrong or what takes too much work or memory; CutShort
 * where too many wait or the machine is too busy, which says nothing about what was asked.
 */
export async function task<N extends TaskName>(
  name: N,
  request: RequestOf<N>,
): Promise<AnswerOf<N>> {
  const { pool, turns } = threads();
  const endTurn = await turns.take(whoseWork());
  const clock = new TaskClock(LIMITS[name]);
  try {
    const reply = (await pool.run(
      { name, request, begun: clock.port },
      { signal: clock.signal, transferList: [clock.port] },
    )) as TaskReply;
    if (!reply.ok) throw new Refusal(422, reply.says);
    return reply.answer as AnswerOf<N>;
  } catch (caught) {
    if (clock.ended === 'too much work') throw new Refusal(422, TOO_LONG[name]);
    if (clock.ended === 'too long') throw new CutShort();
    if ((caught as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY')
      throw new Refusal(422, 'This needs more memory than the server has for it. Split it.');
    throw caught;
  } finally {
    clock.close();
    endTurn();
  }
}

/** Measures a task from the moment at which a thread says that it has taken it up, and ends one that goes too far. */
class TaskClock {
  readonly #limit: AbortController = new AbortController();
  readonly #channel = new MessageChannel();
  #timer: ReturnType<typeof setTimeout>;
  #unheardUntil = performance.now() + TASK_TAKES;
  ended: 'too much work' | 'too long' | null = null;

  constructor(private readonly most: number) {
    this.#timer = setTimeout(() => this.#look(null), TICK);
    this.#channel.port1.once('message', (message: unknown) => {
      const { thread } = BegunSchema.parse(message);
      clearTimeout(this.#timer);
      this.#unheardUntil = performance.now() + TASK_TAKES;
      this.#look(new WorkingTime(() => (thread === null ? null : threadTime(thread))));
    });
  }

  get signal(): AbortSignal {
    return this.#limit.signal;
  }

  /** Goes to the thread, which says by it that it begins. */
  get port(): MessagePort {
    return this.#channel.port2;
  }

  close(): void {
    clearTimeout(this.#timer);
    this.#channel.port1.close();
  }

  #look(working: WorkingTime | null): void {
    if (working !== null && working.look() > this.most) this.#end('too much work');
    else if (performance.now() > this.#unheardUntil) this.#end('too long');
    else this.#timer = setTimeout(() => this.#look(working), TICK);
  }

  #end(why: 'too much work' | 'too long'): void {
    this.ended = why;
    this.#limit.abort();
  }
}
