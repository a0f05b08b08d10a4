/** The session of a scenario that is being edited, and what the live form shows of it. */
import { useRoom } from '../../use-room';
import { useMaterial } from '../common/use-bench';
import { useEffect, useMemo, useRef } from 'react';
import { equal, type Value } from '@/core/form/value';
import { stepsOf } from '@/core/scenario/beginning';
import type { Open, Scenario } from '@/core/scenario/definition';
import { stepsBefore } from '@/core/scenario/editing';
import type { PlacesOf } from '@/core/scenario/naming';
import { NoSuchOpening } from '@/core/scenario/opening';
import { sessionAt } from '@/core/scenario/run-scenario';
import { seenAt, type Seen } from '@/core/scenario/seen';
import type { Answer, Step } from '@/core/session/step';
import type { Bench } from '../create-bench';

/** Rows whose cells are offered. */
const MOST_PLACES = 10;

export interface ShownSession {
  /** Null where it cannot be opened. */
  session: { open: Open; steps: readonly Step[] } | null;
  /** Steps of the scenario that it starts as. */
  before: number;
  /** Whether the live form shows it. */
  shows: boolean;
  answers: readonly Answer[];
  /** Steps that were done in the live form after those of the scenario. */
  more: readonly Step[];
  /** The live form after an entry; null where it shows something else. */
  seenAfter(entry: number): Seen | null;
  placesOf: PlacesOf;
}

export function useShownSession(bench: Bench, name: string, scenario: Scenario): ShownSession {
  const { form } = useMaterial(bench);
  const scenarios = useRoom(bench.tests, (state) => state.scenarios);
  const { open, steps, answers } = useRoom(bench.form.session, (state) => ({
    open: state.open,
    steps: state.steps,
    answers: state.answers,
  }));
  const session = useMemo(() => {
    try {
      return sessionAt({ ...scenario, cases: undefined, grid: undefined }, null, {
        form,
        cast: { ...bench.tests.cast(), scenarios },
      });
    } catch (caught) {
      if (caught instanceof NoSuchOpening) return null;
      throw caught;
    }
  }, [bench, scenario, scenarios, form]);
  const isOpen = (one: { open: Open }) => equal(open as Value, one.open as Value);
  const shows =
    session !== null &&
    isOpen(session) &&
    answers.length > session.steps.length &&
    session.steps.every((step, i) => equal(step as Value, steps[i] as Value));

  // The live form follows what is changed, unless something else was done in it.
  const last = useRef<ShownSession['session']>(null);
  useEffect(() => {
    if (shows) last.current = session;
    else if (
      last.current !== null &&
      session !== null &&
      isOpen(last.current) &&
      equal(last.current.steps as Value, steps as Value)
    ) {
      last.current = null;
      void bench.tests.show(name, null);
    }
  });

  const before = session === null ? 0 : session.steps.length - stepsOf(scenario).length;
  return {
    session,
    before,
    shows,
    answers,
    more: shows ? steps.slice(session.steps.length) : [],
    seenAfter: (entry) => (shows ? seenAt(answers, before + stepsBefore(scenario, entry)) : null),
    placesOf: (field) => {
      const rows = shows ? seenAt(answers, session.steps.length).rows[field] : undefined;
      return [...Array(Math.min(MOST_PLACES, Math.max(1, rows?.order.length ?? 1))).keys()];
    },
  };
}
