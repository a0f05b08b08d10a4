/** What all rooms of the bench share: the material, the server, the language worker, and whether anything may be changed. */
import { createStore, type StoreApi } from 'zustand/vanilla';
import type { FindingScenario } from '@/core/explore/as-scenario';
import type { Form } from '@/core/form/definition';
import { isFor, readHeader, type Source } from '@/core/script/header';
import { isModule, isOwn } from '@/core/script/script-name';
import type { Scenario } from '@/core/scenario/definition';
import type { Cast, SampleRecord } from '@/core/scenario/opening';
import type { LanguageClient } from '@/workers/language-client';
import { call, type Reply } from '../../api';
import { Signal } from '../../signal';
import type { Screen } from './screen';
import type { BenchMaterial, TakenOver } from './material';
import { BenchSaving } from './saving';

export interface CoreState {
  /** What can change of it since the bench was opened: the form, sample records, records of parents. */
  material: BenchMaterial;
  /** What the next bench takes over, once it is to be made of fresh material. */
  handsOver: Partial<TakenOver> | null;
}

export interface BenchCore {
  store: StoreApi<CoreState>;
  /** As the bench was opened with it. */
  material: BenchMaterial;
  form(): Form;
  putForm(form: Form): void;
  putRecord(record: SampleRecord): void;
  /** A record of another form, that this one can be opened from. */
  putParent(form: string, record: SampleRecord): void;
  people: BenchMaterial['people'];
  cast(): Cast;
  /** A path of the server's about this form. */
  pathOf(rest: string): string;
  /** Where a script is saved. */
  pathOfScript(name: string): string;
  /** Changes something on the server; refused while a former release is looked at. */
  save<T>(method: 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown): Promise<Reply<T>>;
  /** A scenario that was made here, once the record that it opens is saved; null where that is refused, and people are told. */
  withSample(made: FindingScenario): Promise<Scenario | null>;
  saving: BenchSaving;
  /** The worker that knows the language; started when it is first asked. */
  languageWorker(): LanguageClient;
  closeLanguageWorker(): void;
  /** Whether a former release is looked at, of which nothing can be changed. */
  isReleased: boolean;
  /**
   * Marks an action that changes the workspace. While a former release is looked at it only says that it cannot be done,
   * and gives `refused`.
   */
  changes<A extends unknown[], R>(action: (...of: A) => R, refused: R): (...of: A) => R;
  /**
   * What runs in the form has changed: everything is to be done again. It names the script whose typing brought it, which
   * has been checked already; null for a change of another sort.
   */
  changed: Signal<string | null>;
  /** Has a new bench made of fresh material. It takes over what is open and done on this one, but for what is given. */
  renew(over: Partial<TakenOver>): void;
}

const RELEASED = 'A former release cannot be changed. Open the recording with today’s code.';

/** Whether a script is for a form; modules are for all. */
export function isForThis(script: Source, form: Form): boolean {
  return isOwn(script.name) || isModule(script.name) || isFor(readHeader(script).forms, form);
}

export function benchCore(
  material: BenchMaterial,
  { complain }: Screen,
  startLanguage: () => LanguageClient,
): BenchCore {
  const store = createStore<CoreState>(() => ({ material, handsOver: null }));
  const now = () => store.getState().material;
  const put = (changes: Partial<BenchMaterial>) =>
    store.setState({ material: { ...now(), ...changes } });
  const isReleased = material.recording?.release != null;
  const withRecord = (records: readonly SampleRecord[], record: SampleRecord) => [
    ...records.filter(({ id }) => id !== record.id),
    record,
  ];
  let language: LanguageClient | null = null;
  const pathOf = (rest: string) => `/api/forms/${material.form.name}/${rest}`;
  const save: BenchCore['save'] = (method, path, body) =>
    isReleased
      ? Promise.resolve({ ok: false, status: 0, says: RELEASED, body: null })
      : call(method, path, body);
  const putRecord = (record: SampleRecord) => put({ records: withRecord(now().records, record) });
  return {
    store,
    material,
    form: () => now().form,
    putForm: (form) => put({ form }),
    putRecord,
    putParent: (name, record) =>
      put({
        forms: now().forms.map((one) =>
          one.form.name === name ? { ...one, records: withRecord(one.records, record) } : one,
        ),
      }),
    people: material.people,
    cast: () => ({ people: material.people, records: now().records, forms: now().forms }),
    pathOf,
    pathOfScript: (name) =>
      isOwn(name) ? `/api/forms/${material.form.name}/behaviours/${name}` : `/api/scripts/${name}`,
    save,
    async withSample({ scenario, record }) {
      if (record === null) return scenario;
      const { values } = record;
      const reply = await save<SampleRecord>('POST', pathOf('records'), { values });
      if (!reply.ok) {
        complain(reply.says);
        return null;
      }
      putRecord(reply.body);
      return { ...scenario, open: { ...scenario.open!, record: reply.body.id } };
    },
    saving: new BenchSaving(),
    languageWorker: () => (language ??= startLanguage()),
    closeLanguageWorker: () => language?.close(),
    isReleased,
    changes: (action, refused) => {
      if (!isReleased) return action;
      return () => {
        complain(RELEASED);
        return refused;
      };
    },
    changed: new Signal(),
    renew: (over) => store.setState({ handsOver: over }),
  };
}
