import { fireEvent, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { drawn } from '../../../tests/support/drawn';
import { lookup } from '../../../tests/support/forms';
import type { Problem } from '@/core/problems/problems';
import { ScriptProblems, Trial } from './service-trial';

afterEach(() => vi.unstubAllGlobals());

function tried(answer: object, status = 200) {
  const sent: { path: string; body: unknown }[] = [];
  vi.stubGlobal('fetch', (path: string, { body }: { body: string }) => {
    sent.push({ path, body: JSON.parse(body) as unknown });
    return Promise.resolve(Response.json(answer, { status }));
  });
  drawn(
    <Trial
      service={lookup}
      called="find"
      parameters={[
        { name: 'code', kind: 'text' },
        { name: 'least', kind: 'number', optional: true },
      ]}
    />,
  );
  fireEvent.change(screen.getByLabelText('code'), { target: { value: 'nq1' } });
  fireEvent.click(screen.getByRole('button', { name: 'Try find' }));
  return { sent, came: screen.findByRole('status', { name: 'What find answers' }) };
}

test('a function is called with what is typed, the service as it stands', async () => {
  const { sent, came } = tried({ answers: { depth: 4 } });
  expect((await came).textContent).toBe('answers {\n "depth": 4\n}');
  expect(sent).toEqual([
    {
      path: '/api/services/register/trials',
      body: { service: lookup, called: 'find', given: { code: 'nq1', least: '' } },
    },
  ]);
});

test.each([
  [{ answers: null }, 200, 'answers null: nothing found'],
  [{ fails: 'closed' }, 200, 'fails: closed'],
  [{ says: 'least takes a number, not “x”.' }, 400, 'least takes a number, not “x”.'],
])('%j is said as what it is', async (answer, status, says) => {
  expect((await tried(answer, status).came).textContent).toBe(says);
});

test('of the problems of a workspace a function shows its own', () => {
  const at = (called: string, line: number): Problem => ({
    form: '',
    at: { is: 'service', service: 'register', title: 'Register', called, line, column: 1 },
    sort: 'types',
    severity: 'error',
    says: `${called} is wrong.`,
    code: 'TS1',
  });
  const part: Problem = { ...at('find', 9), at: { is: 'part', part: 'berth' }, says: 'Elsewhere.' };
  drawn(<ScriptProblems problems={[at('find', 3), at('deeper', 4), part]} called="find" />);
  expect(document.body.textContent).toContain('line 3 find is wrong.');
  expect(document.body.textContent).not.toMatch(/deeper|Elsewhere/);
});
