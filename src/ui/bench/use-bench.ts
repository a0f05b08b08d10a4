/**
 * What a component shows of the bench. Each renders again only when what it takes differs: at every key the text of one
 * behaviour changes, and typing must not wait for the form, the tape and the outline.
 */
import { useMemo } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { useStoreWithEqualityFn } from 'zustand/traditional';
import { equal, type Value } from '@/core/form/value';
import { readHeader } from '@/core/script/header';
import { namesFor, type Names } from '@/core/tape/words';
import { useHeldWhilePressed } from '../press';
import type { BenchStore } from './store';
import { isForThis } from './core';
import type { Behaviour, BenchState } from './state';

export function useBench<T>(bench: BenchStore, select: (state: BenchState) => T): T {
  return useStore(bench.store, useShallow(select));
}

/** How the scenarios came out last, by name. What comes during a press is drawn after it. */
export function useResults(bench: BenchStore): BenchState['results'] {
  return useHeldWhilePressed(useBench(bench, ({ results }) => results));
}

/** What stands of a behaviour in lists: everything but its text. */
export interface BehaviourHead {
  name: string;
  title: string;
  purpose: string;
  off: boolean;
  saving: 'saved' | 'waiting' | 'unsaved' | 'conflict';
  errors: number;
  /** One for several forms may be for other ones. */
  forThis: boolean;
  broken: Behaviour['broken'];
  /** Whether a version of it runs, be it an earlier one. */
  runs: boolean;
}

export function useHeads(bench: BenchStore): readonly BehaviourHead[] {
  return useStoreWithEqualityFn(bench.store, headsOf, isAlike);
}

/** The names and titles of the behaviours, which change less often than what else stands of them. */
export function useTitles(bench: BenchStore): readonly { name: string; title: string }[] {
  return useStoreWithEqualityFn(bench.store, titlesOf, isAlike);
}

const isAlike = (a: unknown, b: unknown) => equal(a as Value, b as Value);

function titlesOf({ behaviours }: BenchState) {
  return behaviours.map((behaviour) => ({
    name: behaviour.name,
    title: readHeader(behaviour).title,
  }));
}

function headsOf({ behaviours, material }: BenchState): BehaviourHead[] {
  return behaviours.map((behaviour): BehaviourHead => {
    const { title, purpose, off } = readHeader(behaviour);
    return {
      name: behaviour.name,
      title,
      purpose,
      off,
      forThis: isForThis(behaviour, material.form),
      saving: behaviour.saving.state,
      errors: behaviour.diagnostics.filter(({ severity }) => severity === 'error').length,
      broken: behaviour.broken,
      runs: behaviour.running?.code != null,
    };
  });
}

/** Labels of parts, titles of behaviours and names of people, for sentences. */
export function useNames(bench: BenchStore): Names {
  const titles = useTitles(bench);
  const { form, people } = useBench(bench, (state) => ({
    form: state.material.form,
    people: state.material.people,
  }));
  return useMemo(() => namesFor(form, titles, people), [form, titles, people]);
}
