/** What an engine does when its worker cannot start, is lost or silent: the worker's half runs here, and is so at will. */
import { afterEach, describe, expect, test } from 'vitest';
import { formWith, number, text } from '../../../tests/support/forms';
import { materialFor, openingOf } from '../../../tests/support/hosts';
import { Engine, type Port } from './engine';
import { CannotStart, TookTooLong } from './cut-short';
import { serve } from './serve';
import { TICK, WorkingTime } from './working-time';

const form = formWith([text('note'), number('changes')]);
const material = materialFor(
  {
    form,
    scripts: {
      a: 'on.change(fields.note, () => { fields.changes.value = (fields.changes.value ?? 0) + 1; });',
    },
  },
  false,
);
const opening = openingOf({ form });

/** The workers started so far, each until it is lost. */
let started: { lose: () => void }[];
/** How many of the next workers find no code. */
let without: number;
let engine: Engine;

function spawn(): Port {
  let hear: (message: unknown) => void = () => undefined;
  let lost: (why: unknown) => void = () => undefined;
  let gone = false;
  const handle = serve((message) => {
    if (!gone) hear(structuredClone(message));
  });
  const lose = () => {
    gone = true;
    lost(new Error('no code'));
  };
  started.push({ lose });
  if (without-- > 0) setTimeout(lose, 5);
  return {
    post: (message) => void (gone || without >= 0 || handle(structuredClone(message))),
    onMessage: (listener) => void (hear = listener),
    onLost: (listener) => void (lost = listener),
    end: () => void (gone = true),
  };
}

function begun(missing = 0): Engine {
  started = [];
  without = missing;
  engine = new Engine(spawn);
  return engine;
}

afterEach(() => engine.close());

/** What a worker does with what it is asked: answers it, or is silent in it. */
type Does = 'answers' | 'is silent' | 'answers late';

/**
 * An engine whose workers do as they are told, one after the other, each request of `play` or `step`; `uses` is the
 * processor time in milliseconds that one says it has used since it was asked last, while it is silent in something.
 */
function told(
  does: Does[],
  uses: number,
  { unheard = 120_000, whileItAnswers = false } = {},
): { engine: Engine; watched: () => number } {
  let watched = 0;
  engine = new Engine(
    () => {
      let used = 0;
      // What it does honestly counts for nothing, however long a busy machine takes over it.
      let works = false;
      let hear: (message: unknown) => void = () => undefined;
      const handle = serve((message) => hear(structuredClone(message)));
      return {
        post: (message) => {
          if (message.do === 'load') watched += message.watched ? 1 : 0;
          const now = message.do === 'load' ? 'answers' : (does.shift() ?? 'answers');
          works = now === 'is silent' || (whileItAnswers && message.do !== 'load');
          if (now === 'answers') void handle(structuredClone(message));
          if (now === 'answers late') setTimeout(() => void handle(structuredClone(message)), LATE);
        },
        onMessage: (listener) => void (hear = listener),
        onLost: () => undefined,
        end: () => void (hear = () => undefined),
        used: () => (used += works ? uses : 0),
      };
    },
    { silence: 40, step: 400, unheard },
  );
  return { engine, watched: () => watched };
}
/** Many times the patience for silence. */
const LATE = 800;

describe('a busy machine', () => {
  test('a worker that got no processor time is waited for, whatever the clock says', async () => {
    const { watched } = told(['answers late', 'answers late'], 0);
    await engine.load(material);
    await engine.play(opening, []);
    const answer = await engine.step({ set: 'note', to: 'Tern' });
    expect(answer.changes.changes).toEqual({ value: 1 });
    expect([engine.stuck, watched()]).toEqual([[], 0]);
  });

  test('one that was silent and comes through alone is held against nobody', async () => {
    const { watched } = told(['answers', 'is silent', 'answers', 'answers'], 20);
    await engine.load(material);
    await engine.play(opening, []);
    const answer = await engine.step({ set: 'note', to: 'Tern' });
    expect(answer.changes.changes).toEqual({ value: 1 });
    expect([engine.stuck, watched()]).toEqual([[], 1]);
    // The session goes on as if nothing had been.
    expect((await engine.step({ set: 'note', to: 'Gull' })).changes.changes).toEqual({ value: 2 });
  });

  test('one that is silent again and again, but not while it is watched, is given up without blame', async () => {
    const again = ['is silent', 'answers'] as const;
    told(['answers', ...again, ...again, ...again, ...again], 20);
    await engine.load(material);
    await engine.play(opening, []);
    await expect(engine.step({ set: 'note', to: 'Tern' })).rejects.toThrow(TookTooLong);
    expect(engine.stuck).toEqual([]);
    // What was refused was not done, and the next step is.
    const next = await engine.step({ set: 'note', to: 'Gull' });
    expect(next.changes.changes).toEqual({ value: 1 });
  });

  test('a worker that is never heard of and never works is given up in the end, and nobody is blamed', async () => {
    told(['answers', 'is silent'], 0, { unheard: 2500 });
    await engine.load(material);
    await engine.play(opening, []);
    await expect(engine.step({ set: 'note', to: 'Tern' })).rejects.toThrow(TookTooLong);
    expect(engine.stuck).toEqual([]);
    const next = await engine.step({ set: 'note', to: 'Gull' });
    expect(next.changes.changes).toEqual({ value: 1 });
  });

  test('what a worker has said already is heard before anything is decided', async () => {
    const { watched } = told([], 10_000, { whileItAnswers: true });
    await engine.load(material);
    // The answers are there while this thread is kept busy, and its timer is long due.
    const playing = engine.play(opening, []);
    await Promise.resolve();
    const until = Date.now() + 400;
    while (Date.now() < until);
    await playing;
    expect([engine.stuck, watched()]).toEqual([[], 0]);
  });

  test('with nothing but a clock, only time counts in which the one who watches was on time', () => {
    let now = 0;
    const working = new WorkingTime(
      () => null,
      () => now,
    );
    for (let i = 0; i < 10; i++) {
      now += TICK;
      working.look();
    }
    expect(working.look()).toBe(10 * TICK);
    // Kept waiting itself for a minute, it counts no more than two looks.
    now += 60_000;
    expect(working.look()).toBe(12 * TICK);
  });

  test('a worker that says late what it has used is not charged for what was before', () => {
    let used: number | null = null;
    const working = new WorkingTime(
      () => used,
      () => 0,
    );
    used = 5000;
    expect(working.look()).toBe(0);
    used = 5300;
    expect(working.look()).toBe(300);
  });
});

test('a worker that finds no code is told apart from a script that got stuck, at once', async () => {
  await expect(begun(1).load(material)).rejects.toThrow(CannotStart);
  expect(engine.stuck).toEqual([]);
  // Asked again, it starts another.
  await engine.load(material);
  const [, answer] = await engine.play(opening, [{ set: 'note', to: 'Tern' }]);
  expect(answer!.changes.changes).toEqual({ value: 1 });
  expect(started).toHaveLength(2);
});

test('a worker that is lost between two steps is replaced, with all that was done', async () => {
  await begun().load(material);
  await engine.play(opening, [{ set: 'note', to: 'Tern' }]);
  started[0]!.lose();
  const answer = await engine.step({ submit: true });
  expect(answer.submit).toMatchObject({ saved: true, values: { note: 'Tern', changes: 1 } });
  expect(engine.stuck).toEqual([]);
});

test('a worker that is lost during a step is replaced, and the step is answered', async () => {
  await begun().load(material);
  await engine.play(opening, []);
  const answer = engine.step({ set: 'note', to: 'Tern' });
  await Promise.resolve();
  started[0]!.lose();
  expect((await answer).changes.changes).toEqual({ value: 1 });
  expect(engine.stuck).toEqual([]);
});

test('one that is lost while the next cannot start refuses what was asked, and keeps the session', async () => {
  await begun().load(material);
  await engine.play(opening, [{ set: 'note', to: 'Tern' }]);
  without = 1;
  const answer = engine.step({ set: 'note', to: 'Gull' });
  await Promise.resolve();
  started[0]!.lose();
  await expect(answer).rejects.toThrow(CannotStart);
  // What was refused was not done.
  const again = await engine.step({ set: 'note', to: 'Aurelle' });
  expect(again.changes.changes).toEqual({ value: 2 });
});
