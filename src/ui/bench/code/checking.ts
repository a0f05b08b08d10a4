/** Checking and compiling what is typed: each key is checked at once, what compiles runs once the typing rests. */
import type { Fix } from '@/core/language/mistakes/mistake';
import type { Diagnostic } from '@/core/language/answers';
import type { StoreApi } from 'zustand/vanilla';
import { isForThis, type BenchCore } from '../common/core';
import type { Scripts } from './scripts';
import type { CodeState } from './state';

const COMPILE_AFTER = 120;

export function checking(
  { store: core, form, languageWorker, changed }: BenchCore,
  { getState: get, setState: set }: StoreApi<CodeState>,
  { find, change }: Scripts,
) {
  const compileTimers = new Map<string, ReturnType<typeof setTimeout>>();
  const dirty = new Set<string>();
  /** The text of each behaviour that its diagnostics are about. */
  const diagnosed = new Map<string, string>();
  let running: Promise<void> | null = null;

  /** Checks a behaviour as soon as the worker is free; of several texts typed meanwhile only the last is checked. */
  function check(name: string): Promise<void> {
    dirty.add(name);
    return (running ??= checkDirty().finally(() => {
      running = null;
    }));
  }

  async function checkDirty(): Promise<void> {
    for (let [name] = dirty; name !== undefined; [name] = dirty) {
      dirty.delete(name);
      const behaviour = find(name);
      if (behaviour === null) continue;
      const { text } = behaviour;
      const diagnostics = isForThis(behaviour, form())
        ? await languageWorker().diagnose({ name, text })
        : [];
      const now = find(name);
      diagnosed.set(name, text);
      // An equal finding re-renders nothing.
      if (now?.text === text && JSON.stringify(now.diagnostics) !== JSON.stringify(diagnostics))
        change(name, { diagnostics });
    }
  }

  /** What one behaviour says can be wrong because of another, and parts may wait for a script no more. `fresh` has just been checked. */
  async function checkAll(fresh: string | null = null): Promise<void> {
    for (const { name } of get().behaviours) if (name !== fresh) await check(name);
    set({ idle: await languageWorker().idleParts(), checked: true });
  }

  async function compileOne(name: string): Promise<void> {
    const { text } = find(name)!;
    const compiled = await languageWorker().compile({ name, text });
    // An answer about a text that has changed since says nothing any more.
    const now = find(name);
    if (now?.text !== text) return;
    const broken = compiled.failure;
    const runs = broken === null || now.running === null;
    change(name, { ...(runs ? { running: compiled } : {}), broken });
  }

  function textChanged(name: string): void {
    clearTimeout(compileTimers.get(name));
    compileTimers.set(
      name,
      setTimeout(() => void recompile(name), COMPILE_AFTER),
    );
    void check(name);
  }

  async function recompile(name: string): Promise<void> {
    await compileOne(name);
    if (find(name)?.broken === null) await changed.tell(name);
  }

  /** Starts the language worker and has every behaviour looked at once. */
  async function start(): Promise<void> {
    await languageWorker().surround(core.getState().material);
    for (const { name, text } of get().behaviours) await languageWorker().put({ name, text });
    // Whether a text that did not compile on the server compiles now is asked as well.
    for (const { name, broken } of get().behaviours) if (broken !== null) await compileOne(name);
    await checkAll();
    // The compiler starts only now: nothing before waits for it, and the first edit finds it ready.
    const [first] = get().behaviours;
    if (first !== undefined) void languageWorker().compile({ name: first.name, text: first.text });
  }

  /** The text of a behaviour once the edits of a fix are made, provided that it is still the one it was found in; else null. */
  function mended(name: string, found: Diagnostic, { edits }: Fix): string | null {
    const { text, diagnostics } = find(name)!;
    if (!diagnostics.includes(found) || diagnosed.get(name) !== text) return null;
    return edits
      .toSorted((a, b) => b.from - a.from)
      .reduce((now, { from, to, text: by }) => now.slice(0, from) + by + now.slice(to), text);
  }

  /** What was put off for a behaviour is not done any more. */
  function forget(name: string): void {
    clearTimeout(compileTimers.get(name));
  }

  function end(): void {
    for (const timer of compileTimers.values()) clearTimeout(timer);
  }

  return { start, checkAll, textChanged, mended, forget, end };
}
