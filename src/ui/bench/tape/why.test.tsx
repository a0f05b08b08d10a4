/** Why a part is as it is, asked over a real session on a bench. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf, type BenchOptions } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { formWith, page, section, text } from '../../../../tests/support/forms';
import { seenAt } from '@/core/scenario/seen';
import { Tape } from '@/core/tape/tape';
import { namesFor } from '@/core/tape/words';
import { useRoom } from '../../use-room';
import type { Bench } from '../create-bench';
import { WhyPane } from './why';

afterEach(() => vi.unstubAllGlobals());

const FORM = {
  ...formWith([]),
  pages: [
    page('main', [
      section('stay', [text('vessel'), text('master'), text('note')]),
      section('more', [text('licence')]),
    ]),
  ],
};
const SCRIPT = `keep("who signs", () => {
  fields.master.required = fields.vessel.value === "Tern";
  fields.master.hint = fields.vessel.value === "Auk" ? "Ask them." : null;
});
keep("permits", () => { sections.more.shown = fields.vessel.value === "Tern"; });`;

function Why({ bench }: { bench: Bench }) {
  const { answers, at } = useRoom(bench.form.session, (state) => ({
    answers: state.answers,
    at: state.at,
  }));
  return (
    <WhyPane
      bench={bench}
      form={FORM}
      seen={seenAt(answers, at)!}
      tape={new Tape(answers.flatMap(({ tape }) => tape))}
      names={namesFor(FORM, [{ name: '10-a.ts', title: 'Signing' }], [])}
      who="Mira"
    />
  );
}

async function whyOf(vessel: string, answers?: BenchOptions['answers']) {
  const { bench, sent } = benchOf({
    form: FORM,
    behaviours: { '10-a.ts': SCRIPT },
    ...(answers === undefined ? {} : { answers }),
  });
  await bench.form.begin();
  await bench.form.step({ set: 'vessel', to: vessel });
  drawn(<Why bench={bench} />);
  return {
    bench,
    sent,
    async ask(part: string, aspect: string) {
      bench.tape.ask(part, aspect);
      await screen.findByText('Why not otherwise?');
    },
    says: () => document.body.textContent,
  };
}

test('before anything is asked it says how to ask', async () => {
  await whyOf('Tern');
  expect(screen.getByText(/Ask about any part/)).toBeTruthy();
});

test('the line that decided is named, leads there, and what it read can be asked in turn', async () => {
  const { bench, ask, says } = await whyOf('Tern');
  await ask('master', 'required');
  expect(says()).toContain('Why is Master required?');
  expect(says()).toContain('who signs');
  fireEvent.click(screen.getByRole('button', { name: /line 2/ }));
  expect(bench.code.store.getState().active).toBe('10-a.ts');
  expect(screen.queryByText('‹ back')).toBeNull();
  fireEvent.click(screen.getAllByRole('button', { name: /Vessel/ })[0]!);
  await waitFor(() => expect(says()).toContain('Why is Vessel'));
  fireEvent.click(screen.getByText('‹ back'));
  await waitFor(() => expect(says()).toContain('Why is Master required?'));
});

test('another aspect of the part is asked from a list', async () => {
  const { bench, ask, says } = await whyOf('Auk');
  await ask('master', 'required');
  const list = screen.getByLabelText<HTMLSelectElement>('Which aspect');
  expect(list.value).toBe('required');
  fireEvent.change(list, { target: { value: 'hint' } });
  await waitFor(() => expect(bench.tape.store.getState().question?.aspect).toBe('hint'));
  await waitFor(() => expect(says()).toContain('Ask them.'));
});

test('what nobody said anything of has no other line either', async () => {
  const { ask } = await whyOf('Tern');
  await ask('note', 'required');
  expect(await screen.findByText('No other line says anything of it.')).toBeTruthy();
  expect(screen.queryByText('Stand there')).toBeNull();
});

test('a part that is shown and stands in what is hidden says so, and is asked about that', async () => {
  const { bench, ask, says } = await whyOf('Auk');
  await ask('licence', 'shown');
  fireEvent.click(screen.getByRole('button', { name: 'off screen' }));
  await waitFor(() => expect(bench.tape.store.getState().question?.aspect).toBe('onScreen'));
  await waitFor(() => expect(says()).toContain('More'));
  expect(screen.queryByText(/all the same/)).toBeNull();
});

test('a part that is on screen says nothing of that', async () => {
  const { ask } = await whyOf('Tern');
  await ask('licence', 'shown');
  expect(screen.queryByText(/all the same/)).toBeNull();
});

test('what decided can be stood at, and the tape narrowed to the part', async () => {
  const { bench, ask } = await whyOf('Tern');
  await ask('master', 'required');
  bench.tape.filter({ part: null });
  fireEvent.click(screen.getByTitle('List only what touched this part'));
  expect(bench.tape.store.getState().filter.part).toBe('master');
  fireEvent.click(screen.getByText('Stand there'));
  await waitFor(() => expect(bench.tape.store.getState().standing).not.toBeNull());
});

test('of the submission only its outcome is asked, and it is no part', async () => {
  const { bench, ask, says } = await whyOf('Tern');
  await bench.form.step({ submit: true });
  await ask('@submit', 'outcome');
  expect(screen.queryByTitle('List only what touched this part')).toBeNull();
  expect(screen.queryByLabelText('Which aspect')).toBeNull();
  expect(says()).toContain('Master');
});

const revision = (number: number, source: string, savedBy: string | null = 'mira') => ({
  revision: number,
  text: source,
  savedBy,
  savedAt: '2031-05-02T09:00:00Z',
});
const EARLIER = SCRIPT.replace('=== "Tern";', '=== "Owl";');

test.each([
  [
    [revision(2, SCRIPT), revision(1, EARLIER)],
    'Revision 2 made the line what it is, 2031-05-02 09:00 UTC, Mira.',
  ],
  [
    [revision(2, SCRIPT, 'gone'), revision(1, SCRIPT, null)],
    'The line has been as it is from the start, 2031-05-02 09:00 UTC.',
  ],
  [[revision(1, EARLIER)], 'The line is not saved yet.'],
])('since when the line is as it is, of %#', async (revisions, says) => {
  const {
    bench,
    ask,
    says: all,
  } = await whyOf('Tern', ({ path }) => ({
    status: 200,
    body: path.endsWith('/revisions') ? revisions : { revision: 2 },
  }));
  await ask('master', 'required');
  fireEvent.click(screen.getByText('Since when?'));
  await waitFor(() => expect(all()).toContain(says));
  if (revisions.length === 1) return;
  fireEvent.click(screen.getByText('See the revisions'));
  expect(bench.screen.store.getState().pane).toBe('history');
});

test('revisions that cannot be had are said to be', async () => {
  const { ask, says } = await whyOf('Tern', ({ path }) =>
    path.endsWith('/revisions')
      ? { status: 503, body: { says: 'Busy.' } }
      : { status: 200, body: { revision: 2 } },
  );
  await ask('master', 'required');
  fireEvent.click(screen.getByText('Since when?'));
  await waitFor(() => expect(says()).toContain('Busy.'));
});
