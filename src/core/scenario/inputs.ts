/** What cases and grids vary: fields that are set, and how the form is opened. */
import type { Value } from '../form/value';
import type { Step } from '../session/step';
import type { Open, Scenario } from './definition';

export interface Varied {
  open: Open;
  /** Fields that are set, in the order of the inputs. */
  steps: Step[];
}

/**
 * Puts values for inputs into an opening, and into steps to be done after it. Of a case a field without a value is left
 * alone, which may well be hidden; in a grid it is set to nothing, since a record may bring a value.
 */
export function withInputs(
  open: Open,
  inputs: readonly string[],
  values: readonly Value[],
  empty: 'left alone' | 'set',
): Varied {
  let varied = open;
  const steps: Step[] = [];
  inputs.forEach((input, i) => {
    const value = values[i] ?? null;
    if (input === '@as') varied = { ...varied, as: String(value) };
    else if (input === '@record')
      varied = { ...varied, record: value === null ? null : String(value) };
    else if (input.startsWith('@launch.'))
      varied = { ...varied, launch: { ...varied.launch, [input.slice('@launch.'.length)]: value } };
    else if (input.startsWith('@fails.')) varied = failing(varied, input.slice(7), value === true);
    else if (value !== null || empty === 'set') steps.push({ set: input, to: value });
  });
  return { open: varied, steps };
}

function failing(open: Open, service: string, fails: boolean): Open {
  const { [service]: mood, ...others } = open.services ?? {};
  const { fails: _, ...rest } = mood ?? {};
  return {
    ...open,
    services: { ...others, [service]: fails ? { ...rest, fails: 'is out of order' } : rest },
  };
}

/** Every way a scenario's table and grid vary its opening, one input at a time, so that what is not there is found. */
export function variedOpenings({ cases, grid }: Scenario, open: Open): Open[] {
  const varied: Open[] = [open];
  cases?.rows.forEach((row) =>
    varied.push(withInputs(open, cases.inputs, row.inputs, 'left alone').open),
  );
  for (const { input, values } of grid?.axes ?? [])
    for (const value of values) varied.push(withInputs(open, [input], [value], 'set').open);
  return [...new Map(varied.map((one) => [JSON.stringify(one), one])).values()];
}

/** The records that a scenario is opened with: of its own form, and of a parent. */
export function recordsOf(scenario: Scenario): {
  own: string[];
  parent: { form: string; record: string } | null;
} {
  const { open } = scenario;
  const own = variedOpenings(scenario, open ?? { as: '' }).flatMap(({ record }) => record ?? []);
  return { own, parent: open?.parent ?? null };
}
