/** Stored data from before, brought up to date: nothing of it is lost. */
import { createHash } from 'node:crypto';
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

/** Fills a database as it was before a migration, brings it up to date, and looks at it. */
async function migrated(
  tag: string,
  fill: (client: Client) => Promise<void>,
  look: (client: Client) => Promise<void>,
): Promise<void> {
  const name = `tavro_${tag}`;
  const url = new URL(process.env.DATABASE_URL!);
  const admin = new Client({ connectionString: url.href });
  await admin.connect();
  await admin.query(`drop database if exists "${name}"`);
  await admin.query(`create database "${name}"`);
  url.pathname = `/${name}`;
  const client = new Client({ connectionString: url.href });
  await client.connect();
  const before = migrationsBefore(tag);
  try {
    await migrate(drizzle(client), { migrationsFolder: before });
    await fill(client);
    await migrate(drizzle(client), { migrationsFolder: 'drizzle' });
    await look(client);
  } finally {
    rmSync(before, { recursive: true, force: true });
    await client.end();
    await admin.query(`drop database if exists "${name}"`);
    await admin.end();
  }
}

test('0002: the one role of a person becomes the first of a list, in the workspace, in what was handed out and in what a release reads; all else stays as it is', async () => {
  const roles = [
    { key: 'clerk', label: 'Clerk' },
    { key: 'master', label: 'Master' },
  ];
  const people = [
    { key: 'ona', name: 'Ona Reed', role: 'clerk' },
    { key: 'pim', name: 'Pim Sand', roles: ['clerk', 'master'] },
  ];
  const code = 'const a =\nform.person.role === "clerk";\nconst b = form.person.roles_of;';
  await migrated(
    '0002_roles',
    async (client) => {
      await client.query('insert into workspace (content) values ($1)', [
        { title: 'Old', roles, people },
      ]);
      await client.query("insert into form (name, definition) values ('old', '{}')");
      await client.query("insert into release (form, number, content) values ('old', 1, $1)", [
        { scripts: [{ code }] },
      ]);
      await client.query('insert into filling (release, opening, clock) values (1, $1, 0)', [
        { person: { key: 'ona', name: 'Ona Reed', role: 'clerk' } },
      ]);
    },
    async (client) => {
      const { rows } = await client.query<{ content: unknown }>(
        "select content from document where kind = 'head'",
      );
      expect(rows).toEqual([
        {
          content: {
            title: 'Old',
            roles,
            people: [
              { key: 'ona', name: 'Ona Reed', roles: ['clerk'] },
              { key: 'pim', name: 'Pim Sand', roles: ['clerk', 'master'] },
            ],
          },
        },
      ]);
      expect((await client.query('select opening from filling')).rows).toEqual([
        { opening: { person: { key: 'ona', name: 'Ona Reed', roles: ['clerk'] } } },
      ]);
      const release = (
        await client.query<{ content: { scripts: { code: string }[] } }>(
          'select content from release',
        )
      ).rows[0]!;
      expect(release.content.scripts[0]!.code).toBe(
        'const a =\nform.person.roles[0] === "clerk";\nconst b = form.person.roles_of;',
      );
    },
  );
});

test('0003: everything gets a home with revisions: those there are are kept, deleted behaviours with theirs, and files get their digest', async () => {
  await migrated(
    '0003_documents',
    async (client) => {
      await client.query('insert into workspace (content, revision) values ($1, 4)', [
        { title: 'Old' },
      ]);
      await client.query(
        'insert into form (name, definition, revision) values (\'visit\', \'{"name": "visit"}\', 3)',
      );
      await client.query("insert into scenario values ('visit', 'one', '{\"title\": \"One\"}')");
      await client.query("insert into reference_table values ('berths', '{\"rows\": []}', 2)");
      await client.query("insert into service values ('tide', '{}', 5)");
      await client.query("insert into behaviour values ('visit', '10-a.ts', 'second', 2)");
      await client.query(
        "insert into behaviour_revision (form, name, revision, text) values ('visit', '10-a.ts', 1, 'first'), ('visit', '10-a.ts', 2, 'second'), ('visit', '20-gone.ts', 1, 'gone')",
      );
      await client.query(
        `insert into record (form, id, "values", revision, saved_by) values ('visit', '7', '{"vessel": "Aurelle", "length": 42.5}', 2, 'ona'), ('visit', 'v-1', '{}', 1, 'ona')`,
      );
      await client.query("insert into release (form, number, content) values ('visit', 1, '{}')");
      await client.query(
        "insert into filling (id, release, opening, clock) values ('6f6c0d7e-7c1b-4b0e-8a53-2f3c1d9e0a11', 1, '{}', 0)",
      );
      await client.query(
        "insert into file_content (filling, name, size, type, content, form, record) values ('6f6c0d7e-7c1b-4b0e-8a53-2f3c1d9e0a11', 'plan.pdf', 6, '', 'a plan', 'visit', '7')",
      );
    },
    async (client) => {
      const all = async (query: string) =>
        (await client.query({ text: query, rowMode: 'array' })).rows as unknown[][];
      expect(
        await all('select kind, form, name, revision from document order by kind, name'),
      ).toEqual([
        ['behaviour', 'visit', '10-a.ts', 2],
        ['behaviour', 'visit', '20-gone.ts', 2],
        ['form', '', 'visit', 3],
        ['head', '', 'head', 4],
        ['scenario', 'visit', 'one', 1],
        ['service', '', 'tide', 5],
        ['table', '', 'berths', 2],
      ]);
      expect(
        await all(
          "select d.name, r.number, r.content from revision r join document d on d.id = r.document where d.kind = 'behaviour' order by d.name, r.number",
        ),
      ).toEqual([
        ['10-a.ts', 1, 'first'],
        ['10-a.ts', 2, 'second'],
        ['20-gone.ts', 1, 'gone'],
        ['20-gone.ts', 2, null],
      ]);
      expect(await all('select place, words from record order by id')).toEqual([
        ['-7', expect.stringContaining('aurelle')],
        ['1', ''],
      ]);
      expect(await all('select id, number, saved_by from record_revision order by id')).toEqual([
        ['7', 2, 'ona'],
        ['v-1', 1, 'ona'],
      ]);
      expect(await all('select digest from file_content')).toEqual([
        [createHash('sha256').update('a plan').digest('hex')],
      ]);
    },
  );
});

test('0008: which entry a refused step was is left out of what scenarios expect; all else stays as it is', async () => {
  const steps = [
    { set: 'note', to: 'x' },
    {
      expect: {
        '@refused': [{ step: 0, why: 'locked' }, { why: 'hidden' }],
        note: { value: null },
      },
    },
    { expect: { '@refused': [] } },
    { submit: true },
  ];
  const other = {
    title: 'Other',
    open: { as: 'ona' },
    steps: [{ expect: { note: { locked: true } } }],
  };
  await migrated(
    '0008_refused_steps',
    async (client) => {
      for (const [name, content] of [
        ['one', { title: 'One', open: { as: 'ona' }, steps }],
        ['other', other],
      ] as const)
        await client.query("select * from tavro_save('scenario', 'visit', $1, $2, 0, null, null)", [
          name,
          content,
        ]);
    },
    async (client) => {
      const { rows } = await client.query<{ content: unknown }>(
        "select content from document where kind = 'scenario' order by name",
      );
      expect(rows.map(({ content }) => content)).toEqual([
        {
          title: 'One',
          open: { as: 'ona' },
          steps: [
            steps[0],
            {
              expect: { '@refused': [{ why: 'locked' }, { why: 'hidden' }], note: { value: null } },
            },
            steps[2],
            steps[3],
          ],
        },
        other,
      ]);
    },
  );
});
