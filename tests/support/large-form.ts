/** A form of 200 fields and a behaviour of 300 lines, among five others: the size that the editor has to keep up with. */
import type { Surface } from '../../src/core/language/typings';
import { choice, number, page, section, text } from './forms';

const SECTIONS = 20;

export const largeSurface: Surface = {
  form: {
    name: 'large',
    title: 'Large',
    pages: [
      page(
        'all',
        Array.from({ length: SECTIONS }, (_, s) =>
          section(
            `s${s}`,
            Array.from(
              { length: 10 },
              (_, i) =>
                [
                  choice(`f${s}_${i}`, ['own', 'none', 'tug']),
                  number(`f${s}_${i}`),
                  text(`f${s}_${i}`),
                ][i % 3]!,
            ),
          ),
        ),
      ),
    ],
  },
  tables: [],
  services: [],
  roles: [{ key: 'clerk', label: 'Clerk' }],
};

/** Rules over the parts of the form, from one place on, so that no two behaviours say the same. */
function script(from: number, lines: number): string {
  const all = [`/** Rules from ${from}: many. */`];
  for (let i = from; all.length < lines; i++) {
    const s = i % SECTIONS;
    const [shown, required] = [
      2 + 3 * (Math.floor(i / SECTIONS) % 2),
      1 + 3 * (Math.floor(i / SECTIONS) % 2),
    ];
    all.push(
      `keep("rule ${i}", () => {`,
      `  const choice = fields.f${s}_0.value;`,
      `  fields.f${s}_${shown}.shown = choice === "own";`,
      `  fields.f${s}_${required}.required = choice !== "tug" && (fields.f${s}_7.value ?? 0) > ${i};`,
      '});',
      '',
    );
  }
  return `${all
    .slice(0, lines)
    .join('\n')
    .replace(/\n(?:keep[^}]*)?$/, '')}\n`;
}

export const largeScript = { name: '10-large.ts', text: script(0, 301) };
export const others = Array.from({ length: 5 }, (_, i) => ({
  name: `${i + 2}0-other.ts`,
  text: `/** Other ${i}: one more. */\non.change(fields.f${i}_9, ({ value }) => log(value));\n`,
}));

/** The script with one more letter typed somewhere in it. */
export function typedOnce(i: number): { name: string; text: string } {
  const lines = largeScript.text.split('\n');
  const at = 3 + ((i * 37) % (lines.length - 6));
  lines[at] += ' '.repeat(1 + (i % 3));
  return { name: largeScript.name, text: lines.join('\n') };
}
