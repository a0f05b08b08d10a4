import { screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { drawn } from '../../tests/support/drawn';
import { addressHere, BaseIn, LinkHere } from './address';

afterEach(() => vi.unstubAllGlobals());

test.each([
  ['', '/', '/'],
  ['', '/bench/visit', '/bench/visit'],
  ['/w/quay', '/', '/w/quay'],
  ['/w/quay', '/bench/visit', '/w/quay/bench/visit'],
])('under "%s" %s is %s, in links and where the browser is asked', (base, path, whole) => {
  drawn(
    <BaseIn base={base}>
      <LinkHere href={path}>there</LinkHere>
    </BaseIn>,
  );
  expect(screen.getByRole('link').getAttribute('href')).toBe(whole);
  vi.stubGlobal('location', { pathname: base === '' ? '/records' : `${base}/records` });
  expect(addressHere(path)).toBe(whole);
});
