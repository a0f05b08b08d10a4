/**
 * What a component shows of the bench. Each is drawn anew only when what it takes differs: at every key the text of one
 * behaviour changes, and typing must not wait for the form, the tape and the outline.
 */
import { useMemo } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { readHeader } from '@/core/language/header';
import type { BenchState, BenchStore } from './store';

export function useBench<T>(bench: BenchStore, select: (state: BenchState) => T): T {
  return useStore(bench.store, useShallow(select));
}

/** What stands of a behaviour in lists: everything but its text. */
export interface BehaviourHead {
  name: string;
  title: string;
  purpose: string;
  off: boolean;
  saving: 'saved' | 'waiting' | 'unsaved' | 'conflict';
  errors: number;
  broken: { says: string; line: number | null } | null;
  /** Whether a version of it runs, be it an earlier one. */
  runs: boolean;
}

export function useHeads(bench: BenchStore): readonly BehaviourHead[] {
  const text = useStore(bench.store, headsAsText);
  return useMemo(() => JSON.parse(text) as BehaviourHead[], [text]);
}

/** The names and titles of the behaviours, which change less often than what else stands of them. */
export function useTitles(bench: BenchStore): readonly { name: string; title: string }[] {
  const text = useStore(bench.store, ({ behaviours }) =>
    JSON.stringify(
      behaviours.map((behaviour) => ({ name: behaviour.name, title: readHeader(behaviour).title })),
    ),
  );
  return useMemo(() => JSON.parse(text) as { name: string; title: string }[], [text]);
}

/** As a text, which is the same as long as nothing of it differs. */
function headsAsText({ behaviours }: BenchState): string {
  const heads = behaviours.map((behaviour): BehaviourHead => {
    const { title, purpose, off } = readHeader(behaviour);
    return {
      name: behaviour.name,
      title,
      purpose,
      off,
      saving: behaviour.saving.state,
      errors: behaviour.diagnostics.filter(({ severity }) => severity === 'error').length,
      broken: behaviour.broken,
      runs: behaviour.running?.code != null,
    };
  });
  return JSON.stringify(heads);
}
