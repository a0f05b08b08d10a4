import { describe, expect, test } from 'vitest';
import { mended } from '../../../tests/support/demo-language';
import { readFolder } from '../../workers/files';
import { readWorkspace } from '../workspace/workspace';
import { scriptsOf } from '../script/of-form';
import { formatted } from './format';
import { libs } from './generated/libs';
import { FormLanguage } from './language-service';

const workspace = readWorkspace(readFolder('demo'));
const entry = workspace.forms[0]!;
const language = new FormLanguage(libs);
language.surround({ ...workspace, form: entry.form });

function found(text: string): string[] {
  language.put({ name: 'x.ts', text });
  return language.diagnose('x.ts').map((diagnosis) => `${diagnosis.line}: ${diagnosis.says}`);
}

test('the demo has no finding', () => {
  const scripts = scriptsOf(entry.form, entry.behaviours, workspace.shared);
  for (const script of scripts) language.put(script);
  for (const { name } of scripts) expect(language.diagnose(name)).toEqual([]);
  for (const { name } of scripts) language.remove(name);
});

describe('a comparison that the compiler takes for impossible', () => {
  const asked = (between: string) =>
    found(
      `on.click(buttons.whole_week, async () => { if (fields.pilot_choice.value === "own") return; ${between} if (fields.pilot_choice.value === "own") log(1); });`,
    );
  test('is one, unless people could fill in meanwhile', () => {
    expect(asked('log(0);')).toHaveLength(1);
    expect(asked('await after(1000);')).toEqual([]);
    expect(asked('const later = async () => { await after(1000); }; log(later);')).toHaveLength(1);
  });

  test('is one after an await too, where there is no such key', () => {
    expect(
      found(
        'on.click(buttons.whole_week, async () => { await after(1000); if (fields.pilot_choice.value === "Own") log(1); });',
      ),
    ).not.toEqual([]);
  });
});

describe('an error while typing', () => {
  test.each([
    [
      'a wrong field name',
      'on.load(() => { fields.draugt.value = 3; });',
      'There is no field "draugt". Did you mean draught?',
    ],
    [
      'a label where a key belongs',
      'keep(() => { sections.pilot.shown = fields.pilot_choice.value === "Own pilot"; });',
      'compare the key "own"',
    ],
    [
      'assigning to a field',
      'on.load(() => { fields.draught = 3; });',
      'Draught (draught) is the field itself',
    ],
    [
      'a value of the wrong kind',
      'on.load(() => { fields.draught.value = "3"; });',
      'Draught (draught) takes a finite number, not "3".',
    ],
    [
      'a key that is none',
      'on.load(() => { fields.berth.value = "nq9"; });',
      'Berth (berth) has no option "nq9"',
    ],
    [
      'a role that is none',
      'on.load(() => { if (form.person.roles.includes("chief")) log(1); });',
      'There is no role "chief"',
    ],
    [
      'a column that is none',
      'on.load(() => { log(fields.berth.row?.dept); });',
      "Property 'dept' does not exist",
    ],
    ['empty not thought of', 'on.load(() => { log(fields.draught.value + 1); });', 'possibly'],
    [
      'a column of a row that is none',
      'keep.each(fields.cargo, (row) => { row.fields.mass.shown = true; });',
      "Property 'mass' does not exist",
    ],
    [
      'a column to listen to that is none',
      'on.change(fields.cargo.each.mass, () => {});',
      "Property 'mass' does not exist",
    ],
    [
      'another column of the row of an event',
      'on.change(fields.cargo.each.weight, ({ row, value }) => { row.fields.goods.value = value; });',
      'Goods (cargo.goods) is a text, and what is written is number',
    ],
    [
      'a sum of texts',
      'on.load(() => log(fields.cargo.sum("goods")));',
      'is not assignable to parameter of type',
    ],
    [
      'a row with another cell',
      'on.load(() => { fields.cargo.add({ mass: 3 }); });',
      "'mass' does not exist in type",
    ],
    [
      'a parameter of another kind',
      'on.load(async () => { await services.ship_register.find({ imo: 3 }); });',
      "Type 'number' is not assignable to type 'string'",
    ],
    [
      'an answer not waited for',
      'on.load(() => { const ship = services.ship_register.find({ imo: "x" }); fields.vessel.value = ship.name; });',
      "Property 'name' does not exist on type 'Promise",
    ],
    [
      'nothing found not thought of',
      'on.load(async () => { fields.vessel.value = (await services.ship_register.find({ imo: "x" })).name; });',
      'possibly',
    ],
    ['no parent not thought of', 'on.load(() => { log(parent.get("name")); });', 'possibly'],
    [
      'the document, which is not there',
      'on.load(() => { document.title = "x"; });',
      "Cannot find name 'document'",
    ],
    [
      'the form at the top level, written',
      'fields.draught.value = 3;',
      'draught.value was written at the top level of the script',
    ],
    [
      'the form at the top level, read',
      'const who = form.person;',
      'form.person was read at the top level of the script',
    ],
  ])('%s', (_what, text, says) => {
    expect(found(text).join('\n')).toContain(says);
  });

  test.each([
    'const LIMIT = 3; keep(() => { fields.draught.required = LIMIT > 2; });',
    'on.load(() => { fields.berth.options = tables.berths.rows.filter((b) => b.shore_power === true); });',
    'on.change([fields.arrival, fields.departure], ({ part }) => log(part.name));',
    'on.load(() => { fields.dues.hint = undefined; log(Temporal.Now.plainDateISO().toString()); });',
    'const label = fields.draught.label; on.load(() => log(label));',
    'keep.each(fields.cargo, "name", (row) => { row.fields.un_number.hint = row.fields.goods_class.row?.name ?? null; row.locked = row.index > 3; });',
    'on.change(fields.cargo.each.weight, async ({ row, value, previous }) => { await after(10); row.fields.container.hint = `${value ?? 0} after ${previous ?? 0}`; }, { overlap: "all" });',
    'on.rowAdded(fields.cargo, ({ row }) => { row.fields.weight.value = fields.cargo.sum("weight") > 100 ? 1 : null; });',
    'on.load(async () => { const [a, b] = await Promise.all([services.ship_register.find({ imo: "x" }), services.tide_gauge.level({ day: "2031-01-01" })]); log(a?.name, b.level); });',
    'on.saved(({ id }) => parent?.set("latest_visit", id));',
    'on.load(() => { if (checks.imo("9074729")) log(checks.format("qh12", "AA-99")); });',
  ])('and none where all is well: %s', (text) => {
    expect(found(text)).toEqual([]);
  });
});

test('two behaviours may use the same names', () => {
  language.put({ name: 'y.ts', text: 'const taken = 1; on.load(() => log(taken));' });
  expect(found('const taken = 2; on.load(() => log(taken));')).toEqual([]);
  language.remove('y.ts');
});

test('completions offer the fields, their aspects and the keys of options', () => {
  const at = (text: string) => {
    language.put({ name: 'x.ts', text });
    return language.complete('x.ts', text.length).map(({ label }) => label);
  };
  expect(at('fields.')).toEqual(expect.arrayContaining(['berth', 'pilot_choice']));
  expect(at('on.load(() => { fields.berth.')).toEqual(
    expect.arrayContaining(['options', 'row', 'value']),
  );
  expect(at('on.load(() => { fields.pilot_choice.value = "')).toEqual(
    expect.arrayContaining(['none', 'own', 'harbour_pilot']),
  );
});

test('a name explains itself with label, kind and keys', () => {
  const text = 'on.load(() => log(fields.pilot_choice.value));';
  language.put({ name: 'x.ts', text });
  const { documentation } = language.explain('x.ts', text.indexOf('pilot_choice') + 2)!;
  expect(documentation).toContain('Pilot — choice.');
  expect(documentation).toContain('`own` Own pilot');
});

describe('what an editor asks', () => {
  const at = (text: string) => {
    const position = text.indexOf('|');
    const source = { name: 'x.ts', text: text.replace('|', '') };
    language.put(source);
    return position;
  };
  const details = (text: string) => {
    const position = at(text);
    return Object.fromEntries(
      language.complete('x.ts', position).map(({ label, detail }) => [label, detail]),
    );
  };

  test('completions say what people read: labels of fields, keys, sections, cells and columns', () => {
    expect(details('on.load(() => fields.|)')).toMatchObject({
      draught: 'Draught · number in m',
      berth: 'Berth · key of a row of berths',
    });
    expect(details('on.load(() => { fields.pilot_choice.value = "|" })')).toEqual({
      none: 'No pilot',
      own: 'Own pilot',
      harbour_pilot: 'Harbour pilot',
    });
    expect(details('on.load(() => log(form.person.roles.includes("|")))')).toMatchObject({
      agent: "Ship's agent",
    });
    expect(details('on.load(() => sections.|)')).toMatchObject({ pilot: 'Pilot details' });
    expect(details('keep.each(fields.cargo, (row) => row.fields.|)')).toMatchObject({
      weight: 'Weight · number in t',
    });
    expect(details('on.load(() => log(fields.berth.row?.|))')).toMatchObject({
      depth: 'column of Berths · number',
    });
    expect(
      details('on.load(async () => { await services.ship_register.find({ | }) })'),
    ).toHaveProperty('imo');
    expect(
      details('on.load(async () => { (await services.tide_gauge.level({ day: "" })).| })'),
    ).toHaveProperty('level');
  });

  test('one completion is described with its documentation', () => {
    const position = at('on.load(() => fields.|)');
    expect(language.describe('x.ts', position, 'pilot_choice')).toContain(
      'Stands in Visit › Stay.',
    );
    expect(language.describe('x.ts', position, 'nothing_of_that_name')).toBeNull();
  });

  test('the call being written says its parameters and which one is next', () => {
    const { text, active, documentation } = language.signature(
      'x.ts',
      at('on.load(() => log(round(1.2, |)))'),
    )!;
    expect(text.slice(active!.from, active!.to)).toBe('places?: number');
    expect(documentation).toContain('half away from zero');
    expect(language.signature('x.ts', at('on.load(() => log(1));|'))).toBeNull();
  });

  test('a name leads to the part, the cell or the helper it means', () => {
    expect(language.define('x.ts', at('on.load(() => log(fields.ber|th.value))'))).toEqual({
      is: 'part',
      part: 'berth',
    });
    expect(
      language.define(
        'x.ts',
        at('const { value } = fields.berth; on.load(() => log(sections.pi|lot.shown))'),
      ),
    ).toEqual({ is: 'part', part: 'pilot' });
    expect(
      language.define(
        'x.ts',
        at('keep.each(fields.cargo, (row) => log(row.fields.wei|ght.value))'),
      ),
    ).toEqual({ is: 'part', part: 'cargo.weight' });
    expect(language.define('x.ts', at('const deep = 3;\non.load(() => log(de|ep))'))).toEqual({
      is: 'place',
      file: 'x.ts',
      from: 6,
      to: 10,
    });
    expect(language.define('x.ts', at('on.load(() => lo|g(1))'))).toBeNull();
  });

  test('what is explained says which part it is, and leads only where there is something of the form or the behaviour', () => {
    expect(language.explain('x.ts', at('on.load(() => log(fields.ber|th.value))'))).toMatchObject({
      part: 'berth',
      leads: true,
    });
    expect(
      language.explain('x.ts', at('const deep = 3;\non.load(() => log(de|ep))')),
    ).toMatchObject({ part: null, leads: true });
    const fields = language.explain('x.ts', at('on.load(() => log(fie|lds.berth.value))'))!;
    expect(fields).toMatchObject({
      part: null,
      leads: false,
      documentation: 'The fields of the form, by name.',
    });
    expect(fields.signature.length).toBeLessThan(60);
  });

  test('all places of a helper, and its renaming; parts are not renamed here', () => {
    const position = at('const de|ep = 3;\non.load(() => log({ deep }, deep));');
    expect(language.references('x.ts', position).map(({ line, text }) => [line, text])).toEqual([
      [1, 'const deep = 3;'],
      [2, 'on.load(() => log({ deep }, deep));'],
      [2, 'on.load(() => log({ deep }, deep));'],
    ]);
    expect(language.rename('x.ts', position, 'low')!.map(({ text }) => text)).toEqual([
      'low',
      'deep: low',
      'low',
    ]);
    expect(
      language.rename('x.ts', at('on.load(() => log(fields.ber|th.value))'), 'low'),
    ).toBeNull();
  });

  test('a misspelt name is mended by the nearest one, or by the one whose label reads like it', () => {
    const fix = (text: string) => {
      language.put({ name: 'x.ts', text });
      return language.diagnose('x.ts').flatMap(({ fixes }) => fixes.map(({ title }) => title));
    };
    expect(fix('on.load(() => log(fields.draugth.value));')).toEqual(['Use draught']);
    expect(fix('on.load(() => log(fields.lengthOverAll.value));')).toEqual(['Use length']);
    expect(fix('on.load(() => log(fields.draught.valeu));')).toEqual(['Use value']);
    expect(fix('on.load(() => log(fields.nothing_like_it.value));')).toEqual([]);
  });

  test('what the compiler would mend is offered too, within the behaviour', () => {
    const text =
      'on.load(async () => { const tide = services.tide_gauge.level({ day: "2031-05-02" }); log(tide.level); });';
    language.put({ name: 'x.ts', text });
    const [error] = language.diagnose('x.ts');
    const fixes = language.compilerFixes('x.ts', error!);
    expect(fixes.map(({ title }) => title).join()).toContain('await');
    language.put({ name: 'x.ts', text: mended(text, fixes[0]!.edits) });
    expect(language.diagnose('x.ts')).toEqual([]);
    expect(language.compilerFixes('x.ts', { from: 0, to: 1, code: 'label-for-key' })).toEqual([]);
  });

  test('one fault is said once, in the form’s words', () => {
    expect(found('on.load(() => { fields.draught.value = "3"; });')).toEqual([
      '1: Draught (draught) takes a finite number, not "3".',
    ]);
    expect(
      found('on.load(() => { if (fields.pilot_choice.value === "Own pilot") log(1); });'),
    ).toHaveLength(1);
  });

  test('JavaScript is checked alike, and not asked for types it has no place for', () => {
    language.put({
      name: 'x.js',
      text: 'const deep = (metres) => metres > 9;\non.load(() => { if (deep(fields.draught.value)) fields.draugth.value = 1; });',
    });
    expect(language.diagnose('x.js').map(({ says }) => says)).toEqual([
      'There is no field "draugth". Did you mean draught?',
    ]);
    language.remove('x.js');
  });

  test('a behaviour that is off is checked, and is no rival of others', () => {
    const rival = 'keep(() => { sections.pilot.shown = true; });';
    language.put({ name: 'y.ts', text: rival });
    expect(found(rival).join()).toContain('also steered by');
    language.put({ name: 'y.ts', text: `/**\n * Y: y.\n * @off\n */\n${rival}` });
    expect(found(rival)).toEqual([]);
    expect(found('/**\n * X: x.\n * @off\n */\non.load(() => log(fields.nope));').join()).toContain(
      'There is no field "nope".',
    );
    language.remove('y.ts');
  });
});

describe('format', () => {
  test('sets a script in the common way and keeps the cursor where it was', async () => {
    const text = 'keep(()=>{fields.a.value=1})';
    expect(await formatted({ name: 'x.ts', text }, text.indexOf('value'))).toEqual({
      text: 'keep(() => {\n  fields.a.value = 1;\n});\n',
      position: 'keep(() => {\n  fields.a.'.length,
    });
  });

  test('leaves what does not parse', async () => {
    expect(await formatted({ name: 'x.ts', text: 'keep(() => {' }, 0)).toBeNull();
  });
});

test('what the compiler finds beside a mistake is said, though both are in one block', () => {
  const text = `on.load(() => {
  if (fields.pilot_choice.value === "Own pilot") log(1);
  const length: string = 3;
  log(length);
});`;
  expect(found(text).map((line) => line.slice(0, 2))).toEqual(['2:', '3:']);
});
