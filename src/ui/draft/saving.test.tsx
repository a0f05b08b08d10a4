/** How saving stands, in words, and the choice between two versions. */
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { drawn } from '../../../tests/support/drawn';
import type { Saving } from './draft';
import { ConflictNotice, SavingLine } from './saving';

test.each<[Saving<string>, string]>([
  [{ state: 'saved' }, 'saved, revision 3'],
  [{ state: 'waiting' }, 'saving…'],
  [{ state: 'conflict', theirs: { content: 'x', revision: 2 } }, 'two versions'],
  [
    { state: 'unsaved', says: 'The server is out of reach.' },
    'not saved: The server is out of reach. Tried again on its own.',
  ],
])('%j', (saving, says) => {
  drawn(<SavingLine saving={saving} saved="saved, revision 3" />);
  expect(screen.getByText(says)).toBeTruthy();
});

test('one of two versions is chosen, by what the buttons say', async () => {
  const taken: string[] = [];
  drawn(
    <ConflictNotice says="Two." theirs="Let it go" onSettle={(take) => taken.push(take)}>
      theirs
    </ConflictNotice>,
  );
  await userEvent.click(screen.getByRole('button', { name: 'Let it go' }));
  await userEvent.click(screen.getByRole('button', { name: 'Keep mine' }));
  expect(taken).toEqual(['theirs', 'mine']);
});
