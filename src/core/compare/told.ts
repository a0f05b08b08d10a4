/** A difference told to people: what somebody meets in the later version, and what in the former one, in the form's labels. */
import { inLabels, meets, sentence, whoIn, type Known } from '../explore/told';
import { counted } from '../counted';
import type { Names } from '../tape/words';
import type { Compared } from './compare';
import { isBeside, type Difference, type Differing, type MetBeside, type Stop } from './difference';

/** Two sentences. `known` and `names` are those of the later version; `who` is who meets it. */
export function toldOfDifference(
  { part, aspect, before, after, way }: Difference,
  known: Known,
  names: Names,
  who: string = whoIn(way, known, names),
): string {
  const label = names.part(part);
  if (isBeside(aspect)) {
    const { now, formerly } = BESIDE[aspect];
    return `${sentence(`${who} ${now(after, names)}`)} ${sentence(`In the former version, ${formerly(before, names)}`)}`;
  }
  if (aspect === 'exists')
    return after === true
      ? `${who} finds ${label}, which is new.`
      : `${who} does not find ${label} any more.`;
  return `${sentence(`${who} ${meets(aspect, after, label, part, known)}`)} ${sentence(`In the former version, ${label} ${inLabels(aspect, before, part, known)}`)}`;
}

/** What differs where both versions stand side by side, in a sentence. */
export function differingInWords(
  { part, aspect, before, after }: Differing,
  known: Known,
  names: Names,
): string {
  if (isBeside(aspect))
    return sentence(
      `Here, ${asItIs(aspect, after, names)}; formerly, ${asItIs(aspect, before, names)}`,
    );
  const label = part === '@form' ? 'The form' : names.part(part);
  if (aspect === 'exists') return `${label} is ${after === true ? 'new' : 'gone'}.`;
  const met = (value: unknown) => inLabels(aspect, value, part, known);
  return sentence(`${label} ${met(after)}; in the former version it ${met(before)}`);
}

/** What is met beside the parts, as a sentence about one version. */
export const asItIs = (aspect: MetBeside, met: unknown, names: Names): string =>
  BESIDE[aspect].formerly(met, names);

/** What else differs by the same cause, in a word or two. */
export function alsoInWords({ also }: Difference, names: Names): string[] {
  const all = also.map(({ part, aspect }) =>
    isBeside(aspect) ? CALLED[aspect] : names.part(part),
  );
  return [...new Set(all)];
}

const CALLED: Readonly<Record<MetBeside, string>> = {
  messages: 'a message',
  failures: 'a script that fails',
  page: 'the page',
  submit: 'submitting',
};

interface InWords {
  /** Behind `Whoever …`. */
  now(met: unknown, names: Names): string;
  /** A sentence of its own. */
  formerly(met: unknown, names: Names): string;
}

const listed = (texts: readonly string[]) => texts.map((text) => `“${text}”`).join(' and ');
const stopsIn = (met: unknown, names: Names) =>
  (met as readonly Stop[])
    .map(({ part, says }) => `${part === null ? 'with' : `at ${names.part(part)} with`} “${says}”`)
    .join(' and ');

const BESIDE: Readonly<Record<MetBeside, InWords>> = {
  messages: {
    now: (met) => (isNone(met) ? 'is shown no message' : `is shown ${listed(met as string[])}`),
    formerly: (met) =>
      isNone(met) ? 'there is no message' : `the message is ${listed(met as string[])}`,
  },
  failures: {
    now: (met) =>
      isNone(met)
        ? 'meets no script that fails'
        : `meets a script that fails: ${(met as string[])[0]}`,
    formerly: (met) =>
      isNone(met) ? 'no script fails' : `a script fails: ${(met as string[])[0]}`,
  },
  page: {
    now: (met, names) => `is on the page ${names.part(String(met))}`,
    formerly: (met, names) => `the page is ${names.part(String(met))}`,
  },
  submit: {
    now: (met, names) =>
      met === null
        ? 'submits nothing'
        : met === 'saved'
          ? 'can submit the form'
          : isNone(met)
            ? 'is stopped by nothing else'
            : `is stopped ${stopsIn(met, names)}`,
    formerly: (met, names) =>
      met === null
        ? 'nothing is submitted'
        : met === 'saved'
          ? 'the form is submitted'
          : isNone(met)
            ? 'nothing else stops it'
            : `it is stopped ${stopsIn(met, names)}`,
  },
};

const isNone = (met: unknown) => (met as readonly unknown[]).length === 0;

type Sum = Pick<Compared, 'differences' | 'sessions' | 'lines'>;

/** `3 differences in 2,000 sessions, which reached all 9 changed lines`. */
export function comparedInWords({ differences, sessions, lines }: Sum): string {
  const found =
    differences.length === 0 ? 'nothing differs' : counted(differences.length, 'difference');
  if (sessions === 0) return `${found}: nothing in it changed`;
  const played = `${found} in ${sessions.toLocaleString('en-GB')} sessions`;
  const reached = lines.filter(({ isReached }) => isReached).length;
  if (lines.length === 0) return played;
  return reached === lines.length
    ? `${played}, which reached ${lines.length === 1 ? 'the changed line' : `all ${lines.length} changed lines`}`
    : `${played}, which reached ${reached} of ${counted(lines.length, 'changed line')}`;
}
