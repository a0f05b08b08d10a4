/** The forms that the corpus of faults is written for: a small harbour office, as plain as its daily work is. */
import type { Ground } from '../../../src/core/explore/ground';
import type { Field, Form } from '../../../src/core/form/definition';
import { fieldsOf } from '../../../src/core/form/fields';
import type { Service } from '../../../src/core/form/service';
import type { Table } from '../../../src/core/form/table';
import type { Values } from '../../../src/core/form/value';

const option = (key: string) => ({ key, label: key[0]!.toUpperCase() + key.slice(1) });
const labelOf = (name: string) => (name[0]!.toUpperCase() + name.slice(1)).replaceAll('_', ' ');

type More = Record<string, unknown>;
/** Values off screen are left out of what is saved, unless said; `undecided` says nothing about them. */
const field = (kind: Field['kind'], name: string, more: More = {}): Field =>
  ({ name, label: labelOf(name), kind, whenHidden: 'omit', ...more }) as Field;
const undecided = { whenHidden: undefined };
const text = (name: string, more?: More) => field('text', name, more);
const number = (name: string, more?: More) => field('number', name, more);
const money = (name: string, more?: More) => field('money', name, more);
const date = (name: string, more?: More) => field('date', name, more);
const yesNo = (name: string, more?: More) => field('yes_no', name, more);
const choice = (name: string, keys: string, more: More = {}) =>
  field('choice', name, { options: keys.split(' ').map(option), ...more });
const choices = (name: string, keys: string, more: More = {}) =>
  field('choices', name, { options: keys.split(' ').map(option), ...more });
const section = (name: string, fields: Field[], more: More = {}) => ({
  name,
  title: labelOf(name),
  fields,
  ...more,
});
const button = (name: string) => ({ name, label: labelOf(name) });

/** A form of one page unless pages are given. */
function form(name: string, sections: ReturnType<typeof section>[], more: More = {}): Form {
  return {
    name,
    title: labelOf(name),
    pages: [{ name: 'all', title: 'All', sections }],
    ...more,
  } as Form;
}

export const FORMS = {
  mooring: form(
    'mooring',
    [
      section('ship', [
        text('vessel', { required: true }),
        choice('kind', 'tanker cargo passenger tug'),
        number('length', { min: 5, max: 400, decimals: 1 }),
        number('draught', { min: 0, max: 30, decimals: 1 }),
      ]),
      section('pilotage', [
        choice('pilot', 'none own harbour'),
        text('licence'),
        text('pilot_name'),
      ]),
      section('stay', [date('arrival'), date('departure'), number('nights'), text('remarks')]),
    ],
    { buttons: [button('check'), button('clear_stay')] },
  ),
  works: form(
    'works',
    [
      section('job', [
        choice('works_kind', 'hot diving crane'),
        text('contractor', { required: true }),
        number('hours', { min: 0, max: 72 }),
        yesNo('at_night'),
        text('leader'),
      ]),
      section('safety', [text('fire_watch'), number('divers'), text('standby_boat')]),
      section('decision', [
        choice('status', 'draft granted refused'),
        text('reason'),
        text('granted_by'),
        date('valid_until'),
      ]),
    ],
    { buttons: [button('grant')] },
  ),
  manifest: form('manifest', [
    section('head', [
      text('consignee'),
      yesNo('insured'),
      choices('hazards', 'fire poison pressure rust'),
    ]),
    section('list', [
      field('rows', 'goods', {
        fields: [
          text('what'),
          choice('packing', 'drum crate loose'),
          number('packages', { min: 0, max: 900 }),
          number('weight', { min: 0 }),
          money('worth', { min: 0 }),
          yesNo('dangerous'),
          text('un_number'),
        ],
      }),
      number('total', { locked: true }),
      money('total_worth', { locked: true }),
      number('lines', { locked: true }),
      text('note'),
    ]),
  ]),
  dues: form(
    'dues',
    [
      section('stay', [
        field('reference', 'berth', { table: 'berths' }),
        number('days', { min: 0, max: 365 }),
        number('tonnage', { min: 0 }),
        yesNo('exempt'),
        number('discount', { min: 0, max: 100 }),
      ]),
      section('sums', [money('rate', { locked: true }), money('amount', { locked: true })]),
      section('payment', [
        choice('payer', 'agent owner charterer'),
        text('account'),
        text('reference'),
        money('deposit'),
      ]),
    ],
    { buttons: [button('recalculate')] },
  ),
  register: form(
    'register',
    [
      section('ship', [
        text('imo', { maxLength: 10 }),
        text('ship'),
        number('tonnage'),
        text('flag'),
        yesNo('by_hand'),
      ]),
      section('call', [date('day'), number('tide'), text('note'), text('owner')]),
    ],
    { buttons: [button('look_up')] },
  ),
  clearance: form(
    'clearance',
    [
      section('request', [
        text('agent_name'),
        choice('purpose', 'bunkers repair crew_change lay_up'),
        date('from'),
        date('to'),
        number('crew', { min: 0, max: 60 }),
      ]),
      section('office', [
        choice('state', 'open checked closed', { default: 'open' }),
        text('checked_by'),
        text('remark'),
        yesNo('priority'),
        money('fee'),
      ]),
    ],
    {
      launch: [
        { name: 'visit', kind: 'text' },
        { name: 'purpose', kind: 'text' },
      ],
    },
  ),
  /** Its definition says nothing about what becomes of values off screen. */
  slip: form('slip', [
    section('boat', [
      text('name', undecided),
      choice('use', 'hire private club', undecided),
      text('club', undecided),
      yesNo('insured', undecided),
      text('policy', undecided),
    ]),
    section('store', [choice('winter', 'afloat ashore', undecided), text('shed', undecided)]),
  ]),
  inspection: form('inspection', [], {
    pages: [
      {
        name: 'general',
        title: 'General',
        sections: [
          section('about', [
            text('vessel'),
            choice('reason', 'yearly complaint damage'),
            yesNo('follow_up'),
          ]),
        ],
      },
      {
        name: 'hull',
        title: 'Hull',
        sections: [
          section('plating', [
            number('thickness', { min: 0, max: 60, decimals: 1 }),
            choice('condition', 'good worn bad'),
            text('where'),
          ]),
          section('repair', [text('yard'), date('due')]),
        ],
      },
      {
        name: 'close',
        title: 'Close',
        sections: [section('result', [yesNo('passed'), text('reasons'), text('signature')])],
      },
    ],
  }),
} satisfies Record<string, Form>;

export type FormName = keyof typeof FORMS;

export const TABLES: Table[] = [
  {
    name: 'berths',
    title: 'Berths',
    key: 'code',
    label: 'name',
    columns: [
      { name: 'code', kind: 'text' },
      { name: 'name', kind: 'text' },
      { name: 'depth', kind: 'number' },
      { name: 'rate', kind: 'number' },
      { name: 'covered', kind: 'yes_no' },
      { name: 'closed_on', kind: 'text' },
    ],
    rows: [
      { code: 'n1', name: 'North 1', depth: 12, rate: 2.5, covered: false, closed_on: null },
      { code: 'n2', name: 'North 2', depth: 9, rate: 2, covered: false, closed_on: 'monday' },
      { code: 'w1', name: 'West 1', depth: 6, rate: 1.75, covered: true, closed_on: null },
      { code: 'w2', name: 'West 2', depth: 4.5, rate: 1.1, covered: true, closed_on: 'sunday' },
    ],
  } as unknown as Table,
  {
    name: 'ships',
    title: 'Ships',
    key: 'imo',
    label: 'name',
    columns: [
      { name: 'imo', kind: 'text' },
      { name: 'name', kind: 'text' },
      { name: 'tonnage', kind: 'number' },
      { name: 'flag', kind: 'text' },
    ],
    rows: [
      { imo: '9000012', name: 'Anna Berg', tonnage: 4200, flag: 'Norland' },
      { imo: '9000024', name: 'Corvin', tonnage: 880, flag: 'Ostmark' },
      { imo: '9000036', name: 'Delia', tonnage: 15300, flag: 'Norland' },
    ],
  } as unknown as Table,
];

export const SERVICES: Service[] = [
  {
    name: 'ships',
    title: 'Ship register',
    delay: 300,
    functions: {
      find: {
        parameters: [{ name: 'imo', kind: 'text' }],
        answers: { from: 'table', table: 'ships', where: { imo: 'imo' } },
      },
    },
  } as unknown as Service,
];

export const PEOPLE = [
  { key: 'ida', name: 'Ida Lund', roles: ['agent'] },
  { key: 'per', name: 'Per Holm', roles: ['officer'] },
  { key: 'eva', name: 'Eva Strand', roles: ['officer', 'master'] },
  { key: 'jon', name: 'Jon Dahl', roles: ['agent'] },
];

export const RECORDS: Partial<Record<FormName, { id: string; values: Values }[]>> = {
  mooring: [
    { id: 'm1', values: { vessel: 'Corvin', kind: 'tanker', length: 180, pilot: 'harbour' } },
    {
      id: 'm2',
      values: { vessel: 'Delia', kind: 'tug', length: 30, pilot: 'own', licence: 'A12' },
    },
  ],
  works: [
    {
      id: 'w1',
      values: { works_kind: 'hot', contractor: 'Weld Ltd', fire_watch: 'Two men', status: 'draft' },
    },
    {
      id: 'w2',
      values: {
        works_kind: 'diving',
        contractor: 'Deep',
        divers: 2,
        status: 'granted',
        granted_by: 'Eva Strand',
      },
    },
  ],
  manifest: [
    {
      id: 'g1',
      values: {
        consignee: 'Bay Stores',
        goods: [
          {
            what: 'Paint',
            packing: 'drum',
            packages: 4,
            weight: 80,
            worth: 120,
            dangerous: true,
            un_number: '1263',
          },
        ],
      },
    },
  ],
  dues: [
    {
      id: 'd1',
      values: {
        berth: 'n1',
        days: 3,
        tonnage: 4200,
        rate: 20,
        payer: 'agent',
        account: 'A-100',
      },
    },
    {
      id: 'd2',
      values: {
        berth: 'w1',
        days: 1,
        tonnage: 880,
        rate: 10,
        payer: 'owner',
        exempt: true,
      },
    },
  ],
  clearance: [
    {
      id: 'c1',
      values: {
        agent_name: 'Ida Lund',
        purpose: 'repair',
        from: '2031-05-10',
        to: '2031-05-14',
        crew: 12,
        state: 'open',
      },
    },
    {
      id: 'c2',
      values: {
        agent_name: 'Jon Dahl',
        purpose: 'bunkers',
        from: '2031-05-03',
        to: '2031-05-03',
        crew: 20,
        state: 'closed',
        checked_by: 'Per Holm',
      },
    },
  ],
  inspection: [
    {
      id: 'i1',
      values: {
        vessel: 'Anna Berg',
        reason: 'damage',
        thickness: 9.5,
        condition: 'bad',
        where: 'Bow',

        reasons: 'Thin plates',
      },
    },
  ],
};

/** What forms are opened from: one record that is filled in, and one with hardly anything in it. */
export const PARENTS: Partial<Record<FormName, Ground['parents']>> = {
  clearance: [
    { vessel: 'Anna Berg', kind: 'tanker', arrival: '2031-05-10' },
    { vessel: null, kind: null, arrival: null },
  ].map((values, nth) => ({
    form: 'mooring',
    record: `m${nth + 1}`,
    fields: fieldsOf(FORMS.mooring),
    values,
  })),
};
