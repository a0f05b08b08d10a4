/** Scenarios that start as another one: its opening and its steps, without what it expects. */
import { BEGINNINGS } from '../limits';
import type { Step } from '../session/step';
import type { Expectation, Open, Scenario, ScenarioStep } from './definition';
import { NoSuchOpening, type NamedScenario } from './opening';

export interface Beginning {
  open: Open;
  /** Done before the scenario's own steps. */
  steps: readonly Step[];
}

export function isExpect(step: ScenarioStep): step is { expect: Expectation } {
  return 'expect' in step;
}

export function stepsOf(scenario: Scenario): Step[] {
  return scenario.steps.filter((step): step is Step => !isExpect(step));
}

/** How a scenario is opened and what is done before its own steps. Throws NoSuchOpening. */
export function beginningOf(scenario: Scenario, others: readonly NamedScenario[]): Beginning {
  const before: Step[][] = [];
  let first = scenario;
  for (let i = 0; first.startsAs !== undefined; i++) {
    const { startsAs } = first;
    const found = others.find(({ name }) => name === startsAs);
    if (found === undefined)
      throw new NoSuchOpening(['startsAs'], `there is no scenario "${startsAs}"`);
    if (found.scenario === scenario || i >= BEGINNINGS)
      throw new NoSuchOpening(
        ['startsAs'],
        found.scenario === scenario
          ? 'it starts as itself'
          : `at most ${BEGINNINGS} scenarios start as one another`,
      );
    first = found.scenario;
    before.unshift(stepsOf(first));
  }
  return { open: first.open!, steps: before.flat() };
}
