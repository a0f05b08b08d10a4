/**
 * Outcome grids: what becomes of the form for each combination of what varies. Every combination is a session of its
 * own, with the real scripts; a grid that was accepted is a test, since later differences show.
 */
import { brokenAsUnmet, brokenInWords } from './broken';
import type { Form } from '../form/definition';
import { equal, type Value } from '../form/value';
import { AXES_PER_GRID, COMBINATIONS_PER_GRID } from '../limits';
import type { Answer, Broken, Opening, Step } from '../session/step';
import { spelled, type ExpectedAspect } from './aspects';
import { beginningOf, stepsOf } from './beginning';
import { coveringArray, leastRows, product, type Strength } from './covering';
import type { Axis, GridTest, Open, Scenario } from './definition';
import type { Unmet } from './expecting';
import { withInputs } from './inputs';
import { openingOf, type Cast } from './opening';
import { tableOptions, type OptionSource } from './options';
import { NOTHING_SEEN, partsSeen, seenAfter, type Seen } from './seen';

/** Aspects by part; `@form` holds what is of the form as a whole. */
export type Outcome = Record<string, Record<string, Value>>;

/** A part may be called `constructor`, so nothing is inherited. */
const noOutcome = (): Outcome => Object.create(null) as Outcome;

const ASPECTS_SHOWN: readonly ExpectedAspect[] = [
  'shown',
  'locked',
  'required',
  'value',
  'options',
  'problem',
  'stage',
];

export interface Combination {
  /** The place of each axis's value. */
  places: number[];
  outcome: Outcome;
  /** Invariants that do not hold at its end. */
  broken: readonly Broken[];
}

/** What a grid is of. */
export interface GridPlan {
  axes: readonly Axis[];
  /** Looked at; all parts where none is named. */
  parts: readonly string[] | null;
  strength: Strength | null;
}

/** A grid of which too much is left however it is thinned. */
export class TooManyCombinations extends Error {
  constructor(says: string) {
    super(`${says} Leave out values or inputs.`);
  }
}

/** How many combinations there are in all, and which of them are tried. Throws TooManyCombinations. */
export function combinationsOf(
  axes: readonly Axis[],
  strength: Strength | null,
): { all: number; tried: number[][]; strength: Strength | null } {
  const sizes = axes.map(({ values }) => values.length);
  const all = sizes.reduce((count, size) => count * size, 1);
  const thinned = strength ?? (all > COMBINATIONS_PER_GRID ? 2 : null);
  if (thinned === null) return { all, strength: thinned, tried: product(sizes) };
  if (axes.length > AXES_PER_GRID)
    throw new TooManyCombinations(`A grid varies at most ${AXES_PER_GRID} inputs.`);
  const most = COMBINATIONS_PER_GRID;
  const tried = leastRows(sizes, thinned) > most ? null : coveringArray(sizes, thinned, most);
  if (tried === null || tried.length > most)
    throw new TooManyCombinations(
      `For any ${thinned === 2 ? 'two' : 'three'} values to meet, more than ${most} combinations are needed.`,
    );
  return { all, strength: thinned, tried };
}

type Player = (opening: Opening, steps: readonly Step[]) => Promise<Answer[]>;

export interface GridGround {
  form: Form;
  source: OptionSource;
  cast: Cast;
}

/** The opening and the steps of one combination. Throws NoSuchOpening. */
export function sessionOf(
  scenario: Scenario,
  axes: readonly Axis[],
  places: readonly number[],
  { form, cast }: Pick<GridGround, 'form' | 'cast'>,
): { open: Open; opening: Opening; steps: Step[] } {
  const beginning = beginningOf(scenario, cast.scenarios ?? []);
  const { open, steps } = withInputs(
    beginning.open,
    axes.map(({ input }) => input),
    axes.map(({ values }, i) => values[places[i]!]!),
    'set',
  );
  return {
    open,
    opening: openingOf(open, form, cast),
    steps: [...beginning.steps, ...stepsOf(scenario), ...steps],
  };
}

/** Plays combinations one after the other; `heard` is told of each, and ends the whole by giving false. */
export async function playGrid(
  scenario: Scenario,
  plan: Pick<GridPlan, 'axes' | 'parts'>,
  tried: readonly number[][],
  ground: GridGround,
  play: Player,
  heard: (done: number) => boolean = () => true,
): Promise<Combination[]> {
  const combinations: Combination[] = [];
  for (const places of tried) {
    const { opening, steps } = sessionOf(scenario, plan.axes, places, ground);
    const answers = await play(opening, steps);
    const { broken } = answers.at(-1)!;
    combinations.push({ places, outcome: outcomeOf(answers, plan, ground), broken });
    if (!heard(combinations.length)) break;
  }
  return combinations;
}

/** What people meet at the end of a session. */
export function outcomeOf(
  answers: readonly Answer[],
  { axes, parts }: Pick<GridPlan, 'axes' | 'parts'>,
  { form, source }: GridGround,
): Outcome {
  const seen: Seen = answers.reduce(seenAfter, NOTHING_SEEN);
  const baseOptions = tableOptions(form, source);
  const driven = new Set(axes.map(({ input }) => input));
  const outcome = noOutcome();
  for (const [name, part] of Object.entries(partsSeen(seen, form))) {
    if (parts !== null && !parts.includes(name)) continue;
    const aspects: Record<string, Value> = {};
    for (const aspect of ASPECTS_SHOWN) {
      const value = spelled(part, aspect);
      if (value === undefined) continue;
      // Of rows how many there are; what they hold stands with their cells.
      const isRows = part.sort === 'row' || seen.rows[name] !== undefined;
      if (aspect === 'value' && (driven.has(name) || isRows)) continue;
      aspects[aspect] = aspect === 'options' ? (value ?? baseOptions(name)) : value;
    }
    if (seen.rows[name] !== undefined) aspects.count = seen.rows[name].order.length;
    outcome[name] = aspects;
  }
  const refused = answers.flatMap(({ refused: why }) => why ?? []);
  const errors = answers.flatMap(({ errors: all }) =>
    all.map(
      ({ behaviour, line, says }) => `${behaviour}${line === null ? '' : `:${line}`} ${says}`,
    ),
  );
  outcome['@form'] = {
    page: seen.page,
    messages: answers.flatMap(({ messages }) => messages.map(({ text }) => text)),
    replaced: seen.replaced?.text ?? null,
    refused,
    errors,
    // Only then, so that what was accepted before there were invariants stays as it is.
    ...(seen.broken.length === 0 ? {} : { broken: seen.broken.map(brokenInWords) }),
  };
  return outcome;
}

/** What is the same in all combinations, what differs, and which combinations come to the same. */
export function folded(
  combinations: readonly Pick<Combination, 'places' | 'outcome'>[],
): GridTest['accepted'] {
  const first = combinations[0]?.outcome ?? {};
  const base = noOutcome();
  for (const [part, aspects] of Object.entries(first))
    for (const [aspect, value] of Object.entries(aspects))
      if (combinations.every(({ outcome }) => equal(outcome[part]?.[aspect], value)))
        (base[part] ??= {})[aspect] = value;
  const outcomes: Outcome[] = [];
  const known = new Map<string, number>();
  const rows = combinations.map(({ places, outcome }): [number[], number] => {
    const rest = without(outcome, base);
    const key = JSON.stringify(rest);
    const at = known.get(key) ?? outcomes.push(rest) - 1;
    known.set(key, at);
    return [places, at];
  });
  return { base, outcomes, rows };
}

function without(outcome: Outcome, base: Outcome): Outcome {
  const rest = noOutcome();
  for (const [part, aspects] of Object.entries(outcome))
    for (const [aspect, value] of Object.entries(aspects))
      if (base[part]?.[aspect] === undefined) (rest[part] ??= {})[aspect] = value;
  return rest;
}

/** The outcome of an accepted combination, whole. */
export function unfolded({ base, outcomes }: GridTest['accepted'], at: number): Outcome {
  const whole = noOutcome();
  for (const half of [base, outcomes[at] ?? {}])
    for (const [part, aspects] of Object.entries(half))
      whole[part] = { ...whole[part], ...aspects };
  return whole;
}

/** A cell of a grid that is not as it was. */
export interface CellChange {
  part: string;
  aspect: string;
  before: Value;
  now: Value;
}

/** What differs from an outcome before. Parts that are new are not compared; of one that is gone nothing stands any more. */
export function outcomeChanges(before: Outcome, now: Outcome): CellChange[] {
  return Object.entries(before).flatMap(([part, aspects]) =>
    Object.entries(aspects)
      .filter(([aspect, value]) => !equal(value, now[part]?.[aspect] ?? null))
      .map(([aspect, value]) => ({
        part,
        aspect,
        before: value,
        now: now[part]?.[aspect] ?? null,
      })),
  );
}

/** Misses told of one grid; a change that touches every combination needs no 2,000 lines. */
const MOST_MISSES = 100;

/** Plays the accepted combinations of a scenario's grid again. */
export async function gridMisses(
  scenario: Scenario,
  ground: GridGround,
  play: Player,
): Promise<{ misses: (Unmet & { at: number; after: number })[]; steps: number }> {
  const { axes, parts, accepted } = scenario.grid!;
  const tried = accepted.rows.map(([places]) => places);
  const combinations = await playGrid(
    scenario,
    { axes, parts: parts ?? null },
    tried,
    ground,
    play,
  );
  // An outcome is what stands after all the steps of its combination.
  const lengths = tried.map((places) => sessionOf(scenario, axes, places, ground).steps.length);
  const misses = combinations.flatMap(({ outcome, broken }, at) => [
    // What must always hold cannot be accepted otherwise.
    ...broken.map((one) => ({
      at,
      after: lengths[at]!,
      ...brokenAsUnmet(one),
      says: `with ${combinationInWords(axes, tried[at]!)}: ${brokenAsUnmet(one).says}`,
    })),
    ...outcomeChanges(unfolded(accepted, accepted.rows[at]![1]), outcome)
      .filter(({ part, aspect }) => part !== '@form' || aspect !== 'broken')
      .map(({ part, aspect, before, now }) => ({
        at,
        after: lengths[at]!,
        part: part === '@form' ? `@${aspect}` : part,
        aspect: part === '@form' ? null : aspect,
        says: `with ${combinationInWords(axes, tried[at]!)}: ${part}.${aspect} is ${JSON.stringify(now)}, accepted was ${JSON.stringify(before)}`,
        expected: before,
        actual: now,
      })),
  ]);
  return {
    misses: misses.slice(0, MOST_MISSES),
    steps: lengths.reduce((sum, length) => sum + length, 0),
  };
}

export function combinationInWords(axes: readonly Axis[], places: readonly number[]): string {
  return axes
    .map(({ input, values }, i) => `${input} ${JSON.stringify(values[places[i]!])}`)
    .join(', ');
}

/** Finds the outcome of a combination; null where it was not tried. */
export function outcomeFinder(
  accepted: GridTest['accepted'],
): (places: readonly number[]) => Outcome | null {
  const rows = new Map(accepted.rows.map(([places, at]) => [places.join(), at]));
  return (places) => {
    const at = rows.get(places.join());
    return at === undefined ? null : unfolded(accepted, at);
  };
}
