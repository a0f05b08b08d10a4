/** Texts that fit a regular expression, the same from the same seed. */
import { sample, stringMatching } from 'fast-check';

/** So many texts that fit, few of them where the pattern allows few; none where it cannot be made sense of. */
export function samplesOf(pattern: string, count: number, seed: number): string[] {
  try {
    // Printable characters alone: what a dot may stand for is what people type.
    const fits = stringMatching(new RegExp(`^(?:${pattern.replace(/^\^|\$$/g, '')})$`), {
      size: 'xsmall',
    });
    return [...new Set(sample(fits, { numRuns: count * 4, seed }))]
      .filter((text) => /^[\x20-\x7e]+$/.test(text) && text.trim() !== '')
      .slice(0, count);
  } catch {
    return [];
  }
}
