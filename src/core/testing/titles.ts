/** Titles as a person would give them to sessions that were found. */
import type { Form } from '../form/definition';
import type { Value } from '../form/value';
import { TITLE_CHARACTERS } from '../limits';
import type { Expectation, PartExpectation } from '../scenario/definition';
import { kindOfStep, type Step } from '../session/step';
import { namesFor, stateInWords, stepAtMarker } from '../tape/words';

/** `With Draught 10, Note is required`: the last step, and what it has to come to. */
export function differenceAsTitle(last: Step | null, expect: Expectation, form: Form): string {
  const names = namesFor(form, [], []);
  const [first] = Object.entries(expect).filter(([part]) => !part.startsWith('@'));
  const [aspect, value] = Object.entries((first?.[1] ?? {}) as PartExpectation)[0] ?? [];
  const outcome =
    first === undefined || aspect === undefined
      ? 'comes out as it should'
      : `${names.part(first[0])} ${stateInWords(aspect, value as Value)}`;
  const title = last === null ? `Opened, ${outcome}` : `${after(last)}, ${outcome}`;
  return title.length > TITLE_CHARACTERS ? `${title.slice(0, TITLE_CHARACTERS - 1)}…` : title;

  function after(step: Step): string {
    const [what, how] = stepAtMarker(step, names);
    switch (kindOfStep(step)) {
      case 'set':
        return how === 'nothing' ? `Without ${what}` : `With ${what} ${how}`;
      case 'submit':
        return 'On submitting';
      case 'next':
      case 'previous':
        return `At the ${what}`;
      default:
        return `After ${what}${how === '' ? '' : ` ${how}`}`;
    }
  }
}
