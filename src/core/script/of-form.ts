/** The scripts that a form runs with, out of its own and those that forms share. */
import type { Form } from '../form/definition';
import { inOrder, isFor, readHeader, type Source } from './header';
import { modulesUsed } from './imports';
import { isModule } from './script-name';

/**
 * A form's own behaviours and those for several forms that are for it, in the order in which they run; behind them the
 * shared modules that they use.
 */
export function scriptsOf<T extends Source>(
  form: Form,
  own: readonly T[],
  shared: readonly T[],
): T[] {
  const modules = shared.filter(({ name }) => isModule(name));
  const several = shared.filter(
    (source) => !isModule(source.name) && isFor(readHeader(source).forms, form),
  );
  const behaviours = inOrder([...own, ...several]);
  return [...behaviours, ...modulesUsed([...behaviours, ...modules])];
}
