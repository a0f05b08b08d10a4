/** Mutants tried on an engine. */
import type { Engine } from '../sandbox/engine';
import { TookTooLong, untilDone } from '../sandbox/cut-short';
import type { Material } from '../session/material';
import type { MutantHost } from './mutation';

/** A mutant that keeps the machine busy does so again; a busy machine may not. In milliseconds. */
const ONCE_MORE = [1000];

/** `material` is compiled with its mutants, of which there are `count`. A session that is stopped gives null. */
export function mutantHostOn(engine: Engine, material: Material, count: number): MutantHost {
  /** A session without a mutant was stopped however often it was tried, so that a script of its own never ends. */
  let neverEnds = false;
  return {
    load: (mutant) => engine.load({ ...material, mutant }),
    play: async (opening, steps, mutant) => {
      try {
        const once = () => engine.tryMutant(opening, steps, mutant, mutant === 0 ? count : 0);
        // Without a mutant it is the machine that is to blame, until a script has shown that it never ends.
        return await (mutant === 0 && !neverEnds ? untilDone(once) : untilDone(once, ONCE_MORE));
      } catch (caught) {
        if (!(caught instanceof TookTooLong)) throw caught;
        if (mutant === 0) neverEnds = true;
        return null;
      }
    },
  };
}
