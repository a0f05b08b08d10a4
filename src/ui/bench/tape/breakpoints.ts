/** Breakpoints with their hits, watches, and the prompt. Nothing is stopped: what was done is done again and asked on the way. */
import { holds } from '@/core/debugging/comparison';
import { stepOf } from '@/core/debugging/travel';
import type { Value } from '@/core/form/value';
import type { Watch } from '@/core/language/watches';
import { ASKING } from '@/core/sandbox/asking-script';
import type { WatchValue } from '@/core/sandbox/inspector';
import { baseName } from '@/core/script/script-name';
import type { Tape } from '@/core/tape/tape';
import { ASKING_LINE, type WatchesOf } from './inspecting';
import { inWords, type Breakpoint, type DebugCore, type Hit } from './state';

/** At most so many completions are offered. */
const MOST_OFFERED = 40;

export function breakpoints({
  core,
  code,
  form,
  looking,
  debug,
  set,
  keepOpen,
  tapes,
  wholeTape,
  stepsTo,
  placeStoodOn,
  attempt,
}: DebugCore) {
  const { languageWorker } = core;
  const { session } = form;
  let nextId = 1;

  function change(breakpoints: readonly Breakpoint[]): Promise<void> {
    set({ breakpoints });
    return refreshHits();
  }

  async function addBreakpoint(at: Breakpoint['at'], log = ''): Promise<void> {
    let place = at;
    if (at.is === 'line') {
      const source = code.scripts.sources().find(({ name }) => baseName(name) === at.script);
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
    keepOpen({ watches: [...debug().watches, expression] });
    set({ says: null });
    await Promise.all([refreshHits(), refreshWatched(() => true)]);
  }

  async function removeWatch(at: number): Promise<void> {
    keepOpen({ watches: debug().watches.filter((_, i) => i !== at) });
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
      set({ says: inWords(caught) });
    }
  }

  function lineHits({ id }: Breakpoint, found: readonly WatchValue[]): Hit[] {
    const mine = found.filter((one) => Math.floor(one.id / SLOTS) === id && one.entry !== null);
    const moments = new Map<string, WatchValue[]>();
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
    const pick = (asked: readonly WatchValue[], id: number, from: number | null) => {
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
    const steps =
      standing === null ? session.state.steps.slice(0, session.state.at) : stepsTo(standing.entry);
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
        : (code.scripts.sources().find(({ name }) => baseName(name) === place.script) ?? null);
    const [start] = /[\w$]*$/.exec(expression)!;
    const found = await languageWorker().completeAsked(source, place?.line ?? 0, expression);
    const before = expression.slice(0, expression.length - start.length);
    return found
      .filter(({ label }) => label.toLowerCase().startsWith(start.toLowerCase()) && label !== start)
      .slice(0, MOST_OFFERED)
      .map(({ label }) => `${before}${label}`);
  }

  async function refreshWatched(mine: () => boolean): Promise<void> {
    const { watches } = debug();
    const watched = await valuesOf(watches);
    if (mine() && debug().watches === watches) set({ watched });
  }

  /** Asks something at the moment that is stood on. An assignment to a field's value is done as a step, where nobody looks back. */
  function ask(expression: string): Promise<void> {
    return attempt('prompt', async () => {
      const assignment = /^\s*fields\.([a-z][a-z0-9_]*)\.value\s*=(?!=)\s*(.+)$/.exec(expression);
      const asked = assignment === null ? expression : assignment[2]!;
      const fault = await languageWorker().expressionFault(asked);
      const [came] =
        fault === null ? await valuesOf([asked]) : [{ value: null, failed: `That ${fault}` }];
      const line = { expression, ...came! };
      if (assignment !== null && came!.failed === null) {
        if (debug().standing !== null || session.state.at < session.state.steps.length)
          line.failed = 'Steps are done now, not in the past. Go back to now first.';
        else await form.step({ set: assignment[1]!, to: came!.value });
      }
      set({ prompt: [...debug().prompt.slice(-49), line] });
    });
  }

  return {
    addBreakpoint,
    editBreakpoint,
    removeBreakpoint,
    addWatch,
    removeWatch,
    refreshHits,
    refreshWatched,
    askPrompt: ask,
    completionsOf,
  };
}
