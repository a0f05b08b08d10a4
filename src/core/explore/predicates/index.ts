/** What is looked for in every session by itself. */
import type { Exploration } from '../exploration';
import type { Ran } from '../play';
import { broken } from './broken';
import { decidedBefore } from './decided-before';
import { failures } from './failures';
import { hiddenValues } from './hidden-values';
import { invalid } from './invalid';
import { orphaned } from './orphaned';
import { conflicts } from './conflicts';
import { stops } from './stops';
import { junk } from './texts';

const ALL = [
  failures,
  broken,
  junk,
  orphaned,
  stops,
  decidedBefore,
  conflicts,
  hiddenValues,
  invalid,
];

export function inspect(search: Exploration, ran: Ran): void {
  for (const look of ALL) look(search, ran);
}
