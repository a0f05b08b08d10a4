/**
 * Looking into what was done on the bench: standing on moments of the recording, asking why and why not, breakpoints
 * and watches, the prompt, other conditions. What is looked at is run again in an engine of its own (`inspecting.ts`).
 */
import { createStore } from 'zustand/vanilla';
import { decide, type Decision, type Question } from '@/core/debugging/decision';
import { differences, type Difference } from '@/core/debugging/differences';
import { ALL, type Filter } from '@/core/debugging/filter';
import type { Ground } from '@/core/debugging/ground';
import type { SitesOf } from '@/core/debugging/instances';
import { leftOut, type LeftOut } from '@/core/debugging/left-out';
import { inversions, orders } from '@/core/debugging/orders';
import {
  alongTape,
  nearest,
  placeAt,
  stepOf,
  stopsOf,
  withinRun,
  type Standing,
  type Wanted,
  type Way,
} from '@/core/debugging/travel';
import { otherLines, whyNot, type WhyNot } from '@/core/debugging/why-not';
import type { Value } from '@/core/form/value';
import type { Watch } from '@/core/language/watches';
import type { Open } from '@/core/scenario/definition';
import { seenAt } from '@/core/scenario/snapshot';
import { ASKING } from '@/core/sandbox/asking';
import type { Asked } from '@/core/sandbox/inspector';
import { baseName } from '@/core/script/script-name';
import type { DetailedRun } from '@/core/session/detail';
import type { Look } from '@/core/session/looking';
import type { Answer, Step } from '@/core/session/step';
import { Tape, type Run } from '@/core/tape/tape';
import type { Material } from '@/core/session/session';
import { engineInWorker } from '@/workers/engine-in-browser';
import { call } from '../api';
import type { BenchCore } from './core';
import { ASKING_LINE, inspecting, type WatchesOf } from './inspecting';

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

export interface DebugState {
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
  asking: boolean;
  breakpoints: readonly Breakpoint[];
  watches: readonly string[];
  hits: readonly Hit[];
  /** What the watches come to at the moment. */
  watched: { value: Value; failed: string | null }[];
  prompt: readonly PromptLine[];
  compared: readonly Compared[];
  /** Steps that were dropped to go on from an earlier moment. */
  dropped: readonly Step[];
  /** What could not be done. */
  says: string | null;
}

const KEPT = 'tavro.bench.debug';

/** So many completions are offered. */
const MOST_OFFERED = 40;

export function debugging(
  core: BenchCore,
  live: { replay(): Promise<void>; lookAt(at: number): void; step(step: Step): Promise<void> },
  goTo: (script: string, line: number) => void,
) {
  const { get, form, languageWorker } = core;
  const looking = inspecting(core);
  const store = createStore<DebugState>(() => ({
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
    dropped: [],
    says: null,
  }));
  const debug = store.getState;
  const set = store.setState;
  let nextId = 1;
  /** Each question counts, so that a late answer to an earlier one is dropped. */
  let turn = 0;

  const tapes = (): Answer['tape'][] => get().answers.map(({ tape }) => tape);
  /** All that happened so far, the later steps too. */
  const wholeTape = (): Tape => new Tape(tapes().flat());
  const says = (caught: unknown): string =>
    caught instanceof Error ? caught.message : String(caught);

  /** Reads from the last visit what was open then; only in a browser. */
  function remember(): void {
    try {
      const kept = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Partial<DebugState>;
      set({
        open: kept.open === true,
        tab: (kept.tab ?? 'values') as DrawerTab,
      });
    } catch {
      // What was open is a convenience.
    }
  }

  function keepOpen(changes: Partial<Pick<DebugState, 'open' | 'tab'>>): void {
    set(changes);
    const { open, tab } = debug();
    try {
      localStorage.setItem(KEPT, JSON.stringify({ open, tab }));
    } catch {
      // Likewise.
    }
  }

  /** The steps that have to be done again to come to an entry. */
  function stepsTo(entry: number): Step[] {
    return get().steps.slice(0, stepOf(tapes(), entry));
  }

  async function attempt(work: (mine: () => boolean) => Promise<void>): Promise<void> {
    const number = ++turn;
    set({ asking: true, says: null });
    try {
      await work(() => number === turn);
    } catch (caught) {
      if (number === turn) set({ says: says(caught) });
    } finally {
      if (number === turn) set({ asking: false });
    }
  }

  /** Stands on a moment, or goes back to now. */
  function standOn(standing: Standing | null): Promise<void> {
    if (standing === null) {
      set({ standing: null, detailed: null, look: null, watched: [] });
      live.lookAt(get().steps.length);
      return refreshNow();
    }
    return attempt(async (mine) => {
      const entry = wholeTape().entry(standing.entry);
      if (entry === null) return;
      const runs = entry.type === 'run' ? [entry.n] : [];
      const found = await looking.inspect(
        { runs, moments: [{ entry: standing.entry, detail: standing.detail }] },
        { steps: stepsTo(standing.entry) },
      );
      if (!mine()) return;
      const detailed = found.runs[0] ?? null;
      live.lookAt(stepOf(tapes(), standing.entry));
      set({
        standing,
        detailed: entry.type === 'run' ? detailed : null,
        sites: looking.sites(),
        look: found.looks[0] ?? null,
        open: true,
      });
      showPlace(standing, detailed);
      await refreshWatched(mine);
    });
  }

  /** Brings the line that is stood on into sight. */
  function showPlace(standing: Standing, detailed: DetailedRun | null): void {
    if (detailed !== null && standing.detail !== null) {
      const place = placeAt(detailed, standing.detail);
      const site = place === null ? undefined : debug().sites.get(place.script)?.[place.site];
      if (site !== undefined) goTo(place!.script, site.line);
      return;
    }
    const tape = wholeTape();
    const entry = tape.entry(standing.entry)!;
    const run = entry.type === 'run' ? (entry as Run) : tape.causeOf(entry);
    const line = 'line' in entry ? entry.line : null;
    if (run?.type === 'run' && typeof line === 'number') goTo((run as Run).behaviour, line);
  }

  /** Keys may come faster than answers: each goes on from where the one before it led. */
  let travelled: Promise<void> = Promise.resolve();

  /** Goes into, out of, to the next or the last; `shown` are the entries that are listed. */
  function go(way: Way, shown: readonly number[]): Promise<void> {
    travelled = travelled.then(() => goOnce(way, shown)).catch(() => undefined);
    return travelled;
  }

  async function goOnce(way: Way, shown: readonly number[]): Promise<void> {
    const { standing, detailed } = debug();
    const tape = wholeTape();
    if (standing === null) {
      const last = shown.at(-1);
      if (last !== undefined) await standOn({ entry: last, detail: null });
      return;
    }
    if (standing.detail !== null && detailed !== null) {
      const within = withinRun(detailed, standing.detail, way);
      if (within !== null) return standOn(within);
      if (way === 'out' || way === 'last') return standOn({ entry: standing.entry, detail: null });
      if (way === 'into') return;
      const next = alongTape(tape, shown, standing.entry, 'next');
      return next === null ? undefined : standOn(next);
    }
    if (way === 'into' && detailed !== null) {
      const [first] = stopsOf(detailed);
      if (first !== undefined) return standOn({ entry: standing.entry, detail: first.detail });
    }
    const next = alongTape(tape, shown, standing.entry, way);
    if (next !== null) await standOn(next);
  }

  function goNearest(wanted: Wanted, forward: boolean): Promise<void> {
    const from = debug().standing?.entry ?? (forward ? -1 : Infinity);
    const found = nearest(wholeTape(), from, wanted, forward);
    if (found === null) {
      set({ says: forward ? 'There is none after this.' : 'There is none before this.' });
      return Promise.resolve();
    }
    return standOn(found);
  }

  /** What an answer stands on: the tape up to the moment that is stood on. */
  function ground(): Ground {
    const standing = debug().standing?.entry;
    const entries = tapes()
      .slice(0, get().at + 1)
      .flat();
    const tape = new Tape(
      standing === undefined ? entries : entries.filter(({ n }) => n <= standing),
    );
    return {
      form: form(),
      tape,
      get sites() {
        return looking.sites();
      },
      inspect: async (runs, turned = []) =>
        (await looking.inspect({ runs, turned }, { steps: get().steps.slice(0, get().at) })).runs,
    };
  }

  /** Asks why an aspect of a part is as it is, and why not otherwise. `inTurn` keeps the question before it to go back to. */
  function askWhy(question: Question, inTurn = false): Promise<void> {
    const { question: before, trail } = debug();
    set({
      question,
      trail: inTurn && before !== null ? [...trail, before] : [],
      decision: null,
      whyNot: [],
      notOffered: [],
    });
    core.set({ asked: { part: question.part, aspect: question.aspect } });
    return attempt(async (mine) => {
      const on = ground();
      // The sites come with the first run in detail.
      await looking.inspect({}, { steps: [] });
      const decision = await decide(on, question);
      if (!mine()) return;
      set({ decision });
      const writers = await languageWorker().writers(looking.sources());
      const others = await whyNot(on, writers, question);
      const notOffered = await leftOut(on, decision, get().material.tables);
      if (mine()) set({ whyNot: otherLines(others, decision), notOffered });
    });
  }

  function backInTrail(): void {
    const { trail } = debug();
    const last = trail.at(-1);
    if (last === undefined) return;
    void askWhy(last).then(() => set({ trail: trail.slice(0, -1) }));
  }

  /** Everything as it is now, for the values, while nobody stands in the past. */
  async function refreshNow(): Promise<void> {
    const { open, standing, tab } = debug();
    if (!open || standing !== null) return;
    const { at } = get();
    if (tab !== 'values' && tab !== 'watches') return;
    try {
      const found = await looking.inspect(
        { moments: [{ entry: null, detail: null }] },
        { steps: get().steps.slice(0, at) },
      );
      if (debug().standing === null && get().at === at) set({ look: found.looks[0] ?? null });
      await refreshWatched(() => debug().standing === null);
    } catch (caught) {
      set({ says: says(caught) });
    }
  }

  // Breakpoints and watches.

  function change(breakpoints: readonly Breakpoint[]): Promise<void> {
    set({ breakpoints });
    return refreshHits();
  }

  async function addBreakpoint(at: Breakpoint['at'], log = ''): Promise<void> {
    let place = at;
    if (at.is === 'line') {
      const source = looking.sources().find(({ name }) => baseName(name) === at.script);
      const line = source === undefined ? null : await languageWorker().stopLine(source, at.line);
      if (line === null) return void set({ says: 'No statement in a function stands there.' });
      place = { ...at, line };
    }
    const same = debug().breakpoints.find(
      (one) => JSON.stringify(one.at) === JSON.stringify(place),
    );
    if (same !== undefined) return change(debug().breakpoints.filter((one) => one !== same));
    keepOpen({ open: true, tab: 'watches' });
    return change([...debug().breakpoints, { id: nextId++, at: place, condition: '', log }]);
  }

  async function editBreakpoint(
    id: number,
    changes: Partial<Pick<Breakpoint, 'condition' | 'log'>>,
  ): Promise<void> {
    for (const expression of Object.values(changes)) {
      const fault = expression === '' ? null : await languageWorker().expressionFault(expression);
      if (fault !== null) return void set({ says: `That ${fault}` });
    }
    return change(debug().breakpoints.map((one) => (one.id === id ? { ...one, ...changes } : one)));
  }

  const removeBreakpoint = (id: number): Promise<void> =>
    change(debug().breakpoints.filter((one) => one.id !== id));

  async function addWatch(expression: string): Promise<void> {
    const fault = await languageWorker().expressionFault(expression);
    if (fault !== null) return void set({ says: `That ${fault}` });
    set({ watches: [...debug().watches, expression], says: null });
    await Promise.all([refreshHits(), refreshWatched(() => true)]);
  }

  async function removeWatch(at: number): Promise<void> {
    set({ watches: debug().watches.filter((_, i) => i !== at) });
    await Promise.all([refreshHits(), refreshWatched(() => true)]);
  }

  /** Numbers of what is put in for one breakpoint: its condition, its log, then the watches. */
  const SLOTS = 100;

  /** Finds all hits in the recording. */
  async function refreshHits(): Promise<void> {
    const { breakpoints, watches } = debug();
    if (breakpoints.length === 0) return set({ hits: [] });
    const put: Record<string, Watch[]> = {};
    for (const { id, at, condition, log } of breakpoints) {
      if (at.is !== 'line') continue;
      const { line } = at;
      const expressions = [condition || 'true', log || 'null', ...watches];
      (put[at.script] ??= []).push(
        ...expressions.map((expression, i) => ({ id: id * SLOTS + i, line, expression })),
      );
    }
    try {
      const found =
        Object.keys(put).length === 0
          ? []
          : (await looking.inspect({ runs: 'all', asks: true }, { watches: put })).asked;
      if (debug().breakpoints !== breakpoints) return;
      const tape = wholeTape();
      set({
        hits: breakpoints
          .flatMap((breakpoint) =>
            breakpoint.at.is === 'line'
              ? lineHits(breakpoint, found)
              : aspectHits(breakpoint.id, breakpoint.at, tape),
          )
          .sort(
            (a, b) =>
              a.standing.entry - b.standing.entry ||
              (a.standing.detail ?? 0) - (b.standing.detail ?? 0),
          ),
      });
    } catch (caught) {
      set({ says: says(caught) });
    }
  }

  function lineHits({ id }: Breakpoint, found: readonly Asked[]): Hit[] {
    const mine = found.filter((one) => Math.floor(one.id / SLOTS) === id && one.entry !== null);
    const moments = new Map<string, Asked[]>();
    for (const one of mine) {
      const key = `${one.entry}:${one.detail}`;
      const known = moments.get(key);
      if (known === undefined) moments.set(key, [one]);
      else known.push(one);
    }
    return [...moments.values()].flatMap((all): Hit[] => {
      const at = (slot: number) => all.find((one) => one.id % SLOTS === slot);
      const condition = at(0);
      if (condition === undefined || (condition.failed === null && !holds(condition.value)))
        return [];
      const { entry, detail } = condition;
      const log = at(1);
      return [
        {
          breakpoint: id,
          // Before the statement, which is the next detail.
          standing: { entry: entry!, detail },
          step: stepOf(tapes(), entry!),
          log: log?.value,
          failed: condition.failed ?? log?.failed ?? null,
          watches: debug().watches.map((_, i) => {
            const watch = at(i + 2);
            return { value: watch?.value ?? null, failed: watch?.failed ?? null };
          }),
        },
      ];
    });
  }

  function aspectHits(
    id: number,
    { part, aspect }: { part: string; aspect: string },
    tape: Tape,
  ): Hit[] {
    return tape
      .lifeOf(part)
      .filter((effect) => effect.aspect === aspect && effect.covered !== true)
      .map((effect) => ({
        breakpoint: id,
        standing: { entry: effect.n, detail: null },
        step: stepOf(tapes(), effect.n),
        log: effect.to,
        failed: null,
        watches: [],
      }));
  }

  /** What an expression comes to at the moment that is stood on, or now. */
  async function valuesOf(
    expressions: readonly string[],
  ): Promise<{ value: Value; failed: string | null }[]> {
    if (expressions.length === 0) return [];
    const { standing } = debug();
    const none = { value: null, failed: 'has no value here' };
    const place = placeStoodOn();
    const pick = (asked: readonly Asked[], id: number, from: number | null) => {
      const found = asked.filter(
        (one) =>
          one.id === id &&
          (from === null || (one.entry === standing!.entry && one.detail! <= from)),
      );
      const last = found.at(-1);
      return last === undefined ? none : { value: last.value, failed: last.failed };
    };
    const put = (script: string, line: number): WatchesOf => ({
      [script]: expressions.map((expression, id) => ({ id, line, expression })),
    });
    if (standing !== null && place !== null) {
      const { asked } = await looking.inspect(
        { runs: [standing.entry], asks: true },
        { steps: stepsTo(standing.entry), watches: put(place.script, place.line) },
      );
      return expressions.map((_, id) => pick(asked, id, standing.detail));
    }
    const steps = standing === null ? get().steps.slice(0, get().at) : stepsTo(standing.entry);
    const moment = { entry: standing?.entry ?? null, detail: null };
    const first = await looking.inspect(
      { moments: [moment], asks: true },
      { steps, watches: put(ASKING, ASKING_LINE) },
    );
    if (first.asked.length > 0 || standing === null)
      return expressions.map((_, id) => pick(first.asked, id, null));
    // In the middle of a run nothing can be asked between two; the end of its step is the nearest moment.
    const { asked } = await looking.inspect(
      { moments: [{ entry: null, detail: null }], asks: true },
      { steps, watches: put(ASKING, ASKING_LINE) },
    );
    return expressions.map((_, id) => pick(asked, id, null));
  }

  /** What the last name of an expression can become, each as the whole expression. */
  async function completionsOf(expression: string): Promise<string[]> {
    const place = placeStoodOn();
    const source =
      place === null
        ? null
        : (looking.sources().find(({ name }) => baseName(name) === place.script) ?? null);
    const [start] = /[\w$]*$/.exec(expression)!;
    const found = await languageWorker().completeAsked(source, place?.line ?? 0, expression);
    const before = expression.slice(0, expression.length - start.length);
    return found
      .filter(({ label }) => label.toLowerCase().startsWith(start.toLowerCase()) && label !== start)
      .slice(0, MOST_OFFERED)
      .map(({ label }) => `${before}${label}`);
  }

  /** The line of the statement that is stood on; null between two runs. */
  function placeStoodOn(): { script: string; line: number } | null {
    const { standing, detailed, sites } = debug();
    if (standing === null || detailed === null || standing.detail === null) return null;
    const place = placeAt(detailed, standing.detail);
    const site = place === null ? undefined : sites.get(place.script)?.[place.site];
    return place === null || site === undefined ? null : { script: place.script, line: site.line };
  }

  async function refreshWatched(mine: () => boolean): Promise<void> {
    const { watches } = debug();
    const watched = await valuesOf(watches);
    if (mine() && debug().watches === watches) set({ watched });
  }

  /** Asks something at the moment that is stood on. An assignment to a field's value is done as a step, where nobody looks back. */
  function ask(expression: string): Promise<void> {
    return attempt(async () => {
      const assignment = /^\s*fields\.([a-z][a-z0-9_]*)\.value\s*=(?!=)\s*(.+)$/.exec(expression);
      const asked = assignment === null ? expression : assignment[2]!;
      const fault = await languageWorker().expressionFault(asked);
      const [came] =
        fault === null ? await valuesOf([asked]) : [{ value: null, failed: `That ${fault}` }];
      const line = { expression, ...came! };
      if (assignment !== null && came!.failed === null) {
        if (debug().standing !== null || get().at < get().steps.length)
          line.failed = 'Steps are done now, not in the past. Go back to now first.';
        else await live.step({ set: assignment[1]!, to: came!.value });
      }
      set({ prompt: [...debug().prompt.slice(-49), line] });
    });
  }

  // The past as the present.

  /** Makes the step that is looked at the last one; those behind it can be brought back. */
  async function goOnFromHere(): Promise<void> {
    const { steps, at } = get();
    const dropped = steps.slice(at);
    core.set({ steps: steps.slice(0, at), answers: get().answers.slice(0, at + 1) });
    set({ dropped });
    await standOn(null);
    await live.replay();
  }

  async function bringBack(): Promise<void> {
    const { dropped } = debug();
    set({ dropped: [] });
    const steps = [...get().steps, ...dropped];
    core.set({ steps, at: steps.length });
    await live.replay();
    live.lookAt(steps.length);
  }

  // Other conditions.

  /** Does the same steps under other conditions and tells what differs at the end. */
  function compare(title: string, changes: Partial<Open>): Promise<void> {
    return attempt(async (mine) => {
      const open = { ...get().open, ...changes };
      const { answers } = await looking.inspect({ answers: true }, { open });
      if (mine())
        set({ compared: [comparedWith(title, answers), ...debug().compared].slice(0, 8) });
    });
  }

  /** Plays a recording with what its form runs with today. */
  function compareWithToday(recording: number): Promise<void> {
    keepOpen({ open: true, tab: 'compare' });
    return attempt(async (mine) => {
      const reply = await call<Material>('GET', `/api/recordings/${recording}/today`);
      if (!reply.ok) throw new Error(reply.says);
      const engine = engineInWorker();
      try {
        await engine.load(reply.body);
        const answers = await engine.play(core.openingFor(get().open), get().steps);
        if (mine())
          set({
            compared: [comparedWith('today’s code', answers), ...debug().compared].slice(0, 8),
          });
      } finally {
        engine.close();
      }
    });
  }

  function comparedWith(title: string, answers: readonly Answer[]): Compared {
    const now = seenAt(get().answers, get().answers.length - 1);
    const other = seenAt(answers, answers.length - 1);
    return {
      title,
      differences: differences(now, other, form()),
      errors: answers.flatMap(({ errors }) => errors.map(({ says: what }) => what)),
    };
  }

  /** Lets the calls that wait be answered in every order, and tells which orders end differently. */
  function tryOrders(): Promise<void> {
    return attempt(async (mine) => {
      const { answers, steps } = get();
      const calls = (answers.at(-1)?.waiting ?? []).flatMap((run) => run.calls);
      if (calls.length < 2)
        throw new Error(
          'Fewer than two calls wait now. Do steps until several do, then try their orders.',
        );
      const ends = new Map<string, { order: number[]; answers: Answer[] }[]>();
      for (const order of orders(calls.length)) {
        const { answers: came } = await looking.inspect(
          { answers: true },
          { steps: [...steps, ...answering(calls, order)] },
        );
        const seen = seenAt(came, came.length - 1);
        const key = JSON.stringify([seen.parts, seen.rows, seen.page]);
        const known = ends.get(key);
        if (known === undefined) ends.set(key, [{ order, answers: came }]);
        else known.push({ order, answers: came });
      }
      if (!mine()) return;
      const [usual, ...others] = [...ends.values()];
      const first = seenAt(usual![0]!.answers, usual![0]!.answers.length - 1);
      const total = [...ends.values()].reduce((sum, some) => sum + some.length, 0);
      const compared = others.map((some): Compared => {
        const shortest = some.toSorted((a, b) => inversions(a.order) - inversions(b.order))[0]!;
        const last = seenAt(shortest.answers, shortest.answers.length - 1);
        return {
          title: `answered as ${shortest.order.map((call) => calls[call]!.name).join(', then ')} (${some.length} of ${total} orders)`,
          differences: differences(first, last, form()),
          errors: [],
        };
      });
      set({
        compared:
          compared.length > 0
            ? compared
            : [
                {
                  title: `all ${total} orders of ${calls.length} answers`,
                  differences: [],
                  errors: [],
                },
              ],
      });
    });
  }

  /** After each replay: what was looked at may be gone, and breakpoints are hit elsewhere. */
  function replayed(): void {
    const { standing, question } = debug();
    if (standing !== null) set({ standing: null, detailed: null, look: null });
    if (question !== null)
      set({ question: null, decision: null, whyNot: [], notOffered: [], trail: [] });
    void refreshHits();
    void refreshNow();
  }

  return {
    debug: store,
    rememberDebug: remember,
    endDebug: looking.end,
    replayedAgain: replayed,
    refreshNow,
    standOn,
    go,
    goNearest,
    askWhy,
    backInTrail,
    addBreakpoint,
    editBreakpoint,
    removeBreakpoint,
    addWatch,
    removeWatch,
    askPrompt: ask,
    completionsOf,
    goOnFromHere,
    bringBack,
    compare,
    compareWithToday,
    tryOrders,
    forgetCompared: () => set({ compared: [] }),
    filterTape: (changes: Partial<Filter>) => set({ filter: { ...debug().filter, ...changes } }),
    showDrawer: (open: boolean, tab: DrawerTab = debug().tab) => {
      keepOpen({ open, tab });
      void refreshNow();
    },
    forgetSays: () => set({ says: null }),
  };
}

function holds(value: Value): boolean {
  return value !== null && value !== false && value !== 0 && value !== '';
}

/** Steps that answer calls in an order, each as the service itself would. */
function answering(calls: readonly { name: string }[], order: readonly number[]): Step[] {
  const left = calls.map((_, i) => i);
  return order.map((call) => {
    const { name } = calls[call]!;
    // Of several calls of one name, the place among those that still wait.
    const which = left.filter((one) => calls[one]!.name === name).indexOf(call);
    left.splice(left.indexOf(call), 1);
    return { answer: name, usual: true, which };
  });
}
