import { describe, expect, test } from 'vitest';
import { parse } from './parse';
import { flowOf } from './flow';
import { mapOf } from './map';

const map = (sources: Record<string, string>) =>
  mapOf(
    Object.entries(sources).map(([name, text]) => ({
      name,
      title: name.toUpperCase(),
      flow: flowOf(parse({ name: `${name}.ts`, text }).file),
    })),
  );

test('who reads and who steers what', () => {
  const { behaviours, reads, steers } = map({
    a: 'on.change(fields.x, () => { fields.y.shown = !fields.z.empty; fields.y.locked = true; });\non.click(buttons.go, () => form.clear());',
  });
  expect(behaviours).toEqual([{ name: 'a', title: 'A' }]);
  expect(reads).toEqual([
    { behaviour: 'a', part: 'x', aspects: ['value'] },
    { behaviour: 'a', part: 'z', aspects: ['value'] },
    { behaviour: 'a', part: 'go', aspects: ['click'] },
  ]);
  expect(steers).toEqual([{ behaviour: 'a', part: 'y', aspects: ['locked', 'shown'] }]);
});

test('a conflict is an aspect that several behaviours steer, but not a value that several enter', () => {
  const { conflicts } = map({
    a: 'on.load(() => { fields.x.value = 1; sections.s.shown = true; });',
    b: 'on.load(() => { fields.x.value = 2; sections.s.shown = false; });',
  });
  expect(conflicts).toEqual([{ part: 's', aspect: 'shown', behaviours: ['a', 'b'] }]);
});

describe('circles', () => {
  test.each<[string, Record<string, string>, string[][]]>([
    [
      'of two behaviours',
      {
        a: 'keep(() => { fields.y.value = fields.x.value; });',
        b: 'on.change(fields.y, ({ value }) => { fields.x.value = value; });',
      },
      [['x', 'a', 'y', 'b', 'x']],
    ],
    [
      'of a handler with itself',
      { a: 'on.change(fields.x, ({ value }) => { fields.x.value = value; });' },
      [['x', 'a', 'x']],
    ],
    [
      'of aspects that rules steer',
      {
        a: 'keep(() => { sections.s.shown = fields.x.onScreen; });',
        b: 'keep(() => { fields.x.shown = sections.s.shown; });',
      },
      [['x:shown', 'a', 's:shown', 'b', 'x:shown']],
    ],
    [
      'of three fields',
      {
        a: 'keep(() => { fields.y.value = fields.x.value; fields.q.value = 1; });',
        b: 'keep(() => { fields.z.value = fields.y.value; });',
        c: 'keep(() => { fields.x.value = fields.z.value; });',
      },
      [['x', 'a', 'y', 'b', 'z', 'c', 'x']],
    ],
  ])('%s', (_what, sources, circles) => {
    expect(map(sources).circles).toEqual(circles);
  });

  test.each<[string, Record<string, string>]>([
    [
      'a chain',
      {
        a: 'keep(() => { fields.y.value = fields.x.value; });',
        b: 'keep(() => { fields.z.value = fields.y.value; });',
      },
    ],
    [
      'aspects that a handler says, which set off no handler',
      {
        a: 'on.change(fields.y, () => { sections.s.shown = fields.x.shown; });',
        b: 'on.change(fields.z, () => { fields.x.shown = sections.s.shown; });',
      },
    ],
    [
      'a rule that reads one aspect of a part and says another',
      { a: 'keep(() => { fields.x.required = fields.x.shown; });' },
    ],
    [
      'a rule that writes what it reads, which its own writes do not set off',
      { a: 'keep(() => { fields.x.value = fields.x.value?.trim() ?? null; });' },
    ],
    [
      'what a handler reads without being tied to it',
      {
        a: 'on.click(buttons.go, () => { fields.y.value = fields.x.value; });',
        b: 'on.change(fields.y, () => { fields.x.value = null; });',
      },
    ],
  ])('are none: %s', (_what, sources) => {
    expect(map(sources).circles).toEqual([]);
  });
});
