/**
 * Pages with forms, checked against the HTML standard's own words (https://html.spec.whatwg.org/multipage/input.html and
 * form-elements.html), which stand beside each case in quotes.
 */
import { describe, expect, test, vi } from 'vitest';
import type { Field } from '../form/definition';
import { fieldsOf } from '../form/fields';
import { fromHtml } from './from-html';
import { NothingToTake } from './taken';

const taken = (inner: string) =>
  fromHtml(`<!doctype html><title>Page</title><form>${inner}</form>`, 'called');
const fields = (inner: string) => fieldsOf(taken(inner).form);
const field = (inner: string) => fields(inner)[0]!;

describe('constraints are as the standard means them', () => {
  test.each<[string, string, Partial<Field>]>([
    [
      '"The step attribute … default step is 1 (allowing only integers to be selected by the user …)"',
      '<input type=number name=a>',
      { kind: 'number', step: 1 } as Partial<Field>,
    ],
    [
      '"if the attribute\'s value is an ASCII case-insensitive match for the string "any", then there is no allowed value step"',
      '<input type=number name=a step=ANY>',
      { kind: 'number', step: undefined } as Partial<Field>,
    ],
    [
      '"rules for parsing floating-point number values … returns an error … then the default"',
      '<input type=number name=a step=-2 min=x>',
      { step: 1, min: undefined } as Partial<Field>,
    ],
    [
      '"The default minimum is 0. The default maximum is 100." (Range)',
      '<input type=range name=a>',
      { kind: 'number', min: 0, max: 100, step: 1 } as Partial<Field>,
    ],
    [
      '"the attribute must be a valid non-negative integer"',
      '<input name=a maxlength=12 minlength=3>',
      { kind: 'text', maxLength: 12, minLength: 3 } as Partial<Field>,
    ],
    [
      'a length that is none is no limit',
      '<input name=a maxlength=-1>',
      { maxLength: undefined } as Partial<Field>,
    ],
    [
      '"compiled pattern regular expression … anchored … matched against the whole value"',
      '<input name=a pattern="[A-Z]{2}" title="Two letters">',
      { pattern: '[A-Z]{2}', patternHelp: 'Two letters' } as Partial<Field>,
    ],
    [
      '"The type … missing value default and the invalid value default are the Text state"',
      '<input name=a type=nonsense>',
      { kind: 'text' },
    ],
    [
      '"If the element is mutable and required … suffering from being missing"',
      '<input name=a required>',
      { required: true },
    ],
    ['"The readonly attribute … not editable"', '<input name=a readonly>', { locked: true }],
    [
      'a date with its bounds',
      '<input type=date name=a min=2031-01-01 max=2031-12-31 value=2031-05-02>',
      {
        kind: 'date',
        min: '2031-01-01',
        max: '2031-12-31',
        default: '2031-05-02',
      } as Partial<Field>,
    ],
    [
      'a bound that is no date is none',
      '<input type=date name=a min=today>',
      { kind: 'date', min: undefined } as Partial<Field>,
    ],
    [
      '"The step scale factor is 1000 (which converts the seconds to milliseconds) … default step is 60 seconds" (Time)',
      '<input type=time name=a step=900 min=08:00>',
      { kind: 'time', step: 15, min: '08:00' } as Partial<Field>,
    ],
    [
      '"multiple … allow the user to specify more than one" (File Upload), "accept … MIME types"',
      '<input type=file name=a multiple accept="image/*,application/pdf">',
      { kind: 'file', maxFiles: 20, types: ['image/*', 'application/pdf'] } as Partial<Field>,
    ],
    [
      'E-mail state',
      '<input type=email name=a>',
      { kind: 'text', format: 'email' } as Partial<Field>,
    ],
    [
      '"The textarea element represents a multiline plain text edit control"',
      '<textarea name=a rows=6 maxlength=500>as it was</textarea>',
      { kind: 'text', lines: 6, maxLength: 500, default: 'as it was' } as Partial<Field>,
    ],
  ])('%s', (_, inner, expected) => {
    expect(field(inner)).toMatchObject(
      Object.fromEntries(Object.entries(expected).filter(([, value]) => value !== undefined)),
    );
    for (const [key, value] of Object.entries(expected))
      if (value === undefined) expect(field(inner)).not.toHaveProperty(key);
  });

  test('"if any of the elements in the radio button group is required, the group is"', () => {
    expect(
      fields(
        '<fieldset><legend>Pilot:</legend><label><input type=radio name=pilot value=own> Own</label><label><input type=radio name=pilot value=none required checked>None</label></fieldset>',
      ),
    ).toEqual([
      {
        name: 'pilot',
        label: 'Pilot',
        kind: 'choice',
        display: 'radios',
        options: [
          { key: 'own', label: 'Own' },
          { key: 'none', label: 'None' },
        ],
        default: 'none',
        required: true,
      },
    ]);
  });

  test('boxes of one name are options; one alone is a yes or no, which has to be ticked where it is required', () => {
    const { form, behaviours } = taken(
      '<fieldset><legend>Wastes *</legend><label><input type=checkbox name="w[]" value=oil>Oil</label><label><input type=checkbox name="w[]" value=sewage checked>Sewage</label></fieldset><label><input type=checkbox name=agreed required> I agree</label>',
    );
    expect(fieldsOf(form)).toEqual([
      {
        name: 'w',
        label: 'Wastes',
        kind: 'choices',
        options: [
          { key: 'oil', label: 'Oil' },
          { key: 'sewage', label: 'Sewage' },
        ],
        default: ['sewage'],
      },
      { name: 'agreed', label: 'I agree', kind: 'yes_no', required: true },
    ]);
    expect(behaviours[0]!.text).toContain('fields.agreed.problem = fields.agreed.value === false');
  });

  test('"placeholder label option": the first option, without a value, is the empty entry', () => {
    expect(
      field(
        '<select name=a required><option value="">Choose…<option value=x>Ex<option selected>Why</select>',
      ),
    ).toMatchObject({
      kind: 'choice',
      required: true,
      options: [
        { key: 'x', label: 'Ex' },
        { key: 'Why', label: 'Why' },
      ],
      default: 'Why',
    });
    expect(field('<select name=a><option>Only</select>')).toMatchObject({ blank: false });
    expect(
      field('<select name=a multiple><optgroup label=G><option value=1>One</optgroup></select>'),
    ).toMatchObject({ kind: 'choices', options: [{ key: '1', label: 'One' }] });
  });

  test.each([
    ['for', '<label for=i>Name of the vessel *</label><input id=i name=n>'],
    ['around it', '<label>Name of the vessel: <input name=n></label>'],
    ['aria-label', '<input name=n aria-label="Name of the vessel">'],
    [
      'aria-labelledby',
      '<span id=s>Name of</span> <span id=t>the vessel</span><input name=n aria-labelledby="s t">',
    ],
    ['placeholder', '<input name=n placeholder="Name of the vessel">'],
  ])('a label by %s', (_, inner) => {
    expect(field(inner).label).toBe('Name of the vessel');
  });
});

test('sections are fieldsets, names are made technical, and a control can stand outside of its form', () => {
  const { form } = fromHtml(
    '<h1>Berth request</h1><form id=f><fieldset><legend>Vessel</legend><input name="Vessel Name"><input name=constructor></fieldset><input name=note></form><input form=f name=late><form><input name=other></form>',
    'x',
  );
  expect(form.title).toBe('Berth request');
  expect(
    form.pages[0]!.sections.map(({ title, fields: held }) => [title, held.map(({ name }) => name)]),
  ).toEqual([
    ['Vessel', ['vessel_name', 'field']],
    ['Berth request', ['note', 'late']],
  ]);
});

test('what cannot be taken is listed', () => {
  expect(
    taken(
      '<input name=a><input type=hidden name=t><input type=color name=c><button type=button>Add</button><input name=p pattern="("><input type=date name=d step=7><input list=l name=s><input type=file name=f accept=".pdf">',
    ).notes,
  ).toEqual([
    't: is a hidden input, and is left out',
    'c: type "color" is taken as a text',
    "<button>: the button “Add” is left out: a form's buttons do what a behaviour says",
    'p: the pattern ( is none that a form can use',
    'd: steps of 7 are left out',
    's: the suggestions of its list are left out',
    'f: file name endings are left out: a form asks for media types',
  ]);
});

test.each([
  ['', 'no form'],
  ['<p>Hello', 'no form'],
  ['<form><button>Go</button></form>', 'no form'],
  ['<form><input type=hidden name=a></form>', 'no field'],
])('%j is refused in words', (text, says) => {
  expect(() => fromHtml(text, 'x')).toThrow(NothingToTake);
  expect(() => fromHtml(text, 'x')).toThrow(says);
});

test('a page that is large or nested deep is read in bounds', () => {
  const deep = `${'<div>'.repeat(50_000)}<input name=a>`;
  expect(() => fromHtml(`<form>${deep}`, 'x')).not.toThrow(RangeError);
  const label = `<label>${'<b>'.repeat(50_000)}Name<input name=a></label>`;
  expect(fieldsOf(fromHtml(`<form>${label}`, 'x').form)[0]!.label).toBe('Name');
  const many = '<input name=a>'.repeat(1500);
  expect(fieldsOf(fromHtml(`<form>${many}</form>`, 'x').form)).toHaveLength(1500);
});

describe('a page takes time as it is long', () => {
  const page = (body: string) => `<form>${body}</form>`;
  const many = (count: number, of: (i: number) => string) =>
    Array.from({ length: count }, (_, i) => of(i)).join('');
  /** Steps of work, as the number of attributes that are read. */
  const work = (html: string): number => {
    const find = vi.spyOn(Array.prototype, 'find');
    const filter = vi.spyOn(Array.prototype, 'filter');
    try {
      fromHtml(html, 'x');
      return [...find.mock.contexts, ...filter.mock.contexts].reduce<number>(
        (sum, list) => sum + (list as unknown[]).length,
        0,
      );
    } finally {
      find.mockRestore();
      filter.mockRestore();
    }
  };
  test.each([
    ['inputs', (n: number) => many(n, () => '<input name=a>')],
    [
      'inputs with labels',
      (n: number) => many(n, (i) => `<label for=i${i}>L</label><input id=i${i}>`),
    ],
    [
      'inputs in one label',
      (n: number) => `<label>${many(n, (i) => `<input name=n${i}>`)}</label>`,
    ],
    [
      'inputs that name one text',
      (n: number) =>
        `<p id=t>${'long '.repeat(n)}</p>${many(n, () => '<input aria-labelledby="t t t t">')}`,
    ],
    ['radio groups', (n: number) => many(n, (i) => `<input type=radio name=r${i}>`)],
    [
      'nested fieldsets',
      (n: number) => `${'<fieldset>'.repeat(n)}${many(n, () => '<input name=a>')}`,
    ],
    ['forms', (n: number) => many(n, () => '</form><form><input name=a>')],
    [
      'a fieldset without a legend',
      (n: number) => `<fieldset>${many(n, () => '<input name=a>')}</fieldset>`,
    ],
  ])('%s', (_what, of) => {
    const [short, long] = [work(page(of(300))), work(page(of(1200)))];
    // Four times as long, it takes four times the work, and not sixteen.
    expect(long / short).toBeLessThan(6);
  });

  test('of sixty thousand inputs the first are taken, and the rest is said to be left out', () => {
    const { form, notes } = fromHtml(page(many(60_000, () => '<input name=a>')), 'x');
    expect(form.pages[0]!.sections[0]!.fields).toHaveLength(2000);
    expect(notes).toContain('only the first 2000 fields are taken');
  });
});
