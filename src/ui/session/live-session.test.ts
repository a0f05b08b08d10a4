/** A live session over a real engine, whose worker runs here. */
import { afterEach, expect, test, vi } from 'vitest';
import { page, section, text } from '../../../tests/support/forms';
import { materialFor, openingOf } from '../../../tests/support/hosts';
import { CannotStart, TookTooLong } from '@/core/sandbox/cut-short';
import { Engine } from '@/core/sandbox/engine';
import type { Request } from '@/core/sandbox/protocol';
import { serve } from '@/core/sandbox/serve';
import type { Opening } from '@/core/session/step';
import { LiveSession, type SessionOptions } from './live-session';

const FORM = {
  name: 'crossing',
  title: 'Crossing',
  pages: [page('main', [section('stay', [text('vessel'), text('master', { hidden: true })])])],
};
const source = (greeting: string) =>
  materialFor(
    {
      form: FORM,
      scripts: {
        greets: `on.load(() => form.message("${greeting}"));
on.saved((event) => form.message("saved as " + event.id));
on.change(fields.vessel, async () => { await after(2000); form.message("later"); });`,
      },
    },
    true,
  );

/** What was asked of the worker, and what it waits for before it does that. */
let asked: Request['do'][] = [];
let before: (message: Request) => Promise<void> = () => Promise.resolve();

function engine(): Engine {
  return new Engine(() => {
    let hear: (message: unknown) => void = () => undefined;
    const handle = serve((message) => hear(message));
    return {
      post(message) {
        asked.push(message.do);
        void before(message).then(() => handle(structuredClone(message)));
      },
      onMessage: (listener) => (hear = listener),
      onLost: () => undefined,
      end: () => (hear = () => undefined),
    };
  });
}

const sessions: LiveSession<Opening>[] = [];

async function live(options: Partial<SessionOptions<Opening>> = {}): Promise<LiveSession<Opening>> {
  const session = new LiveSession<Opening>({
    engine,
    material: () => source('Welcome'),
    openingOf: (open) => open,
    open: { ...openingOf({ form: FORM }), newId: '' },
    time: 'steps',
    keepsRefused: true,
    ...options,
  });
  sessions.push(session);
  await session.begin();
  return session;
}

const set = (to: string) => ({ set: 'vessel', to });
const messages = ({ state }: LiveSession<Opening>) =>
  state.answers.flatMap((answer) => answer.messages.map(({ text: says }) => says));

afterEach(() => {
  for (const session of sessions.splice(0)) session.end();
  asked = [];
  before = () => Promise.resolve();
  vi.useRealTimers();
});

test('the id of a new record is told without doing anything again', async () => {
  const session = await live();
  await session.step(set('Tern'));
  asked = [];
  await session.identify('A-17');
  const answer = await session.step({ submit: true });
  expect(answer!.record).toBe('A-17');
  expect(messages(session)).toContain('saved as A-17');
  expect(asked).toEqual(['identify', 'step']);
});

test('an id that was told is known after all was done again', async () => {
  const session = await live();
  await session.identify('A-17');
  await session.step({ submit: true });
  await session.replay();
  expect(session.state.answers.at(-1)!.record).toBe('A-17');
  await session.undo();
  expect((await session.step({ submit: true }))!.record).toBe('A-17');
  await session.show(session.state.open);
  expect((await session.step({ submit: true }))!.record).toBe('');
});

test('steps are taken back, done again and gone on from', async () => {
  const session = await live();
  for (const name of ['Tern', 'Gull', 'Skua']) await session.step(set(name));
  await session.undo();
  expect(session.state.steps).toEqual([set('Tern'), set('Gull')]);
  expect(session.state.answers.at(-1)!.changes.vessel?.value).toBe('Gull');
  const dropped = await session.goOnFrom(1);
  expect(dropped).toEqual([set('Gull')]);
  expect([session.state.at, session.state.answers.length]).toEqual([1, 2]);
  await session.add(dropped);
  expect(session.state.steps).toEqual([set('Tern'), set('Gull')]);
  expect(session.state.at).toBe(2);
});

test('a step that is refused stays where it is to be seen, and is none elsewhere', async () => {
  const unseen = { set: 'master', to: 'Ann' };
  const bench = await live();
  expect((await bench.step(unseen))!.refused).not.toBeNull();
  expect([bench.state.steps.length, bench.state.answers.length]).toEqual([1, 2]);
  const page = await live({ keepsRefused: false });
  const both = [page.step(unseen), page.step(set('Tern'))];
  expect((await Promise.all(both)).map((answer) => answer!.refused === null)).toEqual([
    false,
    true,
  ]);
  expect([page.state.steps, page.state.answers.length]).toEqual([[set('Tern')], 2]);
  expect(page.done).toEqual([set('Tern')]);
});

test('while the past is looked at nothing is done', async () => {
  const session = await live();
  await session.step(set('Tern'));
  session.lookAt(0);
  expect(await session.step(set('Gull'))).toBeNull();
  expect(session.state.steps).toEqual([set('Tern')]);
  session.lookAt(99);
  expect(session.state.at).toBe(1);
});

test('a step done while all is done again is answered by what runs then', async () => {
  let greeting = 'Welcome';
  const session = await live({ material: () => source(greeting) });
  greeting = 'Ahoy';
  let go = () => undefined as void;
  const waits = new Promise<void>((resolve) => (go = resolve));
  before = (message) => (message.do === 'load' ? waits : Promise.resolve());
  const replaying = session.replay();
  const stepping = session.step(set('Tern'));
  go();
  await Promise.all([replaying, stepping]);
  expect(session.state.answers).toHaveLength(2);
  expect(messages(session)[0]).toBe('Ahoy');
  expect(session.state.busy).toBe(false);
});

test('an outcome that is the same draws nothing again', async () => {
  const session = await live();
  const { answers } = session.state;
  await session.replay();
  expect(session.state.answers).toBe(answers);
});

test('time passes in steps of its own, or for real', async () => {
  const bench = await live();
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  // The engine looks at the clock while it is asked; it is not what is tested.
  const run = async (session: LiveSession<Opening>) => {
    const done = session.step(set('Tern'));
    await vi.advanceTimersByTimeAsync(50);
    await done;
    await vi.advanceTimersByTimeAsync(2100);
    await vi.waitFor(() => expect(messages(session)).toContain('later'));
  };
  await run(bench);
  expect(bench.state.steps).toEqual([set('Tern'), { wait: 2000 }]);
});

test('each step of a session in real time says when it was done', async () => {
  const session = await live({ time: 'real' });
  await session.step(set('Tern'));
  const [step] = session.state.steps;
  expect(step).toEqual({ ...set('Tern'), at: expect.any(Number) as number });
  expect(step!.at).toBeLessThan(60_000);
});

test.each([
  ['cannot start', () => new CannotStart('gone')],
  ['took too long', () => new TookTooLong()],
])('what the engine says when it %s is waited out until it is tried again', async (_, why) => {
  const made = engine();
  let fails = true;
  vi.spyOn(made, 'loadAndPlay').mockImplementation((...of) =>
    fails ? Promise.reject(why()) : Engine.prototype.loadAndPlay.apply(made, of),
  );
  vi.useFakeTimers({ toFake: ['setTimeout'] });
  const session = new LiveSession<Opening>({
    engine: () => made,
    material: () => source('Welcome'),
    openingOf: (open) => open,
    open: openingOf({ form: FORM }),
    time: 'steps',
    keepsRefused: true,
  });
  sessions.push(session);
  const begun = session.begin();
  await vi.advanceTimersByTimeAsync(60_000);
  expect(session.state.cannotStart).toBe(true);
  vi.useRealTimers();
  fails = false;
  session.tryAgain();
  await begun;
  expect(session.state.cannotStart).toBe(false);
  expect(messages(session)).toEqual(['Welcome']);
});

test('a session that is ended gives up what it was doing', async () => {
  const session = await live();
  before = () => new Promise(() => undefined);
  const stepping = session.step(set('Tern'));
  session.end();
  expect(await stepping).toBeNull();
});

test('one that follows another has no time of its own: what is waited for comes when the other says so', async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  const session = await live({ time: 'followed' });
  await session.step(set('Tern'));
  await vi.advanceTimersByTimeAsync(5000);
  expect(session.state.steps).toHaveLength(1);
  await session.step({ wait: 2001 });
  expect(messages(session)).toContain('later');
});
