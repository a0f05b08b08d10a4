import { describe, expect, test } from 'vitest';
import type { FormMap } from '@/core/language/map';
import { direct } from '../../../../tests/support/hosts';
import { formWith, number, rows, text } from '../../../../tests/support/forms';
import { Tape } from '@/core/tape/tape';
import { COLUMNS, layOut, steeredOnTape } from './layout';

const map: FormMap = {
  behaviours: [
    { name: 'a.ts', title: 'A' },
    { name: 'b.ts', title: 'B' },
  ],
  reads: [
    { behaviour: 'b.ts', part: 'late', aspects: ['value'] },
    { behaviour: 'a.ts', part: 'early', aspects: ['value'] },
    { behaviour: 'a.ts', part: 'both', aspects: ['value'] },
    { behaviour: 'b.ts', part: 'both', aspects: ['value'] },
  ],
  steers: [
    { behaviour: 'a.ts', part: 'total', aspects: ['value'] },
    { behaviour: 'a.ts', part: 'pilot', aspects: ['shown'] },
    { behaviour: 'b.ts', part: 'pilot', aspects: ['shown'] },
  ],
  conflicts: [{ part: 'pilot', aspect: 'shown', behaviours: ['a.ts', 'b.ts'] }],
  circles: [],
};

describe('the map', () => {
  const { nodes, links } = layOut(map, (part) => part.toUpperCase());

  test('stands in three columns: what is read, the behaviours in their order, what is steered', () => {
    expect(nodes.map(({ id, x }) => [id, x])).toEqual([
      ['read:early', COLUMNS.read],
      ['read:both', COLUMNS.read],
      ['read:late', COLUMNS.read],
      ['behaviour:a.ts', COLUMNS.behaviour],
      ['behaviour:b.ts', COLUMNS.behaviour],
      ['steered:total', COLUMNS.steered],
      ['steered:pilot', COLUMNS.steered],
    ]);
    expect(nodes.filter(({ sort }) => sort === 'read').map(({ y }) => y)).toEqual([
      1000 / 6,
      500,
      5000 / 6,
    ]);
    expect(nodes[0]!.label).toBe('EARLY');
  });

  test('marks what several behaviours steer, and their arrows', () => {
    expect(nodes.filter(({ bad }) => bad).map(({ id }) => id)).toEqual(['steered:pilot']);
    expect(
      links.filter(({ bad }) => bad).map(({ source, target }) => `${source} ${target}`),
    ).toEqual(['behaviour:a.ts steered:pilot', 'behaviour:b.ts steered:pilot']);
  });

  test('marks the arrows of a circle, on both sides', () => {
    const round = layOut(
      {
        ...map,
        conflicts: [],
        circles: [['early', 'a.ts', 'total', 'b.ts', 'early']],
        reads: [...map.reads, { behaviour: 'b.ts', part: 'total', aspects: ['value'] }],
      },
      (part) => part,
    );
    expect(round.nodes.filter(({ bad }) => bad).map(({ id }) => id)).toEqual(['steered:total']);
    expect(
      round.links.filter(({ bad }) => bad).map(({ source, target }) => `${source} ${target}`),
    ).toEqual([
      'read:early behaviour:a.ts',
      'read:total behaviour:b.ts',
      'behaviour:a.ts steered:total',
    ]);
  });
});

test('what was steered on a tape is told by part, with the line that did it last; rows under their columns', () => {
  const form = formWith([number('length'), text('note'), rows('cargo', [number('weight')])]);
  const use = direct({
    form,
    scripts: {
      a: 'keep(() => {\n  fields.note.hint = `${fields.length.value}`;\n  fields.note.required = true;\n});\nkeep.each(fields.cargo, (row) => {\n  row.fields.weight.required = true;\n  row.locked = true;\n});',
    },
  });
  use.do({ set: 'length', to: 3 });
  use.do({ addRow: 'cargo' });
  const told = steeredOnTape(new Tape(use.tape));
  expect(told.get('note')).toEqual([{ behaviour: 'a', aspects: ['hint', 'required'], line: 2 }]);
  expect(told.get('cargo.weight')).toEqual([{ behaviour: 'a', aspects: ['required'], line: 6 }]);
  expect(told.get('cargo#')).toEqual([{ behaviour: 'a', aspects: ['locked'], line: 7 }]);
  expect(told.has('length')).toBe(false);
});
