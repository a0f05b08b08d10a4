/** What is read from a source: names are followed through what people write, and nothing is guessed. */
import { describe, expect, test } from 'vitest';
import { parse } from './parse';
import { actsOf, type Block } from './acts';
import { flowOf } from './flow';

const flow = (text: string) => flowOf(parse({ name: 'x.ts', text }).file);
const only = (text: string): Block => flow(text).blocks[0]!;
const writes = (block: Block) =>
  actsOf(block, 'write').map(({ part, aspect }) => `${part}.${aspect}`);
const reads = (block: Block) =>
  actsOf(block, 'read').map(({ access }) => `${access.part}.${access.aspect}`);

describe('parts are followed', () => {
  test.each([
    ['spelled out', 'on.load(() => { fields.a.value = 1; });', ['a.value']],
    ['in brackets', 'on.load(() => { fields["a"].value = 1; });', ['a.value']],
    [
      'through a constant',
      'const a = fields.a;\non.load(() => { a.locked = true; });',
      ['a.locked'],
    ],
    [
      'taken out of fields',
      'const { a, b: other } = fields;\non.load(() => { a.shown = true; other.shown = true; });',
      ['a.shown', 'b.shown'],
    ],
    [
      'over a list',
      'on.load(() => { for (const field of [fields.a, fields.b]) field.shown = true; });',
      ['a.shown', 'b.shown'],
    ],
    [
      'over a list of pairs',
      'on.load(() => { for (const [field, on] of [[fields.a, 1], [fields.b, 2]] as const) field.shown = on > 1; });',
      ['a.shown', 'b.shown'],
    ],
    [
      'with forEach',
      'on.load(() => { [fields.a, sections.s].forEach((part) => { part.shown = false; }); });',
      ['a.shown', 's.shown'],
    ],
    [
      'by a condition',
      'on.load(() => { const field = form.isNew ? fields.a : fields.b; field.value = 1; });',
      ['a.value', 'b.value'],
    ],
    [
      'as a parameter',
      'const hide = (part: { shown: boolean }) => { part.shown = false; };\non.load(() => { hide(fields.a); hide(buttons.go); });',
      ['a.shown', 'go.shown'],
    ],
    [
      'in a helper declared below',
      'on.load(() => help());\nfunction help() { fields.a.hint = null; }',
      ['a.hint'],
    ],
    [
      'in a cell of a row',
      'keep.each(fields.r, (row) => { row.fields.c.required = true; row.problem = null; });',
      ['r.c.required', 'r#.problem'],
    ],
    [
      'in all rows',
      'keep(() => { for (const row of fields.r.rows) row.fields.c.shown = true; });',
      ['r.c.shown'],
    ],
    [
      'in rows that were filtered',
      'keep(() => { fields.r.rows.filter((row) => row.fields.d.empty).forEach((row) => { row.locked = true; }); });',
      ['r#.locked'],
    ],
    [
      'in the row of an event',
      'on.change(fields.r.each.c, ({ row }) => { row.fields.d.value = 1; });',
      ['r.d.value'],
    ],
    [
      'as the part of an event',
      'on.change([fields.a, fields.b], ({ part }) => { part.hint = "x"; });',
      ['a.hint', 'b.hint'],
    ],
    [
      'a row added',
      'on.load(() => { fields.r.add({ c: 1 }).fields.d.hint = "x"; });',
      ['r.value', 'r.d.hint'],
    ],
    ['after an and', 'on.load(() => { form.isNew && (fields.a.shown = true); });', ['a.shown']],
    ['counted up', 'on.load(() => { fields.a.value!++; });', ['a.value']],
  ])('%s', (_what, text, expected) => {
    expect(writes(only(text))).toEqual(expected);
  });

  test('what cannot be followed is left out', () => {
    expect(
      writes(
        only(
          'on.load(() => { const name = "a" + 1; (fields as any)[name].value = 1; other().value = 2; });',
        ),
      ),
    ).toEqual([]);
  });

  test('a helper that calls itself is followed once', () => {
    expect(
      writes(
        only(
          'function f(n: number) { fields.a.value = n; if (n > 0) f(n - 1); }\non.load(() => f(3));',
        ),
      ),
    ).toEqual(['a.value']);
  });
});

describe('readings', () => {
  test('empty, row, count and sum are readings of the value; shown is its own', () => {
    expect(
      reads(
        only(
          'keep(() => { log(fields.a.empty, fields.b.row?.depth, fields.r.count, fields.r.sum("c"), sections.s.shown); });',
        ),
      ),
    ).toEqual(['a.value', 'b.value', 'r.value', 'r.value', 's.shown']);
  });

  test('names and labels are no readings', () => {
    expect(
      reads(only('keep(() => { log(fields.a.name, fields.a.label, fields.r.each.c); });')),
    ).toEqual([]);
  });

  test('a write knows what its value depends on, through constants and helpers', () => {
    const block = only(
      'const double = (n: number) => n * 2;\nkeep(() => { const { value } = fields.a; fields.b.value = double(value ?? 0) + fields.c.value!; });',
    );
    expect(actsOf(block, 'write')[0]!.reads.map(({ part }) => part)).toEqual(['a', 'c']);
  });

  test('what an event says is marked: the value follows the field, by and previous do not', () => {
    const [write] = actsOf(
      only(
        'on.change(fields.a, ({ value, previous, by }) => { fields.b.hint = `${value} ${previous} ${by}`; });',
      ),
      'write',
    );
    expect([...write!.marks].sort()).toEqual(['by', 'event', 'previous']);
    expect(write!.reads.map(({ part, aspect }) => `${part}.${aspect}`)).toEqual([
      'a.value',
      'a.previous',
    ]);
  });
});

describe('conditions', () => {
  const conditions = (text: string) =>
    actsOf(only(text), 'write').map((act) =>
      act.conditions.map(({ node, holds }) => `${holds ? '' : 'not '}${node.getText()}`),
    );

  test.each([
    [
      'of an if and its else',
      'on.load(() => { if (fields.a.empty) fields.b.shown = true; else fields.b.shown = false; });',
      [['fields.a.empty'], ['not fields.a.empty']],
    ],
    [
      'after an early return',
      'on.load(() => { if (fields.a.empty) return; fields.b.shown = true; });',
      [['not fields.a.empty']],
    ],
    [
      'of a helper that leaves early',
      'const f = () => { if (fields.a.empty) return; fields.b.shown = true; };\non.load(() => { f(); fields.c.shown = true; });',
      [['not fields.a.empty'], []],
    ],
    [
      'of a switch',
      'on.load(() => { switch (fields.a.value) { case 1: fields.b.shown = true; } });',
      [['fields.a.value']],
    ],
    [
      'of nested ifs',
      'on.load(() => { if (fields.a.empty) { if (fields.c.empty) fields.b.shown = true; } });',
      [['fields.a.empty', 'fields.c.empty']],
    ],
  ])('%s', (_what, text, expected) => {
    expect(conditions(text)).toEqual(expected);
  });
});

test('awaits are counted, and readings know how many came before', () => {
  const block = only(
    'on.click(buttons.go, async () => { const a = fields.a.value; await services.s.f({ a }); if (fields.a.value !== a) return; fields.b.value = 1; });',
  );
  expect(
    actsOf(block, 'await').map(({ waits, reads: asked, marks }) => [
      waits,
      asked.map(({ part }) => part),
      [...marks],
    ]),
  ).toEqual([[0, ['a'], ['service']]]);
  expect(actsOf(block, 'read').map(({ access }) => access.waits)).toEqual([0, 1]);
  expect(actsOf(block, 'write')[0]!.waits).toBe(1);
});

test('ties are read with their events, parts and place', () => {
  const { blocks } = flow(
    'on.change([fields.a, fields.b], () => {}, { overlap: "all" });\nkeep("title", () => { log(1); });\nkeep.each(fields.r, "title", () => {});\non.click(buttons.go, () => { on.load(() => {}); });',
  );
  expect(
    blocks.map(({ sort, event, tied, overlaps, inside }) => [
      sort,
      event,
      tied,
      overlaps,
      inside?.event ?? null,
    ]),
  ).toEqual([
    ['handler', 'change', ['a', 'b'], true, null],
    ['rule', 'keep', [], false, null],
    ['rule', 'keep.each', ['r'], false, null],
    ['handler', 'click', ['go'], false, null],
    ['handler', 'load', [], false, 'click'],
  ]);
});
