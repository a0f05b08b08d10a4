import type { Mistake } from './mistake';
import { oneWay } from './one-way';

/** A condition that those around it have decided already: a second question for the same key, bounds that exclude each other. */
export const neverReached: Mistake = {
  code: 'never-reached',
  title: 'A condition that is decided already',
  severity: 'error',
  find: (subject) =>
    oneWay(subject, 'source', ({ access, holds }) =>
      holds
        ? `This holds for every value of ${subject.parts.called(access.part)}, so it decides nothing.`
        : `This never holds: the conditions around it leave no value of ${subject.parts.called(access.part)} for which it could.`,
    ),
};
