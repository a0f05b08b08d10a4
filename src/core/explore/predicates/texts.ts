/** Texts in which a value of the language stands that nobody meant to be read: `undefined`, `NaN`, a sum with its error. */
import type { Exploration } from '../exploration';
import { columnOf, definitionOf } from '../part-names';
import type { Ran } from '../play';

const TEXTS = ['hint', 'warning', 'problem', 'label'] as const;

const JUNK = /\b(undefined|NaN|Infinity|null)\b|\[object |\d\.\d{9,}/;

/** A number that ends in six zeros or nines and a few digits is a sum of fractions that binary numbers do not have. */
const BINARY_ERROR = /\.\d*(0{6,}|9{6,})\d{0,3}$|e-/;

export function junk(search: Exploration, ran: Ran): void {
  const look = (part: string, aspect: string, value: unknown) => {
    const isWrong = typeof value === 'string' && JUNK.test(value);
    const isDoubtful =
      typeof value === 'number' &&
      definitionOf(search.ground.form, part)?.kind === 'number' &&
      BINARY_ERROR.test(String(value));
    if (!isWrong && !isDoubtful) return;
    search.report(
      'junk',
      isWrong ? 'wrong' : 'may',
      { part, aspect },
      search.said(part, aspect, ran),
      `${part}: the ${aspect} reads ${JSON.stringify(value)}`,
      ran,
    );
  };
  for (const [name, part] of Object.entries(ran.parts)) {
    if (!part.onScreen) continue;
    for (const aspect of TEXTS) look(name, aspect, part[aspect]);
    const isWritten =
      part.sort === 'field' &&
      ran.said.some((said) => said.part === columnOf(name) && said.aspect === 'value');
    if (isWritten) look(name, 'value', part.value);
  }
  for (const text of ran.messages) look('@form', 'message', text);
}
