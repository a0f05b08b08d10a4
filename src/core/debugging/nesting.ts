/** What follows for a part from what was said of it and of all around it: whether it is on screen, and editable. */
import { fieldsOf } from '../form/fields';
import { nobodys, type Decision } from './decision';
import { causeOfRead } from './explained';
import type { Ground } from './ground';
import { inRow, type Question } from './question';
import { partsAround, standingBefore } from './standing';

/** What it follows from, and what of that is in the way. */
const FOLLOWS = {
  onScreen: { from: 'shown', unless: false },
  editable: { from: 'locked', unless: true },
} as const;

export function isFollowing(aspect: string): aspect is keyof typeof FOLLOWS {
  return Object.hasOwn(FOLLOWS, aspect);
}

export function followsFrom(ground: Ground, { part, aspect, before }: Question): Decision {
  const { from, unless } = FOLLOWS[aspect as keyof typeof FOLLOWS];
  const around = partsAround(ground.form, part);
  const inTheWay = around.filter(
    (one) => standingBefore(ground, { part: one, aspect: from, before }) === unless,
  );
  const value = inTheWay.length === 0 && !(aspect === 'editable' && isScriptOnly(ground, part));
  const causesIn = (parts: readonly string[], stands: boolean) =>
    parts.map((one) =>
      causeOfRead(ground.tape, { part: one, aspect: from, value: stands }, before),
    );
  const causes =
    inTheWay.length > 0
      ? causesIn(inTheWay, unless)
      : // Of what is not in the way, only what somebody said matters.
        causesIn(around, !unless).filter(({ entry }) => entry !== null);
  return { ...nobodys(part, aspect, value, 'derived'), causes, asOf: before };
}

function isScriptOnly({ form }: Ground, part: string): boolean {
  const { rows, cell } = inRow(part) ?? { rows: part, cell: null };
  const field = fieldsOf(form).find(({ name }) => name === rows);
  if (field === undefined) return false;
  const definition =
    cell !== null && field.kind === 'rows' ? field.fields.find(({ name }) => name === cell) : field;
  return definition?.scriptOnly === true;
}
