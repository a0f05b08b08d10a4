/** An app of an attack's own, to be killed, given folders or kept waiting: the same build on another port. */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';

export class App {
  readonly port: number;
  readonly at: string;
  readonly headers: Record<string, string>;
  readonly #env: Record<string, string>;
  #server: ChildProcess | null = null;

  /** `env` is added to that of the tests. */
  constructor(port: number, env: Record<string, string> = {}) {
    this.port = port;
    this.at = `http://127.0.0.1:${port}`;
    this.headers = { origin: this.at, 'content-type': 'application/json' };
    this.#env = env;
  }

  async start(): Promise<void> {
    this.#server = spawn('node', ['scripts/serve.mjs', String(this.port)], {
      env: { ...process.env, NODE_ENV: 'production', ...this.#env },
      stdio: 'ignore',
      detached: true,
    });
    for (let i = 0; i < 1200; i++) {
      if (
        await fetch(`${this.at}/api/handbook`).then(
          ({ ok }) => ok,
          () => false,
        )
      )
        return;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error('the app did not come up');
  }

  /** Brings the database up to date first, as npm start does. */
  prepare(): void {
    const { status, stderr } = spawnSync('node', ['dist/prepare.mjs'], {
      encoding: 'utf8',
      env: { ...process.env, ...this.#env },
    });
    if (status !== 0) throw new Error(`the database was not prepared: ${stderr}`);
  }

  /** At once, without a word to anybody. */
  async kill(): Promise<void> {
    const server = this.#server;
    this.#server = null;
    if (server === null || server.exitCode !== null) return;
    const gone = new Promise((resolve) => server.once('exit', resolve));
    process.kill(-server.pid!, 'SIGKILL');
    await gone;
  }

  /** Megabytes that it holds. */
  get megabytes(): number {
    const status = readFileSync(`/proc/${this.#server!.pid!}/status`, 'utf8');
    return Number(/^VmRSS:\s+(\d+)/m.exec(status)![1]) / 1024;
  }

  /** Threads that it has. */
  get threads(): number {
    const status = readFileSync(`/proc/${this.#server!.pid!}/status`, 'utf8');
    return Number(/^Threads:\s+(\d+)/m.exec(status)![1]);
  }

  /** An answer; null where there was none. */
  async ask(
    method: string,
    path: string,
    body?: unknown,
  ): Promise<{ status: number; body: Record<string, unknown> | null } | null> {
    return fetch(`${this.at}${path}`, {
      method,
      headers: this.headers,
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    }).then(
      async (response) => ({
        status: response.status,
        body: (await response.json().catch(() => null)) as Record<string, unknown> | null,
      }),
      () => null,
    );
  }
}
