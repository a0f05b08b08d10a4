'use client';
/**
 * The bench's one store: the behaviours and their saving, the session that goes on in the engine, and what is looked
 * at. Everything that happens on the bench is a method here; components show and say what was done.
 */
import { createStore } from 'zustand/vanilla';
import type { Form } from '@/core/form/definition';
import type { Service } from '@/core/form/service';
import type { Person, Role, Table } from '@/core/form/table';
import { equal, type Value } from '@/core/form/value';
import { readHeader, takingPart } from '@/core/language/header';
import type { FormMap } from '@/core/language/map';
import type { Fix } from '@/core/language/mistakes/mistake';
import type { PartFinding } from '@/core/language/mistakes/idle-part';
import type { Diagnostic, Place } from '@/core/language/service';
import type { Open, Scenario } from '@/core/scenario/definition';
import { openingOf, type FormRecords, type SampleRecord } from '@/core/scenario/opening';
import { recordScenario } from '@/core/scenario/record';
import { isExpect, runScenario, type ScenarioResult } from '@/core/scenario/run';
import { seenAt, type Seen } from '@/core/scenario/snapshot';
import type { OtherForm } from '@/core/structure/adding';
import type { editedSoundly } from '@/core/structure/checked-edit';
import {
  placeOf,
  InvalidEdit,
  type Edit,
  type PartName,
  type PartSort,
} from '@/core/structure/edit';
import type { Uses } from '@/core/structure/uses';
import {
  advance,
  begin,
  redo as redoIn,
  undo as undoIn,
  type History,
} from '@/core/structure/history';
import type { Engine } from '@/core/sandbox/engine';
import type { Answer, Step } from '@/core/session/step';
import type { CompiledScript } from '@/core/session/ties';
import { engineInWorker } from '@/workers/engine-in-browser';
import { LanguageClient } from '@/workers/language-client';
import { call, get as get_, sendsOnLeaving } from '../api';
import { Draft, put, type Saving } from '../draft/draft';
import { forgetLeft, keepUnder, leftUnder } from '../draft/kept';
import { behaviourSet } from './behaviour-set';
import { handToParent, listenToChildren } from './parent-channel';
import { trying } from './trying';

export interface BenchMaterial {
  title: string;
  form: Form;
  /** Of the form's definition. */
  revision: number;
  tables: Table[];
  services: Service[];
  /** Other forms with their records, as parents to open this one from. */
  forms: FormRecords[];
  /** The other forms of the workspace with their fields, for lists of their records. */
  others: OtherForm[];
  people: Person[];
  roles: Role[];
  records: SampleRecord[];
  /** With each script as compiled by the server, so that the form opens before the editor's brain is awake. */
  behaviours: { name: string; text: string; revision: number; compiled: CompiledScript }[];
  answering: CompiledScript[];
  scenarios: { name: string; scenario: Scenario; revision: number }[];
  release: number | null;
}

/** What a renaming would change, or has changed. */
export interface Renaming {
  plan: {
    part: string;
    key: string | null;
    to: string;
    sort: PartSort;
    behaviours: {
      form: string;
      name: string;
      title: string;
      lines: { line: number; before: string; after: string }[];
    }[];
    mentions: { behaviour: string; line: number; text: string }[];
    forms: string[];
    scenarios: { name: string; title: string }[];
  };
  records: { count: number; more: boolean };
  applied: boolean;
}

export interface Behaviour {
  name: string;
  text: string;
  revision: number;
  saving: Saving<string>;
  diagnostics: Diagnostic[];
  /** The last text that compiled, which is what runs. */
  running: CompiledScript | null;
  /** Why the text as it stands does not run. */
  broken: { says: string; line: number | null } | null;
}

/** The structure of the form being edited. */
export interface Structure {
  history: History<Form>;
  /** The part whose definition is shown; a cell as `rows.cell`. */
  selected: PartName | null;
  saving: Saving<Form>;
  /** Why the last edit could not be done. */
  says: string | null;
  /** Whether the label of the part that is shown has the focus from the start. */
  atLabel: boolean;
  /** What was renamed everywhere just now, which can be undone. */
  renamed: Renamed | null;
}

/** A part, or a key of its options, under its former and its present name. */
export interface Renamed {
  /** The part as it is called now. */
  part: PartName;
  isKey: boolean;
  from: string;
  to: string;
}

/** What a bench takes over from the one before it, whose material is out of date since something was renamed everywhere. */
export interface TakenOver {
  open: Open;
  steps: Step[];
  active: string;
  renamed: Renamed | null;
}

export interface BenchState {
  material: BenchMaterial;
  /** What stands between the outline and the live form. */
  pane: 'code' | 'structure' | 'map' | 'history';
  /** What stands to the right. */
  side: 'form' | 'handbook';
  /** The page and section of the handbook that is open. */
  handbook: string;
  structure: Structure;
  behaviours: Behaviour[];
  active: string;
  open: Open;
  steps: Step[];
  /** The opening's answer, then one for each step. */
  answers: Answer[];
  /** Which step is looked at; the last one while the form is in use. */
  at: number;
  listens: { input: string[]; focus: string[]; blur: string[] };
  /** What the last replay changed, in a sentence. */
  replayed: string | null;
  busy: boolean;
  asked: { part: string; aspect: string | null } | null;
  names: boolean;
  scenarios: { name: string; scenario: Scenario; revision: number }[];
  results: Record<string, ScenarioResult>;
  runningScenarios: boolean;
  release: number | null;
  notice: { tone: 'info' | 'error'; text: string } | null;
  /** The editor goes to this place; counted, so that the same place can be gone to twice. */
  goTo: { behaviour: string; line: number; count: number } | null;
  /** Whether the editor's brain is awake and has looked at every behaviour once. */
  checked: boolean;
  /** Parts that wait for a script and have none. */
  idle: PartFinding[];
  /** Whether the title of a new behaviour is being asked for. */
  adding: boolean;
  /** A behaviour just deleted, which can be brought back. */
  deleted: { name: string; text: string } | null;
  /** What an earlier visit left unsaved: texts of behaviours by name, and a structure. */
  left: { at: number; behaviours: { name: string; text: string }[]; form: Form | null } | null;
  /** Where a name is used, while that is shown. */
  uses: { of: string; places: UsePlace[] } | null;
}

/** A place that uses a name: a line of a behaviour, or a scenario. */
export type UsePlace =
  | { is: 'line'; form: string; behaviour: string; title: string; line: number; text: string }
  | { is: 'scenario'; form: string; name: string; title: string; steps: number[] };

/** What a link leads to on the bench: a line of a behaviour, a part of the structure, a scenario. */
export type BenchPlace =
  | { is: 'line'; behaviour: string; line: number }
  | { is: 'part'; part: string; /** Whether its label has the focus. */ atLabel?: boolean }
  | { is: 'scenario'; name: string }
  | null;

/** What the editor that is open can be told. */
export interface EditorHandle {
  insert(text: string): void;
  format(): void;
  define(): void;
  uses(): void;
  rename(): void;
  fix(): void;
}

export type BenchStore = ReturnType<typeof createBench>;

const COMPILE_AFTER = 120;

/** `first` says how the form is opened at first; `before` is what is taken over from a bench before it. */
export function createBench(
  material: BenchMaterial,
  first: Partial<Open> = {},
  before?: TakenOver,
) {
  const behaviours = material.behaviours.map((behaviour): Behaviour => ({
    name: behaviour.name,
    text: behaviour.text,
    revision: behaviour.revision,
    saving: { state: 'saved' },
    diagnostics: [],
    running: behaviour.compiled,
    broken: behaviour.compiled.failure,
  }));
  const store = createStore<BenchState>(() => ({
    material,
    pane: before === undefined ? 'code' : 'structure',
    side: 'form',
    handbook: 'language',
    structure: {
      history: begin(material.form),
      selected: before?.renamed?.part ?? null,
      saving: { state: 'saved' },
      says: null,
      atLabel: false,
      renamed: before?.renamed ?? null,
    },
    behaviours,
    active: before?.active ?? behaviours[0]?.name ?? '',
    open: { as: material.people[0]!.key, record: null, ...first },
    steps: before?.steps ?? [],
    answers: [],
    at: before?.steps.length ?? 0,
    listens: { input: [], focus: [], blur: [] },
    replayed: null,
    busy: true,
    asked: null,
    names: true,
    scenarios: material.scenarios,
    results: {},
    runningScenarios: false,
    release: material.release,
    notice: null,
    goTo: null,
    checked: false,
    idle: [],
    adding: false,
    deleted: null,
    left: null,
    uses: null,
  }));
  /** The part that the pointer is on, in the code or in the live form; apart, so that moving it draws nothing anew. */
  const light = createStore<{ part: string | null; from: 'code' | 'form'; reveal: boolean }>(
    () => ({ part: null, from: 'form', reveal: false }),
  );
  let renew: (over: TakenOver) => void = () => undefined;
  let handle: EditorHandle | null = null;
  let waitingText: string | null = null;
  /** Where the cursor was in each behaviour when its editor was closed. */
  const cursors = new Map<string, number>();
  const { getState: get, setState: set } = store;

  let language: LanguageClient | null = null;
  let live: Engine | null = null;
  let proving: Engine | null = null;
  const { answering } = material;
  let deafen = () => undefined as void;
  let waitTimer: ReturnType<typeof setTimeout> | undefined;
  const compileTimers = new Map<string, ReturnType<typeof setTimeout>>();

  const form = () => get().material.form;
  const formName = material.form.name;
  const keyOf = (name: string) => `behaviour ${formName}/${name}`;
  const STRUCTURE = `structure ${formName}`;
  const drafts = new Map(
    material.behaviours.map(({ name, text, revision }) => [name, draftOf(name, text, revision)]),
  );
  const structureDraft: Draft<Form> = new Draft({
    value: material.form,
    revision: material.revision,
    send: (value, from) =>
      put<Form>(pathOf('definition'), { form: value, from }, ({ theirs }) => theirs),
    keep: keepUnder(STRUCTURE),
    onChange: () =>
      set(({ structure }) => ({ structure: { ...structure, saving: structureDraft.saving } })),
  });
  const brain = () => (language ??= new LanguageClient());
  const cast = () => ({
    people: material.people,
    records: get().material.records,
    forms: get().material.forms,
  });
  const behaviourOf = (name: string) =>
    get().behaviours.find((behaviour) => behaviour.name === name)!;
  const change = (name: string, changes: Partial<Behaviour>) =>
    set((state) => ({
      behaviours: state.behaviours.map((behaviour) =>
        behaviour.name === name ? { ...behaviour, ...changes } : behaviour,
      ),
    }));
  const scripts = () =>
    takingPart(get().behaviours).flatMap((behaviour) =>
      behaviour.running === null ? [] : [behaviour.running],
    );
  const engineMaterial = () => ({
    form: form(),
    tables: material.tables,
    services: material.services,
    answering,
    scripts: scripts(),
    traced: true,
  });

  /** Opens the form with the scripts as the server compiled them, then starts the editor's brain. */
  async function start(): Promise<void> {
    deafen = listenToChildren(form().name, (record, sets) => void takeFromChild(record, sets));
    live = engineInWorker();
    await replay();
    void runScenarios();
    void findLeft();
    // Only now: waking the editor's brain keeps a core busy for seconds, and the form should not wait for it.
    await brain().surround(get().material);
    for (const { name, text } of get().behaviours) await brain().put({ name, text });
    // Whether a text that did not compile on the server compiles now is asked as well.
    for (const { name, broken } of get().behaviours) if (broken !== null) await compileOne(name);
    await checkAll();
    // The compiler wakes only now, so that the first edit finds it awake and nothing before waits for it.
    const [first] = get().behaviours;
    if (first !== undefined) void brain().compile({ name: first.name, text: first.text });
  }

  /** A bench that was opened from this one has saved: what it asks for is done here as steps, when its record is open. */
  async function takeFromChild(
    record: string,
    sets: readonly { set: string; to: Value }[],
  ): Promise<void> {
    if (get().answers.at(-1)?.record !== record) return;
    for (const { set: name, to } of sets) await step({ fromChild: name, to });
  }

  /** Saves what waits to be saved, without waiting for the answer. */
  function flush(): void {
    void saveAll();
  }

  async function saveAll(): Promise<void> {
    await Promise.all([structureDraft, ...drafts.values()].map((draft) => draft.save()));
  }

  /** Whether something is unsaved that leaving the page does not save for certain. */
  function unsaved(): boolean {
    const all: Draft<unknown>[] = [
      structureDraft as Draft<unknown>,
      ...(drafts.values() as Iterable<Draft<unknown>>),
    ];
    return all.some(
      ({ saving, value }) =>
        saving.state === 'unsaved' ||
        saving.state === 'conflict' ||
        (saving.state === 'waiting' && !sendsOnLeaving(value)),
    );
  }

  function stop(): void {
    flush();
    language?.close();
    live?.close();
    proving?.close();
    starters.stop();
    deafen();
    clearTimeout(waitTimer);
    for (const timer of compileTimers.values()) clearTimeout(timer);
  }

  /** A behaviour's text as it saves itself. */
  function draftOf(name: string, text: string, revision: number): Draft<string> {
    const draft: Draft<string> = new Draft({
      value: text,
      revision,
      send: (value, from) =>
        put<string>(pathOf(`behaviours/${name}`), { text: value, from }, ({ theirs }) => ({
          content: (theirs as { text: string }).text,
          revision: (theirs as { revision: number }).revision,
        })),
      keep: keepUnder(keyOf(name)),
      onChange: () =>
        change(name, { text: draft.value, revision: draft.revision, saving: draft.saving }),
    });
    return draft;
  }

  let editSoundly: typeof editedSoundly | null = null;

  /** What an earlier visit left unsaved is offered. */
  async function findLeft(): Promise<void> {
    const found = await Promise.all(
      get().behaviours.map(async ({ name, text }) => ({
        name,
        text,
        left: await leftUnder<string>(keyOf(name)),
      })),
    );
    const behaviours = found.flatMap(({ name, text, left }) =>
      left === null || left.value === text ? [] : [{ name, text: left.value, at: left.at }],
    );
    const structure = await leftUnder<Form>(STRUCTURE);
    const read =
      structure === null || equal(structure.value as unknown as Value, form() as unknown as Value)
        ? null
        : (await import('@/core/form/definition')).FormSchema.safeParse(structure.value);
    const leftForm = read?.success === true ? read.data : null;
    if (behaviours.length === 0 && leftForm === null) return;
    set({
      left: {
        at: Math.max(...behaviours.map(({ at }) => at), leftForm === null ? 0 : structure!.at),
        behaviours,
        form: leftForm,
      },
    });
  }

  /** Brings back what an earlier visit left unsaved, or throws it away. */
  function takeLeft(take: boolean): void {
    const { left } = get();
    if (left === null) return;
    set({ left: null });
    if (take) {
      for (const { name, text } of left.behaviours) if (drafts.has(name)) edit(name, text);
      if (left.form !== null) putForm(advance(get().structure.history, left.form));
    }
    for (const { name } of left.behaviours) void forgetLeft(keyOf(name));
    void forgetLeft(STRUCTURE);
  }

  const dirty = new Set<string>();
  /** The text of each behaviour that its diagnostics are about. */
  const diagnosed = new Map<string, string>();
  let checking: Promise<void> | null = null;

  /** Checks a behaviour as soon as the worker is free; of several texts typed meanwhile only the last is checked. */
  function check(name: string): Promise<void> {
    dirty.add(name);
    return (checking ??= checkDirty().finally(() => {
      checking = null;
    }));
  }

  async function checkDirty(): Promise<void> {
    for (let [name] = dirty; name !== undefined; [name] = dirty) {
      dirty.delete(name);
      const behaviour = get().behaviours.find((one) => one.name === name);
      if (behaviour === undefined) continue;
      const { text } = behaviour;
      const diagnostics = await brain().diagnose({ name, text });
      const now = get().behaviours.find((one) => one.name === name);
      diagnosed.set(name, text);
      // What is found anew and is the same draws nothing anew.
      if (now?.text === text && JSON.stringify(now.diagnostics) !== JSON.stringify(diagnostics))
        change(name, { diagnostics });
    }
  }

  /** What one behaviour says can be wrong because of another, and parts may wait for a script no more. `fresh` has just been checked. */
  async function checkAll(fresh: string | null = null): Promise<void> {
    for (const { name } of get().behaviours) if (name !== fresh) await check(name);
    set({ idle: await brain().idleParts(), checked: true });
  }

  async function compileOne(name: string): Promise<void> {
    const { text } = behaviourOf(name);
    const compiled = await brain().compile({ name, text });
    // An answer about a text that has changed since says nothing any more.
    if (get().behaviours.find((one) => one.name === name)?.text !== text) return;
    const broken = compiled.failure;
    change(name, {
      ...(broken === null
        ? { running: compiled }
        : behaviourOf(name).running === null
          ? { running: compiled }
          : {}),
      broken,
    });
  }

  /** Loads what runs now and does everything done so far again. */
  async function replay(): Promise<void> {
    const { open, steps, answers: before } = get();
    set({ busy: true });
    await live!.load(engineMaterial());
    const answers = await live!.play(openingOf(open, form(), cast()), steps);
    // A step done meanwhile was answered by the former scripts; all is done once more with it.
    if (get().steps !== steps || get().open !== open) return replay();
    set({
      // What came out the same draws nothing anew.
      answers: JSON.stringify(answers) === JSON.stringify(before) ? before : answers,
      at: Math.min(get().at, steps.length),
      listens:
        JSON.stringify(live!.listens) === JSON.stringify(get().listens)
          ? get().listens
          : live!.listens,
      busy: false,
      replayed: before.length === answers.length ? differenceInWords(before, answers) : null,
    });
    keepTime();
  }

  function edit(name: string, text: string): void {
    if (behaviourOf(name).text === text) return;
    drafts.get(name)!.edit(text);
    textChanged(name);
  }

  function textChanged(name: string): void {
    schedule(compileTimers, name, COMPILE_AFTER, () => void recompile(name));
    void check(name);
  }

  async function recompile(name: string): Promise<void> {
    await compileOne(name);
    if (get().behaviours.find((one) => one.name === name)?.broken !== null) return;
    await replay();
    // It was checked itself at the last key.
    void checkAll(name);
    await runScenarios();
  }

  function schedule(
    timers: Map<string, ReturnType<typeof setTimeout>>,
    name: string,
    after: number,
    work: () => void,
  ): void {
    clearTimeout(timers.get(name));
    timers.set(name, setTimeout(work, after));
  }

  /** Replays, runs the scenarios and checks, since one behaviour's words depend on the others. */
  async function afterSetChanged(): Promise<void> {
    await replay();
    void runScenarios();
    await checkAll();
  }

  /** Ends a conflict with one of the two texts. One that somebody removed or renamed meanwhile goes, or becomes a new one. */
  function settleConflict(name: string, take: 'mine' | 'theirs'): void {
    const { saving, text } = behaviourOf(name);
    if (saving.state !== 'conflict') return;
    if (saving.theirs.revision === 0) {
      void inSet.leave(name);
      if (take === 'mine') inSet.addBehaviour(readHeader({ name, text }).title, text);
      return;
    }
    drafts.get(name)!.settle(take);
    if (take === 'theirs') textChanged(name);
  }

  /** Puts a text at the cursor of the editor, which is opened for it. */
  function insert(text: string): void {
    if (get().pane !== 'code') set({ pane: 'code' });
    if (handle === null) waitingText = text;
    else handle.insert(text);
  }

  /** The editor that is open says so, and that it no longer is. */
  function attach(editor: EditorHandle): () => void {
    handle = editor;
    const text = waitingText;
    waitingText = null;
    // Once it has the text it was opened with.
    if (text !== null) setTimeout(() => editor.insert(text));
    return () => {
      if (handle === editor) handle = null;
    };
  }

  /** What uses a part, in every form, as it is saved. */
  async function usesOfPart(part: string): Promise<void> {
    await saveAll();
    const reply = await get_<Uses>(`${pathOf('uses')}?${new URLSearchParams({ part }).toString()}`);
    if (!reply.ok) return set({ notice: { tone: 'error', text: reply.says } });
    const { code, scenarios } = reply.body;
    const places = [
      ...code.flatMap(({ form: of, behaviour, title, lines, text }) =>
        lines.map((line, i): UsePlace => ({
          is: 'line',
          form: of,
          behaviour,
          title,
          line,
          text: text[i]!,
        })),
      ),
      ...scenarios.map(({ form: of, name, title, steps }): UsePlace => ({
        is: 'scenario',
        form: of,
        name,
        title,
        steps,
      })),
    ];
    set({ uses: { of: part, places } });
  }

  function usesOfName(of: string, places: readonly Place[]): void {
    set({
      uses: {
        of,
        places: places.map(({ file, line, text }): UsePlace => ({
          is: 'line',
          form: form().name,
          behaviour: file,
          title: readHeader({ name: file, text: behaviourOf(file).text }).title,
          line,
          text,
        })),
      },
    });
  }

  /** Time passes on the bench as it does for people: when something waited for becomes due, a wait is done as a step. */
  function keepTime(): void {
    clearTimeout(waitTimer);
    const { answers, steps, at } = get();
    const last = answers.at(-1);
    if (last === undefined || at < steps.length || answers.length !== steps.length + 1) return;
    const due = Math.min(
      ...last.waiting.flatMap((run) => run.calls.map((call) => call.due ?? Infinity)),
    );
    if (Number.isFinite(due))
      waitTimer = setTimeout(
        () => void step({ wait: Math.max(0, due - last.clock) }),
        Math.max(0, due - last.clock),
      );
  }

  async function step(done: Step): Promise<void> {
    if (get().at < get().steps.length) return;
    clearTimeout(waitTimer);
    const steps = [...get().steps, done];
    set({ steps, at: steps.length, replayed: null });
    const answer = await live!.step(done);
    // After a replay has begun, it brings the answers itself.
    if (get().answers.length !== steps.length) return;
    set((state) => ({ answers: [...state.answers, answer], listens: live!.listens }));
    const { parent } = get().open;
    if (parent !== undefined && answer.toParent.length > 0)
      handToParent({ ...parent, sets: answer.toParent });
    keepTime();
  }

  /** Edits the structure; what cannot be done is said and leaves it as it is. */
  function editStructure(edit: Edit): boolean {
    const { structure } = get();
    try {
      putForm(
        advance(structure.history, editSoundly!(structure.history.present, edit, material.tables)),
      );
      return true;
    } catch (caught) {
      if (!(caught instanceof InvalidEdit)) throw caught;
      set({ structure: { ...structure, says: caught.message } });
      return false;
    }
  }

  function putForm(history: History<Form>): void {
    const { structure } = get();
    const { selected } = structure;
    const kept = selected !== null && placeOf(history.present, selected) !== null ? selected : null;
    set((state) => ({
      material: { ...state.material, form: history.present },
      structure: { ...structure, history, selected: kept, says: null },
    }));
    structureDraft.edit(history.present);
    void resurround();
  }

  /** The new form is in force at once: for the editor, in the live form, for the scenarios. */
  async function resurround(): Promise<void> {
    await brain().surround(get().material);
    await replay();
    void runScenarios();
    await checkAll();
  }

  /** Ends a conflict with one of the two structures. */
  function settleStructure(take: 'mine' | 'theirs'): void {
    structureDraft.settle(take);
    const { history } = get().structure;
    if (take === 'theirs' && history.present !== structureDraft.value)
      putForm(advance(history, structureDraft.value));
  }

  /**
   * Renames a part, or a key of its options, everywhere; or only plans it. Scripts, scenarios and records change with it,
   * so the bench is made anew, with the steps done so far.
   */
  async function rename(
    { part, key, to }: { part: PartName; key: string | null; to: string },
    apply: boolean,
  ): Promise<Renaming | { says: string }> {
    await saveAll();
    if (
      get().structure.saving.state !== 'saved' ||
      get().behaviours.some(({ saving }) => saving.state !== 'saved')
    )
      return {
        says: 'Something is not saved yet. Renaming reaches everywhere, so all has to be saved first.',
      };
    const reply = await call<Renaming>('POST', pathOf('rename'), { part, key, to, apply });
    if (!reply.ok) return { says: reply.says };
    if (reply.body.applied) {
      const { sort } = reply.body.plan;
      const bare = part.split('.').at(-1)!;
      const now = key !== null ? part : part.slice(0, part.length - bare.length) + to;
      const { open, steps, active } = get();
      const renamed = { part: now, isKey: key !== null, from: key ?? bare, to };
      const done = { title: '-', open, steps };
      const { renameInScenario, rekeyInScenario } = await import('@/core/structure/in-scenario');
      const { steps: translated } =
        key === null
          ? renameInScenario(done, part, to, sort)
          : rekeyInScenario(done, part, key, to, sort);
      renew({ open, steps: translated as Step[], active, renamed });
    }
    return reply.body;
  }

  async function undoRenaming(): Promise<void> {
    const { renamed } = get().structure;
    if (renamed === null) return;
    const { part, isKey, from, to } = renamed;
    const reply = await rename({ part, key: isKey ? to : null, to: from }, true);
    if ('says' in reply)
      set(({ structure }) => ({ structure: { ...structure, says: reply.says } }));
  }

  /** Opens the form with a record that is none of the samples. */
  async function takeRecord(record: SampleRecord): Promise<void> {
    set((state) => ({
      material: {
        ...state.material,
        records: [...state.material.records.filter(({ id }) => id !== record.id), record],
      },
    }));
    await reopen({ ...get().open, record: record.id });
  }

  /** Keeps what the last submission would save as a sample record, and opens the form with it. */
  async function keepSample(): Promise<void> {
    const submit = get().answers.findLast((answer) => answer.submit !== null)?.submit;
    if (submit?.saved !== true) return;
    await saveAll();
    const reply = await call<SampleRecord>('POST', pathOf('records'), { values: submit.values });
    if (!reply.ok) return set({ notice: { tone: 'error', text: reply.says } });
    await takeRecord(reply.body);
    set({ notice: { tone: 'info', text: `Kept as record ${reply.body.id}, which is open now.` } });
  }

  /** Adds a record of a parent form to those the form can be opened from. */
  function takeParent(name: string, record: SampleRecord): void {
    const forms = get().material.forms.map((one) =>
      one.form.name === name
        ? { ...one, records: [...one.records.filter(({ id }) => id !== record.id), record] }
        : one,
    );
    set((state) => ({ material: { ...state.material, forms } }));
  }

  async function reopen(open: Open = get().open): Promise<void> {
    set({ open, steps: [], answers: [], at: 0, replayed: null, asked: null });
    await replay();
  }

  /** Takes the last step back by doing the others again. */
  async function undo(): Promise<void> {
    if (get().steps.length === 0) return;
    const steps = get().steps.slice(0, -1);
    set({ steps, at: steps.length, answers: get().answers.slice(0, steps.length + 1) });
    await replay();
    set({ replayed: null });
  }

  async function runScenarios(): Promise<void> {
    if (get().runningScenarios) return;
    set({ runningScenarios: true });
    proving ??= engineInWorker();
    const { scenarios } = get();
    await proving.load({ ...engineMaterial(), traced: false });
    for (const { name, scenario } of scenarios) {
      const result = await runScenario(scenario, form(), material, cast(), (opening, steps) =>
        proving!.play(opening, steps),
      );
      set((state) => ({ results: { ...state.results, [name]: result } }));
    }
    set({ runningScenarios: false });
    await keepRun();
  }

  /** How the scenarios came out is kept for the page of forms, once all that they depend on is saved. */
  async function keepRun(): Promise<void> {
    const { scenarios, results, behaviours, structure } = get();
    if (
      structure.saving.state !== 'saved' ||
      behaviours.some(({ saving, broken }) => saving.state !== 'saved' || broken !== null)
    )
      return;
    const passed = scenarios.filter(({ name }) => results[name]?.passed === true).length;
    await call('PUT', pathOf('scenario-run'), { passed, failed: scenarios.length - passed });
  }

  /** Opens a scenario in the live form, at the step that first fails. */
  async function openScenario(name: string): Promise<void> {
    const { scenario } = get().scenarios.find((entry) => entry.name === name)!;
    const steps = scenario.steps.filter((entry): entry is Step => !isExpect(entry));
    const miss = get().results[name]?.misses[0];
    const at =
      miss === undefined
        ? steps.length
        : scenario.steps.slice(0, miss.step).filter((entry) => !isExpect(entry)).length;
    set({
      open: scenario.open,
      steps,
      answers: [],
      at,
      replayed: null,
      asked:
        miss === undefined || miss.part.startsWith('@')
          ? null
          : { part: miss.part, aspect: miss.aspect },
    });
    await replay();
    set({ at });
  }

  async function keepScenario(title: string): Promise<boolean> {
    const { open, steps, answers } = get();
    const reply = await call<{ name: string; scenario: Scenario; revision: number }>(
      'POST',
      pathOf('scenarios'),
      recordScenario(title, open, form(), steps, answers),
    );
    if (!reply.ok) {
      set({ notice: { tone: 'error', text: reply.says } });
      return false;
    }
    set((state) => ({
      scenarios: [...state.scenarios, reply.body],
      notice: { tone: 'info', text: `Kept as the scenario “${title}”.` },
    }));
    await runScenarios();
    return true;
  }

  async function removeScenario(name: string): Promise<void> {
    const from = get().scenarios.find((entry) => entry.name === name)?.revision ?? 1;
    const reply = await call('DELETE', pathOf(`scenarios/${name}?from=${from}`));
    if (!reply.ok) set({ notice: { tone: 'error', text: reply.says } });
    else set((state) => ({ scenarios: state.scenarios.filter((entry) => entry.name !== name) }));
  }

  async function makeRelease(): Promise<void> {
    // What is not saved yet would be missing from the release.
    await saveAll();
    if (get().structure.saving.state !== 'saved') {
      set({
        notice: { tone: 'error', text: 'The structure is not saved yet, so no release was made.' },
      });
      return;
    }
    if (get().behaviours.some((behaviour) => behaviour.saving.state !== 'saved')) {
      set({
        notice: {
          tone: 'error',
          text: 'Some behaviours are not saved yet, so no release was made.',
        },
      });
      return;
    }
    const reply = await call<{ number: number }>('POST', pathOf('releases'));
    if (reply.ok)
      set({
        release: reply.body.number,
        notice: { tone: 'info', text: `Release ${reply.body.number} is out.` },
      });
    else set({ notice: { tone: 'error', text: reply.says } });
  }

  function goTo(behaviour: string, line: number): void {
    const name = get().behaviours.find(
      (entry) => entry.name === behaviour || entry.name.replace(/\.[jt]s$/, '') === behaviour,
    )?.name;
    if (name !== undefined)
      set((state) => ({
        uses: null,
        active: name,
        pane: 'code',
        goTo: { behaviour: name, line, count: (state.goTo?.count ?? 0) + 1 },
      }));
  }

  function pathOf(rest: string): string {
    return `/api/forms/${formName}/${rest}`;
  }

  const inSet = behaviourSet(store, {
    edit,
    saveAll,
    begin: (name) => void drafts.set(name, draftOf(name, '', 0)),
    forget: (name) => {
      clearTimeout(compileTimers.get(name));
      drafts.get(name)?.end(true);
      drafts.delete(name);
    },
    renamed: (renames) => {
      const moved = renames.map(({ from, to }) => [to, drafts.get(from)!] as const);
      for (const { from } of renames) {
        drafts.get(from)!.end(true);
        drafts.delete(from);
      }
      for (const [to, { value, revision }] of moved) drafts.set(to, draftOf(to, value, revision));
    },
    brain,
    pathOf,
    afterSetChanged,
  });
  const starters = trying({ brain, material: engineMaterial, cast, source: material });

  return {
    ...inSet,
    tryOut: starters.tryOut,
    store,
    start,
    stop,
    flush,
    saveAll,
    unsaved,
    takeLeft,
    takeRecord,
    keepSample,
    takeParent,
    edit,
    settleConflict,
    step,
    reopen,
    undo,
    runScenarios,
    openScenario,
    keepScenario,
    removeScenario,
    makeRelease,
    light,
    /** Lights up a part on the other side; nothing is drawn anew for it. */
    shine: (part: string | null, from: 'code' | 'form') => {
      if (light.getState().part !== part || light.getState().from !== from)
        light.setState({ part, from, reveal: false });
    },
    /** Shows a part in the outline and the live form, and what its life was. */
    reveal: (part: string) => {
      set({ asked: { part, aspect: null }, side: 'form' });
      light.setState({ part, from: 'code', reveal: true });
    },
    /** Opens a part under Structure, where it gets another name. */
    renamePart: (part: string) =>
      set(({ structure }) => ({
        pane: 'structure',
        structure: { ...structure, selected: part, says: null, atLabel: false },
      })),
    say: (text: string) => set({ notice: { tone: 'info', text } }),
    brain,
    insert,
    attach,
    cursors,
    usesOfPart,
    usesOfName,
    goToPlace: (place: BenchPlace) => {
      if (place === null) return;
      if (place.is === 'line') goTo(place.behaviour, place.line);
      else if (place.is === 'part')
        set(({ structure }) => ({
          pane: 'structure',
          structure: {
            ...structure,
            selected: placeOf(form(), place.part) === null ? null : place.part,
            atLabel: place.atLabel === true,
          },
        }));
      else if (get().scenarios.some(({ name }) => name === place.name))
        void openScenario(place.name);
    },
    /** Makes the edits of a fix, provided that the text is still the one it was found in. */
    mend: (name: string, found: Diagnostic, { edits }: Fix) => {
      const { text, diagnostics } = behaviourOf(name);
      if (!diagnostics.includes(found) || diagnosed.get(name) !== text) return;
      edit(
        name,
        edits
          .toSorted((a, b) => b.from - a.from)
          .reduce((now, { from, to, text: by }) => now.slice(0, from) + by + now.slice(to), text),
      );
    },
    /** Tells the editor that is open. */
    editor: (what: Exclude<keyof EditorHandle, 'insert'>) => handle?.[what](),
    closeUses: () => set({ uses: null }),
    /** Asks for the title of a new behaviour, or no more. */
    askForBehaviour: (adding: boolean) => set({ adding }),
    forgetDeleted: () => set({ deleted: null }),
    map: (): Promise<FormMap> => brain().map(),
    /** Opens a page of the handbook beside the code. */
    openHandbook: (page: string = get().handbook) => set({ side: 'handbook', handbook: page }),
    showForm: () => set({ side: 'form' }),
    editStructure,
    /** What edits are done with comes with the pane for them: it is as large as the rest of the bench. */
    editStructureBy: (edit: typeof editedSoundly) => void (editSoundly = edit),
    settleStructure,
    rename,
    /** Who makes a new bench of fresh material, which takes over what it is given. */
    renewBy: (by: (over: TakenOver) => void) => void (renew = by),
    undoRenaming,
    forgetRenaming: () => set(({ structure }) => ({ structure: { ...structure, renamed: null } })),
    undoStructure: () => putForm(undoIn(get().structure.history)),
    redoStructure: () => putForm(redoIn(get().structure.history)),
    select: (selected: PartName | null) =>
      set(({ structure }) => ({
        structure: { ...structure, selected, says: null, atLabel: false },
      })),
    showPane: (pane: BenchState['pane']) => set({ pane }),
    choose: (active: string) => set({ active, pane: 'code' }),
    lookAt: (at: number) => {
      set((state) => ({ at: Math.max(0, Math.min(at, state.steps.length)) }));
      keepTime();
    },
    ask: (part: string, aspect: string | null = null) => set({ asked: { part, aspect } }),
    showNames: (names: boolean) => set({ names }),
    dismiss: () => set({ notice: null }),
    goTo,
  };
}

/** Whether a replay came out as before, and if not, for which parts. */
function differenceInWords(before: readonly Answer[], now: readonly Answer[]): string {
  const [was, is] = [before, now].map((answers) => seenAt(answers, answers.length - 1)) as [
    Seen,
    Seen,
  ];
  const other = [
    ...Object.keys(is.parts).filter((name) => !equal(was.parts[name], is.parts[name])),
    ...Object.keys(is.rows).filter((name) => !equal(was.rows[name], is.rows[name])),
  ];
  if (other.length === 0) return 'replayed: nothing changed';
  const shown = other.slice(0, 3).join(', ');
  return `replayed: ${shown}${other.length > 3 ? ` and ${other.length - 3} more` : ''} changed`;
}
