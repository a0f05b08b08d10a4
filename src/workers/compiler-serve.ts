/** The compiler as a worker offers it, apart from the language worker: what takes longer than a key never holds up a key. */
import { compile, compileDetailed } from '../core/language/compile';
import { compileMutants } from '../core/language/mutating';
import { expressionFault, stopLine } from '../core/language/watches';
import { writersOf } from '../core/language/writers';
import { checkedCalls, type Calls } from './checked-calls';
import { COMPILER_CALLS } from './language-calls';

export type CompilerCalls = ReturnType<typeof compilerCalls>;

export function compilerCalls() {
  return checkedCalls(COMPILER_CALLS, {
    compile: (source) => compile(source, 'traced'),
    compileDetailed: (source, watches) => compileDetailed(source, watches),
    compileMutants: (source, form, first) => compileMutants(source, form, first),
    writers: (sources) => writersOf(sources),
    stopLine: (source, line) => stopLine(source, line),
    expressionFault: (expression) => expressionFault(expression),
  } satisfies Calls<typeof COMPILER_CALLS>);
}
