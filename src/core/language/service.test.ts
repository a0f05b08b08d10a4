import { describe, expect, test } from 'vitest';
import { readFolder } from '../../workers/files';
import { readWorkspace } from '../workspace/workspace';
import { libs } from './generated/libs';
import { FormLanguage } from './service';

const workspace = readWorkspace(readFolder('demo'));
const entry = workspace.forms[0]!;
const language = new FormLanguage(libs);
language.surround({ ...workspace, form: entry.form });

function found(text: string): string[] {
  language.put({ name: 'x.ts', text });
  return language.diagnose('x.ts').map((diagnosis) => `${diagnosis.line}: ${diagnosis.says}`);
}

test('the demo has no finding', () => {
  for (const behaviour of entry.behaviours) {
    language.put(behaviour);
    expect(language.diagnose(behaviour.name)).toEqual([]);
    language.remove(behaviour.name);
  }
});

describe('an error while typing', () => {
  test.each([
    ['a wrong field name', 'on.load(() => { fields.draugt.value = 3; });', 'There is no field "draugt". Did you mean draught?'],
    ['a label where a key belongs', 'keep(() => { sections.pilot.shown = fields.pilot_choice.value === "Own pilot"; });', 'compare the key "own"'],
    ['assigning to a field', 'on.load(() => { fields.draught = 3; });', 'Draught (draught) is the field itself'],
    ['a value of the wrong kind', 'on.load(() => { fields.draught.value = "3"; });', 'Draught (draught) takes a finite number, not "3".'],
    ['a key that is none', 'on.load(() => { fields.berth.value = "nq9"; });', 'Berth (berth) has no option "nq9"'],
    ['a role that is none', 'on.load(() => { if (form.person.role === "chief") log(1); });', 'The role has no key "chief"'],
    ['a column that is none', 'on.load(() => { log(fields.berth.row?.dept); });', "Property 'dept' does not exist"],
    ['empty not thought of', 'on.load(() => { log(fields.draught.value + 1); });', 'possibly'],
    ['a column of a row that is none', 'keep.each(fields.cargo, (row) => { row.fields.mass.shown = true; });', "Property 'mass' does not exist"],
    ['a column to listen to that is none', 'on.change(fields.cargo.each.mass, () => {});', "Property 'mass' does not exist"],
    ['another column of the row of an event', 'on.change(fields.cargo.each.weight, ({ row, value }) => { row.fields.goods.value = value; });', 'Goods (cargo.goods) is a text, and what is written is number'],
    ['a sum of texts', 'on.load(() => log(fields.cargo.sum("goods")));', 'is not assignable to parameter of type'],
    ['a row with another cell', 'on.load(() => { fields.cargo.add({ mass: 3 }); });', "'mass' does not exist in type"],
    ['a parameter of another kind', 'on.load(async () => { await services.ship_register.find({ imo: 3 }); });', "Type 'number' is not assignable to type 'string'"],
    ['an answer not waited for', 'on.load(() => { const ship = services.ship_register.find({ imo: "x" }); fields.vessel.value = ship.name; });', "Property 'name' does not exist on type 'Promise"],
    ['nothing found not thought of', 'on.load(async () => { fields.vessel.value = (await services.ship_register.find({ imo: "x" })).name; });', 'possibly'],
    ['no parent not thought of', 'on.load(() => { log(parent.get("name")); });', 'possibly'],
    ['the document, which is not there', 'on.load(() => { document.title = "x"; });', "Cannot find name 'document'"],
    ['the form at the top level, written', 'fields.draught.value = 3;', 'draught.value was written at the top level of the script'],
    ['the form at the top level, read', 'const who = form.person;', 'form.person was read at the top level of the script'],
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
  expect(at('on.load(() => { fields.berth.')).toEqual(expect.arrayContaining(['options', 'row', 'value']));
  expect(at('on.load(() => { fields.pilot_choice.value = "')).toEqual(expect.arrayContaining(['none', 'own', 'harbour_pilot']));
});

test('a name explains itself with label, kind and keys', () => {
  const text = 'on.load(() => log(fields.pilot_choice.value));';
  language.put({ name: 'x.ts', text });
  const { documentation } = language.explain('x.ts', text.indexOf('pilot_choice') + 2)!;
  expect(documentation).toContain('Pilot — choice.');
  expect(documentation).toContain('`own` Own pilot');
});
