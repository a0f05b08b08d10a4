/** `tavro pull` and `push` against something that is no honest app. */
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { tavroAsync } from '../support/command-line';

let folder: string;
const servers: Server[] = [];
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'tavro-exchange-'));
});
afterEach(() => {
  for (const server of servers.splice(0)) server.close().closeAllConnections();
  rmSync(folder, { recursive: true, force: true });
});

/** Serves at an address of this machine. */
async function served(listener: Parameters<typeof createServer>[1]): Promise<string> {
  const server = createServer(listener as never);
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
}

test.each([301, 302, 303, 307, 308])(
  'push does not follow a redirect (%i), so that nothing is sent elsewhere',
  async (status) => {
    let received = 0;
    const elsewhere = await served((request, response) => {
      received++;
      request.resume();
      response.end('{}');
    });
    const app = await served((request, response) => {
      request.resume();
      response.writeHead(status, { location: `${elsewhere}/api/workspace/changes` }).end();
    });
    const { status: ended, stderr } = await tavroAsync('push', 'demo', '--app', app);
    expect([ended, received]).toEqual([2, 0]);
    expect(stderr).toMatch(/answered that it is elsewhere. Nothing was sent there/);
  },
);

test('pull reads no more than a workspace can have, and writes nothing', async () => {
  let sent = 0;
  const app = await served((_request, response) => {
    const chunk = Buffer.alloc(1024 * 1024);
    const more = () => {
      while (!response.destroyed) {
        sent++;
        if (!response.write(chunk)) return void response.once('drain', more);
      }
    };
    more();
  });
  const { status, stderr } = await tavroAsync('pull', folder, '--app', app);
  expect(status).toBe(2);
  expect(stderr).toMatch(/larger than any workspace/);
  expect(sent).toBeLessThan(60);
  expect(readdirSync(folder)).toEqual([]);
});

test('what an app says reaches the terminal as text', async () => {
  const app = await served((request, response) => {
    request.resume();
    response
      .writeHead(422, { 'content-type': 'application/json' })
      .end(JSON.stringify({ says: 'no\u001b[2J\u009b1m' }));
  });
  const { stderr } = await tavroAsync('push', 'demo', '--app', app);
  expect(stderr).toContain('no\\u001b[2J\\u009b1m');
});

test('what is no app of this version is said to be none', async () => {
  const app = await served((request, response) => {
    request.resume();
    response.end('[]');
  });
  const { status, stderr } = await tavroAsync('push', 'demo', '--app', app);
  expect([status, stderr]).toEqual([2, expect.stringMatching(/is no app of this version/)]);
});
