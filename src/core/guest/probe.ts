/**
 * What compiled scripts report to: where they are, and what it costs. The compiler (`language/instrument.ts`) puts
 * calls of this object into every script, so a script that loops for ever stops after the same number of rounds on
 * every machine, and errors and effects know their line without reading the engine's stack traces. In a traced run the
 * lines and values go into the memory that the session sees, behind the cells.
 */
import { CALL_DEPTH, FUEL_PER_AWAIT, FUEL_PER_RUN } from '../limits';
import { ScriptError, words } from '../wire/failures';
import { Cell, Op, Report, Tag, TRACE_LIMIT, Tracing, VALUES_KEPT } from '../wire/layout';
import { glimpse, type Sight } from './glimpse';
import type { Promises } from './promises';
import type { Wire } from './wire';

/** What a probe needs of the machine around it. */
export interface ProbeContext {
  wire: Wire;
  sight: Sight;
  /** What the name `parent` stands for. */
  parent: () => object | null;
  /** The scripts of services have none. */
  promises: Promises | null;
  /** Keeps what goes wrong from now on apart from the run, until what it gives is called. */
  aside: () => () => void;
}

/** What somebody who asked is told of what their expression threw. */
function inWordsOf(caught: unknown): string {
  try {
    return String((caught as { message?: unknown } | null)?.message ?? caught);
  } catch {
    return 'it failed';
  }
}

export class Probe {
  /** The line that is being run, 1-based. */
  l = 0;
  fuel = FUEL_PER_RUN;
  depth = 0;
  /** The deepest the run went, which tells an exhausted stack from exhausted memory. */
  deepest = 0;
  /** What the script threw itself, to keep its words apart from the engine's. */
  thrownByScript: { value: unknown } | null = null;
  // Not private to the engine: that costs an interpreter five times as much, and no script can name its probe.
  private traced = false;
  private detailed = false;
  private asks = false;
  /** Activations of functions so far. */
  private frames = 0;
  private watched = false;
  /** Whether its line tells itself when it is written. */
  private tells = false;
  /** Values told so far. */
  private values = 0;
  /** The number of the script, for whoever watches. */
  private readonly script: number;
  private readonly around: ProbeContext;
  private readonly cells: Int32Array;

  constructor(script: number, around: ProbeContext) {
    this.script = script;
    this.around = around;
    this.cells = around.wire.cells;
  }

  get used(): number {
    return FUEL_PER_RUN - (this.fuel > 0 ? this.fuel : 0);
  }

  /** Called before each run. */
  begin(line: number, tracing: number): void {
    this.l = line;
    this.fuel = FUEL_PER_RUN;
    this.depth = 0;
    this.deepest = 0;
    this.thrownByScript = null;
    this.traced = (tracing & Tracing.Lines) !== 0;
    this.detailed = (tracing & Tracing.Details) !== 0;
    this.asks = (tracing & Tracing.Asked) !== 0;
    this.values = 0;
    this.cells[Cell.TraceEnd] = Cell.Trace;
    this.watched = this.cells[Cell.Watched] === 1;
    if (!this.watched) return;
    this.tell(line);
    if (this.tells) return;
    this.tells = true;
    let at = line;
    // Untraced scripts say their line by writing it.
    Object.defineProperty(this, 'l', {
      get: () => at,
      set: (next: number) => {
        if (next !== at) this.tell(next);
        at = next;
      },
    });
  }

  private tell(line: number): void {
    const { cells } = this;
    cells[Cell.Op] = Op.Tell;
    cells[Cell.More] = this.script;
    cells[Cell.Line] = line;
    this.around.wire.call();
  }

  /** The place of the next entry of the trace, with room for a value. */
  private next(): number {
    const { cells } = this;
    if (cells[Cell.TraceEnd]! >= TRACE_LIMIT) {
      cells[Cell.Op] = Op.Trace;
      this.around.wire.call();
      cells[Cell.TraceEnd] = Cell.Trace;
    }
    return cells[Cell.TraceEnd]!;
  }

  /** A statement of a traced script. */
  s(line: number): void {
    this.l = line;
    if (!this.traced) return;
    const at = this.next();
    this.cells[at] = line;
    this.cells[Cell.TraceEnd] = at + 1;
  }

  /** A loop round, or a function without calls of its own: burns fuel. */
  f(line: number): void {
    this.l = line;
    if (--this.fuel < 0) throw new ScriptError('fuel', words.fuel);
  }

  /** A function is entered. */
  in(line: number): void {
    this.l = line;
    if (--this.fuel < 0) throw new ScriptError('fuel', words.fuel);
    if (++this.depth > this.deepest) this.deepest = this.depth;
    if (this.depth > CALL_DEPTH) throw new ScriptError('depth', words.depth);
  }

  /** A function is left, however that happens. */
  out(): void {
    this.depth--;
  }

  /** Runs a compiled async function. */
  go(
    self: unknown,
    body: () => Generator<unknown, unknown, unknown>,
    args: readonly unknown[],
  ): object {
    const { promises } = this.around;
    if (promises === null) throw new ScriptError('async', words.asyncService);
    return promises.go(this, self, body, args);
  }

  /** What the name `parent` stands for. */
  parent(): object | null {
    return this.around.parent();
  }

  /** An async function starts or goes on, which costs far more than a call. */
  goOn(): void {
    this.fuel -= FUEL_PER_AWAIT;
    if (this.fuel < 0) throw new ScriptError('fuel', words.fuel);
  }

  /** Something that could have moved the line is over: says it again, and passes the value on. */
  at<T>(line: number, value: T): T {
    this.l = line;
    return value;
  }

  /** An assigned value or a condition in a traced script, by the number the compiler gave the expression. */
  v<T>(line: number, expression: number, value: T): T {
    this.l = line;
    // One more than is kept, so that the session sees that some are missing.
    if (this.traced && this.values <= VALUES_KEPT) {
      this.values++;
      this.value(line, expression, value);
    }
    if (this.detailed) this.report(Report.Value, line, expression, value);
    return value;
  }

  /** Puts a value into the cells as traces have it. */
  private put(value: unknown): void {
    const { wire, sight } = this.around;
    const { cells } = this;
    const whole =
      typeof value === 'number' && (value | 0) === value && !(value === 0 && 1 / value < 0);
    if (whole) {
      cells[Cell.Tag] = Tag.Integer;
      cells[Cell.Payload] = value;
    } else if (value === null || value === undefined || typeof value === 'boolean')
      wire.give(value ?? null);
    else wire.giveJson(glimpse(value, sight));
  }

  private value(line: number, expression: number, value: unknown): void {
    const { cells } = this;
    this.put(value);
    const at = this.next();
    cells[at] = -line;
    cells[at + 1] = expression;
    cells[at + 2] = cells[Cell.Tag]!;
    cells[at + 3] = cells[Cell.Payload]!;
    cells[Cell.TraceEnd] = at + 4;
  }

  private report(what: Report, site: number, frame: number, value: unknown): void {
    const { cells } = this;
    this.put(value);
    cells[Cell.Op] = Op.Detail;
    cells[Cell.More] = what;
    cells[Cell.Line] = site;
    cells[Cell.Aspect] = frame;
    this.around.wire.call();
  }

  /** The values of variables; null where one of them has none yet. */
  private inSight(values: (() => unknown[]) | null): unknown {
    if (values === null) return null;
    try {
      return values();
    } catch {
      return null;
    }
  }

  /** A function is entered: the number of its activation. */
  e(site: number, values: (() => unknown[]) | null): number {
    const frame = ++this.frames;
    if (this.detailed) this.report(Report.Enter, site, frame, this.inSight(values));
    return frame;
  }

  /** A function is left. */
  x(frame: number): void {
    if (this.detailed) this.report(Report.Leave, 0, frame, null);
  }

  /** A function waits. */
  z<T>(frame: number, value: T): T {
    if (this.detailed) this.report(Report.Suspend, 0, frame, null);
    return value;
  }

  /** A function that waited goes on. */
  r<T>(frame: number, value: T): T {
    if (this.detailed) this.report(Report.Resume, 0, frame, value);
    return value;
  }

  /** A statement begins. */
  d(site: number, frame: number, values: (() => unknown[]) | null): void {
    if (this.detailed) this.report(Report.Statement, site, frame, this.inSight(values));
  }

  /** A condition begins. */
  b(site: number, frame: number): void {
    if (this.detailed) this.report(Report.Begin, site, frame, null);
  }

  /** What a condition came to; where somebody tries it the other way round, the opposite. */
  c(site: number, frame: number, value: unknown): unknown {
    if (!this.detailed) return value;
    // NaN and 0n are no as well, which their texts on the tape would not tell.
    const isOdd = value !== value || value === 0n;
    this.report(Report.Condition, site, frame, isOdd ? false : value);
    return this.cells[Cell.More] === 1 ? !value : value;
  }

  /** What a `switch` looks at. */
  k<T>(site: number, frame: number, value: T): T {
    if (this.detailed) this.report(Report.Switch, site, frame, value);
    return value;
  }

  /** A side of a comparison, or what it came to. */
  o<T>(site: number, frame: number, value: T): T {
    if (this.detailed) this.report(Report.Operand, site, frame, value);
    return value;
  }

  /** Evaluates what somebody asks on the way. The script goes on as if nothing had been. */
  w(id: number, ask: () => unknown): void {
    if (!this.asks) return;
    const { l, fuel, depth, deepest, thrownByScript, traced, detailed } = this;
    const restore = this.around.aside();
    this.asks = false;
    this.traced = false;
    this.detailed = false;
    this.report(Report.Ask, l, id, null);
    let how = Report.Asked;
    let came: unknown;
    try {
      came = ask();
    } catch (caught) {
      how = Report.AskFailed;
      came = inWordsOf(caught);
    }
    restore();
    Object.assign(this, { l, fuel, depth, deepest, thrownByScript, traced, detailed, asks: true });
    this.report(how, l, id, came);
  }

  /** Whether a mutant is switched on; notes that its place was reached. Only scripts compiled with their mutants ask. */
  m(mutant: number): boolean {
    const { cells } = this;
    if (cells[Cell.Mutant] === mutant) return true;
    const at = Cell.Trace + (mutant >> 5);
    cells[at] = cells[at]! | (1 << (mutant & 31));
    return false;
  }

  /** The operand of a `throw` of the script's own. */
  t(line: number, value: unknown): unknown {
    this.l = line;
    this.thrownByScript = { value };
    return value;
  }
}
