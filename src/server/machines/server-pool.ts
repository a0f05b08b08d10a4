/** The pool of this process. Nothing that matters lives in it alone: another process on the same database has its own. */
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { SUBMISSION_TAKES, SUBMISSION_WAITS } from '../../core/limits';
import { engineInThread } from '../../workers/engine-in-thread';
import { MachinePool } from './pool';

const kept = globalThis as { tavroMachines?: MachinePool };

export function machines(): MachinePool {
  return (kept.tavroMachines ??= new MachinePool(
    () => engineInThread(join(process.cwd(), 'dist/engine.thread.mjs')),
    {
      size: Math.max(3, Math.min(16, availableParallelism())),
      mostWaitingOfOne: 200,
      mostWaiting: 1000,
      patience: SUBMISSION_WAITS,
      limit: SUBMISSION_TAKES,
    },
  ));
}

/** Ends them; whoever asks next gets others. */
export function endMachines(): void {
  kept.tavroMachines?.close();
  delete kept.tavroMachines;
}
