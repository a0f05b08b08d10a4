/** The scripts of the bench as its rooms ask for them: one by name, those that take part, what of them runs. */
import type { StoreApi } from 'zustand/vanilla';
import { takingPart, type Source } from '@/core/script/header';
import { modulesUsed } from '@/core/script/imports';
import type { Material } from '@/core/session/material';
import { isForThis, type BenchCore } from '../common/core';
import type { Behaviour, CodeState } from './state';

const running = (scripts: readonly Behaviour[]) =>
  scripts.flatMap((script) => script.running ?? []);

export type Scripts = ReturnType<typeof benchScripts>;

export function benchScripts(
  { form, material }: BenchCore,
  { getState: get, setState: set }: StoreApi<CodeState>,
) {
  /** Without those for several forms that are no more for this one. */
  const ofThisForm = (): Behaviour[] =>
    get().behaviours.filter((script) => isForThis(script, form()));

  return {
    /** Null for one that is not on the bench, or no longer is. */
    find: (name: string): Behaviour | null =>
      get().behaviours.find((behaviour) => behaviour.name === name) ?? null,
    has: (name: string): boolean => get().behaviours.some((one) => one.name === name),
    change: (name: string, changes: Partial<Behaviour>): void =>
      set((state) => ({
        behaviours: state.behaviours.map((behaviour) =>
          behaviour.name === name ? { ...behaviour, ...changes } : behaviour,
        ),
      })),
    /** The sources that take part in this form or may; of a behaviour that does not compile the text as it is now. */
    sources: (): Source[] => ofThisForm().map(({ name, text }) => ({ name, text })),
    /** All that a session of the form runs with. */
    material: (): Material => ({
      form: form(),
      tables: material.tables,
      services: material.services,
      answering: material.answering,
      scripts: running(takingPart(ofThisForm())),
      modules: running(modulesUsed(ofThisForm())),
      traced: true,
    }),
  };
}
