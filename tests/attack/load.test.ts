/** The busiest office: people at once, stuck submissions beside honest ones, forms and records in numbers, two apps on one database. */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { Agent, request as httpRequest } from 'node:http';
import { Client } from 'pg';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { base, OWN_ORIGIN, percentile, report, thorough } from './support';
import { stepsOf, VISIT } from '../support/visit';

const headers = { ...OWN_ORIGIN, 'content-type': 'application/json' };
/** Connections are kept, as browsers keep them; `fetch` would take twice the time of the two cores that the server needs too. */
const agent = new Agent({ keepAlive: true });
const send = (method: string, path: string, body?: unknown, at = base) =>
  new Promise<{ status: number; body: Record<string, unknown> }>((resolve, reject) => {
    const sent = httpRequest(
      `${at}${path}`,
      { method, agent, headers: { ...headers, origin: at } },
      (response) => {
        let text = '';
        response.setEncoding('utf8').on('data', (chunk: string) => (text += chunk));
        response.on('end', () =>
          resolve({
            status: response.statusCode!,
            body:
              text.startsWith('{') || text.startsWith('[')
                ? (JSON.parse(text) as Record<string, unknown>)
                : {},
          }),
        );
        response.on('error', reject);
      },
    );
    sent.on('error', reject);
    sent.end(body === undefined ? undefined : JSON.stringify(body));
  });
afterAll(() => agent.destroy());
const submit = (form = 'berth_visit', values: object = VISIT) =>
  send('POST', `/api/fill/${form}/submissions`, { values });
const timed = async <T>(work: () => Promise<T>): Promise<[number, T]> => {
  const from = performance.now();
  const came = await work();
  return [performance.now() - from, came];
};
const ms = (time: number) =>
  time < 1000 ? `${Math.round(time)} ms` : `${(time / 1000).toFixed(1)} s`;

const database = new Client({ connectionString: process.env.DATABASE_URL! });
beforeAll(async () => {
  await database.connect();
  // Such as pipelines ask for one: without a body.
  expect((await send('POST', '/api/forms/berth_visit/releases')).status).toBe(201);
});
afterAll(() => database.end());

/** Bytes the server's process holds. */
function memory(): number {
  const port = new URL(base).port;
  const pid = /pid=(\d+)/.exec(
    spawnSync('bash', ['-c', `ss -ltnp 'sport = :${port}'`], { encoding: 'utf8' }).stdout,
  )?.[1];
  return pid === undefined
    ? 0
    : Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) * 1024;
}

describe('people at once', () => {
  test.each(thorough ? [1, 10, 50, 200] : [10])('%i of them', async (people) => {
    await submit();
    const each = Math.max(4, Math.ceil((thorough ? 1500 : 40) / people));
    const times: number[] = [];
    const statuses = new Map<number, number>();
    const [took] = await timed(() =>
      Promise.all(
        Array.from({ length: people }, async () => {
          for (let i = 0; i < each; i++) {
            const [time, { status }] = await timed(() => submit());
            times.push(time);
            statuses.set(status, (statuses.get(status) ?? 0) + 1);
          }
        }),
      ),
    );
    expect([...statuses.keys()]).toEqual([201]);
    report(
      `People who submit at once: ${String(people).padStart(3, '0')}`,
      times.length,
      `${Math.round((times.length / took) * 1000)} a second, half within ${ms(percentile(times, 50))}, 99 of 100 within ${ms(percentile(times, 99))}; none failed`,
    );
  });

  test.skipIf(!thorough)('10,000 of them leave the memory as it was', async () => {
    for (let i = 0; i < 500; i++) await submit();
    const before = memory();
    let middle = 0;
    for (let round = 0; round < 100; round++) {
      await Promise.all(Array.from({ length: 100 }, () => submit()));
      if (round === 49) middle = memory();
    }
    const mb = (bytes: number) => `${Math.round(bytes / 1024 / 1024)} MB`;
    report(
      'Submissions one after the other',
      10_000,
      `the server held ${mb(before)} before, ${mb(middle)} after 5,000, ${mb(memory())} after 10,000`,
    );
  });
});

test('a release that gets stuck keeps nobody else waiting', async () => {
  const stuck =
    'on.change(fields.length, ({ value }) => {\n  if (value !== 66) return;\n  const list: unknown[] = []; list.length = 2 ** 32 - 1;\n  list.indexOf(1);\n});';
  const { body } = await send('PUT', '/api/forms/vessel/behaviours/99-stuck.ts', {
    text: stuck,
    from: 0,
  });
  expect((await send('POST', '/api/forms/vessel/releases', {})).status).toBe(201);
  await Promise.all([submit(), submit()]);
  const alone: number[] = [];
  for (let i = 0; i < 10; i++) alone.push((await timed(() => submit()))[0]);
  const held = Promise.all(
    Array.from({ length: thorough ? 20 : 3 }, () =>
      timed(() =>
        submit('vessel', { imo: '9900021', name: 'X', kind: 'coaster', length: 66, draught: 3 }),
      ),
    ),
  );
  await new Promise((resolve) => setTimeout(resolve, 500));
  const beside: number[] = [];
  const over = held.then(() => true);
  const soon = new Promise<boolean>((resolve) => setTimeout(() => resolve(false)));
  while (beside.length < 400 && !(await Promise.race([over, soon]))) {
    const [time, { status }] = await timed(() => submit());
    expect(status).toBe(201);
    beside.push(time);
  }
  const stuckTimes = (await held).map(([time, { status }]) => {
    expect([201, 422, 503]).toContain(status);
    return time;
  });
  await send('DELETE', `/api/forms/vessel/behaviours/99-stuck.ts?from=${Number(body.revision)}`);
  report(
    'Stuck submissions of one release, honest ones of another beside them',
    stuckTimes.length + beside.length,
    `an honest one took ${ms(percentile(alone, 50))} alone and ${ms(percentile(beside, 50))} beside ${stuckTimes.length} stuck ones (${(percentile(beside, 50) / percentile(alone, 50)).toFixed(1)} times), at worst ${ms(Math.max(...beside))}; the last stuck one was answered after ${ms(Math.max(...stuckTimes))}`,
  );
}, 300_000);

describe('two apps on one database', () => {
  const port = Number(process.env.TAVRO_SECOND_PORT ?? 3933);
  const other = `http://127.0.0.1:${port}`;
  let second: ChildProcess;
  beforeAll(async () => {
    second = spawn(
      'node',
      ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(port)],
      { env: { ...process.env, NODE_ENV: 'production' }, stdio: 'ignore' },
    );
    for (let i = 0; i < 200; i++) {
      if (
        await fetch(`${other}/api/handbook`).then(
          ({ ok }) => ok,
          () => false,
        )
      )
        return;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  });
  afterAll(() => void second.kill('SIGKILL'));

  test('serve as one: what one hands out the other takes, what one saves the other shows, and neither overwrites', async () => {
    const { body: handed } = await send('POST', '/api/fill/berth_visit/handouts', {});
    const { ticket } = handed.handout as { ticket: string };
    const begun = await Promise.all([
      send('POST', '/api/fill/berth_visit/fillings', { ticket }, other),
      send('POST', '/api/fill/berth_visit/fillings', { ticket }),
    ]);
    expect(begun.map(({ status }) => status)).toEqual([201, 201]);
    expect(begun[0]!.body).toEqual(begun[1]!.body);
    const steps = stepsOf(VISIT);
    const sent = await Promise.all([
      send('POST', '/api/fill/berth_visit/submissions', { filling: begun[0]!.body.filling, steps }),
      send(
        'POST',
        '/api/fill/berth_visit/submissions',
        { filling: begun[0]!.body.filling, steps },
        other,
      ),
    ]);
    expect(sent.map(({ status, body }) => [status, body.id, body.revision])).toEqual([
      [201, begun[0]!.body.newId, 1],
      [201, begun[0]!.body.newId, 1],
    ]);
    for (let i = 0; i < 10; i++) {
      const from = (await send('GET', '/api/forms/vessel/behaviours/97-two.ts/revisions'))
        .body as unknown as { revision: number }[];
      const both = await Promise.all(
        [base, other].map((at) =>
          send(
            'PUT',
            '/api/forms/vessel/behaviours/97-two.ts',
            { text: `// ${at} ${i}`, from: from[0]?.revision ?? 0 },
            at,
          ),
        ),
      );
      expect(both.map(({ status }) => status).toSorted()).toEqual([200, 409]);
    }
    const titles = await Promise.all(
      Array.from({ length: 12 }, (_, i) =>
        send('POST', '/api/forms', { title: 'The same title' }, i % 2 === 0 ? base : other),
      ),
    );
    expect(titles.every(({ status }) => status === 201)).toBe(true);
    expect(new Set(titles.map(({ body }) => body.name)).size).toBe(12);
    const releases = await Promise.all(
      Array.from({ length: 6 }, (_, i) =>
        send('POST', '/api/forms/vessel/releases', {}, i % 2 === 0 ? base : other),
      ),
    );
    expect(releases.map(({ status, body }) => [status, body.says])).toEqual(
      releases.map(() => [201, undefined]),
    );
    expect(new Set(releases.map(({ body }) => body.number)).size).toBe(6);
    const both = await Promise.all(
      [base, other].map(async (at) =>
        (
          (await send('GET', '/api/forms/berth_visit/records', undefined, at)).body.records as {
            id: string;
          }[]
        ).map(({ id }) => id),
      ),
    );
    expect(both[0]).toEqual(both[1]);
    report(
      'Two apps on one database',
      42,
      'what one hands out the other takes; of two who save the same, one is told so; numbers and names are given once',
    );
  });
});

test('behaviours that nobody would write, saved: every page is served, and the check says what is wrong', async () => {
  const odd: Record<string, string> = {
    '91-odd.ts': `log(${'('.repeat(3000)}1${')'.repeat(3000)});`,
    '92-odd.ts': `const a: number = 1;\nif (a === 0) log(0);${Array.from({ length: 4000 }, (_, i) => ` else if (a === ${i}) log(${i});`).join('\n')}`,
    '93-odd.ts': '/** Follow-ups of a-bc',
    '94-odd.ts': Array.from(
      { length: thorough ? 5000 : 300 },
      (_, i) => `on.change(fields.imo, () => { fields.name.value = "${i}"; });`,
    ).join('\n'),
    '95-odd.ts': '/(a+)+b/.test("a".repeat(60));',
  };
  for (const [name, text] of Object.entries(odd))
    expect(
      (await send('PUT', `/api/forms/vessel/behaviours/${name}`, { text, from: 0 })).status,
    ).toBe(200);
  const times: number[] = [];
  const served = async (path: string, limit = 300) => {
    const [time, status] = await timed(async () => (await fetch(`${base}${path}`)).status);
    expect(status, path).toBeLessThan(limit);
    times.push(time);
  };
  const checking = (async () => {
    for (;;) {
      const response = await fetch(`${base}/api/problems`);
      const { problems } = (await response.json()) as { problems: { says: string }[] };
      if (response.status === 200) return problems;
    }
  })();
  for (let i = 0; i < 5; i++) {
    for (const path of [
      '/',
      '/records/vessel',
      '/fill/berth_visit',
      `/api/search?pattern=yes&wanted=${encodeURIComponent('(x+x+)+y|(a|a)*b')}`,
    ])
      await served(path, path.includes('search') ? 500 : 300);
  }
  await served('/bench/vessel');
  expect((await submit()).status).toBe(201);
  expect(
    (await checking).filter(({ says }) => says.includes('nested too deep')).length,
  ).toBeGreaterThan(1);
  for (const name of Object.keys(odd))
    expect((await send('DELETE', `/api/forms/vessel/behaviours/${name}?from=1`)).status).toBe(200);
  report(
    'Behaviours that nobody would write, saved',
    Object.keys(odd).length,
    `pages went on being served, half within ${ms(percentile(times, 50))}, at worst ${ms(Math.max(...times))}, while the workspace was checked`,
  );
}, 300_000);

describe.skipIf(!thorough)('sizes', () => {
  // What comes next looks at everything that is saved, over and over.
  afterAll(async () => {
    await database.query("delete from record where form = 'berth_visit' and place <= -100000");
    await database.query("delete from document where form like 'f\\_%' or name like 'f\\_%'");
    await database.query('vacuum analyze record');
  }, 600_000);

  test('200 forms with 20 behaviours each', async () => {
    await database.query(
      `insert into document (kind, form, name, content, revision) select 'form', '', 'f_' || n, jsonb_set(jsonb_set(content, '{name}', to_jsonb('f_' || n)), '{title}', to_jsonb('Form ' || n)), 1 from document, generate_series(1, 195) n where kind = 'form' and name = 'vessel'`,
    );
    await database.query(
      `insert into document (kind, form, name, content, revision) select 'behaviour', f.name, (10 * n) || '-b.ts', to_jsonb('/** B ' || n || ' of ' || f.name || '. */' || E'\\nkeep("x", () => { fields.draught.required = fields.length.value !== ' || n || '; });'), 1 from document f, generate_series(1, 20) n where f.kind = 'form' and f.name like 'f\\_%'`,
    );
    await database.query('analyze document');
    const pages: string[] = [];
    for (const path of ['/', '/bench/f_7', '/api/search?wanted=required', '/api/problems']) {
      const [first] = await timed(async () =>
        expect((await fetch(`${base}${path}`)).status).toBeLessThan(300),
      );
      const [again] = await timed(async () =>
        fetch(`${base}${path}`).then((response) => response.text()),
      );
      pages.push(`${path} ${ms(first)}, again ${ms(again)}`);
    }
    const [through] = await timed(async () => {
      for (;;) if ((await fetch(`${base}/api/problems`)).status === 200) return;
    });
    report(
      'Forms with 20 behaviours each',
      200,
      `${pages.join('; ')}; the whole workspace was checked within ${ms(through)}, while everything else was served`,
    );
  }, 900_000);

  test('1,000,000 records of a form', async () => {
    await database.query('drop index record_words; drop index record_order');
    await database.query(`insert into record (form, id, "values", revision, release, saved_by)
      select 'berth_visit', (100000 + n)::text, jsonb_build_object('vessel', (array['Aurelle','Marrow Star','Brightwater','Halcyon Ore','Tern of Garrel','Little Auk','Corran','Sable Meridian'])[1 + (n * 31 % 977) % 8] || ' ' || (n / 97)::text,
        'vessel_kind', case when n < 60000 then 'survey' when n * 37 % 2400 >= 1950 then 'yacht' else (array['coaster','bulk_carrier','tanker','tug'])[1 + (n * 7 % 1009) % 4] end, 'length', round((10 + (n * 37 % 2400) / 10.0)::numeric, 1), 'draught', round((1 + (n * 13 % 120) / 10.0)::numeric, 1),
        'contact', 'agent' || (n % 5000) || '@line' || (n % 300) || '.example', 'arrival', to_char(date '2020-01-01' + (n * 17 % 4001), 'YYYY-MM-DD'), 'departure', to_char(date '2020-01-03' + (n * 17 % 4001), 'YYYY-MM-DD'),
        'berth', 'sq1', 'shore_power', n % 3 = 0, 'pilot_choice', 'none', 'vessel_record', case when n % 1000 < 3 then 'v-033' end, 'cargo', jsonb_build_array(jsonb_build_object('what', 'salt', 'weight', n % 500)), 'dues', 51 + n % 900), 1, 1, 'mira'
      from generate_series(1, 1000000) n`);
    await database.query('create index record_order on record (form, place, id)');
    await database.query(
      'create index record_words on record using gin (form, words extensions.gin_trgm_ops)',
    );
    await database.query('vacuum analyze record');
    const queries: Record<string, string> = {
      'the list': '',
      'sorted by a text': '?sort=vessel',
      'by a number, the other way': '?sort=-length',
      'searched, common': '?search=halcyon',
      'searched, rare': '?search=brightwater%20555',
      'searched, nothing': '?search=zzzzz',
      'by number': '?search=600123',
      'narrowed to an option': '?is.vessel_kind=tug',
      'narrowed and sorted': '?is.vessel_kind=tug&sort=-length',
      'a range, sorted by another column': '?from.length=248&sort=vessel',
      'many that come late in the order asked for': '?is.vessel_kind=yacht&sort=length',
      'many that are old, the newest first': '?is.vessel_kind=survey',
      'two conditions, sorted by a third':
        '?is.vessel_kind=yacht&from.arrival=2030-11-01&sort=vessel',
      'a text in a column': '?is.vessel=aurelle',
    };
    const came: string[] = [];
    const worst: number[] = [];
    for (const [what, query] of Object.entries(queries)) {
      const times: number[] = [];
      for (let i = 0; i < 6; i++) {
        const [time, { status }] = await timed(() =>
          send('GET', `/api/forms/berth_visit/records${query}`),
        );
        expect(status).toBe(200);
        times.push(time);
      }
      worst.push(percentile(times.slice(1), 50));
      came.push(`${what} ${ms(percentile(times.slice(1), 50))}`);
    }
    for (const [what, path] of Object.entries({
      'the page of records': '/records/berth_visit',
      'the bench': '/bench/berth_visit',
      'a record to fill in': '/fill/berth_visit?record=600123',
      '3,000 children of a record': '/api/fill/vessel/children?record=v-033',
      'the page of forms': '/',
    })) {
      await fetch(`${base}${path}`).then((response) => response.text());
      const times: number[] = [];
      for (let i = 0; i < 4; i++)
        times.push(
          (await timed(async () => fetch(`${base}${path}`).then((response) => response.text())))[0],
        );
      came.push(`${what} ${ms(percentile(times, 50))}`);
    }
    let after = '';
    const pages: number[] = [];
    for (let i = 0; i < 60; i++) {
      const [time, { body }] = await timed(() =>
        send('GET', `/api/forms/berth_visit/records?sort=vessel${after}`),
      );
      pages.push(time);
      after = `&after=${encodeURIComponent(String(body.next))}`;
    }
    came.push(`page after page ${ms(percentile(pages, 50))}, at worst ${ms(Math.max(...pages))}`);
    const [saving] = await timed(async () => expect((await submit()).status).toBe(201));
    came.push(`a submission ${ms(saving)}`);
    report('Records of one form', 1_000_000, came.join('; '));
  }, 1_500_000);
});
