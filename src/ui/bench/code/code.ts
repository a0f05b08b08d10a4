/** The code on the bench: texts that save themselves, what is wrong with them, what runs, and the places that are looked at. */
import { counted } from '@/core/counted';
import { createStore } from 'zustand/vanilla';
import type { Fix } from '@/core/language/mistakes/mistake';
import type { Diagnostic } from '@/core/language/answers';
import type { BenchCore } from '../common/core';
import type { Screen } from '../common/screen';
import type { TakenOver } from '../common/material';
import { checking } from './checking';
import { places } from './places';
import { benchScripts } from './scripts';
import type { Behaviour, CodeState } from './state';
import { benchTexts } from './texts';

export type Code = ReturnType<typeof benchCode>;

export function benchCode(core: BenchCore, screen: Screen, before: TakenOver | undefined) {
  const store = createStore<CodeState>(() => firstState(core, before));
  const scripts = benchScripts(core, store);
  const checks = checking(core, store, scripts);
  const texts = benchTexts(core, scripts, checks.textChanged);
  core.saving.add('behaviours', texts.all);

  /** Makes the edits of a fix, provided that the text is still the one it was found in. */
  function mend(name: string, found: Diagnostic, fix: Fix): void {
    const text = checks.mended(name, found, fix);
    if (text !== null) texts.edit(name, text);
  }

  /**
   * Gives what a shared module exports another name, in every script of the workspace. The bench is made again, since
   * any of its scripts may be among them.
   */
  async function renameExport(module: string, position: number, to: string): Promise<void> {
    if ((await core.saving.notSaved()) !== null)
      return screen.complain(
        'Something is not saved yet. Renaming reaches every form, so all has to be saved first.',
      );
    const reply = await core.save<{ scripts: { form: string; name: string }[] }>(
      'POST',
      `${core.pathOfScript(module)}/rename`,
      { position, to, apply: true },
    );
    if (!reply.ok) return screen.complain(reply.says);
    const { scripts: renamed } = reply.body;
    const others = renamed.some(({ form }) => form !== '' && form !== core.material.form.name);
    core.renew({
      pane: 'code',
      says: `Renamed in ${counted(renamed.length, 'script')}${
        others ? ', of other forms too' : ''
      }.`,
    });
  }

  return {
    store,
    scripts,
    texts,
    checks,
    ...places(core, screen, store, scripts),
    edit: core.changes(texts.edit, undefined),
    mend: core.changes(mend, undefined),
    renameExport: core.changes(renameExport, Promise.resolve()),
  };
}

function firstState({ material }: BenchCore, before: TakenOver | undefined): CodeState {
  const behaviours = material.behaviours.map(({ name, text, revision, compiled }): Behaviour => ({
    name,
    text,
    revision,
    saving: { state: 'saved' },
    diagnostics: [],
    running: compiled,
    broken: compiled.failure,
  }));
  return {
    behaviours,
    active: before?.active ?? behaviours[0]?.name ?? '',
    goTo: null,
    checked: false,
    idle: [],
    uses: null,
  };
}
