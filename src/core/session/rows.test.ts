/** Rows, in both hosts. */
import { beforeAll, describe, expect, test } from 'vitest';
import {
  berths,
  choice,
  choices,
  formWith,
  number,
  reference,
  rows,
  text,
  yesNo,
} from '../../../tests/support/forms';
import { both, bootMachine } from '../../../tests/support/hosts';
import type { Values } from '../form/value';

beforeAll(bootMachine);

const cargo = (more: object = {}) =>
  rows(
    'cargo',
    [
      text('goods'),
      number('weight', { min: 0 }),
      choice('class', ['none', 'three'], { default: 'none' }),
      text('un', { hidden: true, required: true }),
    ],
    more,
  );
const form = formWith([cargo(), number('total'), text('note')]);
const use = (scripts: Record<string, string> = {}, more: object = {}) =>
  both({ form, scripts, ...more });
const record = (cargo: Values[]) => ({ record: { id: '7', values: { cargo } } });

const DANGEROUS =
  'keep.each(fields.cargo, "UN number of dangerous goods", (row) => { row.fields.un.shown = row.fields.class.value === "three"; });';

describe('values', () => {
  test('1 rows are an array of objects with every cell, and no ids inside', () => {
    const open = use();
    open.do({ addRow: 'cargo', with: { goods: 'salt' } });
    open.do({ set: 'cargo[0].weight', to: 12 });
    expect(open.value('cargo')).toEqual([{ goods: 'salt', weight: 12, class: 'none', un: null }]);
    expect(open.do({ removeRow: 'cargo[0]' }).refused).toBeNull();
    expect(open.value('cargo')).toEqual([]);
  });

  test('3 a cell takes only values of its kind, and a row only cells of its own', () => {
    const open = use();
    expect(open.do({ addRow: 'cargo', with: { weight: 'x' } }).refused).toContain(
      'weight is "x", but takes a finite number',
    );
    expect(open.do({ addRow: 'cargo', with: { colour: 'x' } }).refused).toContain(
      '"colour" is no cell; there are goods, weight, class, un',
    );
    open.do({ addRow: 'cargo' });
    expect(open.do({ set: 'cargo[0].weight', to: 'x' }).refused).toContain('takes a finite number');
    expect(open.do({ set: 'cargo[3].weight', to: 1 }).refused).toBe(
      'there is no field "cargo[3].weight"',
    );
    expect(open.do({ set: 'cargo', to: [] }).refused).toContain('one by one');
  });

  test('3 a script that gives rows of another shape is told so', () => {
    const open = use({ a: 'on.load(() => { fields.cargo.value = [{ goods: 4 }] as never; });' });
    expect(open.opened.errors[0]!.says).toContain('in row 1 goods is 4, but takes a text');
  });

  test('a script may write all rows: cells by place, the rest added or removed', () => {
    const open = use(
      {
        a: 'on.change(fields.note, () => { fields.cargo.value = [{ goods: "tin" }, { goods: "ore", weight: 3 }]; });',
      },
      record([{ goods: 'salt', weight: 1 }]),
    );
    open.do({ set: 'note', to: 'x' });
    expect(open.value('cargo')).toEqual([
      { goods: 'tin', weight: null, class: null, un: null },
      { goods: 'ore', weight: 3, class: null, un: null },
    ]);
  });

  test('6 a key of a row that is no longer known stays marked when it came with the record', () => {
    const open = use({}, record([{ class: 'nine' }]));
    expect(open.part('cargo[0].class')).toMatchObject({ value: 'nine', orphan: true });
    open.do({ set: 'cargo[0].class', to: 'three' });
    expect(open.do({ set: 'cargo[0].class', to: 'nine' }).refused).not.toBeNull();
  });
});

describe('events', () => {
  const LISTEN =
    'on.rowAdded(fields.cargo, ({ row, by }) => log("added", row.index, row.values, by));\n' +
    'on.rowRemoved(fields.cargo, ({ row }) => log("removed", row.fields.goods.value));\n' +
    'on.change(fields.cargo.each.weight, ({ value, previous, row, by }) => log("weight", row.index, previous, value, by));\n' +
    'on.change(fields.cargo, ({ value }) => log("cargo", value.length));\n';
  const logged = (answer: { log: { values: readonly unknown[] }[] }) =>
    answer.log.map((line) => line.values);

  test('12 a row added: rowAdded, then change of the rows field; it is born with what was given', () => {
    const open = use({ a: LISTEN });
    expect(logged(open.do({ addRow: 'cargo', with: { weight: 2 } }))).toEqual([
      ['added', 0, { goods: null, weight: 2, class: 'none', un: null }, 'person'],
      ['cargo', 1],
    ]);
  });

  test('12 several rows may be added at once: each is announced, the field changes once', () => {
    const open = use({ a: LISTEN });
    expect(
      logged(open.do({ addRow: 'cargo', with: [{ weight: 2 }, { goods: 'tin' }] })).map(
        ([what, first]) => [what, first],
      ),
    ).toEqual([
      ['added', 0],
      ['added', 1],
      ['cargo', 2],
    ]);
    expect(open.do({ addRow: 'cargo', with: [{ weight: 2 }, { weight: 'x' }] }).refused).toContain(
      'weight is "x"',
    );
    expect(open.value('cargo')).toHaveLength(2);
  });

  test('12 a cell changed: its own change, then that of the rows field', () => {
    const open = use({ a: LISTEN }, record([{ goods: 'salt' }]));
    expect(logged(open.do({ set: 'cargo[0].weight', to: 5 }))).toEqual([
      ['weight', 0, null, 5, 'person'],
      ['cargo', 1],
    ]);
    expect(logged(open.do({ set: 'cargo[0].weight', to: 5 }))).toEqual([]);
  });

  test('12 a removed row is readable in rowRemoved, and frozen', () => {
    const open = use(
      {
        a: LISTEN,
        b: 'on.rowRemoved(fields.cargo, ({ row }) => { row.fields.goods.value = "x"; });',
      },
      record([{ goods: 'salt' }]),
    );
    const answer = open.do({ removeRow: 'cargo[0]' });
    expect(logged(answer)).toEqual([
      ['removed', 'salt'],
      ['cargo', 0],
    ]);
    expect(answer.errors[0]!.says).toContain('is in a row that was removed');
  });

  test('12 defaults and the rows of a loaded record fire nothing', () => {
    expect(
      logged(use({ a: LISTEN }, record([{ goods: 'salt' }, { goods: 'tin' }])).opened),
    ).toEqual([]);
  });

  test('14 rows that a script adds or removes come with the run that did it', () => {
    const open = use({
      a: LISTEN,
      b: 'on.change(fields.note, ({ value }) => { if (value === null) fields.cargo.remove(fields.cargo.rows[0]!); else fields.cargo.add({ goods: value }); });',
    });
    expect(logged(open.do({ set: 'note', to: 'salt' }))).toEqual([
      ['added', 0, { goods: 'salt', weight: null, class: 'none', un: null }, 'script'],
      ['cargo', 1],
    ]);
    expect(logged(open.do({ set: 'note', to: '' }))).toEqual([
      ['removed', 'salt'],
      ['cargo', 0],
    ]);
  });

  test('a value entered into a row that a handler removes on the way goes with the row', () => {
    const open = use(
      {
        a: 'on.focus(fields.cargo.each.goods, ({ row }) => fields.cargo.remove(row));\non.change(fields.cargo.each.goods, () => log("changed"));',
      },
      record([{ goods: 'salt' }, { goods: 'tin' }]),
    );
    const answer = open.do({ set: 'cargo[0].goods', to: 'ore' });
    expect([answer.errors, answer.log, open.value('cargo')]).toMatchObject([
      [],
      [],
      [{ goods: 'tin' }],
    ]);
  });

  test('16 a failed handler leaves no row behind, and none gone', () => {
    const open = use(
      {
        a: 'on.change(fields.note, () => { fields.cargo.add({}); fields.cargo.remove(fields.cargo.rows[0]!); throw new Error("no"); });',
      },
      record([{ goods: 'salt' }]),
    );
    open.do({ set: 'note', to: 'x' });
    expect(open.value('cargo')).toEqual([{ goods: 'salt', weight: null, class: null, un: null }]);
  });

  test('17 the limit counts for each row by itself', () => {
    const cells = Array.from({ length: 150 }, () => ({ weight: 1 }));
    const open = use(
      {
        a: 'on.change(fields.note, () => { for (const row of fields.cargo.rows) row.fields.weight.value = 2; });\non.change(fields.cargo.each.weight, ({ row }) => { row.fields.goods.value = "seen"; });',
      },
      record(cells),
    );
    expect(open.do({ set: 'note', to: 'x' }).errors).toEqual([]);
    expect((open.value('cargo') as Values[]).every((row) => row.goods === 'seen')).toBe(true);
    const round = use(
      {
        a: 'on.change(fields.cargo.each.weight, ({ row, value }) => { row.fields.weight.value = (value ?? 0) + 1; });',
      },
      record([{ goods: 'salt' }]),
    );
    const answer = round.do({ set: 'cargo[0].weight', to: 1 });
    expect(answer.errors[0]).toMatchObject({ code: 'cycle' });
    expect(round.value('cargo[0].weight')).toBe(1);
  });

  test.each([
    ['itself', 'on.rowAdded(fields.cargo, () => { fields.cargo.add({ goods: "more" }); });'],
    [
      'another handler',
      'on.rowAdded(fields.cargo, ({ row }) => { row.fields.weight.value = 2; });\non.change(fields.cargo.each.weight, () => { fields.cargo.add({}); });',
    ],
  ])('17 a row added for each row that is added, by way of %s, is a circle', (_, a) => {
    const open = use({ a });
    const answer = open.do({ addRow: 'cargo', with: { goods: 'salt' } });
    expect(answer.errors[0]).toMatchObject({ code: 'cycle' });
    expect(open.value('cargo')).toHaveLength(1);
  });

  test('a script adds no more rows than a field can have', () => {
    const open = use(
      {
        a: 'on.change(fields.note, () => { for (let i = 0; i < 20; i++) fields.cargo.add({}); });',
      },
      record(Array.from({ length: 9_990 }, () => ({ weight: 1 }))),
    );
    expect(open.do({ set: 'note', to: 'x' }).errors[0]).toMatchObject({
      code: 'wrong_use',
      says: 'cargo.add() cannot add a row: a field has 10000 rows at most.',
    });
    expect(open.value('cargo')).toHaveLength(9_990);
  });
});

describe('each row by itself (20)', () => {
  test('a rule for each row says something of its own row alone', () => {
    const open = use({ a: DANGEROUS }, record([{ class: 'none' }, { class: 'three' }]));
    expect([open.part('cargo[0].un').onScreen, open.part('cargo[1].un').onScreen]).toEqual([
      false,
      true,
    ]);
    open.do({ set: 'cargo[0].class', to: 'three' });
    open.do({ set: 'cargo[1].class', to: 'none' });
    expect([open.part('cargo[0].un').onScreen, open.part('cargo[1].un').onScreen]).toEqual([
      true,
      false,
    ]);
    open.do({ addRow: 'cargo', with: { class: 'three' } });
    expect(open.part('cargo[2].un').onScreen).toBe(true);
  });

  test('a rule for each row that writes outside its row fails', () => {
    const open = use(
      { a: 'keep.each(fields.cargo, (row) => { fields.total.value = row.fields.weight.value; });' },
      record([{ weight: 4 }]),
    );
    expect(open.opened.errors[0]!.says).toContain(
      'total is not in the row that this rule runs for',
    );
    expect(open.value('total')).toBeNull();
  });

  test('moving a row carries its state along, and removing one takes it away', () => {
    const open = use(
      {
        a: 'on.change(fields.cargo.each.goods, ({ row, value }) => { row.fields.weight.hint = `weight of ${value}`; row.fields.weight.locked = value === "salt"; });',
      },
      record([{ weight: 1 }, { weight: 2 }]),
    );
    open.do({ set: 'cargo[0].goods', to: 'salt' });
    expect(open.do({ moveRow: 'cargo[0]', to: 1 }).refused).toBeNull();
    expect([open.part('cargo[0].weight').hint, open.part('cargo[1].weight').hint]).toEqual([
      null,
      'weight of salt',
    ]);
    expect(open.do({ set: 'cargo[1].weight', to: 9 }).refused).toContain('locked');
    open.do({ removeRow: 'cargo[1]' });
    open.do({ addRow: 'cargo' });
    expect(open.part('cargo[1].weight')).toMatchObject({ hint: null, locked: false, value: null });
  });

  test('options, locks, hints and problems of one row never show in another', () => {
    const open = both({
      form: formWith([
        rows('calls', [
          choice('side', ['port', 'starboard', 'both']),
          reference('berth', 'berths'),
          number('depth'),
          yesNo('tug'),
        ]),
      ]),
      tables: [berths],
      scripts: {
        a: `keep.each(fields.calls, "row by row", (row) => {
          if (row.fields.side.value === null) return;
          row.fields.berth.options = tables.berths.rows.filter((berth) => berth.depth > 6);
          row.fields.depth.locked = true;
          row.fields.depth.hint = "from the berth";
          row.fields.depth.problem = row.fields.side.value === "both" ? "one side only" : null;
          row.fields.tug.required = true;
        });`,
      },
      record: { id: '1', values: { calls: [{}, {}, {}] } },
    });
    open.do({ set: 'calls[1].side', to: 'both' });
    const states = [0, 1, 2].map((i) =>
      ['berth', 'depth', 'tug'].map((name) => open.part(`calls[${i}].${name}`)),
    );
    expect(
      states[1]!.map(({ options, locked, hint, problem, required }) => [
        options?.length ?? null,
        locked,
        hint,
        problem,
        required,
      ]),
    ).toEqual([
      [2, false, null, null, false],
      [null, true, 'from the berth', 'one side only', false],
      [null, false, null, null, true],
    ]);
    expect(states[0]).toEqual(states[2]);
    expect(open.do({ set: 'calls[1].berth', to: 'nq1' }).refused).toContain(
      'not among the options',
    );
    expect(open.do({ set: 'calls[0].berth', to: 'nq1' }).refused).toBeNull();
  });

  test('a rule of the form may write into cells, bound to the row and not to its place', () => {
    const open = use(
      {
        a: 'keep("the first is heavy", () => { const [first] = fields.cargo.rows; if (first !== undefined && fields.note.value === "on") first.fields.weight.hint = "first"; });',
      },
      record([{ goods: 'a' }, { goods: 'b' }]),
    );
    open.do({ set: 'note', to: 'on' });
    expect([open.part('cargo[0].weight').hint, open.part('cargo[1].weight').hint]).toEqual([
      'first',
      null,
    ]);
    open.do({ moveRow: 'cargo[0]', to: 1 });
    expect([open.part('cargo[0].weight').hint, open.part('cargo[1].weight').hint]).toEqual([
      'first',
      null,
    ]);
    expect(open.value('cargo[0].goods')).toBe('b');
  });

  test('two rules for each row: the later wins in each row by itself', () => {
    const open = use(
      {
        a: 'keep.each(fields.cargo, "first", (row) => { row.fields.weight.hint = "first"; });',
        b: 'keep.each(fields.cargo, "second", (row) => { if (row.fields.goods.value === "salt") row.fields.weight.hint = "second"; });',
      },
      record([{ goods: 'salt' }, { goods: 'tin' }]),
    );
    expect([open.part('cargo[0].weight').hint, open.part('cargo[1].weight').hint]).toEqual([
      'second',
      'first',
    ]);
    expect(open.tape.filter((entry) => entry.type === 'conflict')).toHaveLength(1);
  });
});

describe('sums and counts as rules', () => {
  const SUM =
    'keep("total", () => { fields.total.value = fields.cargo.count === 0 ? null : fields.cargo.sum("weight"); });';
  test('follow cells, rows added and rows removed', () => {
    const open = use({ a: SUM }, record([{ weight: 1 }, { weight: 2.5 }]));
    const totals = [open.value('total')];
    for (const step of [
      { set: 'cargo[0].weight', to: 4 },
      { addRow: 'cargo', with: { weight: 10 } },
      { removeRow: 'cargo[1]' },
      { moveRow: 'cargo[1]', to: 0 },
    ]) {
      open.do(step);
      totals.push(open.value('total'));
    }
    expect(totals).toEqual([3.5, 6.5, 16.5, 14, 14]);
  });

  test('18 a rule runs again only when what it read of the rows really differs', () => {
    const open = use(
      { a: SUM, b: 'keep("how many", () => log("ran", fields.cargo.count));' },
      record([{ weight: 1 }, { weight: 2 }]),
    );
    expect(open.do({ set: 'cargo[0].weight', to: 5 }).log).toEqual([]);
    expect(open.do({ moveRow: 'cargo[0]', to: 1 }).log).toEqual([]);
    expect(open.do({ addRow: 'cargo' }).log).toHaveLength(1);
  });

  test('a rule may keep whole rows, and its own writing never sets it off', () => {
    const open = both({
      form: formWith([
        number('hours'),
        rows('lines', [text('what'), number('amount')]),
        number('total'),
      ]),
      scripts: {
        a: 'keep("lines", () => { const hours = fields.hours.value ?? 0; fields.lines.value = [{ what: "stay", amount: hours * 2 }, ...(hours > 10 ? [{ what: "long", amount: -5 }] : [])]; });',
        b: 'keep("total", () => { fields.total.value = fields.lines.sum("amount"); });',
      },
    });
    expect([open.value('lines'), open.value('total')]).toEqual([[{ what: 'stay', amount: 0 }], 0]);
    open.do({ set: 'hours', to: 12 });
    expect([open.value('lines'), open.value('total')]).toEqual([
      [
        { what: 'stay', amount: 24 },
        { what: 'long', amount: -5 },
      ],
      19,
    ]);
    open.do({ set: 'hours', to: 3 });
    expect([open.value('lines'), open.value('total')]).toEqual([[{ what: 'stay', amount: 6 }], 6]);
  });

  test.each([
    ['fields.cargo.sum("goods" as never)', 'needs a column of numbers'],
    ['fields.cargo.sum("tons" as never)', 'has no column "tons". It has goods, weight, class, un'],
    ['fields.cargo.remove({} as never)', 'takes a row of cargo, not an object'],
    ['fields.cargo.add({ weight: "x" } as never)', 'weight is "x", but takes a finite number'],
    ['(fields.cargo.each as any).tons', 'has no column "tons"'],
    ['(fields.cargo.add({}).fields as any).tons', 'has no column "tons"'],
    [
      '(fields.cargo.add({}) as any).hidden',
      'has no aspect "hidden". It has fields, values, index, shown',
    ],
    ['keep.each(fields.note as never, () => {})', 'keep.each() takes a rows field'],
  ])('wrong use is answered in words: %s', (code, says) => {
    expect(use({ a: `on.load(() => { ${code}; });` }).opened.errors[0]?.says).toContain(says);
  });

  test.each(['fields.cargo.add({})', 'fields.cargo.remove(fields.cargo.rows[0]!)'])(
    '18 %s in a rule is an error',
    (code) => {
      expect(
        use({ a: `keep(() => { ${code}; });` }, record([{ goods: 'x' }])).opened.errors[0]!.says,
      ).toContain('cannot be done in a rule');
    },
  );
});

describe('showing, locking, checking', () => {
  test('8 cells nest below their rows field, and a locked one refuses add, remove and move', () => {
    const open = use(
      {
        a: 'keep(() => { fields.cargo.locked = fields.note.value === "lock"; fields.cargo.shown = fields.note.value !== "hide"; });',
      },
      record([{ goods: 'a' }, { goods: 'b' }]),
    );
    open.do({ set: 'note', to: 'lock' });
    expect(open.part('cargo[0].goods').editable).toBe(false);
    const refusals = [
      { addRow: 'cargo' },
      { removeRow: 'cargo[0]' },
      { moveRow: 'cargo[0]', to: 1 },
      { set: 'cargo[0].goods', to: 'x' },
    ].map((step) => open.do(step).refused);
    expect(refusals.every((why) => why?.includes('locked'))).toBe(true);
    open.do({ set: 'note', to: 'hide' });
    expect(open.part('cargo[0].goods').onScreen).toBe(false);
    expect(open.do({ addRow: 'cargo' }).refused).toContain('hidden');
  });

  test('25 cells on screen are checked, hidden ones never, and the stop names the row by its place', () => {
    const open = use({ a: DANGEROUS }, record([{ class: 'none', weight: -1 }, { class: 'three' }]));
    expect(open.do({ submit: true }).submit).toMatchObject({
      saved: false,
      stoppedBy: 'cargo[0].weight',
      stops: [{ part: 'cargo[0].weight' }, { part: 'cargo[1].un' }],
    });
    expect(open.part('cargo[1].un').fault).toBe('This has to be filled in.');
    open.do({ set: 'cargo[0].weight', to: 1 });
    open.do({ set: 'cargo[1].un', to: '1203' });
    expect(open.do({ submit: true }).submit?.saved).toBe(true);
  });

  test('25 a problem of a cell stops, and a handler may stop at a row', () => {
    const open = use(
      {
        a: 'keep.each(fields.cargo, (row) => { row.fields.weight.problem = (row.fields.weight.value ?? 0) > 100 ? "too heavy" : null; });\non.submit((event) => { for (const row of fields.cargo.rows) if (row.fields.goods.value === null) event.stop("name it", row.fields.goods); });',
      },
      record([{ weight: 200, goods: 'x' }, {}]),
    );
    expect(open.do({ submit: true }).submit).toMatchObject({ stoppedBy: 'cargo[0].weight' });
    open.do({ set: 'cargo[0].weight', to: 2 });
    expect(open.do({ submit: true }).submit).toMatchObject({
      stoppedBy: 'cargo[1].goods',
      stops: [{ says: 'name it' }],
    });
  });

  test('25 a row may have a problem of its own, which stops while it is on screen, and a submit handler may stop at one', () => {
    const open = use(
      {
        a: 'keep.each(fields.cargo, (row) => { row.problem = row.fields.goods.value === null && row.fields.weight.value === null ? "say what it is" : null; row.shown = row.fields.class.value !== "three"; });\non.submit((event) => { const [row] = fields.cargo.rows; if (row !== undefined) event.stop("not this one", row); });',
      },
      record([{ goods: 'x' }, {}]),
    );
    expect([open.part('cargo[0]').problem, open.part('cargo[1]').problem]).toEqual([
      null,
      'say what it is',
    ]);
    expect(open.do({ submit: true }).submit).toMatchObject({
      saved: false,
      stops: [{ part: 'cargo[1]', says: 'say what it is' }],
    });
    open.do({ set: 'cargo[1].class', to: 'three' });
    expect(open.do({ submit: true }).submit).toMatchObject({
      saved: false,
      stoppedBy: 'cargo[0]',
      stops: [{ says: 'not this one' }],
    });
  });

  test('25 how many rows there are is checked', () => {
    const few = both({ form: formWith([cargo({ minRows: 2, maxRows: 2 })]) });
    few.do({ addRow: 'cargo' });
    expect(few.do({ submit: true }).submit?.stops).toEqual([
      { part: 'cargo', says: 'At least 2 rows.' },
    ]);
    few.do({ addRow: 'cargo' });
    expect(few.do({ addRow: 'cargo' }).refused).toContain('at most 2 rows');
    const needed = both({ form: formWith([cargo({ required: true })]) });
    expect(needed.do({ submit: true }).submit?.stops[0]!.says).toBe('At least one row is needed.');
  });

  test('11 whenHidden counts for each cell', () => {
    const hiding = formWith([
      rows('cargo', [
        yesNo('wet'),
        text('omitted', { whenHidden: 'omit' }),
        text('cleared', { whenHidden: 'clear', default: 'dry' }),
        text('kept'),
      ]),
    ]);
    const open = both({
      form: hiding,
      scripts: {
        a: 'keep.each(fields.cargo, (row) => { for (const cell of [row.fields.omitted, row.fields.cleared, row.fields.kept]) cell.shown = row.fields.wet.value !== false; });',
      },
    });
    open.do({ addRow: 'cargo', with: { omitted: 'o', cleared: 'c', kept: 'k' } });
    open.do({ addRow: 'cargo', with: { omitted: 'o', cleared: 'c', kept: 'k' } });
    open.do({ set: 'cargo[1].wet', to: false });
    expect(open.do({ submit: true }).submit).toMatchObject({
      values: {
        cargo: [
          { wet: null, omitted: 'o', cleared: 'c', kept: 'k' },
          { wet: false, omitted: null, cleared: null, kept: 'k' },
        ],
      },
      without: ['cargo[1].omitted'],
    });
    open.do({ set: 'cargo[1].wet', to: true });
    expect(open.value('cargo[1]')).toEqual({ wet: true, omitted: 'o', cleared: 'dry', kept: 'k' });
  });

  test('25 clearing the form removes the rows, and changed compares rows with those opened', () => {
    const open = use(
      { a: 'on.change(fields.note, ({ value }) => { if (value === "clear") form.clear(); });' },
      record([{ goods: 'a' }, { goods: 'b' }]),
    );
    expect(open.seen.changed).toBe(false);
    open.do({ set: 'cargo[0].goods', to: 'x' });
    expect(open.seen.changed).toBe(true);
    open.do({ set: 'cargo[0].goods', to: 'a' });
    expect(open.seen.changed).toBe(false);
    open.do({ moveRow: 'cargo[0]', to: 1 });
    expect(open.seen.changed).toBe(true);
    open.do({ moveRow: 'cargo[0]', to: 1 });
    expect(open.seen.changed).toBe(false);
    open.do({ set: 'note', to: 'clear' });
    expect(open.value('cargo')).toEqual([]);
  });
});

test('several keys in a cell are dropped one by one when they are no longer offered', () => {
  const open = both({
    form: formWith([rows('calls', [choices('needs', ['water', 'power', 'crane']), yesNo('dry')])]),
    scripts: {
      a: 'keep.each(fields.calls, (row) => { if (row.fields.dry.value === true) row.fields.needs.options = ["power", "crane"]; });',
    },
  });
  open.do({ addRow: 'calls', with: { needs: ['crane', 'water'] } });
  expect(open.value('calls[0].needs')).toEqual(['water', 'crane']);
  open.do({ set: 'calls[0].dry', to: true });
  expect(open.value('calls[0].needs')).toEqual(['crane']);
});
