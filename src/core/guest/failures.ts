/** What became of a run that threw: a code and words of Tavro's own, decided here, where the error object is. */
import { inWords } from '../form/value';
import { ScriptError, ServiceError, words, type FailureCode } from '../wire/failures';

const { ReferenceError, SyntaxError, RangeError, Error } = globalThis;
/** QuickJS's own; other engines have none. */
const InternalError = (globalThis as { InternalError?: ErrorConstructor }).InternalError ?? null;

/** What QuickJS says then, and nothing else that a script did not throw itself. */
const STACK_EXHAUSTED = 'stack overflow';

/** Calls this deep mean that the stack was exhausted and not the memory. */
const DEEP = 40;

/**
 * The failure behind something caught from a script. `marked` says that the script threw it itself, so that its own
 * words stand. `deepest` is how deep its calls went.
 */
export function readFailure(
  caught: unknown,
  marked: boolean,
  deepest: number,
): { code: FailureCode; says: string } {
  if (caught instanceof ScriptError) return { code: caught.code, says: caught.message };
  if (caught instanceof ServiceError) return { code: 'service', says: caught.message };
  if (marked) return { code: 'thrown', says: `threw: ${said(caught)}` };
  if (caught instanceof ReferenceError) return { code: 'name', says: words.name };
  if (caught instanceof SyntaxError) return { code: 'syntax', says: words.syntax };
  // The machine throws the same kind of error for an exhausted stack and for exhausted memory.
  const exhausted = caught === null || (InternalError !== null && caught instanceof InternalError);
  if (exhausted)
    return deepest > DEEP || (caught as Error | null)?.message === STACK_EXHAUSTED
      ? { code: 'depth', says: words.depth }
      : { code: 'memory', says: words.memory };
  if (caught instanceof RangeError)
    return deepest > DEEP
      ? { code: 'depth', says: words.depth }
      : { code: 'range', says: words.range };
  return { code: 'type', says: words.type };
}

/** The script's own words. It may have made the error itself, with a message that cannot be read. */
function said(caught: unknown): string {
  try {
    if (caught instanceof Error) return String(caught.message);
    return typeof caught === 'string' ? caught : inWords(caught);
  } catch {
    return 'an object';
  }
}
