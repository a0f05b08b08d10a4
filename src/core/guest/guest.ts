/**
 * What runs in a machine beside the scripts: it loads them, runs what they tied when the session says so, and tells how
 * that went. It holds nothing of a session; whatever scripts read, say or ask goes over the wire. Numbers of ties,
 * runs and calls are the session's.
 */
import type { Surroundings } from '../wire/acts';
import { inWords } from '../form/value';
import { ScriptFault, words } from '../wire/failures';
import { BY, Came, Cell, Given, Op, Slot } from '../wire/layout';
import { makeAsking } from './asking';
import { makeClock } from './clock';
import { Current, GuestRun } from './current';
import { Face, faceReadsAs } from './face';
import { makeFaces, type Faces } from './faces';
import { readFailure } from './failures';
import { formFace } from './form-face';
import { loadAnswering, loadBehaviour, type Answering, type MakeFunction, type Stage } from './loading';
import { plain, type ReadsAs } from './plain';
import type { Probe } from './probe';
import { makePromises, type Promises } from './promises';
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
}

/** The loose texts that the session hands over stand at these places. */
const LOOSE = 0;

export class Guest {
  readonly wire: Wire;
  readonly #lent: Lent;
  readonly #current = new Current();
  readonly #promises: Promises;
  readonly #ties: Tie[] = [];
  readonly #answering: Answering[] = [];
  /** Runs that wait, by number. */
  readonly #open = new Map<number, GuestRun>();
  #tables: Tables = makeTables([]);
  #faces: Faces | null = null;
  #stage: Stage | null = null;
  readonly #readsAs: ReadsAs;

  constructor(lent: Lent) {
    this.#lent = lent;
    this.wire = makeWire(lent.buffer, lent.host, { isFace: (value) => Face.behind(value) !== null, tableRow: (value) => this.#tables.rowOf(value) }, this.#current);
    this.#promises = makePromises(() => this.#current.owner());
    this.#readsAs = (value) => faceReadsAs(value) ?? (value === this.#stage?.form ? 'form' : null);
  }

  /** Says what the scripts to come can touch: loose text 0, as `Surroundings`. */
  surround(): void {
    const { parts, tables, services } = JSON.parse(this.wire.loose(LOOSE)) as Surroundings;
    const { wire } = this;
    const current = this.#current;
    this.#tables = makeTables(tables);
    this.#faces = makeFaces(parts, wire, current, this.#tables);
    const zone = (): string => {
      wire.cells[Cell.Aspect] = Slot.Zone;
      wire.cells[Cell.Op] = Op.Read;
      wire.call();
      return wire.take(Cell.Tag, Cell.Payload, Cell.Float) as string;
    };
    this.#stage = {
      wire,
      current,
      promises: this.#promises,
      faces: this.#faces,
      asking: makeAsking(services, wire, current, this.#promises),
      tables: this.#tables,
      clock: makeClock(wire, this.#lent.temporal() as never, zone),
      form: formFace(wire, current),
      readsAs: this.#readsAs,
      makeFunction: this.#lent.makeFunction,
    };
  }

  /** Loads the behaviour numbered in `More`, whose code is loose text 0; what it ties crosses meanwhile. */
  load(): void {
    const current = this.#current;
    const before = this.#ties.length;
    current.topLevel = true;
    try {
      loadBehaviour(this.#stage!, this.wire.cells[Cell.More]!, this.wire.loose(LOOSE), this.#ties);
      this.wire.cells[Cell.Op] = Came.Ended;
    } catch (caught) {
      this.#ties.length = before;
      this.#failed(current.probe as Probe, caught);
    } finally {
      current.topLevel = false;
      current.probe = null;
    }
  }

  /** Loads the script of a service, likewise. */
  loadService(): void {
    this.#answering.push(loadAnswering(this.#stage!, this.wire.cells[Cell.More]!, this.wire.loose(LOOSE)));
  }

  /** Asks the service's script of the number in `More` for its answer to loose text 0. */
  answer(): void {
    const { wire } = this;
    const { run, probe } = this.#answering[wire.cells[Cell.More]!]!;
    probe.begin(1, false);
    try {
      const came = plain(run(JSON.parse(wire.loose(LOOSE))), this.#readsAs);
      wire.give(came);
      wire.cells[Cell.Op] = Came.Ended;
    } catch {
      wire.cells[Cell.Op] = Came.Failed;
    }
    wire.cells[Cell.Line] = probe.l;
  }

  /** Runs a tie with what the cells give it. */
  run(): void {
    const { cells } = this.wire;
    const tie = this.#ties[cells[Cell.Tie]!]!;
    const { probe } = tie;
    const run = new GuestRun(cells[Cell.Run]!, tie.rule, tie.loads, probe, tie.line);
    const current = this.#current;
    current.run = run;
    current.probe = probe;
    probe.begin(tie.line, cells[Cell.Traced] === 1);
    try {
      const result = tie.run(this.#given());
      if (tie.rule) {
        if (typeof result === 'object' && result !== null && (this.#promises.isPromise(result) || 'then' in result)) current.fault(new ScriptFault('async', words.asyncRule));
      } else if (this.#promises.isPromise(result)) run.main = result;
      this.#end(run);
    } catch (caught) {
      this.#fail(run, caught);
    } finally {
      current.run = null;
      current.probe = null;
    }
  }

  /** Goes on with the run that waited for the call in `Call`, which came to the value told, or failed for a reason. */
  resume(): void {
    const { cells } = this.wire;
    const run = this.#open.get(cells[Cell.Run]!);
    const settle = run?.calls?.get(cells[Cell.Call]!);
    if (run === undefined || settle === undefined) {
      cells[Cell.Op] = Came.Ended;
      return;
    }
    const current = this.#current;
    const probe = run.probe as Probe;
    run.calls!.delete(cells[Cell.Call]!);
    run.fault = null;
    current.run = run;
    current.probe = probe;
    const failed = cells[Cell.More] === 1;
    probe.begin(run.line, cells[Cell.Traced] === 1);
    try {
      const value = this.wire.take(Cell.ValueTag, Cell.ValuePayload, Cell.ValueFloat);
      settle(failed ? { ok: false, reason: String(value) } : { ok: true, value });
      this.#end(run);
    } catch (caught) {
      this.#fail(run, caught);
    } finally {
      current.run = null;
      current.probe = null;
    }
  }

  /** Nothing of the run in `Run` goes on any more. */
  drop(): void {
    const number = this.wire.cells[Cell.Run]!;
    const run = this.#open.get(number);
    if (run === undefined) return;
    run.over = true;
    run.jobs = null;
    this.#open.delete(number);
  }

  /** The run was stopped from outside, in the middle: says where it was, and forgets it. */
  lost(): void {
    const { run, probe } = this.#current;
    this.wire.cells[Cell.Line] = probe?.l ?? 0;
    if (run !== null) {
      run.over = true;
      run.jobs = null;
      this.#open.delete(run.number);
    }
    this.#current.run = null;
    this.#current.probe = null;
    this.#current.topLevel = false;
  }

  #given(): unknown {
    const { cells, take } = this.wire;
    switch (cells[Cell.Given]) {
      case Given.Row:
        return this.#faces!.row(cells[Cell.Row]!, cells[Cell.RowField]!, cells[Cell.RowId]!);
      case Given.Event:
        return this.#event(take);
      default:
        return undefined;
    }
  }

  /** The event as a handler gets it. */
  #event(take: Wire['take']): object {
    const { cells } = this.wire;
    const faces = this.#faces!;
    // The row first, since a cell is known by it.
    const row = cells[Cell.Row]! < 0 ? null : faces.row(cells[Cell.Row]!, cells[Cell.RowField]!, cells[Cell.RowId]!);
    const part = cells[Cell.Part]! < 0 ? null : this.#partOfEvent(cells[Cell.Part]!, row);
    const number = cells[Cell.Event]!;
    const extra = take(Cell.ExtraTag, Cell.ExtraPayload, 0) as object | undefined;
    const event: Record<string, unknown> = {
      part,
      value: take(Cell.ValueTag, Cell.ValuePayload, Cell.ValueFloat),
      previous: take(Cell.PreviousTag, Cell.PreviousPayload, Cell.PreviousFloat),
      by: BY[cells[Cell.By]!],
      ...extra,
    };
    if (row !== null) event.row = row;
    if (number > 0) event.stop = (says: unknown, at?: unknown) => this.#stop(number, says, at);
    return Object.freeze(event);
  }

  /** A cell has its face from its row. */
  #partOfEvent(number: number, row: object | null): object {
    const faces = this.#faces!;
    if (row === null || number < faces.fixed) return faces.part(number);
    const behind = Face.behind(row)!;
    return (row as { fields: Record<string, object> }).fields[behind.info.columns![number - behind.number - 1]!.name]!;
  }

  #stop(event: number, says: unknown, at: unknown): void {
    const current = this.#current;
    current.demand('event.stop() was called');
    if (typeof says !== 'string' || says === '') return current.wrong(words.wrongAspect('event', 'stop()', 'a text that says why', says));
    if (at === undefined || at === null) return void this.wire.act('stop', { event, says, part: null });
    const behind = Face.behind(at);
    if (behind === null || behind.info.sort === 'button' || behind.info.sort === 'track') {
      return current.wrong(words.wrongArguments('event.stop', `takes a field, section, page or row as its second argument, not ${inWords(at)}.`));
    }
    this.wire.act('stop', { event, says, part: behind.number });
  }

  /** What is ready goes on at once: an `await` of something that has ended does not end the stretch. */
  #end(run: GuestRun): void {
    for (let job = run.jobs?.shift(); job !== undefined; job = run.jobs?.shift()) job();
    if (run.fault !== null) throw run.fault;
    const settled = run.main === null ? null : this.#promises.settled(run.main);
    if (settled?.ok === false) throw settled.reason;
    const waits = (run.main !== null && settled === null) || (run.calls !== null && run.calls.size > 0);
    if (waits) this.#open.set(run.number, run);
    else {
      run.over = true;
      this.#open.delete(run.number);
    }
    this.#told(run.probe as Probe);
    this.wire.cells[Cell.Op] = waits ? Came.Open : Came.Ended;
  }

  #fail(run: GuestRun, caught: unknown): void {
    run.over = true;
    run.jobs = null;
    this.#open.delete(run.number);
    this.#failed(run.probe as Probe, run.fault ?? caught);
  }

  #failed(probe: Probe, cause: unknown): void {
    const { thrownByScript } = probe;
    this.wire.giveFault(readFailure(cause, thrownByScript !== null && thrownByScript.value === cause, probe.deepest));
    this.#told(probe);
    this.wire.cells[Cell.Op] = Came.Failed;
  }

  #told(probe: Probe): void {
    const { cells } = this.wire;
    cells[Cell.Line] = probe.l;
    cells[Cell.Fuel] = probe.used;
  }
}
