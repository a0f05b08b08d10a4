/**
 * Who is using the app. The one place that signing in will go through: until there is one, the person is chosen on the
 * page and kept in a cookie, and the first person stands in for those who have not chosen.
 */
import { cookies } from 'next/headers';
import type { Person } from '../../core/form/table';
import { Refusal } from '../http/refusal';
import { readHead } from '../content/read';

const COOKIE = 'tavro_person';

export async function currentPerson(): Promise<Person> {
  const { people } = await readHead();
  const chosen = (await cookies()).get(COOKIE)?.value;
  return people.find((person) => person.key === chosen) ?? people[0]!;
}

/** Chooses who is using the app. Throws a Refusal (404) for somebody who is not there. */
export async function choosePerson(key: string): Promise<void> {
  const { people } = await readHead();
  if (!people.some((person) => person.key === key))
    throw new Refusal(404, `There is no person "${key}".`);
  (await cookies()).set(COOKIE, key, {
    sameSite: 'strict',
    httpOnly: true,
    path: '/',
    maxAge: 400 * 24 * 60 * 60,
  });
}
