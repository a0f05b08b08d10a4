/** Mutants tried on an engine. */
import type { Engine } from '../sandbox/engine';
import { TookTooLong } from '../sandbox/cut-short';
import type { Material } from '../session/material';
import type { MutantHost } from './mutation';

/** `material` is compiled with its mutants, of which there are `count`. A session that is stopped gives null. */
export function mutantHostOn(engine: Engine, material: Material, count: number): MutantHost {
  return {
    load: (mutant) => engine.load({ ...material, mutant }),
    play: async (opening, steps, mutant) => {
      try {
        return await engine.tryMutant(opening, steps, mutant, mutant === 0 ? count : 0);
      } catch (caught) {
        if (caught instanceof TookTooLong) return null;
        throw caught;
      }
    },
  };
}
