/** The compiler as a worker offers it, apart from the language worker: what takes longer than a key never holds up a key. */
import { compile } from '../core/language/compile';
import { checkedCalls, type Calls } from './checked-calls';
import { COMPILER_CALLS } from './language-calls';

export type CompilerCalls = ReturnType<typeof compilerCalls>;

export function compilerCalls() {
  return checkedCalls(COMPILER_CALLS, {
    compile: (source) => compile(source, 'traced'),
  } satisfies Calls<typeof COMPILER_CALLS>);
}
