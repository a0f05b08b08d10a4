/** What an engine does when its worker cannot start or is lost: the worker's half runs here, and is lost at will. */
import { afterEach, expect, test } from 'vitest';
import { formWith, number, text } from '../../../tests/support/forms';
import { materialFor, openingOf } from '../../../tests/support/hosts';
import { CannotStart, Engine, type Port } from './engine';
import { serve } from './serve';

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
