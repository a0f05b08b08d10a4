/** What differs between two moments, two replays or two conditions, part by part and aspect by aspect. */
import type { Form } from '../form/definition';
import { equal, type Value } from '../form/value';
import { partsSeen, type Seen } from '../scenario/seen';
import { forTape } from '../session/tape-writer';
import type { PartState } from '../session/step';

export interface Difference {
  part: string;
  aspect: string;
  /** Undefined where the part was not there. */
  before: Value | undefined;
  after: Value | undefined;
}

/** Aspects that follow from others: they are told only where nothing else of the part is. */
const FOLLOWS: ReadonlySet<string> = new Set(['onScreen', 'editable', 'sort']);

export function differences(before: Seen, after: Seen, form: Form): Difference[] {
  const [one, other] = [partsSeen(before, form), partsSeen(after, form)];
  const names = [...new Set([...Object.keys(one), ...Object.keys(other)])];
  const found = names.flatMap((part) => ofPart(part, one[part], other[part]));
  const ofForm = (aspect: 'page' | 'replaced' | 'notice' | 'submit'): Difference[] =>
    equal(before[aspect] as never, after[aspect] as never)
      ? []
      : [
          {
            part: '@form',
            aspect,
            before: before[aspect] as unknown as Value,
            after: after[aspect] as unknown as Value,
          },
        ];
  return [
    ...found,
    ...ofForm('page'),
    ...ofForm('replaced'),
    ...ofForm('notice'),
    ...ofForm('submit'),
  ];
}

function ofPart(
  part: string,
  one: PartState | undefined,
  other: PartState | undefined,
): Difference[] {
  const aspects = [...new Set([...Object.keys(one ?? {}), ...Object.keys(other ?? {})])];
  const all = aspects.flatMap((aspect): Difference[] => {
    const before = one?.[aspect as keyof PartState] as Value | undefined;
    const after = other?.[aspect as keyof PartState] as Value | undefined;
    return equal(before as Value, after as Value)
      ? []
      : [{ part, aspect, before: told(before), after: told(after) }];
  });
  const own = all.filter(({ aspect }) => !FOLLOWS.has(aspect));
  return own.length > 0 ? own : all.filter(({ aspect }) => aspect !== 'sort');
}

function told(value: Value | undefined): Value | undefined {
  return value === undefined ? undefined : forTape(value);
}
