/** A visit of the demo's berth request that is saved as it is entered, as values and as the steps of a filling-in. */
import type { TimedStep } from '../../src/core/session/step';

export const VISIT = {
  vessel: 'Aurelle',
  vessel_kind: 'survey',
  length: 42.5,
  draught: 3.1,
  contact: 'desk@varrick.example',
  arrival: '2031-06-01',
  departure: '2031-06-02',
  berth: 'sq1',
  pilot_choice: 'none',
};

/** What is entered in turn, then the submission. */
export const stepsOf = (values: Partial<typeof VISIT>): TimedStep[] => [
  ...Object.entries(values).map(([set, to]) => ({ set, to })),
  { submit: true },
];
