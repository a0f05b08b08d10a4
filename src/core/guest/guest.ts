/**
 * What runs in a machine beside the scripts: it loads them, runs what they tied when the session says so, and tells how
 * that went. It holds nothing of a session; whatever scripts read, say or ask goes over the wire. Numbers of ties,
 * runs and calls are the session's.
 */
import type { GuestMaterial } from '../wire/acts';
import { inWords } from '../form/value';
import { ScriptError, words } from '../wire/failures';
import { BY, Came, Cell, Double, Given, Op, Slot, Tag } from '../wire/layout';
import { makeAsking } from './services-face';
import { makeClock } from './clock';
import { Current, GuestRun } from './current';
import { Face, faceReadsAs } from './face';
import { makeFaces, type Faces } from './faces';
import { readFailure } from './failures';
import { formFace } from './form-face';
import {
  loadAnswering,
  loadBehaviour,
  loadShared,
  type Answering,
  type MakeFunction,
  type ModuleGiven,
  type Stage,
} from './loading';
import type { IsProxy } from './glimpse';
import { plain, type ReadsAs } from './plain';
import type { Probe } from './probe';
import { makePromises } from './promises';
import { makeTables, type Tables } from './tables';
import type { Tie } from './tying';
import { makeWire, type Wire } from './wire';

/** What the machine lends. */
export interface Lent {
  buffer: ArrayBuffer;
  /** Asks the session. */
  host: () => void;
  makeFunction: MakeFunction;
  temporal: () => object | null;
  isProxy: IsProxy;
}

/** The loose texts that the session hands over stand at these places. */
const LOOSE = 0;

/** What the session calls; arguments and answers stand in the cells. */
export interface Guest {
  readonly wire: Wire;
  /** Says what the scripts to come can touch: loose text 0, as `Surroundings`. */
  surround(): void;
  /** Loads the behaviour numbered in `More`, whose code is loose text 0; what it ties crosses meanwhile. */
  load(): void;
  /** Loads the shared module in loose text 0, as `ModuleGiven`; the scripts behind it can import from it. */
  loadModule(): void;
  /** Loads the script of a service, likewise. */
  loadService(): void;
  /** Asks the service's script of the number in `More` for its answer to loose text 0. */
  answer(): void;
  /** Runs a tie with what the cells give it. */
  run(): void;
  /** Goes on with the run that waited for the call in `Call`, which came to the value told, or failed for a reason. */
  resume(): void;
  /** Nothing of the run in `Run` goes on any more. */
  drop(): void;
  /** The run was stopped from outside, in the middle: says where it was, and forgets it. */
  lost(): void;
}

export function makeGuest(lent: Lent): Guest {
  const current = new Current();
  const ties: Tie[] = [];
  const answering: Answering[] = [];
  /** Runs that wait, by number. */
  const open = new Map<number, GuestRun>();
  let tables: Tables = makeTables([]);
  let faces: Faces | null = null;
  let stage: Stage | null = null;
  const wire = makeWire(
    lent.buffer,
    lent.host,
    { isFace: (value) => Face.behind(value) !== null, tableRow: (value) => tables.rowOf(value) },
    current,
  );
  const { cells, take } = wire;
  const promises = makePromises(() => current.owner());
  const readsAs: ReadsAs = (value) => faceReadsAs(value) ?? (value === stage?.form ? 'form' : null);

  function surround(): void {
    const { parts, tables: given, services } = JSON.parse(wire.loose(LOOSE)) as GuestMaterial;
    tables = makeTables(given);
    faces = makeFaces(parts, wire, current, tables);
    const zone = (): string => {
      cells[Cell.Aspect] = Slot.Zone;
      cells[Cell.Op] = Op.Read;
      wire.call();
      return take(Cell.Tag, Cell.Payload, Double.Answer) as string;
    };
    stage = {
      wire,
      current,
      promises,
      faces,
      asking: makeAsking(services, wire, current, promises),
      tables,
      clock: makeClock(wire, lent.temporal() as never, zone),
      form: formFace(wire, current),
      readsAs,
      sight: { readsAs, isProxy: lent.isProxy, temporal: lent.temporal },
      makeFunction: lent.makeFunction,
      modules: new Map(),
    };
  }

  function load(): void {
    const before = ties.length;
    current.topLevel = true;
    try {
      loadBehaviour(stage!, cells[Cell.More]!, wire.loose(LOOSE), ties);
      cells[Cell.Op] = Came.Ended;
    } catch (caught) {
      ties.length = before;
      failed(current.probe as Probe, caught);
    } finally {
      current.topLevel = false;
      current.probe = null;
    }
  }

  function loadModule(): void {
    current.topLevel = true;
    try {
      loadShared(stage!, cells[Cell.More]!, JSON.parse(wire.loose(LOOSE)) as ModuleGiven);
    } finally {
      current.topLevel = false;
      current.probe = null;
    }
    cells[Cell.Op] = Came.Ended;
  }

  function loadService(): void {
    answering.push(loadAnswering(stage!, cells[Cell.More]!, wire.loose(LOOSE)));
  }

  function answer(): void {
    const { run, probe } = answering[cells[Cell.More]!]!;
    current.probe = probe;
    probe.begin(1, 0);
    try {
      const came = plain(run(JSON.parse(wire.loose(LOOSE))), readsAs);
      wire.give(came);
      cells[Cell.Op] = Came.Ended;
    } catch {
      cells[Cell.Op] = Came.Failed;
    }
    cells[Cell.Line] = probe.l;
    current.probe = null;
  }

  function run(): void {
    const tie = ties[cells[Cell.Tie]!]!;
    if (tie.ruleRun === null) runHandler(tie);
    else runRule(tie, tie.ruleRun);
    current.run = null;
    current.probe = null;
  }

  /** The way most runs go: a rule or an invariant waits for nothing, so that nothing of it has to be kept. */
  function runRule(tie: Tie, run: GuestRun): void {
    const { probe } = tie;
    current.run = run;
    current.probe = probe;
    probe.begin(tie.line, cells[Cell.Traced]!);
    try {
      const result = tie.run(
        cells[Cell.Given] === Given.Row
          ? faces!.row(cells[Cell.Row]!, cells[Cell.RowField]!, cells[Cell.RowId]!)
          : undefined,
      );
      if (
        typeof result === 'object' &&
        result !== null &&
        (promises.isPromise(result) || 'then' in result)
      )
        // Refused: neither may wait.
        current.owner();
      if (run.fault !== null) throw run.fault;
      if (run.sort === 'invariant' && typeof result !== 'boolean')
        throw new ScriptError('wrong_value', words.notYesNo('always', result));
      told(probe);
      cells[Cell.Op] = run.sort === 'invariant' && result === false ? Came.Broken : Came.Ended;
    } catch (caught) {
      failed(probe, run.fault ?? caught);
      run.fault = null;
    }
  }

  function runHandler(tie: Tie): void {
    const { probe } = tie;
    const run = new GuestRun(cells[Cell.Run]!, 'handler', probe, tie.line);
    current.run = run;
    current.probe = probe;
    probe.begin(tie.line, cells[Cell.Traced]!);
    try {
      const result = tie.run(event());
      if (promises.isPromise(result)) run.main = result;
      end(run);
    } catch (caught) {
      fail(run, caught);
    }
  }

  function resume(): void {
    const run = open.get(cells[Cell.Run]!);
    const settle = run?.calls?.get(cells[Cell.Call]!);
    if (run === undefined || settle === undefined) {
      cells[Cell.Op] = Came.Ended;
      return;
    }
    const probe = run.probe as Probe;
    run.calls!.delete(cells[Cell.Call]!);
    run.fault = null;
    current.run = run;
    current.probe = probe;
    const failed = cells[Cell.More] === 1;
    probe.begin(run.line, cells[Cell.Traced]!);
    try {
      const value = take(Cell.ValueTag, Cell.ValuePayload, Double.Value);
      settle(failed ? { ok: false, reason: String(value) } : { ok: true, value });
      end(run);
    } catch (caught) {
      fail(run, caught);
    } finally {
      current.run = null;
      current.probe = null;
    }
  }

  function drop(): void {
    const run = open.get(cells[Cell.Run]!);
    if (run !== undefined) forget(run);
  }

  function forget(run: GuestRun): void {
    run.over = true;
    run.jobs = null;
    open.delete(run.number);
  }

  function lost(): void {
    const { run, probe } = current;
    cells[Cell.Line] = probe?.l ?? 0;
    if (run !== null) forget(run);
    current.run = null;
    current.probe = null;
    current.topLevel = false;
  }

  /** The event as a handler gets it. */
  function event(): object {
    // The row first, since a cell is known by it.
    const row =
      cells[Cell.Row]! < 0
        ? null
        : faces!.row(cells[Cell.Row]!, cells[Cell.RowField]!, cells[Cell.RowId]!);
    const made: Record<string, unknown> = {
      part: cells[Cell.Part]! < 0 ? null : partOfEvent(cells[Cell.Part]!, row),
      value: take(Cell.ValueTag, Cell.ValuePayload, Double.Value),
      previous: take(Cell.PreviousTag, Cell.PreviousPayload, Double.Previous),
      by: BY[cells[Cell.By]!],
    };
    if (cells[Cell.ExtraTag] !== Tag.Undefined)
      Object.assign(made, take(Cell.ExtraTag, Cell.ExtraPayload, 0));
    if (row !== null) made.row = row;
    const number = cells[Cell.Event]!;
    if (number > 0) made.stop = (says: unknown, at?: unknown) => stop(number, says, at);
    return Object.freeze(made);
  }

  /** A cell has its face from its row. */
  function partOfEvent(number: number, row: object | null): object {
    if (row === null || number < faces!.fixed) return faces!.part(number);
    const behind = Face.behind(row)!;
    return (row as { fields: Record<string, object> }).fields[
      behind.info.columns![number - behind.number - 1]!.name
    ]!;
  }

  function stop(event: number, says: unknown, at: unknown): void {
    current.demand('event.stop() was called');
    if (typeof says !== 'string' || says === '')
      return current.wrong(words.wrongAspect('event', 'stop()', 'a text that says why', says));
    if (at === undefined || at === null) return void wire.act('stop', { event, says, part: null });
    const behind = Face.behind(at);
    if (behind === null || behind.info.sort === 'button' || behind.info.sort === 'track') {
      return current.wrong(
        words.wrongArguments(
          'event.stop',
          `takes a field, section, page or row as its second argument, not ${inWords(at)}.`,
        ),
      );
    }
    wire.act('stop', { event, says, part: behind.number });
  }

  /** What is ready goes on at once: an `await` of something that has ended does not end the stretch. */
  function end(run: GuestRun): void {
    for (let job = run.jobs?.shift(); job !== undefined; job = run.jobs?.shift()) job();
    if (run.fault !== null) throw run.fault;
    const settled = run.main === null ? null : promises.settled(run.main);
    if (settled?.ok === false) throw settled.reason;
    const waits =
      (run.main !== null && settled === null) || (run.calls !== null && run.calls.size > 0);
    if (waits) open.set(run.number, run);
    else {
      run.over = true;
      open.delete(run.number);
    }
    told(run.probe as Probe);
    cells[Cell.Op] = waits ? Came.Open : Came.Ended;
  }

  function fail(run: GuestRun, caught: unknown): void {
    forget(run);
    failed(run.probe as Probe, run.fault ?? caught);
  }

  function failed(probe: Probe, cause: unknown): void {
    const { thrownByScript } = probe;
    wire.giveFault(
      readFailure(cause, thrownByScript !== null && thrownByScript.value === cause, probe.deepest),
    );
    told(probe);
    cells[Cell.Op] = Came.Failed;
  }

  function told(probe: Probe): void {
    cells[Cell.Line] = probe.l;
    cells[Cell.Fuel] = probe.used;
  }

  return { wire, surround, load, loadModule, loadService, answer, run, resume, drop, lost };
}
