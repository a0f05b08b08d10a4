/**
 * The parts of a session, each made from those before it: what holds its state, what runs scripts, what settles, and what
 * people do. Nothing is made known to a part later.
 */
import { RUNS_PER_STEP } from '../limits';
import { Clock } from './clock';
import { Corrections } from './corrections';
import { CurrentRun } from './current-run';
import { Defaults } from './defaults';
import { Desk } from './desk';
import { Entering } from './entering';
import { Invariants } from './invariants';
import type { Loaded, Material } from './material';
import type { Observer } from './observer';
import { Opened } from './opened';
import { PageSteps } from './page-steps';
import { Pages } from './pages';
import { Progress } from './progress';
import { Records } from './records';
import { RowSteps } from './row-steps';
import { RuleClaims } from './rule-claims';
import { Running } from './running';
import type { Scripts } from './scripts';
import { Services } from './services';
import { Settling } from './settling';
import { Situation } from './situation';
import { State } from './state';
import type { Opening } from './step';
import { Stopping } from './stopping';
import { Submitting } from './submitting';
import { TapeWriter } from './tape-writer';
import { Ties } from './ties';
import { Time } from './time';
import { Waiting } from './waiting';
import { Writing } from './writing';

export type Rooms = ReturnType<typeof roomsOf>;

export function roomsOf(
  { form, tables, services: known, traced, invariants: asked = true }: Material,
  { tied, failures: out }: Loaded,
  scripts: Scripts,
  opening: Opening,
  observer: Observer | null,
) {
  const { runLimit = RUNS_PER_STEP, checkPages = true } = form.settings ?? {};

  const situation = new Situation(opening);
  const clock = new Clock(opening.clock, opening.zone ?? 'UTC', opening.seed);
  const progress = new Progress();
  const state = new State(form, tables, progress.journal, (pattern, text) =>
    scripts.fits(pattern, text),
  );
  const tape = new TapeWriter(traced, progress.journal, observer);
  const waiting = new Waiting(progress, (run) => scripts.drop(run));
  const pages = new Pages(state.parts.pages, situation, tape, progress);
  const defaults = new Defaults(situation, clock);
  const opened = new Opened();
  const stopping = new Stopping();

  const ties = new Ties(state, progress, tied, asked);
  const writing = new Writing(state, tape, progress, ties);
  const ruleClaims = new RuleClaims(state, tape, progress, writing);
  const services = new Services(known, state, scripts, opening.services ?? {});
  const currentRun = new CurrentRun(state, tape, waiting, progress, writing, observer);
  const desk = new Desk(
    state,
    currentRun,
    writing,
    services,
    clock,
    defaults,
    situation,
    ties,
    pages,
    progress,
    opened,
    stopping,
    observer,
  );
  const running = new Running(
    state,
    tape,
    waiting,
    progress,
    ruleClaims,
    writing,
    currentRun,
    scripts,
    desk,
  );

  const corrections = new Corrections(state, progress, writing, defaults);
  const settling = new Settling(
    state,
    running,
    ruleClaims,
    tape,
    waiting,
    progress,
    ties,
    corrections,
    stopping,
    runLimit,
  );
  const invariants = new Invariants(state, running, settling);
  const time = new Time(clock, waiting, settling, progress, pages);

  const records = new Records(
    state,
    situation,
    clock,
    tape,
    progress,
    settling,
    ties,
    running,
    waiting,
    corrections,
    opened,
    out,
    defaults,
    invariants,
  );
  const entering = new Entering(state, progress, situation, ties, waiting, writing);
  const rowSteps = new RowSteps(state, progress, situation, writing, defaults);
  const pageSteps = new PageSteps(
    state,
    situation,
    progress,
    settling,
    stopping,
    time,
    pages,
    tape,
    checkPages,
  );
  const submitting = new Submitting(state, situation, progress, settling, stopping, time, tape);

  return {
    clock,
    corrections,
    desk,
    entering,
    invariants,
    out,
    pages,
    pageSteps,
    progress,
    opened,
    records,
    rowSteps,
    ruleClaims,
    services,
    settling,
    situation,
    state,
    stopping,
    submitting,
    ties,
    tape,
    time,
    waiting,
    writing,
  };
}
