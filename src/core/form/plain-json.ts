/**
 * What JSON can say and nothing behind it can keep: PostgreSQL's JSONB takes neither NUL nor half a surrogate pair
 * (PostgreSQL manual, 8.14), JavaScript's objects have no plain key `__proto__`, and readers that call themselves once
 * for each level overflow on deep nesting.
 */
import { VALUE_LEVELS } from '../limits';

/** What is odd about a parsed JSON value, as the end of a sentence; null when nothing is. */
export function oddIn(value: unknown): string | null {
  let level: unknown[] = [value];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > VALUE_LEVELS) return `is nested deeper than ${VALUE_LEVELS} levels`;
    const below: unknown[] = [];
    for (const one of level) {
      if (typeof one === 'string') {
        const odd = oddText(one);
        if (odd !== null) return odd;
      } else if (typeof one === 'object' && one !== null) {
        if (Array.isArray(one)) for (const item of one as unknown[]) below.push(item);
        else {
          for (const key of Object.keys(one)) {
            if (key === '__proto__') return 'uses the key "__proto__", which belongs to JavaScript';
            const odd = oddText(key);
            if (odd !== null) return odd;
            below.push((one as Record<string, unknown>)[key]);
          }
        }
      }
    }
    level = below;
  }
  return null;
}

function oddText(text: string): string | null {
  if (text.includes('\0')) return 'has a NUL character in a text';
  return text.isWellFormed() ? null : 'has half a character in a text (a lone surrogate)';
}
