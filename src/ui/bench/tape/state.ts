/** What is known while somebody looks into what was done, and what all that do so share. */
import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Decision } from '@/core/debugging/decision';
import type { Question } from '@/core/debugging/question';
import type { Difference } from '@/core/debugging/differences';
import { ALL, type Filter } from '@/core/debugging/filter';
import type { SitesOf } from '@/core/debugging/instances';
import type { LeftOut } from '@/core/debugging/left-out';
import { placeAt, stepOf, type Standing } from '@/core/debugging/travel';
import type { WhyNot } from '@/core/debugging/why-not';
import type { Value } from '@/core/form/value';
import type { DetailedRun } from '@/core/session/detail';
import type { Look } from '@/core/session/looking';
import type { Answer, Step } from '@/core/session/step';
import { Tape } from '@/core/tape/tape';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { FormRoom } from '../form/form';
import type { Looking } from './inspecting';

export interface Breakpoint {
  id: number;
  /** A line of a script, by its file, or an aspect of a part that changes. */
  at: { is: 'line'; script: string; line: number } | { is: 'aspect'; part: string; aspect: string };
  /** Of a line: it stops only where this holds; empty for always. */
  condition: string;
  /** It does not stop but shows this; empty for a breakpoint. */
  log: string;
}

/** A moment at which a breakpoint stops. */
export interface Hit {
  breakpoint: number;
  standing: Standing;
  step: number;
  /** What a log point shows. */
  log: Value | undefined;
  failed: string | null;
  /** What each watch came to, in their order. */
  watches: { value: Value; failed: string | null }[];
}

export interface PromptLine {
  expression: string;
  value: Value;
  failed: string | null;
}

/** What replaying under other conditions came to. */
export interface Compared {
  title: string;
  differences: Difference[];
  errors: string[];
}

export type DrawerTab = 'values' | 'watches' | 'calls' | 'compare' | 'cost';

export interface TapeState {
  /** Whether the drawer is open. */
  open: boolean;
  tab: DrawerTab;
  filter: Filter;
  /** Where somebody stands in the past; null for now. */
  standing: Standing | null;
  /** The run that is stood in, in detail. */
  detailed: DetailedRun | null;
  sites: SitesOf;
  /** Everything at the moment that is stood on; of now where `standing` is null. */
  look: Look | null;
  question: Question | null;
  decision: Decision | null;
  /** The lines that did not decide. */
  whyNot: readonly WhyNot[];
  /** Of options, what left out those that are not offered. */
  notOffered: readonly LeftOut[];
  /** Questions asked before this one, to go back to. */
  trail: readonly Question[];
  /** Whether the answer to the question is on its way. */
  asking: boolean;
  breakpoints: readonly Breakpoint[];
  watches: readonly string[];
  hits: readonly Hit[];
  /** What the watches come to at the moment. */
  watched: { value: Value; failed: string | null }[];
  prompt: readonly PromptLine[];
  compared: readonly Compared[];
  /** The session that was compared; of another one nothing is known. */
  comparedOf: string | null;
  /** Steps that were dropped to go on from an earlier moment. */
  dropped: readonly Step[];
  /** What could not be done. */
  says: string | null;
}

const KEPT = 'tavro.bench.debug';

/** What takes a while. Each kind goes on whatever is asked of the others: why is answered while somebody travels on. */
export type Attempted = 'why' | 'standing' | 'prompt' | 'comparison';

/** What the rooms of debugging share. */
export interface DebugCore {
  core: BenchCore;
  code: Code;
  form: FormRoom;
  /** The engine in which everything that is looked at is done again. */
  looking: Looking;
  store: StoreApi<TapeState>;
  debug: StoreApi<TapeState>['getState'];
  set: StoreApi<TapeState>['setState'];
  /** Opens or shuts the drawer, or another of its panes, or changes the watches, and remembers that for the next visit. */
  keepOpen(changes: Partial<Pick<TapeState, 'open' | 'tab' | 'watches'>>): void;
  /** Reads from the last visit what was open then; only in a browser. */
  remember(): void;
  /** The tape of the opening, then of each step. */
  tapes(): Answer['tape'][];
  /** All that happened so far, the later steps too. */
  wholeTape(): Tape;
  /** The steps that have to be done again to come to an entry. */
  stepsTo(entry: number): Step[];
  /** The line of the statement that is stood on; null between two runs. */
  placeStoodOn(): { script: string; line: number } | null;
  /** Does what takes a while: says what goes wrong, and drops an answer that comes after the next question of its kind. */
  attempt(kind: Attempted, work: (mine: () => boolean) => Promise<void>): Promise<void>;
}

export function debugCore(
  core: BenchCore,
  code: Code,
  form: FormRoom,
  looking: Looking,
): DebugCore {
  const { session } = form;
  const store = createStore<TapeState>(() => ({
    open: false,
    tab: 'values',
    filter: ALL,
    standing: null,
    detailed: null,
    sites: new Map(),
    look: null,
    question: null,
    decision: null,
    whyNot: [],
    notOffered: [],
    trail: [],
    asking: false,
    breakpoints: [],
    watches: [],
    hits: [],
    watched: [],
    prompt: [],
    compared: [],
    comparedOf: null,
    dropped: [],
    says: null,
  }));
  const debug = store.getState;
  const set = store.setState;
  /** Each question of a kind counts, so that a late answer to an earlier one is dropped. */
  const turns = new Map<Attempted, number>();

  const tapes = (): Answer['tape'][] => session.state.answers.map(({ tape }) => tape);
  /** All that happened so far, the later steps too. */
  const wholeTape = (): Tape => new Tape(tapes().flat());
  const formName = (): string => core.form().name;

  /** Reads from the last visit what was open then, and the watches of this form; only in a browser. */
  function remember(): void {
    try {
      const kept = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Partial<TapeState>;
      const watches = (kept.watches as unknown as Record<string, unknown> | undefined)?.[
        formName()
      ];
      set({
        open: kept.open === true,
        tab: (kept.tab ?? 'values') as DrawerTab,
        watches: Array.isArray(watches)
          ? watches.filter((one): one is string => typeof one === 'string')
          : [],
      });
    } catch {
      // What was open is a convenience.
    }
  }

  function keepOpen(changes: Partial<Pick<TapeState, 'open' | 'tab' | 'watches'>>): void {
    set(changes);
    const { open, tab, watches } = debug();
    try {
      const kept = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as { watches?: object };
      localStorage.setItem(
        KEPT,
        JSON.stringify({ open, tab, watches: { ...kept.watches, [formName()]: watches } }),
      );
    } catch {
      // Likewise.
    }
  }

  /** The steps that have to be done again to come to an entry. */
  function stepsTo(entry: number): Step[] {
    return session.state.steps.slice(0, stepOf(tapes(), entry));
  }

  async function attempt(
    kind: Attempted,
    work: (mine: () => boolean) => Promise<void>,
  ): Promise<void> {
    const number = (turns.get(kind) ?? 0) + 1;
    const mine = () => turns.get(kind) === number;
    turns.set(kind, number);
    set({ says: null });
    try {
      await work(mine);
    } catch (caught) {
      if (mine()) set({ says: inWords(caught) });
    }
  }

  /** The line of the statement that is stood on; null between two runs. */
  function placeStoodOn(): { script: string; line: number } | null {
    const { standing, detailed, sites } = debug();
    if (standing === null || detailed === null || standing.detail === null) return null;
    const place = placeAt(detailed, standing.detail);
    const site = place === null ? undefined : sites.get(place.script)?.[place.site];
    return place === null || site === undefined ? null : { script: place.script, line: site.line };
  }

  return {
    core,
    code,
    form,
    looking,
    store,
    debug,
    set,
    keepOpen,
    remember,
    tapes,
    wholeTape,
    stepsTo,
    placeStoodOn,
    attempt,
  };
}

export function inWords(caught: unknown): string {
  return caught instanceof Error ? caught.message : String(caught);
}

/** A session by how it was opened and all that was done, to tell whether it is still the one that was compared. */
export function sessionKey({ open, steps }: { open: unknown; steps: readonly unknown[] }): string {
  return JSON.stringify([open, steps]);
}
