/** Recordings brought in with every number there is, and nested as deep as a body allows; releases asked for while somebody saves. */
import { Client } from 'pg';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { base, OWN_ORIGIN, report, thorough } from './support';

const headers = { ...OWN_ORIGIN, 'content-type': 'application/json' };
async function ask(method: string, path: string, body?: unknown) {
  const response = await fetch(`${base}${path}`, {
    method,
    headers,
    ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
  });
  return {
    status: response.status,
    body: (await response.json().catch(() => ({}))) as Record<string, unknown>,
  };
}
const database = new Client({ connectionString: process.env.DATABASE_URL! });
beforeAll(() => database.connect());
afterAll(() => database.end());

const RECORDING = {
  recording: 1,
  form: 'berth_visit',
  release: 1,
  keptAt: '2031-06-01T09:00:00Z',
  because: 'asked',
  says: '',
  masked: false,
  opening: {
    person: { key: 'mira', name: 'Mira Oldane', roles: ['clerk'] },
    record: null,
    launch: {},
    clock: Date.UTC(2031, 5, 1),
    seed: 1,
    newId: '1',
  },
  steps: [{ set: 'length', to: 12, at: 1 }],
  ended: null,
};
const NUMBERS = [
  0,
  -1,
  1.5,
  2 ** 31 - 1,
  2 ** 31,
  2 ** 32,
  2 ** 53 - 1,
  -(2 ** 53 - 1),
  2 ** 53,
  8.64e15,
  8.64e15 + 1,
  -8.64e15,
  253_402_300_800_000,
  -62_135_596_800_001,
  1e21,
  1e300,
  -1e300,
];
const PLACES: ((number: number) => object)[] = [
  (release) => ({ ...RECORDING, release }),
  (clock) => ({ ...RECORDING, opening: { ...RECORDING.opening, clock } }),
  (seed) => ({ ...RECORDING, opening: { ...RECORDING.opening, seed } }),
  (at) => ({ ...RECORDING, steps: [{ set: 'length', to: 1, at }] }),
  (wait) => ({ ...RECORDING, steps: [{ wait }] }),
  (to) => ({ ...RECORDING, steps: [{ set: 'length', to }] }),
  (to) => ({ ...RECORDING, steps: [{ moveRow: 'cargo[0]', to }] }),
  (which) => ({ ...RECORDING, steps: [{ answer: 'ship_register.find', which }] }),
  (delay) => ({
    ...RECORDING,
    opening: { ...RECORDING.opening, services: { ship_register: { delay } } },
  }),
];

test('whatever number stands in a recording, it is refused, or taken and shown', async () => {
  let tried = 0;
  for (const place of PLACES)
    for (const number of NUMBERS) {
      const content = place(number);
      const brought = await ask('POST', '/api/recordings', content);
      const which = JSON.stringify(content).slice(0, 400);
      expect([201, 400, 422], `${which}: ${JSON.stringify(brought.body)}`).toContain(
        brought.status,
      );
      tried++;
      if (brought.status !== 201) {
        expect(String(brought.body.says).length).toBeGreaterThan(5);
        continue;
      }
      const id = brought.body.id as number;
      for (const path of [
        `/api/recordings/${id}`,
        `/recordings`,
        `/bench/berth_visit?recording=${id}`,
        `/bench/berth_visit?recording=${id}&code=today`,
      ])
        expect((await fetch(`${base}${path}`)).status, `${path} ${which}`).toBeLessThan(500);
    }
  const deep = (levels: number) =>
    `{"recording":1,"opening":${'{"a":'.repeat(levels)}1${'}'.repeat(levels)}}`;
  for (const levels of [50, 5000, thorough ? 1_000_000 : 100_000]) {
    const { status, body } = await ask('POST', '/api/recordings', deep(levels));
    expect([status, body.says]).toEqual([400, expect.stringMatching(/nested deeper/)]);
    tried++;
  }
  await database.query("delete from recording where form = 'berth_visit' and says = ''");
  report(
    'Recordings with every number there is',
    tried,
    'refused in words, or taken and then shown; no page and no answer was a fault of the server',
  );
}, 600_000);

test('a release asked for while somebody saves is of what was checked, or is refused', async () => {
  const rounds = thorough ? 24 : 4;
  const path = '/api/forms/waste_declaration/behaviours/99-raced.ts';
  let refused = 0;
  const first = await ask('PUT', path, { text: '// good\n', from: 0 });
  let from = first.body.revision as number;
  for (let round = 0; round < rounds; round++) {
    // Anew each time, as after an edit: what is known already is not run again.
    const good = `// good ${round}\n`;
    from = (await ask('PUT', path, { text: good, from })).body.revision as number;
    const releasing = ask('POST', '/api/forms/waste_declaration/releases', {});
    await new Promise((resolve) => setTimeout(resolve, (round * 700) / rounds));
    const saved = await ask('PUT', path, {
      text: `on.load(() => { throw new Error("raced ${round}"); });\n`,
      from,
    });
    from = saved.body.revision as number;
    const { status, body } = await releasing;
    expect([201, 409], JSON.stringify(body)).toContain(status);
    if (status === 409) refused++;
  }
  const { rows } = await database.query<{ bad: boolean; reason: string | null }>(
    "select content::text like '%raced %' as bad, reason from release where form = 'waste_declaration'",
  );
  expect(rows.filter(({ bad, reason }) => bad && reason === null)).toEqual([]);
  await ask('DELETE', `${path}?from=${from}`);
  report(
    'Releases asked for while somebody saves what fails',
    rounds,
    `${refused} were refused, and none of the others held what fails`,
  );
}, 600_000);
