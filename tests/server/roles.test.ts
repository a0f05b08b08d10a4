/** Stored data from before a person could have several roles, brought up to date. */
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { Client } from 'pg';
import { expect, test } from 'vitest';

/** A copy of the migrations that ends before the named one. */
function migrationsBefore(tag: string): string {
  const folder = mkdtempSync(join(tmpdir(), 'tavro-migrations-'));
  cpSync('drizzle', folder, { recursive: true });
  const path = join(folder, 'meta/_journal.json');
  const journal = JSON.parse(readFileSync(path, 'utf8')) as { entries: { tag: string }[] };
  const at = journal.entries.findIndex((entry) => entry.tag === tag);
  if (at < 0) throw new Error(`no migration ${tag}`);
  writeFileSync(path, JSON.stringify({ ...journal, entries: journal.entries.slice(0, at) }));
  return folder;
}

test('the one role of a person becomes the first of a list, in the workspace, in what was handed out and in what a release reads; all else stays as it is', async () => {
  const url = new URL(process.env.DATABASE_URL!);
  const admin = new Client({ connectionString: url.href });
  await admin.connect();
  await admin.query('drop database if exists tavro_roles');
  await admin.query('create database tavro_roles');
  url.pathname = '/tavro_roles';
  const client = new Client({ connectionString: url.href });
  await client.connect();
  const before = migrationsBefore('0002_roles');
  try {
    const database = drizzle(client);
    await migrate(database, { migrationsFolder: before });
    const roles = [{ key: 'clerk', label: 'Clerk' }, { key: 'master', label: 'Master' }];
    const people = [{ key: 'ona', name: 'Ona Reed', role: 'clerk' }, { key: 'pim', name: 'Pim Sand', roles: ['clerk', 'master'] }];
    await client.query('insert into workspace (content) values ($1)', [{ title: 'Old', roles, people }]);
    await client.query("insert into form (name, definition) values ('old', '{}')");
    const code = 'const a =\nform.person.role === "clerk";\nconst b = form.person.roles_of;';
    await client.query("insert into release (form, number, content) values ('old', 1, $1)", [{ scripts: [{ code }] }]);
    await client.query("insert into filling (release, opening, clock) values (1, $1, 0)", [{ person: { key: 'ona', name: 'Ona Reed', role: 'clerk' } }]);
    await migrate(database, { migrationsFolder: 'drizzle' });
    const { rows } = await client.query<{ content: unknown }>('select content from workspace');
    expect(rows).toEqual([{ content: { title: 'Old', roles, people: [{ key: 'ona', name: 'Ona Reed', roles: ['clerk'] }, { key: 'pim', name: 'Pim Sand', roles: ['clerk', 'master'] }] } }]);
    expect((await client.query('select opening from filling')).rows).toEqual([{ opening: { person: { key: 'ona', name: 'Ona Reed', roles: ['clerk'] } } }]);
    const release = (await client.query<{ content: { scripts: { code: string }[] } }>('select content from release')).rows[0]!;
    expect(release.content.scripts[0]!.code).toBe('const a =\nform.person.roles[0] === "clerk";\nconst b = form.person.roles_of;');
  } finally {
    rmSync(before, { recursive: true, force: true });
    await client.end();
    await admin.query('drop database if exists tavro_roles');
    await admin.end();
  }
});
