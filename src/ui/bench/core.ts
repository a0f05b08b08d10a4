/** What all rooms of the bench share: the state, the form's own paths, the language worker. */
import type { StoreApi } from 'zustand/vanilla';
import type { Form } from '@/core/form/definition';
import { isFor, readHeader, takingPart, type Source } from '@/core/script/header';
import { isModule, isOwn } from '@/core/script/script-name';
import { modulesUsed } from '@/core/script/imports';
import { equal, type Value } from '@/core/form/value';
import type { Open } from '@/core/scenario/definition';
import { openingOf, type Cast } from '@/core/scenario/opening';
import { openOf } from '@/core/scenario/recorded';
import type { Opening } from '@/core/session/step';
import type { Material } from '@/core/session/session';
import { LanguageClient } from '@/workers/language-client';
import type { Behaviour, BenchMaterial, BenchState } from './state';

export interface BenchCore {
  store: StoreApi<BenchState>;
  get: StoreApi<BenchState>['getState'];
  set: StoreApi<BenchState>['setState'];
  /** As the bench was opened with it; what can change since stands in the state. */
  material: BenchMaterial;
  form(): Form;
  /** A path of the server's about this form. */
  pathOf(rest: string): string;
  /** Where a script is saved. */
  pathOfScript(name: string): string;
  /** The worker that knows the language; started when it is first asked. */
  languageWorker(): LanguageClient;
  closeLanguageWorker(): void;
  behaviourOf(name: string): Behaviour;
  change(name: string, changes: Partial<Behaviour>): void;
  /** All that the session on the bench runs with. */
  engineMaterial(): Material;
  cast(): Cast;
  /** What a session of the bench is opened with: of a recording exactly what it was opened with. */
  openingFor(open: Open): Opening;
  /** Whether a former release is looked at, of which nothing can be changed. */
  isReleased: boolean;
  /** Says something that went wrong. */
  complain(text: string): void;
}

/** Whether a script is for a form; modules are for all. */
export function isForThis(script: Source, form: Form): boolean {
  return isOwn(script.name) || isModule(script.name) || isFor(readHeader(script).forms, form);
}

const running = (scripts: readonly Behaviour[]) =>
  scripts.flatMap((script) => script.running ?? []);

export function benchCore(material: BenchMaterial, store: StoreApi<BenchState>): BenchCore {
  const { getState: get, setState: set } = store;
  let language: LanguageClient | null = null;
  const form = () => get().material.form;
  /** Without those for several forms that are no more for this one. */
  const scripts = () => get().behaviours.filter((script) => isForThis(script, form()));
  const cast = (): Cast => ({
    people: material.people,
    records: get().material.records,
    forms: get().material.forms,
    scenarios: get().scenarios,
  });
  const recorded = material.recording?.content.opening ?? null;
  return {
    store,
    get,
    set,
    material,
    form,
    pathOfScript: (name) =>
      isOwn(name) ? `/api/forms/${material.form.name}/behaviours/${name}` : `/api/scripts/${name}`,
    pathOf: (rest) => `/api/forms/${material.form.name}/${rest}`,
    languageWorker: () => (language ??= new LanguageClient()),
    closeLanguageWorker: () => language?.close(),
    behaviourOf: (name) => get().behaviours.find((behaviour) => behaviour.name === name)!,
    change: (name, changes) =>
      set((state) => ({
        behaviours: state.behaviours.map((behaviour) =>
          behaviour.name === name ? { ...behaviour, ...changes } : behaviour,
        ),
      })),
    engineMaterial: () => ({
      form: form(),
      tables: material.tables,
      services: material.services,
      answering: material.answering,
      scripts: running(takingPart(scripts())),
      modules: running(modulesUsed(scripts())),
      traced: true,
    }),
    cast,
    openingFor: (open) =>
      recorded !== null && equal(open as Value, openOf(recorded) as Value)
        ? recorded
        : openingOf(open, form(), cast()),
    isReleased: material.recording?.release != null,
    complain: (text) => set({ notice: { tone: 'error', text } }),
  };
}
