/** `tavro types`: prints the typings of a form, so that any TypeScript editor understands its behaviours. */
import { typingsOf } from '../core/language/typings';
import { formOf, open, type Call } from './call';

export async function types(call: Call): Promise<number> {
  const workspace = open(call);
  const { form } = formOf(call, workspace);
  process.stdout.write(`${typingsOf({ ...workspace, form })}\n`);
  return 0;
}
