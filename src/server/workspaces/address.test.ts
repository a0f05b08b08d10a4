import { expect, test } from 'vitest';
import { isWorkspaceName, splitAddress } from './address';

const named = (pathname: string) => splitAddress(pathname).workspace;

test('only the root addresses are those of the first workspace', () => {
  for (const path of ['/', '/api/forms/x', '/workspaces', '/www/a', '/x/w/a'])
    expect(splitAddress(path)).toEqual({ workspace: null, path });
});

test('a name is decoded once before it is compared', () => {
  expect(splitAddress('/w/marked/api/forms')).toEqual({ workspace: 'marked', path: '/api/forms' });
  expect(splitAddress('/w/m%61rked')).toEqual({ workspace: 'marked', path: '/' });
  expect(isWorkspaceName(named('/w/m%2561rked/api/forms')!)).toBe(false);
});

test.each([
  '/w/Marked',
  '/w/a_b/api/forms',
  '/w/__proto__/api/forms',
  `/w/${'a'.repeat(300)}/api/forms`,
  '/w/',
  '/w',
  '/w//api/forms',
  '/W/marked/api/forms',
  '/%57/marked',
  '/w%2Fmarked/api/forms',
  '/w/%ff/api/forms',
  '/w/-/api/forms',
  '/w/..%2f/api/forms',
  '/w/marked%00/api/forms',
])('%s names no workspace, and not the first one', (path) => {
  const name = named(path);
  expect(name).not.toBeNull();
  expect(isWorkspaceName(name!)).toBe(false);
});

test('an encoded prefix is read like the plain one', () => {
  expect(named('/%77/marked/api/forms')).toBe('marked');
});
