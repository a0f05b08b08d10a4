/** Who steers what: the writes of aspects other than values, and whether anybody else answers for them. */
import { entryOf, SAID } from '../../wire/aspects';
import { actsOf, type ActOf, type Block, type Condition, type Flow, type Mark } from '../acts';
import type { Subject } from './mistake';

/** Aspects that stay as they were said until somebody says otherwise. */
export const STEERED: ReadonlySet<string> = new Set(SAID.filter((name) => entryOf(name).stays));

/** Aspects that are a text or, with nothing to say, null. */
export const TEXTS: ReadonlySet<string> = new Set(
  SAID.filter((name) => entryOf(name).takes === 'text or nothing'),
);

export const steering = (block: Block): ActOf<'write'>[] =>
  actsOf(block, 'write').filter(({ aspect }) => STEERED.has(aspect));

/** Whether a condition asks for something that changes while the form is in use, and for nothing that happens only once. */
export function follows(condition: Pick<Condition, 'reads' | 'marks'>): boolean {
  return !once(condition.marks) && (condition.reads.length > 0 || condition.marks.has('event'));
}

/** What asks who did it, what was before or what a service said is about this one event. */
export function once(marks: ReadonlySet<Mark>): boolean {
  return marks.has('by') || marks.has('previous') || marks.has('service');
}

/** All blocks of the form: of this behaviour and of the others. */
export const everyBlock = ({ flow, others }: Pick<Subject, 'flow' | 'others'>): Block[] =>
  [flow, ...others.map((other): Flow => other.flow)].flatMap(({ blocks }) => blocks);

export const says = (block: Block, { part, aspect }: { part: string; aspect: string }): boolean =>
  actsOf(block, 'write').some((act) => act.part === part && act.aspect === aspect);
