/** The one way to save, against a model of it: whatever is saved and removed in whatever order, and by many at once. */
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import fc from 'fast-check';
import { sql } from 'drizzle-orm';
import { atOnce, database, MaybeSaved, transaction } from '../../src/server/database/database';
import { recordHistory } from '../../src/server/records/read';
import { removeRecord, saveRecord } from '../../src/server/records/save';
import { historyOf, removeDocument, saveDocument } from '../../src/server/revisions/documents';
import { freshDatabase } from './support';

let end: () => Promise<void>;
beforeAll(async () => void (end = await freshDatabase('tavro_saving')));
afterAll(() => end());

/** What a thing with revisions is, in the fewest words. */
class Model {
  history: (string | null)[] = [];
  get now() {
    return this.history.at(-1) ?? null;
  }
  save(content: string | null, from: number) {
    const revision = this.now === null ? 0 : this.history.length;
    if (content !== null && content === this.now) return { saved: true, revision };
    if (revision !== from || (content === null && this.now === null))
      return { saved: false, theirs: { content: this.now, revision } };
    this.history.push(content);
    return { saved: true, revision: this.history.length };
  }
}

/** The two sorts of things that are saved, each as one that holds a text. */
const SORTS = {
  document: (name: string) => ({
    save: (content: string, from: number) =>
      saveDocument({ kind: 'behaviour', form: 'vessel', name }, content, from, 'mira'),
    remove: (from: number) =>
      removeDocument({ kind: 'behaviour', form: 'vessel', name }, from, 'mira'),
    history: async () =>
      (await historyOf({ kind: 'behaviour', form: 'vessel', name })).map(({ content }) => content),
  }),
  record: (id: string) => {
    const plain = (came: Awaited<ReturnType<typeof saveRecord>>) =>
      came.saved
        ? came
        : { saved: false, theirs: { ...came.theirs, content: came.theirs.content?.name ?? null } };
    return {
      save: async (content: string, from: number) =>
        plain(await saveRecord({ form: 'vessel', id }, { name: content }, from, 'mira')),
      remove: async (from: number) =>
        plain(await removeRecord({ form: 'vessel', id }, from, 'mira')),
      history: async () =>
        (await recordHistory('vessel', id)).map(({ values }) => values?.name ?? null),
    };
  },
} as const;

describe.each(['document', 'record'] as const)('a %s', (sort) => {
  let made = 0;

  test('comes out as the rules say, whatever is saved and removed', async () => {
    const act = fc.record({
      content: fc.constantFrom('a', 'b', 'c', null),
      from: fc.integer({ min: -1, max: 1 }),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(act, { maxLength: 12 }), async (acts) => {
        const [model, real] = [new Model(), SORTS[sort](`p-${++made}`)];
        for (const { content, from: off } of acts) {
          // Mostly from the revision there is, at times from one that is not.
          const from = Math.max(0, (model.now === null ? 0 : model.history.length) + off);
          const came = content === null ? await real.remove(from) : await real.save(content, from);
          expect(came).toEqual(model.save(content, from));
        }
        expect((await real.history()).toReversed()).toEqual(model.history);
      }),
      { numRuns: 40 },
    );
  });

  test('that many save at once is saved by one of them, and the others are told by what', async () => {
    const real = SORTS[sort](`r-${++made}`);
    for (let from = 0; from < 5; from++) {
      const came = await Promise.all(
        Array.from({ length: 10 }, (_, i) => real.save(`${from} by ${i}`, from)),
      );
      const saved = came.flatMap((one, i) => (one.saved ? [`${from} by ${i}`] : []));
      expect(saved).toHaveLength(1);
      for (const one of came)
        if (!one.saved)
          expect(one).toMatchObject({ theirs: { content: saved[0], revision: from + 1 } });
    }
    expect(await real.history()).toHaveLength(5);
  });
});

describe('a connection that breaks while something is saved', () => {
  const broken = Object.assign(new Error('read ECONNRESET'), { code: 'ECONNRESET' });
  const refused = Object.assign(new Error('connect ECONNREFUSED'), { code: 'ECONNREFUSED' });

  test('has it done again, which finds what was saved', async () => {
    let tries = 0;
    const came = await atOnce(async () => {
      const { rows } = await database().execute(
        sql`select * from tavro_save('behaviour', 'vessel', 'broken.ts', '"x"', 0, 'mira', null)`,
      );
      if (++tries < 3) throw broken;
      return rows[0];
    });
    expect(came).toMatchObject({ saved: true, revision: 1 });
    expect(await historyOf({ kind: 'behaviour', form: 'vessel', name: 'broken.ts' })).toHaveLength(
      1,
    );
  });

  test('is no such thing when there was none: nothing was sent', async () => {
    let tries = 0;
    await expect(atOnce(() => (tries++, Promise.reject(refused)))).rejects.toBe(refused);
    expect(tries).toBe(1);
  });

  test('leaves open whether a transaction was saved that cannot be done again', async () => {
    await expect(
      transaction((tx) => tx.execute(sql`select pg_terminate_backend(pg_backend_pid())`)),
    ).rejects.not.toBeInstanceOf(MaybeSaved);
    const commit = database().transaction.bind(database());
    const on = database() as { transaction: unknown };
    on.transaction = async (work: Parameters<typeof commit>[0]) => {
      await commit(work);
      throw broken;
    };
    try {
      await expect(transaction(() => Promise.resolve())).rejects.toBeInstanceOf(MaybeSaved);
    } finally {
      delete on.transaction;
    }
  });
});
