import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { drawn, router } from '../../../tests/support/drawn';
import type { Service } from '@/core/form/service';
import { ServicePage } from './service-page';

afterEach(() => vi.unstubAllGlobals());

const REGISTER: Service = {
  name: 'register',
  title: 'Register',
  functions: {
    find: {
      parameters: [
        { name: 'imo', kind: 'text' },
        { name: 'year', kind: 'number' },
      ],
      answers: { from: 'table', table: 'ships', where: { imo: 'imo' } },
    },
    guess: {
      parameters: [{ name: 'name', kind: 'text' }],
      answers: { from: 'script', script: 'return null;', gives: 'null' },
    },
  },
};
const TABLES = [
  { name: 'ships', title: 'Ships', columns: ['imo', 'name'] },
  { name: 'berths', title: 'Berths', columns: ['code', 'depth'] },
];

/** The page, with what it sends. */
function page(service = REGISTER, tables = TABLES, revision = 3, removing = { status: 204 }) {
  const sent: Service[] = [];
  const removed: string[] = [];
  vi.stubGlobal('fetch', (path: string, { method, body }: { method?: string; body?: string }) => {
    // Its scripts are checked, and nothing is wrong with them.
    if (method === 'POST') return Promise.resolve(Response.json([]));
    if (method === 'PUT') sent.push((JSON.parse(body!) as { service: Service }).service);
    if (method !== 'DELETE')
      return Promise.resolve(Response.json({ revision: revision + sent.length }));
    removed.push(path);
    return Promise.resolve(
      removing.status === 204
        ? new Response(null, removing)
        : Response.json({ says: 'A behaviour calls it.' }, removing),
    );
  });
  drawn(<ServicePage workspace="Harbour" tables={tables} service={service} revision={revision} />);
  return {
    removed,
    /** Waits until what it sent last has this. */
    sends: (what: object) => waitFor(() => expect(sent.at(-1)).toMatchObject(what)),
    sent,
  };
}

const put = (element: HTMLElement, value: string) =>
  fireEvent.change(element, { target: { value } });
const change = (label: string, value: string) => put(screen.getByLabelText(label), value);
const find = () => within(screen.getByRole('region', { name: 'register.find' }));
const guess = () => within(screen.getByRole('region', { name: 'register.guess' }));

test('a service has a title, takes its time, and may be slow or fail', async () => {
  const { sends, sent } = page();
  change('Title', '');
  change('Title', 'Ship register');
  change('Answers after, ms', '250');
  change('Answers after, ms', '2.5');
  expect(screen.queryByLabelText('A slow call takes, ms')).toBeNull();
  change('Slow one call in', '4');
  change('Fails, for this reason', 'closed');
  await sends({
    title: 'Ship register',
    delay: 250,
    slow: { every: 4, delay: 3000 },
    fails: 'closed',
  });
  change('A slow call takes, ms', '900');
  await sends({ slow: { every: 4, delay: 900 } });
  change('Slow one call in', '5');
  await sends({ slow: { every: 5, delay: 900 } });
  change('Slow one call in', '0');
  change('Answers after, ms', '');
  change('Fails, for this reason', '');
  await waitFor(() => {
    const last = sent.at(-1)!;
    expect(['slow', 'delay', 'fails'].filter((key) => key in last)).toEqual([]);
  });
  expect(sent.map(({ title }) => title)).not.toContain('');
});

test('a function takes parameters of a kind, each name once', async () => {
  const { sends } = page();
  const line = find().getByLabelText('New parameter of find');
  const add = () => find().getByRole<HTMLButtonElement>('button', { name: 'Add' });
  for (const [name, can] of [
    ['', false],
    ['Not a name', false],
    ['imo', false],
    ['flag', true],
  ] as const) {
    put(line, name);
    expect([name, !add().disabled]).toEqual([name, can]);
  }
  fireEvent.click(add());
  put(find().getByLabelText('Kind of year'), 'date');
  await sends({
    functions: {
      find: {
        parameters: [
          { name: 'imo', kind: 'text' },
          { name: 'year', kind: 'date' },
          { name: 'flag', kind: 'text' },
        ],
      },
    },
  });
  fireEvent.click(find().getByRole('button', { name: 'Remove parameter year' }));
  await sends({ functions: { find: { parameters: [{ name: 'imo' }, { name: 'flag' }] } } });
});

test('another table is asked by its first column, for the same parameter', async () => {
  const { sends, sent } = page();
  const answers = () => sent.at(-1)!.functions.find!.answers;
  put(find().getByLabelText('Table'), 'berths');
  await sends({ functions: { find: { answers: { table: 'berths' } } } });
  expect(answers()).toEqual({ from: 'table', table: 'berths', where: { code: 'imo' } });
  put(find().getByLabelText('Column'), 'depth');
  put(find().getByLabelText('Parameter'), 'year');
  fireEvent.click(find().getByLabelText('all that fit'));
  await waitFor(() =>
    expect(answers()).toEqual({
      from: 'table',
      table: 'berths',
      where: { depth: 'year' },
      many: true,
    }),
  );
  fireEvent.click(find().getByLabelText('all that fit'));
  await waitFor(() => expect(answers()).not.toHaveProperty('many'));
});

test('a function answers from a script instead, and from a table again', async () => {
  const { sends } = page();
  expect(guess().queryByLabelText('Table')).toBeNull();
  put(guess().getByLabelText('Script of guess'), 'return name;');
  put(guess().getByLabelText('Type of what it returns'), 'string');
  await sends({
    functions: { guess: { answers: { from: 'script', script: 'return name;', gives: 'string' } } },
  });
  put(guess().getByLabelText('What guess answers from'), 'table');
  await sends({
    functions: { guess: { answers: { from: 'table', table: 'ships', where: { imo: 'name' } } } },
  });
  put(find().getByLabelText('What find answers from'), 'script');
  await sends({ functions: { find: { answers: { from: 'script', script: 'return null;' } } } });
  expect(find().queryByLabelText('Table')).toBeNull();
});

test.each([
  [TABLES, { from: 'table', table: 'ships', where: { imo: 'key' } }],
  [[], { from: 'script', script: 'return null;', gives: 'null' }],
])(
  'a new function answers from the first table, or a script where there is none',
  async (tables, answers) => {
    const { sends } = page({ ...REGISTER, functions: {} }, tables);
    expect(screen.getByText(/no function yet/)).toBeTruthy();
    const add = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Add function' });
    expect(add().disabled).toBe(true);
    change('Technical name of a new function', 'find');
    fireEvent.click(add());
    await sends({ functions: { find: { parameters: [{ name: 'key', kind: 'text' }], answers } } });
    change('Technical name of a new function', 'find');
    expect(add().disabled).toBe(true);
    expect(screen.queryByText(/no function yet/)).toBeNull();
  },
);

test('a function is removed, and the others stay', async () => {
  const { sent } = page();
  fireEvent.click(screen.getByRole('button', { name: 'Remove find' }));
  await waitFor(() => expect(Object.keys(sent.at(-1)!.functions)).toEqual(['guess']));
});

test('a service that is removed leads back to the list; one that is refused stays, and says why', async () => {
  const { removed } = page();
  fireEvent.click(screen.getByRole('button', { name: 'Remove service' }));
  await waitFor(() => expect(router.push).toHaveBeenCalledExactlyOnceWith('/services'));
  expect(removed).toEqual(['/api/services/register?from=3']);
});

test('what is refused stays, and says why', async () => {
  page(REGISTER, TABLES, 3, { status: 409 });
  fireEvent.click(screen.getByRole('button', { name: 'Remove service' }));
  expect((await screen.findByRole('alert')).textContent).toContain(
    'A behaviour calls it. It stays.',
  );
  expect(router.push).not.toHaveBeenCalled();
});

test('a service that was never saved is removed without asking the server', async () => {
  const { removed } = page({ ...REGISTER, functions: {} }, TABLES, 0);
  fireEvent.click(screen.getByRole('button', { name: 'Remove service' }));
  await waitFor(() => expect(router.push).toHaveBeenCalledTimes(1));
  expect(removed).toEqual([]);
});
