'use client';
/** The window of needs, whose starters are loaded when it is opened. */
import { lazily } from '../../lazily';
import { Window } from '../../window';
import type { Bench } from '../create-bench';

const Starters = lazily<{ bench: Bench; onDone: () => void }>(() =>
  import('./starters').then((module) => module.Starters),
);

export function StarterDialog({
  bench,
  open,
  onDone,
}: {
  bench: Bench;
  open: boolean;
  onDone: () => void;
}) {
  return (
    <Window open={open} onClose={() => onDone()} size="xl" whole>
      {open && <Starters bench={bench} onDone={onDone} />}
    </Window>
  );
}
