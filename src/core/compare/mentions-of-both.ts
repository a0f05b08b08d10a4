/** What the scripts of two versions mention: those of the version that is gone over, and what the other one adds. */
import type { Mentions } from '../explore/mentions';

const together = <T>(one: readonly T[], other: readonly T[]): T[] => [
  ...new Set([...one, ...other]),
];

/** Members and conditions stay those of `own`, since they name its lines. */
export function mentionsOfBoth(
  own: Mentions,
  other: Mentions,
  /** What is tried first; nothing of its own where it is empty. */
  focus: readonly string[],
): Mentions {
  const parts = together(Object.keys(own.compared), Object.keys(other.compared));
  return {
    ...own,
    numbers: together(own.numbers, other.numbers),
    compared: Object.fromEntries(
      parts.map((part) => [part, together(own.compared[part] ?? [], other.compared[part] ?? [])]),
    ),
    texts: together(own.texts, other.texts),
    dates: together(own.dates, other.dates),
    times: together(own.times, other.times),
    patterns: together(own.patterns, other.patterns),
    names: together(own.names, other.names),
    words: focus.length > 0 ? [...focus] : together(own.words, other.words),
    launch: together(own.launch, other.launch),
    asks: {
      length: own.asks.length || other.asks.length,
      month: own.asks.month || other.asks.month,
      clock: own.asks.clock || other.asks.clock,
      calls: own.asks.calls || other.asks.calls,
    },
  };
}
