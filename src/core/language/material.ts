/** What a session is made of, compiled from its sources. */
import type { Form } from '../form/definition';
import type { Material } from '../session/session';
import { assembled, type Shared } from './assemble';
import { compile, type Mode } from './compile';
import type { Source } from './header';

export function materialOf(
  form: Form,
  shared: Shared,
  sources: readonly Source[],
  mode: Mode,
): Material {
  return assembled(form, shared, sources, mode, compile);
}
