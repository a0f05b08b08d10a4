/** What an earlier visit left unsaved, in whichever room, to be brought back or thrown away. */
import { createStore } from 'zustand/vanilla';
import type { Form } from '@/core/form/definition';
import type { Scenario } from '@/core/scenario/definition';
import type { BenchCore } from './core';

export interface LeftText {
  name: string;
  text: string;
  /** Milliseconds since 1970-01-01T00:00:00Z. */
  at: number;
}

export interface LeftForm {
  form: Form;
  at: number;
}

export interface LeftScenario {
  name: string;
  scenario: Scenario;
  at: number;
}

export interface LeftState {
  left: {
    at: number;
    texts: readonly LeftText[];
    form: LeftForm | null;
    scenarios: readonly LeftScenario[];
  } | null;
}

/** What a room kept in this browser under the names of what it edits; null throws it away. */
interface Leaves<T, V> {
  findLeft(): Promise<T>;
  takeLeft(name: string, value: V | null): void;
}

export function benchLeft(
  { isReleased }: BenchCore,
  code: Leaves<LeftText[], string>,
  structure: { findLeft(): Promise<LeftForm | null>; takeLeft(form: Form | null): void },
  scenarios: Leaves<LeftScenario[], Scenario>,
) {
  const store = createStore<LeftState>(() => ({ left: null }));
  return {
    store,
    async find(): Promise<void> {
      if (isReleased) return;
      const [texts, form, ofScenarios] = await Promise.all([
        code.findLeft(),
        structure.findLeft(),
        scenarios.findLeft(),
      ]);
      const all = [...texts, ...(form === null ? [] : [form]), ...ofScenarios];
      if (all.length === 0) return;
      const at = Math.max(...all.map((one) => one.at));
      store.setState({ left: { at, texts, form, scenarios: ofScenarios } });
    },
    /** Brings it back, or throws it away. */
    take(brings: boolean): void {
      const { left } = store.getState();
      if (left === null) return;
      store.setState({ left: null });
      for (const { name, text } of left.texts) code.takeLeft(name, brings ? text : null);
      if (left.form !== null) structure.takeLeft(brings ? left.form.form : null);
      for (const { name, scenario } of left.scenarios)
        scenarios.takeLeft(name, brings ? scenario : null);
    },
  };
}
