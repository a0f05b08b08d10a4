/** The behaviours of a form as a set: names for new ones, and renumbering them when their order changes. */
import { freeName, slugOf } from '../form/name';
import type { Expectation, Scenario } from '../scenario/definition';
import { isExpect } from '../scenario/beginning';
import { baseName, fileName, isModule, isOwn, MODULES } from '../script/script-name';

/** The steps in which behaviours are numbered, so that one can be put between two others. */
const STEP = 10;

const numberOf = (name: string): number | null => {
  const number = /^(\d+)-/.exec(fileName(name))?.[1];
  return number === undefined ? null : Number(number);
};

const withNumber = (name: string, number: number): string =>
  `${number}-${name.replace(/^\d+-/, '')}`;

/** What behaviours are written in. */
export type ScriptLanguage = 'ts' | 'js';

/** The file of a new behaviour with this title, after all others. */
export function newBehaviourName(
  title: string,
  taken: readonly string[],
  language: ScriptLanguage = 'ts',
): string {
  const slug = slugOf(title, '-').slice(0, 60) || 'behaviour';
  const last = Math.max(0, ...taken.map((name) => numberOf(name) ?? 0));
  return `${Math.floor(last / STEP) * STEP + STEP}-${slug}.${language}`;
}

/** The name of a new shared module with this title. */
export function newModuleName(title: string, taken: readonly string[]): string {
  const slug = slugOf(title, '-').slice(0, 60) || 'module';
  const files = new Set(taken.filter(isModule).map((name) => baseName(fileName(name))));
  return `${MODULES}${freeName(slug, files, '-')}.ts`;
}

/**
 * The names that bring behaviours into this order, as pairs of old and new. Only the one that moved gets another number
 * where there is room between its neighbours; else all are numbered again. Those for several forms keep their names;
 * null when the others cannot be numbered around them.
 */
export function renumbered(order: readonly string[]): { from: string; to: string }[] | null {
  const numbers = order.map(numberOf);
  const isRising = (skip: number) =>
    numbers.every(
      (number, i) =>
        i === skip ||
        (number !== null &&
          numbers
            .slice(0, i)
            .every((before, j) => j === skip || (before !== null && before < number))),
    );
  if (isRising(-1)) return [];
  const moved = order.findIndex((name, i) => isOwn(name) && isRising(i));
  if (moved >= 0) {
    const [before, after] = [moved === 0 ? 0 : numbers[moved - 1]!, numbers[moved + 1]];
    const number =
      after === undefined
        ? Math.floor(before! / STEP) * STEP + STEP
        : before + Math.floor((after! - before!) / 2);
    if (number > before! && (after === undefined || number < after!))
      return [{ from: order[moved]!, to: withNumber(order[moved]!, number) }];
  }
  const fresh = allNumbered(order);
  return fresh === null
    ? null
    : order
        .map((name, i) => ({ from: name, to: isOwn(name) ? withNumber(name, fresh[i]!) : name }))
        .filter(({ from, to }) => from !== to);
}

/** A number for each, in steps where there is room for them; null where behaviours for several forms leave none. */
function allNumbered(order: readonly string[]): number[] | null {
  const numbers: number[] = [];
  for (let from = 0; from < order.length;) {
    const found = order.findIndex((name, i) => i >= from && !isOwn(name));
    const fixed = found < 0 ? order.length : found;
    const low = numbers.at(-1) ?? 0;
    const high = found < 0 ? null : numberOf(order[found]!);
    const count = fixed - from;
    const step = high === null ? STEP : Math.min(STEP, Math.floor((high - low) / (count + 1)));
    // One without a number comes last of all.
    if (found >= 0 && (high === null ? found < order.length - 1 : step < 1)) return null;
    for (let i = 1; i <= count; i++) numbers.push(low + i * step);
    if (found >= 0) numbers.push(high ?? Infinity);
    from = fixed + 1;
  }
  return numbers;
}

/** A scenario whose expected errors use the new names of behaviours; the same object when it names none of them. */
export function renamedInScenario(
  scenario: Scenario,
  renames: readonly { from: string; to: string }[],
): Scenario {
  const names = new Map(renames.map(({ from, to }) => [baseName(from), baseName(to)]));
  let changed = false;
  const steps = scenario.steps.map((step) => {
    const errors = isExpect(step) ? step.expect['@errors'] : undefined;
    if (
      !isExpect(step) ||
      errors === undefined ||
      !errors.some(({ behaviour }) => behaviour !== undefined && names.has(behaviour))
    )
      return step;
    changed = true;
    return {
      expect: {
        ...step.expect,
        '@errors': errors.map((error) =>
          error.behaviour === undefined
            ? error
            : { ...error, behaviour: names.get(error.behaviour) ?? error.behaviour },
        ),
      } as Expectation,
    };
  });
  return changed ? { ...scenario, steps } : scenario;
}
