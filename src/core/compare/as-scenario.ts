/** A difference as a scenario that expects what one of the two versions does. */
import {
  doneInWords,
  expectedOf,
  scenarioOfWay,
  type FindingScenario,
} from '../explore/as-scenario';
import { metInWords } from '../explore/state';
import type { Expectation } from '../scenario/definition';
import type { SampleRecord } from '../scenario/opening';
import type { Names } from '../tape/words';
import { isBeside, type Difference, type Stop } from './difference';
import { asItIs } from './told';

/** Null where what differs is that a part is there, or what a script fails with: nobody would keep either. */
export function differenceAsScenario(
  difference: Difference,
  side: 'before' | 'after',
  names: Names,
  samples: readonly SampleRecord[],
): FindingScenario | null {
  const { part, aspect, way } = difference;
  const met = difference[side];
  const expect = isBeside(aspect) ? besideExpected(aspect, met) : expectedOf(part, aspect, met);
  if (expect === null) return null;
  const done = doneInWords(way, names);
  const what = isBeside(aspect)
    ? asItIs(aspect, met, names)
    : `${names.part(part)} ${metInWords(aspect, met)}`;
  const title = `${what[0]!.toUpperCase()}${what.slice(1)}${done === '' ? '' : ` after ${done}`}`;
  return scenarioOfWay(way, [{ expect }], title, samples);
}

function besideExpected(
  aspect: 'messages' | 'failures' | 'page' | 'submit',
  met: unknown,
): Expectation | null {
  switch (aspect) {
    case 'messages':
      return { '@messages': met as string[] } as Expectation;
    case 'failures':
      return (met as unknown[]).length === 0 ? ({ '@errors': [] } as Expectation) : null;
    case 'page':
      return { '@page': met as string | null } as Expectation;
    case 'submit': {
      if (met === 'saved') return { '@submit': { saved: true } } as Expectation;
      const [stop] = (met as readonly Stop[] | null) ?? [];
      // Something else stops it in both.
      return stop === undefined
        ? null
        : ({ '@submit': { saved: false, stoppedBy: stop.part } } as Expectation);
    }
  }
}
