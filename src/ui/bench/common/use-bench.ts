/**
 * What components of several rooms show of the bench. Each draws again only when what it takes differs: at every key the
 * text of one behaviour changes, and typing must not wait for the form, the tape and the outline.
 */
import { useMemo } from 'react';
import { useStoreWithEqualityFn } from 'zustand/traditional';
import { equal, type Value } from '@/core/form/value';
import { readHeader } from '@/core/script/header';
import { namesFor, type Names } from '@/core/tape/words';
import { useHeldWhilePressed } from '../../press';
import { useRoom } from '../../use-room';
import type { Bench } from '../create-bench';
import { isForThis } from './core';
import type { BenchMaterial } from './material';

type CodeState = ReturnType<Bench['code']['store']['getState']>;
type TestsState = ReturnType<Bench['tests']['store']['getState']>;

export function useMaterial(bench: Bench): BenchMaterial {
  return useRoom(bench.core, ({ material }) => material);
}

/** How the scenarios came out last, by name. What comes during a press is drawn after it. */
export function useResults(bench: Bench): TestsState['results'] {
  return useHeldWhilePressed(useRoom(bench.tests, ({ results }) => results));
}

/** What lists show of a behaviour: everything but its text. */
export interface BehaviourHead {
  name: string;
  title: string;
  purpose: string;
  off: boolean;
  saving: 'saved' | 'waiting' | 'unsaved' | 'conflict';
  errors: number;
  /** One for several forms may be for other ones. */
  forThis: boolean;
  broken: CodeState['behaviours'][number]['broken'];
  /** Whether a version of it runs, be it an earlier one. */
  runs: boolean;
}

export function useHeads(bench: Bench): readonly BehaviourHead[] {
  const form = useRoom(bench.core, ({ material }) => material.form);
  return useStoreWithEqualityFn(
    bench.code.store,
    ({ behaviours }) =>
      behaviours.map((behaviour): BehaviourHead => {
        const { title, purpose, off } = readHeader(behaviour);
        return {
          name: behaviour.name,
          title,
          purpose,
          off,
          forThis: isForThis(behaviour, form),
          saving: behaviour.saving.state,
          errors: behaviour.diagnostics.filter(({ severity }) => severity === 'error').length,
          broken: behaviour.broken,
          runs: behaviour.running?.code != null,
        };
      }),
    isAlike,
  );
}

/** The names and titles of the behaviours, which change less often than what else lists show of them. */
export function useTitles(bench: Bench): readonly { name: string; title: string }[] {
  return useStoreWithEqualityFn(bench.code.store, titlesOf, isAlike);
}

const isAlike = (a: unknown, b: unknown) => equal(a as Value, b as Value);

function titlesOf({ behaviours }: CodeState) {
  return behaviours.map((behaviour) => ({
    name: behaviour.name,
    title: readHeader(behaviour).title,
  }));
}

/** Labels of parts, titles of behaviours and names of people, for sentences. */
export function useNames(bench: Bench): Names {
  const titles = useTitles(bench);
  const { form, people } = useMaterial(bench);
  return useMemo(() => namesFor(form, titles, people), [form, titles, people]);
}
