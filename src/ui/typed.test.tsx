import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { useTyped } from './typed';

afterEach(cleanup);

test('what is typed stays until something else stands there, which takes its place at once', () => {
  const taken = vi.fn();
  const drawings: string[] = [];
  const { result, rerender } = renderHook(
    ({ shown }) => {
      const typed = useTyped(shown, taken);
      drawings.push(typed[0]);
      return typed;
    },
    { initialProps: { shown: 'Tern' } },
  );
  act(() => result.current[1]('Tern I'));
  rerender({ shown: 'Tern' });
  expect(result.current[0]).toBe('Tern I');
  expect(taken).not.toHaveBeenCalled();
  rerender({ shown: 'Aurelle' });
  expect(result.current[0]).toBe('Aurelle');
  expect(taken).toHaveBeenCalledTimes(1);
  // Never drawn with what was typed over the former.
  expect(drawings.slice(drawings.indexOf('Aurelle'))).not.toContain('Tern I');
});
