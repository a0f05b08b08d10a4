import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { drawn } from '../../../tests/support/drawn';
import type { Head } from '@/core/workspace/head';
import { PeoplePage } from './people-page';

afterEach(() => vi.unstubAllGlobals());

const HEAD: Head = {
  title: 'Harbour',
  roles: [
    { key: 'clerk', label: 'Clerk' },
    { key: 'agent', label: 'Agent' },
    { key: 'master', label: 'Master' },
  ],
  people: [
    { key: 'mira', name: 'Mira', roles: ['clerk'] },
    { key: 'teo', name: 'Teo', roles: ['clerk', 'agent'] },
  ],
};

/** The page, with the last head that it sent. */
function page(head: Head = HEAD) {
  const sent: Head[] = [];
  vi.stubGlobal('fetch', (_: string, { body }: { body: string }) => {
    sent.push((JSON.parse(body) as { head: Head }).head);
    return Promise.resolve(Response.json({ revision: sent.length + 1 }));
  });
  drawn(<PeoplePage head={head} revision={1} />);
  return {
    sent,
    last: () => waitFor(() => sent.at(-1) ?? Promise.reject(new Error('nothing was sent'))),
  };
}

const change = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const button = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name });
const rolesOf = (name: string) => within(screen.getByRole('group', { name: `Roles of ${name}` }));

test('people and roles are renamed, each where it stands', async () => {
  const { last } = page();
  change('Name of teo', 'Teo Varrick');
  change('Label of clerk', 'Harbour clerk');
  await waitFor(async () => {
    const { people, roles } = await last();
    expect(people.map(({ name }) => name)).toEqual(['Mira', 'Teo Varrick']);
    expect(roles.map(({ label }) => label)).toEqual(['Harbour clerk', 'Agent', 'Master']);
  });
});

test('a role is given and taken in the order of the roles; the last one stays', async () => {
  const { last } = page();
  const only = rolesOf('Mira').getByLabelText<HTMLInputElement>('Clerk');
  expect(only.disabled).toBe(true);
  expect(only.closest('label')!.title).toBe('A person has at least one role');
  fireEvent.click(rolesOf('Teo').getByLabelText('Clerk'));
  await waitFor(async () => expect((await last()).people[1]!.roles).toEqual(['agent']));
  fireEvent.click(rolesOf('Mira').getByLabelText('Master'));
  fireEvent.click(rolesOf('Mira').getByLabelText('Agent'));
  await waitFor(async () =>
    expect((await last()).people[0]!.roles).toEqual(['clerk', 'agent', 'master']),
  );
  expect(only.disabled).toBe(false);
  expect(only.closest('label')!.title).toBe('');
});

test('somebody new gets a key of their name and the first role; a key is nobody else’s', async () => {
  const { last } = page();
  const add = () => button('Add person');
  expect(add().disabled).toBe(true);
  change('Name of a new person', '   ');
  expect(add().disabled).toBe(true);
  change('Name of a new person', ' Mira ');
  fireEvent.click(add());
  await waitFor(async () => {
    const added = (await last()).people[2]!;
    expect(added).toMatchObject({ name: 'Mira', roles: ['clerk'] });
    expect(added.key).not.toBe('mira');
  });
  expect(screen.getByLabelText<HTMLInputElement>('Name of a new person').value).toBe('');
});

test('Enter adds as the button does, and any other key does not', async () => {
  const { last } = page();
  change('Name of a new role', 'Pilot');
  const line = screen.getByLabelText('Name of a new role');
  fireEvent.keyDown(line, { key: 'a' });
  expect(screen.queryByLabelText('Label of pilot')).toBeNull();
  fireEvent.keyDown(line, { key: 'Enter' });
  await waitFor(async () =>
    expect((await last()).roles[3]).toEqual({ key: 'pilot', label: 'Pilot' }),
  );
  fireEvent.keyDown(line, { key: 'Enter' });
  expect(screen.getAllByLabelText(/^Label of/)).toHaveLength(4);
});

test('a role that somebody has cannot be removed, and says how many have it', async () => {
  const { last } = page();
  expect(screen.getByText('2 people')).toBeTruthy();
  expect(screen.getByText('1 person')).toBeTruthy();
  expect([button('Remove Clerk').disabled, button('Remove Clerk').title]).toEqual([
    true,
    'Somebody has this role',
  ]);
  expect(button('Remove Master').title).toBe('');
  fireEvent.click(button('Remove Master'));
  await waitFor(async () =>
    expect((await last()).roles.map(({ key }) => key)).toEqual(['clerk', 'agent']),
  );
});

test('the last person cannot be removed', async () => {
  const { last } = page();
  fireEvent.click(button('Remove Mira'));
  await waitFor(async () => expect((await last()).people.map(({ key }) => key)).toEqual(['teo']));
  expect(button('Remove Teo').disabled).toBe(true);
});

test('the workspace has a title, and a way to write dates and numbers', async () => {
  const { sent, last } = page();
  expect(screen.getByLabelText<HTMLSelectElement>('Dates are written as').value).toBe('iso');
  expect(screen.getByLabelText<HTMLSelectElement>('Numbers are written as').value).toBe('point');
  change('Title', ' ');
  change('Title', 'Quillhaven');
  change('Numbers are written as', 'comma');
  change('Dates are written as', 'dmy_points');
  await waitFor(async () =>
    expect(await last()).toMatchObject({
      title: 'Quillhaven',
      numbers: 'comma',
      dates: 'dmy_points',
    }),
  );
  expect(sent.map(({ title }) => title)).not.toContain(' ');
});

test('steps of filling-ins are kept as it is said, and not at all at first', async () => {
  const { sent, last } = page();
  fireEvent.click(screen.getByLabelText('Keep the steps of filling-ins'));
  await waitFor(async () =>
    expect((await last()).fillings).toEqual({ most: 500, days: 90, masked: true }),
  );
  change('Of each form', '20');
  change('Days', '0');
  fireEvent.click(screen.getByLabelText('Mask texts'));
  await waitFor(async () =>
    expect((await last()).fillings).toEqual({ most: 20, days: 90, masked: false }),
  );
  expect(sent.map(({ fillings }) => fillings?.days)).not.toContain(0);
  fireEvent.click(screen.getByLabelText('Keep the steps of filling-ins'));
  await waitFor(async () => expect(await last()).not.toHaveProperty('fillings'));
});
