/** How numbers are written by people: the decimal mark of the workspace, and digits in groups of three. Stored they are numbers. */

export const NUMBER_STYLES = ['point', 'comma'] as const;
/** The decimal mark. */
export type NumberStyle = (typeof NUMBER_STYLES)[number];

const MARK: Readonly<Record<NumberStyle, string>> = { point: '.', comma: ',' };

/** What may part groups of digits: a space, a narrow one, an apostrophe, and the mark that does not begin decimals. */
const groupMarks = (style: NumberStyle) => `[ '’\u00a0\u202f${style === 'comma' ? '.' : ','}]`;

const patterns = Object.fromEntries(
  NUMBER_STYLES.map((style) => {
    const group = groupMarks(style);
    const decimals = `(?:\\${MARK[style]}\\d*)?`;
    return [
      style,
      {
        group: new RegExp(group, 'g'),
        // Digits alone, or groups of three after a first of one to three; then decimals, and a power of ten.
        number: new RegExp(
          `^[-+]?(?:\\d+${decimals}|\\d{1,3}(?:${group}\\d{3})+${decimals}|\\${MARK[style]}\\d+)(?:[eE][-+]?\\d+)?$`,
        ),
      },
    ];
  }),
) as Record<NumberStyle, { group: RegExp; number: RegExp }>;

/** Reads a number written in a style; null for what is none, such as `0x10`, `1,23.4` or `Infinity`. */
export function readNumber(text: string, style: NumberStyle): number | null {
  const bare = text.trim().replaceAll('\u2212', '-');
  const { group, number } = patterns[style];
  if (!number.test(bare)) return null;
  const read = Number(bare.replace(group, '').replace(MARK[style], '.'));
  return Number.isFinite(read) ? read : null;
}

/**
 * Reads a number that somebody types: as the workspace writes them, else with the other decimal mark where that can mean
 * nothing else, such as `4,5` where decimals begin with a point. `1,234` is 1234 there.
 */
export function readTypedNumber(text: string, style: NumberStyle): number | null {
  return readNumber(text, style) ?? readNumber(text, style === 'point' ? 'comma' : 'point');
}

/** A number as it is shown where it can be edited, without groups; `decimals` are shown at least. */
export function showNumber(value: number, style: NumberStyle, decimals = 0): string {
  const plain = String(value);
  const [, after = ''] = plain.split('.');
  const shown = plain.includes('e') || after.length >= decimals ? plain : value.toFixed(decimals);
  return shown.replace('.', MARK[style]);
}
