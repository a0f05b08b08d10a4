/** Submissions that are forged, one field at a time and by the thousand: what is saved is what the form lets a person do. */
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { base, OWN_ORIGIN, report, thorough } from './support';
import { stepsOf, VISIT } from '../support/visit';

const headers = { ...OWN_ORIGIN, 'content-type': 'application/json' };
const post = async (path: string, body: unknown, more: Record<string, string> = {}) => {
  const response = await fetch(`${base}${path}`, {
    method: 'POST',
    headers: { ...headers, ...more },
    body: JSON.stringify(body),
  });
  return { status: response.status, body: (await response.json()) as Record<string, unknown> };
};

const FORM = '/api/fill/berth_visit';
const GOOD = stepsOf(VISIT);

let fields: string[] = [];
let tried = 0;
beforeAll(async () => {
  await fetch(`${base}/api/forms/berth_visit/releases`, { method: 'POST', headers: OWN_ORIGIN });
  const handed = await post(`${FORM}/handouts`, {});
  fields = (
    handed.body.material as { form: { pages: { sections: { fields: { name: string }[] }[] }[] } }
  ).form.pages.flatMap((page) =>
    page.sections.flatMap((section) => section.fields.map(({ name }) => name)),
  );
});
afterAll(() =>
  report(
    'Forged submissions',
    tried,
    'refused with a reason, or saved as what the form itself makes of them; no key, id or value came in from outside',
  ),
);

async function begin(): Promise<{ filling: string; ticket: string; newId: string }> {
  const { ticket } = (await post(`${FORM}/handouts`, {})).body.handout as { ticket: string };
  const { filling, newId } = (await post(`${FORM}/fillings`, { ticket })).body as {
    filling: string;
    newId: string;
  };
  return { filling, ticket, newId };
}

describe('forged', () => {
  const forged: [string, unknown[], RegExp][] = [
    ['a locked field', [{ set: 'dues', to: 1 }, ...GOOD], /locked/],
    ['a hidden field', [{ set: 'pilot_licence', to: 'QH-0417' }, ...GOOD], /hidden/],
    ['a field that is not there', [{ set: 'nothing', to: 1 }, ...GOOD], /no field/],
    ['a field of JavaScript’s', [{ set: 'constructor', to: 1 }, ...GOOD], /no field/],
    ['a key that is not offered', [{ set: 'berth', to: 'nq9' }, ...GOOD], /takes one of the keys/],
    [
      'a key of JavaScript’s',
      [{ set: 'berth', to: 'constructor' }, ...GOOD],
      /takes one of the keys/,
    ],
    ['a wrong kind', [{ set: 'length', to: { valueOf: 1 } }, ...GOOD], /takes/],
    ['a cell of no row', [{ set: 'cargo[99].weight', to: 1 }, ...GOOD], /no row|there is no/],
    [
      'rows beyond counting',
      [{ addRow: 'cargo', with: Array.from({ length: 4000 }, () => ({})) }, ...GOOD],
      /rows|stopped|./,
    ],
    [
      'a value of a child that none asked for',
      [{ fromChild: 'vessel_record', to: 'forged' }, ...GOOD],
      /No form opened from here/,
    ],
    [
      'a service answered by hand',
      [{ answer: 'ship_register.find', with: { name: 'Forged' } }, ...GOOD],
      /./,
    ],
    [
      'time that runs backwards',
      [
        { wait: 0, at: 500 },
        { wait: 0, at: 1 },
        { submit: true, at: 1 },
      ],
      /earlier/,
    ],
    ['time of next year', [{ submit: true, at: 30_000_000_000 }], /future/],
    ['no submission', GOOD.slice(0, -1), /do not end with the submission/],
    ['two submissions', [...GOOD, { submit: true }], /./],
    ['nothing at all', [], /do not end with the submission/],
  ];
  test.each(forged)('%s', async (_what, steps, says) => {
    const { filling } = await begin();
    const { status, body } = await post(`${FORM}/submissions`, { filling, steps });
    tried++;
    expect(status).toBeLessThan(500);
    if (status !== 201) expect(String(body.says)).toMatch(says);
    else expect(Object.keys(body.values as object).toSorted()).toEqual(fields.toSorted());
  });

  test('tickets and filling-ins: somebody else’s, another form’s, altered, spent', async () => {
    const { filling, ticket } = await begin();
    const [text, mark] = ticket.split('.') as [string, string];
    const altered = (changes: object) =>
      `${Buffer.from(JSON.stringify({ ...(JSON.parse(Buffer.from(text, 'base64url').toString()) as object), ...changes })).toString('base64url')}.${mark}`;
    for (const forgedTicket of [
      altered({ person: 'ansa' }),
      altered({ clock: 0 }),
      altered({ record: { id: '1', revision: 1 } }),
      altered({ filling: '00000000-0000-4000-8000-000000000000' }),
      `${text}.`,
      text,
      '.',
      'x.y',
      `${text}.${'A'.repeat(43)}`,
    ]) {
      const { status } = await post(`${FORM}/fillings`, { ticket: forgedTicket });
      tried++;
      expect(status).toBe(404);
    }
    for (const [path, body, cookie, wanted] of [
      [`${FORM}/submissions`, { filling, steps: GOOD }, 'tavro_person=teo', 404],
      ['/api/fill/vessel/submissions', { filling, steps: GOOD }, '', 404],
      [`${FORM}/fillings`, { ticket }, 'tavro_person=teo', 403],
      ['/api/fill/vessel/fillings', { ticket }, '', 404],
      [
        `${FORM}/submissions`,
        { filling: '00000000-0000-4000-8000-000000000000', steps: GOOD },
        '',
        404,
      ],
    ] as const) {
      tried++;
      expect(
        (await post(path, body, cookie === '' ? {} : { cookie })).status,
        `${path} ${cookie}`,
      ).toBe(wanted);
    }
    const [one, again] = [
      await post(`${FORM}/submissions`, { filling, steps: GOOD }),
      await post(`${FORM}/submissions`, { filling, steps: GOOD }),
    ];
    expect([one.status, again.status, again.body.id, again.body.revision]).toEqual([
      201,
      201,
      one.body.id,
      1,
    ]);
  });

  test('values instead of steps: what a person could not enter is not taken', async () => {
    for (const values of [
      { dues: 1 },
      { constructor: 1 },
      { vessel: 'x', length: 'long' },
      { cargo: 'x' },
      { cargo: [1] },
      { cargo: [{ nothing: 1 }] },
      { cargo: { length: 1e9 } },
      { vessel: { $gt: '' } },
    ]) {
      const { status, body } = await post(`${FORM}/submissions`, { values });
      tried++;
      expect(
        [[400, 422].includes(status), String(body.says).length > 5],
        JSON.stringify(values),
      ).toEqual([true, true]);
    }
  });
});

test('steps at random: never a fault of the server, and never a value that the form does not have', async () => {
  const name = fc.oneof(
    fc.constantFrom(
      'vessel',
      'berth',
      'dues',
      'length',
      'cargo',
      'cargo[0].weight',
      'pilot_choice',
      'arrival',
      '__proto__',
      'constructor',
      'toString',
      'cargo[-1].x',
      'cargo[1e9].weight',
      '',
    ),
    fc.string(),
  );
  const value = fc.oneof(
    fc.constantFrom(null, true, 1e308, -0, 'sq1', '2031-06-01', [], {}, [[]], 'x'.repeat(5000)),
    fc.jsonValue({ maxDepth: 3 }),
  );
  const step = fc.oneof(
    fc.record({ set: name, to: value }),
    fc.record({ input: name, to: value }),
    fc.record({ addRow: name, with: value }),
    fc.record({ removeRow: name }),
    fc.record({ moveRow: name, to: fc.nat() }),
    fc.record({ click: name }),
    fc.record({ wait: fc.nat(1e9) }),
    fc.record({ turnTo: name }),
    fc.record({ answer: name, with: value }),
    fc.record({ fromChild: name, to: value }),
    fc.constantFrom({ next: true }, { previous: true }, { submit: true }),
    fc.record({ [fc.sample(fc.string(), 1)[0]!]: value }),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(step, { maxLength: 12 }), async (steps) => {
      const { filling, newId } = await begin();
      const { status, body } = await post(`${FORM}/submissions`, {
        filling,
        steps: [...steps, { submit: true }],
      });
      tried++;
      expect(status).toBeLessThan(500);
      if (status === 201)
        expect([body.id, Object.keys(body.values as object).toSorted()]).toEqual([
          newId,
          fields.toSorted(),
        ]);
      else expect(String(body.says).length).toBeGreaterThan(5);
    }),
    { numRuns: thorough ? 400 : 25, seed: 20310502 },
  );
});
