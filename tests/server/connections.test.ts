/** One budget of connections for the process, whatever number of workspaces it serves. */
import { Client } from 'pg';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { connectionTo } from '../../src/server/database/database';
import { freshDatabase } from './support';

let end: () => Promise<void>;
let watcher: Client;
beforeAll(async () => {
  end = await freshDatabase('tavro_connections_test');
  watcher = new Client({ connectionString: process.env.DATABASE_URL! });
  await watcher.connect();
  for (let i = 0; i < 60; i++)
    await watcher.query(
      `create schema ws_9${i}; create table ws_9${i}.mark (word text); insert into ws_9${i}.mark values ('ws_9${i}')`,
    );
});
afterAll(async () => {
  await watcher.end();
  await end();
});

/** Connections of this process. PostgreSQL's own list has those that are closed for as long as its processes take to end. */
const used = () => process.getActiveResourcesInfo().filter((one) => one === 'TCPSocketWrap').length;

test('sixty workspaces at once take no more than the process may have, and each reads its own', async () => {
  let most = 0;
  const all = Array.from({ length: 600 }, async (_, i) => {
    const schema = `ws_9${i % 60}`;
    const { rows } = await connectionTo(schema).pool.query('select word from mark');
    if (i % 50 === 0) most = Math.max(most, used());
    expect(rows).toEqual([{ word: schema }]);
  });
  await Promise.all(all);
  expect(most).toBeGreaterThan(1);
  // The watcher's is one of them.
  expect(most).toBeLessThanOrEqual(33);
});

test('a workspace that keeps all its connections busy keeps no other waiting', async () => {
  const busy = Array.from({ length: 20 }, () =>
    connectionTo('ws_90').pool.query('select pg_sleep(1)'),
  );
  const other = connectionTo('ws_91').pool.query('select word from mark');
  const first = await Promise.race([
    other.then(() => 'other'),
    ...busy.map((one) => one.then(() => 'busy')),
  ]);
  expect(first).toBe('other');
  await Promise.all(busy);
});

test('a connection that breaks is replaced, and what PostgreSQL refuses breaks none', async () => {
  const { pool } = connectionTo('ws_92');
  const pid = async () =>
    (await pool.query('select pg_backend_pid() as pid')).rows[0] as { pid: number };
  const before = await pid();
  await expect(pool.query('select nothing from nowhere')).rejects.toThrow(/nowhere/);
  expect(await pid()).toEqual(before);
  await watcher.query('select pg_terminate_backend($1)', [before.pid]);
  await new Promise((resolve) => setTimeout(resolve, 100));
  expect(await pid()).not.toEqual(before);
  expect((await pool.query('select word from mark')).rows).toEqual([{ word: 'ws_92' }]);
});
