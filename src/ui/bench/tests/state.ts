/** What is known of the tests of a form: its scenarios and how they came out, a grid, mutants, coverage. */
import type { Axis, GridTest, Scenario } from '@/core/scenario/definition';
import type { Strength } from '@/core/scenario/covering';
import type { ScenarioResult } from '@/core/scenario/run-scenario';
import type { Mutant } from '@/core/script/mutants';
import type { CoverageShares, ScriptCoverage } from '@/core/testing/coverage';
import type { Verdict } from '@/core/testing/mutation';
import type { Saving } from '../../draft/draft';

export type TestsTab = 'scenarios' | 'faults' | 'changes' | 'grid' | 'mutation' | 'coverage';

/** How far work is that takes a while. */
export interface Underway {
  done: number;
  of: number;
}

/** What a scenario was before it was changed or removed. */
export interface Undoable {
  name: string;
  /** Null where there was none of that name. */
  before: Scenario | null;
  says: string;
}

/** What each combination starts from; null for the form opened anew by the first person. */
export type GridStart = Pick<Scenario, 'open' | 'startsAs' | 'steps'> | null;

export interface GridState {
  axes: Axis[];
  start: GridStart;
  /** The parts that are looked at; null for all. */
  parts: readonly string[] | null;
  /** What it is kept as. */
  title: string;
  strength: Strength | null;
  underway: Underway | null;
  outcome: GridOutcome | null;
  /** What it was before the code was edited, or when it was accepted. */
  before: GridOutcome | null;
}

export interface GridOutcome {
  axes: Axis[];
  start: GridStart;
  /** The parts that are looked at; null for all. */
  parts: readonly string[] | null;
  accepted: GridTest['accepted'];
  all: number;
  /** How it was thinned; null for all combinations. */
  strength: Strength | null;
}

/** A scenario as it saves itself. */
export interface EditedScenario {
  name: string;
  scenario: Scenario;
  revision: number;
  saving: Saving<Scenario | null>;
}

export interface TestsState {
  scenarios: readonly EditedScenario[];
  /** How each scenario came out last, by name. */
  results: ReadonlyMap<string, ScenarioResult>;
  /** Whether the scenarios are being run. */
  running: boolean;
  tab: TestsTab;
  /** The scenario that is open in the editor. */
  scenario: string | null;
  undoable: Undoable[];
  grid: GridState;
  mutation: {
    underway: Underway | null;
    /** All mutants of the code that they were made of. */
    mutants: readonly Mutant[];
    verdicts: ReadonlyMap<number, Verdict>;
    failing: readonly string[];
    /** Those for which a scenario was kept. */
    kept: ReadonlySet<number>;
    /** Of which state of code and scenarios; null where nothing was tried. */
    of: string | null;
  };
  coverage: {
    underway: Underway | null;
    scripts: { name: string; coverage: ScriptCoverage; shares: CoverageShares }[] | null;
    keys: { field: string; keys: string[] }[];
    /** Random sessions that reach what no scenario does, with what that is. */
    offers: { scenario: Scenario; places: { script: string; line: number }[] }[];
  };
  /** What went wrong last. */
  says: string | null;
}

export const NO_TESTS: TestsState = {
  scenarios: [],
  results: new Map(),
  running: false,
  tab: 'scenarios',
  scenario: null,
  undoable: [],
  grid: {
    axes: [],
    start: null,
    parts: null,
    title: '',
    strength: null,
    underway: null,
    outcome: null,
    before: null,
  },
  mutation: {
    underway: null,
    mutants: [],
    verdicts: new Map(),
    failing: [],
    kept: new Set(),
    of: null,
  },
  coverage: { underway: null, scripts: null, keys: [], offers: [] },
  says: null,
};
