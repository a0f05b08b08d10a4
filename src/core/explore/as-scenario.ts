/** A finding as a scenario that fails until the fault is mended, and passes from then on. */
import type { Form } from '../form/definition';
import type { Value } from '../form/value';
import type { Expectation, Scenario } from '../scenario/definition';
import { openOf } from '../scenario/recorded';
import type { SampleRecord } from '../scenario/opening';
import { stepAtMarker, type Names } from '../tape/words';
import type { Finding, Kind, Way } from './finding';
import { metInWords, type Met } from './state';

export interface FindingScenario {
  scenario: Scenario;
  /** A record that has to be among the samples first, under an id of its own; null where none is needed. */
  record: SampleRecord | null;
}

const MOST_OF_TITLE = 110;

/** What has to be expected at the end; null where nobody can know what would be right. */
function expected({ kind, part, aspect, met }: Finding): Expectation | null {
  switch (kind) {
    case 'throws':
    case 'cycle':
    case 'broken':
      return { '@errors': [] } as Expectation;
    case 'stopped-off-screen':
    case 'silent-stop':
    case 'dead-end':
      return { '@submit': { stoppedBy: null } } as Expectation;
    case 'submits-hidden':
      return { '@submit': { without: [part] } } as Expectation;
  }
  if (met === null || met.other === undefined) return null;
  // What was entered by hand is taken for right: an opening that leaves something out is the usual fault.
  const right = kind === 'at-load' ? met.one : met.other;
  return expectedOf(part, aspect as Met, right);
}

/** That a part is met like that; null where its being there is what matters. */
export function expectedOf(part: string, aspect: Met, right: unknown): Expectation | null {
  if (aspect === 'replaced' || aspect === 'notice') {
    const text = (right as { text: string } | null)?.text ?? null;
    return { [`@${aspect}`]: text } as Expectation;
  }
  if (aspect === 'exists') return null;
  return {
    [part]: { [aspect === 'hiddenValue' ? 'value' : aspect]: right as Value },
  } as Expectation;
}

/** Null where a finding has no end that could be expected. `samples` are the records that there are. */
export function findingAsScenario(
  finding: Finding,
  form: Form,
  names: Names,
  samples: readonly SampleRecord[],
): FindingScenario | null {
  const expect = expected(finding);
  if (expect === null) return null;
  const { kind, way, other } = finding;
  const from: Way = kind === 'at-load' && other !== null ? other : way;
  const submits = kind === 'submits-hidden' ? [{ submit: true } as const] : [];
  const title = titleOf(finding, names);
  return scenarioOfWay(from, [...submits, { expect }], title, samples, kind !== 'zone');
}

/** A way with steps behind it, as a scenario that is opened with what matters of its opening. */
export function scenarioOfWay(
  { opening, steps }: Way,
  after: Scenario['steps'],
  title: string,
  samples: readonly SampleRecord[],
  isUsualSeed = true,
): FindingScenario {
  const { record } = opening;
  const isSample = record === null || samples.some(({ id }) => id === record.id);
  const { launch, services, clock, seed, zone, ...open } = openOf(opening);
  const isUsual = Object.values(launch ?? {}).every((value) => value === null);
  const scenario: Scenario = {
    title: title.slice(0, MOST_OF_TITLE),
    open: {
      ...open,
      ...(isUsual ? {} : { launch }),
      ...(zone === undefined ? {} : { zone, clock }),
      ...(services === undefined ? {} : { services }),
      ...(!isUsualSeed || seed === 1 ? {} : { seed }),
    },
    steps: [...steps, ...after],
  };
  return { scenario, record: isSample ? null : { id: record.id, values: record.values } };
}

/** As a person would call it: what is to be so, and after what. */
function titleOf(finding: Finding, names: Names): string {
  const { kind, part, aspect, met, way } = finding;
  const label = names.part(part);
  const done = doneInWords(way, names);
  const after = done === '' ? '' : ` after ${done}`;
  const what = SHORT[kind];
  if (what !== undefined) return `${what(label)}${after}`;
  const right = kind === 'at-load' ? met!.one : met!.other;
  const place = kind === 'at-load' ? ` when opened with ${done} saved` : after;
  return `${label} ${metInWords(aspect as Met, right)}${place}`;
}

/** What was done on a way, for a title. */
export function doneInWords({ steps }: Way, names: Names): string {
  return steps
    .filter((step) => !('wait' in step))
    .map((step) =>
      stepAtMarker(step, names)
        .filter((text) => text !== '')
        .join(' '),
    )
    .join(', ');
}

const SHORT: Partial<Record<Kind, (label: string) => string>> = {
  throws: () => 'No script fails',
  cycle: () => 'The form settles',
  broken: () => 'Every invariant holds',
  'dead-end': (label) => `${label} does not keep the form from being submitted`,
  'stopped-off-screen': () => 'Nothing off screen stops submitting',
  'silent-stop': () => 'Submitting is not stopped without a word',
  'submits-hidden': (label) => `${label} is not saved off screen`,
};
