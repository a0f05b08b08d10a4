/**
 * Mutation testing: a script is changed in one small place, and the scenarios must notice. Every mutant is tried only
 * in the scenarios that reach its place. One that no scenario notices is tried in random sessions: where one of them
 * tells it apart, the scenarios have a gap and the session is what would fill it; where none does, it may well be no
 * change at all, and it does not count.
 */
import type { Mutant } from '../script/mutants';
import type { Answer, Opening, Step } from '../session/step';
import { beginningOf } from '../scenario/beginning';
import { changedAspects } from '../scenario/aspects';
import type { Expectation, PartExpectation, Scenario } from '../scenario/definition';
import { seenAt, type Seen } from '../scenario/seen';
import { outcomeChanges, outcomeOf, sessionOf, unfolded } from '../scenario/grid';
import { NoSuchOpening, openingOf, type NamedScenario } from '../scenario/opening';
import { recordScenario } from '../scenario/record';
import { differenceAsTitle } from './titles';
import { missesOf, scriptOf, type ScenarioGround } from '../scenario/run-scenario';
import type { SessionPlan } from './random-session';

/** What runs mutants: an engine whose material was compiled with them. */
export interface MutantHost {
  /** Loads the scripts with a mutant switched on, 0 for none. */
  load(mutant: number): Promise<void>;
  /** Null where the session did not come to its end in time. */
  play(
    opening: Opening,
    steps: readonly Step[],
    mutant: number,
  ): Promise<{ answers: Answer[]; reached: number[] } | null>;
}

/** A session of a scenario, of a row of its table or of a combination of its grid. */
interface Proof {
  scenario: string;
  opening: Opening;
  steps: readonly Step[];
  /** Whether its outcome is not the expected one. */
  notices(answers: readonly Answer[]): boolean;
  came: string;
  reached: ReadonlySet<number>;
}

interface RandomSession extends SessionPlan {
  opening: Opening;
  came: string;
  answers: readonly Answer[];
  reached: ReadonlySet<number>;
}

export type Verdict =
  | { is: 'caught'; by: string }
  /** `witness` is a session that tells it apart, as a scenario of how it should be; null where no expectation can. */
  | { is: 'survived'; reached: boolean; witness: Scenario | null }
  /** No session tells it apart from the script as it is: most likely it makes no difference. */
  | { is: 'equivalent'; reached: boolean };

/** What mutants are judged by. */
export interface Bench {
  ground: ScenarioGround;
  proofs: readonly Proof[];
  /** Scenarios that fail without any mutant; they judge none. */
  failing: readonly string[];
  random: readonly RandomSession[];
}

/** Random sessions that a mutant has to get through before it is taken for equivalent. */
export const RANDOM_SESSIONS = 200;

/** Of those that a script stops, so many are played: each takes seconds, and those that came to an end have to do. */
const STOPPED = 5;

/** Plays the scenarios and the random sessions without a mutant. The host has to be loaded with none. */
export async function prepare(
  ground: ScenarioGround,
  scenarios: readonly NamedScenario[],
  plans: readonly SessionPlan[],
  host: MutantHost,
): Promise<Bench> {
  const proofs: Proof[] = [];
  const failing: string[] = [];
  for (const { name, scenario } of scenarios) {
    const sessions = sessionsOf(name, scenario, ground);
    if (sessions === null) {
      failing.push(name);
      continue;
    }
    const played: Proof[] = [];
    for (const session of sessions) {
      const came = await host.play(session.opening, session.steps, 0);
      if (came === null || session.notices(came.answers)) break;
      played.push({ ...session, came: textOf(came.answers), reached: new Set(came.reached) });
    }
    if (played.length === sessions.length) proofs.push(...played);
    else failing.push(name);
  }
  const random: RandomSession[] = [];
  let stopped = 0;
  for (const plan of plans) {
    if (stopped === STOPPED) break;
    let opening: Opening;
    try {
      opening = openingOf(plan.open, ground.form, ground.cast);
    } catch (caught) {
      if (caught instanceof NoSuchOpening) continue;
      throw caught;
    }
    const came = await host.play(opening, plan.steps, 0);
    if (came === null) stopped++;
    else
      random.push({
        ...plan,
        opening,
        answers: came.answers,
        came: textOf(came.answers),
        reached: new Set(came.reached),
      });
  }
  return { ground, proofs, failing, random };
}

type Session = Omit<Proof, 'came' | 'reached'>;

/** Null for a scenario that cannot be opened. */
function sessionsOf(name: string, scenario: Scenario, ground: ScenarioGround): Session[] | null {
  try {
    const beginning = beginningOf(scenario, ground.cast.scenarios ?? []);
    const rows = scenario.cases?.rows.length ? [...scenario.cases.rows.keys()] : [null];
    const sessions = rows.map((row): Session => {
      const script = scriptOf(scenario, beginning, ground, row);
      return {
        scenario: name,
        opening: script.opening,
        steps: script.steps,
        notices: (answers) => missesOf(script, answers, ground, scenario.steps.length).length > 0,
      };
    });
    const { grid } = scenario;
    if (grid === undefined) return sessions;
    const plan = { axes: grid.axes, parts: grid.parts ?? null };
    return [
      ...sessions,
      ...grid.accepted.rows.map(([places, at]): Session => {
        const before = unfolded(grid.accepted, at);
        return {
          scenario: name,
          ...sessionOf(scenario, grid.axes, places, ground),
          notices: (answers) => outcomeChanges(before, outcomeOf(answers, plan, ground)).length > 0,
        };
      }),
    ];
  } catch (caught) {
    if (caught instanceof NoSuchOpening) return null;
    throw caught;
  }
}

const textOf = (answers: readonly Answer[]) => JSON.stringify(answers);

/** Tries one mutant. A mutant that acts while scripts are loaded leaves the host loaded with it. */
export async function judge(mutant: Mutant, bench: Bench, host: MutantHost): Promise<Verdict> {
  const { number, atLoad } = mutant;
  if (atLoad) await host.load(number);
  const play = (opening: Opening, steps: readonly Step[]) => host.play(opening, steps, number);
  const reaching = bench.proofs.filter(({ reached }) => reached.has(number));
  for (const proof of reaching) {
    const came = await play(proof.opening, proof.steps);
    if (came === null) return { is: 'caught', by: proof.scenario };
    if (textOf(came.answers) !== proof.came && proof.notices(came.answers))
      return { is: 'caught', by: proof.scenario };
  }
  for (const session of bench.random) {
    if (!session.reached.has(number)) continue;
    const came = await play(session.opening, session.steps);
    if (came !== null && textOf(came.answers) === session.came) continue;
    const told = untilItDiffers(session, came?.answers ?? null);
    const shortest = await shortened(told, mutant, host);
    const witness = witnessOf(shortest, bench);
    return { is: 'survived', reached: reaching.length > 0, witness };
  }
  return { is: 'equivalent', reached: reaching.length > 0 };
}

/** A session that ends where a mutant makes a difference. */
interface Telling {
  session: RandomSession;
  steps: readonly Step[];
  should: readonly Answer[];
  /** The outcome with the mutant; null where the session did not finish. */
  did: readonly Answer[] | null;
}

/** A session up to the first step in which something is otherwise. */
function untilItDiffers(session: RandomSession, did: readonly Answer[] | null): Telling {
  const count =
    did === null
      ? session.steps.length
      : did.findIndex((one, i) => !isSame(one, session.answers[i]!));
  return {
    session,
    steps: session.steps.slice(0, count),
    should: session.answers.slice(0, count + 1),
    did: did?.slice(0, count + 1) ?? null,
  };
}

const isSame = (a: Answer, b: Answer): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Leaves out every step without which the last one still makes a difference, the latest first. */
async function shortened(
  told: Telling,
  { number, atLoad }: Mutant,
  host: MutantHost,
): Promise<Telling> {
  const { opening } = told.session;
  const play = async (steps: readonly Step[], which: number) => {
    if (atLoad) await host.load(which);
    return host.play(opening, steps, which);
  };
  let shortest = told;
  for (let i = told.steps.length - 2; i >= 0; i--) {
    const steps = shortest.steps.toSpliced(i, 1);
    const should = await play(steps, 0);
    const did = await play(steps, number);
    if (should === null || should.answers.some(({ refused }) => refused !== null)) continue;
    const differs =
      did === null
        ? told.did === null
        : told.did !== null &&
          did.answers.findIndex((one, at) => !isSame(one, should.answers[at]!)) === steps.length;
    if (differs) shortest = { ...told, steps, should: should.answers, did: did?.answers ?? null };
  }
  return shortest;
}

/** A session that tells a mutant apart, as a scenario of how it should be; null where no expectation can. */
function witnessOf({ session, steps, should, did }: Telling, { ground }: Bench): Scenario | null {
  const [right, wrong] = [should, did ?? should].map((all) => seenAt(all, steps.length));
  const expect = differing(right!, wrong!);
  const recorded = recordScenario(
    differenceAsTitle(steps.at(-1) ?? null, expect, ground.form),
    session.open,
    ground.form,
    steps,
    should,
  );
  if (did === null) return recorded;
  // Of the opening nothing is recorded, and of a step only what it changed.
  const scenario: Scenario = { ...recorded, steps: [...recorded.steps, { expect }] };
  const script = scriptOf(scenario, beginningOf(scenario, []), ground, null);
  const misses = missesOf(script, did, ground, scenario.steps.length);
  return misses.length > 0 ? scenario : null;
}

/** How the parts should be that are not as they should be. */
function differing(should: Seen, did: Seen): Expectation {
  const expect: Record<string, PartExpectation> = {};
  for (const [name, part] of Object.entries(should.parts)) {
    const changed = changedAspects(did.parts[name], part);
    // What rows hold is for people to say.
    if (should.rows[name] !== undefined) delete changed.value;
    if (Object.keys(changed).length > 0) expect[name] = changed;
  }
  return expect as Expectation;
}

/** What the mutants of a form came to. */
export interface Score {
  caught: number;
  survived: number;
  equivalent: number;
  /** Of those that count, as a share from 0 to 1; 1 where none counts. */
  share: number;
}

export function scoreOf(verdicts: Iterable<Verdict>): Score {
  const score = { caught: 0, survived: 0, equivalent: 0 };
  for (const { is } of verdicts) score[is]++;
  const counted = score.caught + score.survived;
  return { ...score, share: counted === 0 ? 1 : score.caught / counted };
}

/** Mutants in the order in which they are tried: those for which scripts are loaded anew come last. */
export function inTrialOrder(mutants: readonly Mutant[]): Mutant[] {
  return mutants.toSorted((a, b) => Number(a.atLoad) - Number(b.atLoad) || a.number - b.number);
}
