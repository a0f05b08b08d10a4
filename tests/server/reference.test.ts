/** Editing what forms share, and structure that reaches beyond one form. Against a real PostgreSQL. */
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { Refusal } from '../../src/server/http/refusal';
import { readRecord } from '../../src/server/records/read';
import { readDocument } from '../../src/server/revisions/documents';
import { ownScript, saveScript } from '../../src/server/content/behaviours';
import { saveDefinition } from '../../src/server/content/forms';
import { readBehaviours, readForm, readHead, readScenarios } from '../../src/server/content/read';
import {
  HeadSchema,
  readService,
  readTable,
  removeService,
  removeTable,
  saveHead,
  saveService,
  saveTable,
} from '../../src/server/content/reference-data';
import { renamePart, whatUses } from '../../src/server/content/structure';
import { tryService } from '../../src/server/content/try-service';
import { workspaceProblems } from '../../src/server/content/problems';
import type { Service } from '../../src/core/form/service';
import { freshDatabase, revisionOf } from './support';

const BY = 'mira';
const dropTable = async (name: string) =>
  removeTable(name, await revisionOf({ kind: 'table', name }), BY);
const dropService = async (name: string) =>
  removeService(name, await revisionOf({ kind: 'service', name }), BY);

let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_reference_test');
});
afterAll(() => end());

const says = async (work: Promise<unknown>) =>
  work.then(
    () => 'nothing',
    (caught: unknown) => (caught instanceof Refusal ? caught.message : String(caught)),
  );

describe('tables', () => {
  test('are saved when nobody else was faster; otherwise the other one is given back', async () => {
    const { table, revision } = (await readTable('berths'))!;
    const changed = { ...table, title: 'All berths' };
    expect(await saveTable(changed, revision, BY)).toEqual({ saved: true, revision: revision + 1 });
    expect(await saveTable(table, revision, BY)).toMatchObject({
      saved: false,
      theirs: { content: { title: 'All berths' }, revision: revision + 1 },
    });
    expect(await saveTable({ ...table, name: 'quays' }, 0, BY)).toEqual({
      saved: true,
      revision: 1,
    });
  });

  test('have a key in every row, each once', async () => {
    const { table, revision } = (await readTable('quays'))!;
    expect(
      await says(saveTable({ ...table, rows: [...table.rows, table.rows[0]!] }, revision, BY)),
    ).toContain('is there twice');
    expect(await says(saveTable({ ...table, rows: [{ name: 'x' }] }, revision, BY))).toBe(
      'Row 1 has no key (code).',
    );
    expect(await says(saveTable({ ...table, key: 'nothing' }, revision, BY))).toContain(
      'There is no column "nothing"',
    );
  });

  test('are removed only when nothing refers to them', async () => {
    expect(await says(dropTable('berths'))).toMatch(/refers to this table/);
    expect(await says(dropTable('ships'))).toBe(
      'The service Ship register answers from this table.',
    );
    expect(await says(dropTable('waste_tariffs'))).toBe(
      'The behaviour 30-fee.ts of waste_declaration uses this table.',
    );
    await dropTable('quays');
    expect(await readTable('quays')).toBeNull();
  });
});

describe('services and people', () => {
  test('a service answers from what there is, and is removed only when nobody calls it', async () => {
    const { service, revision } = (await readService('ship_register'))!;
    expect(await saveService({ ...service, fails: 'closed' }, revision, BY)).toMatchObject({
      saved: true,
    });
    expect(await saveService(service, revision, BY)).toMatchObject({
      saved: false,
      theirs: { content: { fails: 'closed' } },
    });
    const find = service.functions.find!;
    expect(
      await says(
        saveService(
          {
            ...service,
            functions: {
              find: { ...find, answers: { from: 'table', table: 'boats', where: { imo: 'imo' } } },
            },
          },
          revision + 1,
          BY,
        ),
      ),
    ).toContain('which there is not');
    expect(
      await says(
        saveService(
          {
            ...service,
            functions: {
              find: {
                ...find,
                answers: { from: 'table', table: 'ships', where: { number: 'imo' } },
              },
            },
          },
          revision + 1,
          BY,
        ),
      ),
    ).toContain('has no column "number"');
    expect(await says(dropService('ship_register'))).toBe(
      'The behaviour 10-register.ts of vessel calls this service.',
    );
    expect(await says(dropService('tide_gauge'))).toBe(
      'The behaviour 40-safety.ts of works_permit calls this service.',
    );
    await saveService({ ...service, name: 'spare_register' }, 0, BY);
    await dropService('spare_register');
    expect(await readService('spare_register')).toBeNull();
  });

  test('people have roles that there are', async () => {
    const { revision, ...head } = await readHead();
    expect(
      HeadSchema.safeParse({ ...head, people: [{ key: 'x', name: 'X', roles: ['pilot'] }] }).error!
        .issues[0]!.message,
    ).toBe('X has the role "pilot", which there is not');
    expect(
      HeadSchema.safeParse({ ...head, people: [...head.people, head.people[0]!] }).success,
    ).toBe(false);
    expect(await saveHead({ ...head, title: 'Office' }, revision, BY)).toMatchObject({
      saved: true,
    });
    expect(await saveHead(head, revision, BY)).toMatchObject({
      saved: false,
      theirs: { content: { title: 'Office' } },
    });
  });
});

describe('structure', () => {
  test('a definition saved from an older revision gives the other one back', async () => {
    const { content: form, revision } = (await readDocument({ kind: 'form', name: 'vessel' }))!;
    expect(await saveDefinition({ ...form, title: 'Vessels' }, revision, BY)).toEqual({
      saved: true,
      revision: revision + 1,
    });
    expect(await saveDefinition(form, revision, BY)).toMatchObject({
      saved: false,
      theirs: { content: { title: 'Vessels' } },
    });
  });

  test('renaming is planned without changing anything, and taken over everywhere at once', async () => {
    const planned = await renamePart(
      'crew_change',
      { part: 'people_rows.movement', key: null, to: 'moves' },
      false,
      BY,
    );
    expect([
      planned.applied,
      planned.records.count,
      planned.plan.behaviours.map(({ name }) => name),
      planned.plan.scenarios.length,
    ]).toEqual([false, 1, ['10-flags.ts', '30-numbers.ts'], 4]);
    expect((await readBehaviours('crew_change'))[0]!.revision).toBe(1);
    await renamePart(
      'crew_change',
      { part: 'people_rows.movement', key: null, to: 'moves' },
      true,
      BY,
    );
    const [flags] = await readBehaviours('crew_change');
    expect([flags!.revision, flags!.text.includes('row.fields.moves.row')]).toEqual([2, true]);
    expect(JSON.stringify(await readForm('crew_change'))).toContain('"name":"moves"');
    expect(JSON.stringify(await readScenarios('crew_change'))).not.toContain('.movement');
    expect((await readRecord('crew_change', '1'))!.values.people_rows).toMatchObject([
      { moves: 'sign_off' },
      { moves: 'sign_on' },
    ]);
  });

  test('what is saved between looking and doing is renamed too, and what is saved while it is done is not overwritten', async () => {
    const planned = await renamePart(
      'vessel',
      { part: 'call_sign', key: null, to: 'sign' },
      false,
      BY,
    );
    expect(planned.plan.behaviours.map(({ name }) => name)).toEqual(['10-register.ts']);
    const visits = (await readBehaviours('vessel')).find(({ name }) => name === '20-visits.ts')!;
    await saveScript(
      ownScript('vessel', visits.name),
      `${visits.text}\nkeep("x", () => log(fields.call_sign.value));\n`,
      visits.revision,
      BY,
    );
    let saves = 0;
    const people = (async () => {
      for (let i = 0; i < 12; i++) {
        const now = (await readBehaviours('vessel')).find(({ name }) => name === '30-measures.ts')!;
        if (
          (
            await saveScript(
              ownScript('vessel', now.name),
              `${now.text}\n// ${i} call_sign`,
              now.revision,
              BY,
            )
          ).saved
        )
          saves++;
        await new Promise((resolve) => setTimeout(resolve, 60));
      }
    })();
    // Either all of it is renamed, or nothing is and that is said.
    for (;;) {
      const said = await says(
        renamePart('vessel', { part: 'call_sign', key: null, to: 'sign' }, true, BY),
      );
      if (said === 'nothing') break;
      expect(said).toMatch(/^Somebody saved .* Nothing was changed/);
    }
    await people;
    const after = await readBehaviours('vessel');
    expect(after.find(({ name }) => name === '20-visits.ts')!.text).toContain(
      'log(fields.sign.value)',
    );
    expect(
      after.find(({ name }) => name === '30-measures.ts')!.text.match(/\/\/ \d+ call_sign/g),
    ).toHaveLength(saves);
    expect(
      (await readForm('vessel'))!.pages[0]!.sections[0]!.fields.map(({ name }) => name),
    ).toContain('sign');
  });

  test('what cannot be renamed is refused in words', async () => {
    expect(
      await says(renamePart('vessel', { part: 'imo', key: null, to: 'name' }, false, BY)),
    ).toContain('already names a part');
    expect(
      await says(renamePart('nowhere', { part: 'imo', key: null, to: 'x' }, false, BY)),
    ).toContain('has no part');
  });

  test('what uses an option key says texts, scenarios and records', async () => {
    expect(await whatUses('waste_declaration', 'wastes', 'bilge')).toMatchObject({
      records: { count: 1, more: false },
      mentions: [{ behaviour: '10-kinds.ts', line: 3 }],
      scenarios: [],
    });
    expect(await says(whatUses('nowhere', 'x', null))).toBe('There is no form "nowhere".');
  });
});

describe('a service tried on its page', () => {
  const answering = (script: string, more: Partial<Service> = {}): Service => ({
    name: 'gauge',
    title: 'Gauge',
    functions: {
      level: {
        parameters: [{ name: 'day', kind: 'date' }],
        answers: { from: 'script', script, gives: 'unknown' },
      },
    },
    ...more,
  });
  const day = { day: '2031-05-02' };

  test('answers what its script, or its table, gives', async () => {
    expect(await tryService(answering('return { day, deep: true };'), 'level', day)).toEqual({
      answers: { day: '2031-05-02', deep: true },
    });
    // A test before it has closed the register.
    const { fails: _, ...service } = (await readService('ship_register'))!.service;
    const [called] = Object.keys(service.functions);
    const { parameters } = service.functions[called!]!;
    expect(
      await tryService(
        service,
        called!,
        Object.fromEntries(parameters.map(({ name }) => [name, 'x'])),
      ),
    ).toEqual({ answers: null });
  });

  test('says why it fails: by definition, by an error, by work without an end', async () => {
    expect(
      await tryService(answering('return 1;', { fails: 'closed today' }), 'level', day),
    ).toEqual({ fails: expect.stringContaining('closed today') });
    expect(await tryService(answering('return nowhere.day;'), 'level', day)).toEqual({
      fails: expect.stringContaining('failed in line 1'),
    });
    expect(await tryService(answering('while (true);'), 'level', day)).toMatchObject({
      fails: expect.any(String),
    });
    // One that gets at how things are spelled fools nobody but itself, and the next one is served.
    expect(
      await tryService(
        answering('JSON.stringify = () => "{"; String.prototype.slice = () => "x"; return 1;'),
        'level',
        day,
      ),
    ).toSatisfy((came: object) => 'answers' in came || 'fails' in came);
    expect(await tryService(answering('return 2;'), 'level', day)).toEqual({ answers: 2 });
  });

  test('a wrong script is a problem of the workspace', async () => {
    expect(await saveService(answering('return day * 2;'), 0, BY)).toMatchObject({ saved: true });
    let checking = await workspaceProblems(60_000);
    for (; !checking.over; checking = await workspaceProblems(60_000));
    expect(checking.problems.filter(({ at }) => at.is === 'service')).toMatchObject([
      { form: '', at: { service: 'gauge', called: 'level', line: 1 }, severity: 'error' },
    ]);
    await dropService('gauge');
  });
});
