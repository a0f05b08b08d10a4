import { expect, test } from 'vitest';
import { direct } from '../../../tests/support/hosts';
import { formWith, text } from '../../../tests/support/forms';
import { AFTER_AT_MOST } from '../limits';

test.each([
  ['0', true],
  [String(AFTER_AT_MOST), true],
  [String(AFTER_AT_MOST + 1), false],
  ['-1', false],
  ['NaN', false],
  ['"5"', false],
])('after(%s) waits: %s', (milliseconds, waits) => {
  const use = direct({
    form: formWith([text('note')]),
    scripts: { a: `on.change(fields.note, async () => { await after(${milliseconds}); });` },
  });
  const answer = use.do({ set: 'note', to: 'x' });
  expect(answer.errors.length === 0).toBe(waits);
  expect(answer.waiting).toHaveLength(waits ? 1 : 0);
});
