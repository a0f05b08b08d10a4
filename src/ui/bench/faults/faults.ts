/**
 * What the search finds while the bench is open: it goes over the form again after each edit, beside the page, and gives
 * way to whoever types or uses the form. It looks at what was found before first, then takes one seed after the other.
 */
import { createStore } from 'zustand/vanilla';
import { keyOf, type Finding } from '@/core/explore/finding';
import { judged, meantIn, type Judged } from '@/core/explore/meant';
import { parentsOf } from '@/core/explore/ground';
import { merged } from '@/core/explore/merged';
import { settled, type Proof } from '@/core/explore/settled';
import { reachedTogether, type Reached } from '@/core/explore/reached';
import { ASKED_ABOUT } from '@/core/debugging/question';
import { DEFAULT_CLOCK } from '@/core/scenario/opening';
import type { Scenario } from '@/core/scenario/definition';
import { openOf } from '@/core/scenario/recorded';
import { takingPart } from '@/core/script/header';
import { baseName } from '@/core/script/script-name';
import { namesFor, type Names } from '@/core/tape/words';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import { doneByPeople } from '../common/done-by-people';
import type { Screen } from '../common/screen';
import type { SpareTime } from '../common/spare-time';
import type { FormRoom } from '../form/form';
import type { TapeRoom } from '../tape/tape';

/** Sessions of each round, one seed each; the first tells the near faults at once. */
export const ROUNDS = [200, 600, 1500, 1500] as const;
/** Sessions of each further round that somebody asks for. */
const MORE = 3000;
export interface FaultsState extends Judged {
  /** How far the round under way is; null while nothing is searched. */
  underway: { sessions: number; of: number } | null;
  /** Sessions of the rounds that are over, of the code as it is now. */
  sessions: number;
  reached: Reached | null;
  /** Which rounds are over. */
  rounds: number;
  /** What is shown was found in the code before the edit. */
  isOld: boolean;
  /** Somebody stopped it. */
  stopped: boolean;
  /** Why it could not go on. */
  says: string | null;
  /** The texts it was found in, by the name of the script. */
  texts: ReadonlyMap<string, string>;
}

const NOTHING: FaultsState = {
  findings: [],
  meant: [],
  outdated: [],
  underway: null,
  sessions: 0,
  reached: null,
  rounds: 0,
  isOld: false,
  stopped: false,
  says: null,
  texts: new Map(),
};

export function benchFaults(
  core: BenchCore,
  screen: Screen,
  code: Code,
  form: FormRoom,
  tape: TapeRoom,
  spare: SpareTime,
  keepOffered: (scenario: Promise<Scenario | null>) => Promise<void>,
) {
  const store = createStore<FaultsState>(() => NOTHING);
  const { getState: get, setState: set } = store;
  let going = false;
  /** Counts up with the code, so that a search of former code tells nothing any more. */
  let version = 0;
  /** Everything found so far, answered or not. */
  let all: readonly Finding[] = core.material.found;
  /** Opened as soon as it is found. */
  let wanted: string | null = null;

  const names = (): Names =>
    namesFor(
      core.form(),
      code.scripts.sources().map(({ name }) => ({ name, title: name })),
      core.people,
    );

  /** What the checks have found in the sources, which settles what the search only suspects. */
  const proofs = (): Proof[] =>
    code.store
      .getState()
      .behaviours.flatMap(({ name, diagnostics }) =>
        diagnostics.map(({ line, code: of }) => ({ behaviour: baseName(name), line, code: of })),
      );

  function show(found: readonly Finding[], more: Partial<FaultsState> = {}): void {
    all = found;
    const seen = settled(found, proofs());
    const now = judged(seen, meantIn(code.scripts.sources()));
    const { findings, meant, outdated } = get();
    // What is found again is the same to whoever shows it: most words of a search bring nothing new.
    const isSame = JSON.stringify(now) === JSON.stringify({ findings, meant, outdated });
    set({ ...(isSame ? {} : now), isOld: false, ...more });
    const asked = found.find((one) => keyOf(one) === wanted);
    if (asked === undefined) return;
    wanted = null;
    void open(asked);
  }

  async function round(sessions: number): Promise<void> {
    const mine = version;
    const { signal } = spare;
    const sources = code.scripts.sources();
    const material = { ...code.scripts.material(), traced: true };
    const [mentions, done] = await Promise.all([
      core.languageWorker().mentions(takingPart(sources)),
      doneByPeople(core),
    ]);
    if (mine !== version || signal.aborted) return;
    const texts = new Map(sources.map(({ name, text }) => [name, text]));
    const { rounds, isOld } = get();
    // What was found in the former code is looked at by itself; what the search finds is put to it.
    let base: readonly Finding[] = isOld ? [] : all;
    set({ underway: { sessions: 0, of: sessions }, says: null });
    // What a search is asked in is read by its schema, which the page can do without until then.
    const { searchInWorker } = await import('@/workers/search-in-browser');
    const searched = await searchInWorker(
      {
        material,
        people: [...core.people],
        records: core.cast().records.map(({ id, values }) => ({ id, values })),
        parents: parentsOf(material.form.name, core.cast().forms ?? []),
        clock: Date.parse(DEFAULT_CLOCK),
        done,
        mentions,
        seed: rounds + 1,
        sessions,
        until: null,
        known: isOld ? [...all] : [],
      },
      {
        again(findings) {
          base = findings;
          if (mine === version) show(merged(base), { texts: textsNow(texts) });
        },
        progress(sessionsDone, findings) {
          if (mine !== version) return;
          show(merged(base, findings), {
            texts: textsNow(texts),
            underway: { sessions: sessionsDone, of: sessions },
          });
        },
      },
      signal,
    );
    if (mine !== version) return;
    const before = get();
    show(merged(base, searched.findings), {
      texts: textsNow(texts),
      sessions: before.sessions + searched.sessions,
      rounds: rounds + 1,
      reached:
        before.reached === null
          ? searched.reached
          : reachedTogether(before.reached, searched.reached),
    });
  }

  /** The texts as they are kept already where they are the same. */
  function textsNow(texts: ReadonlyMap<string, string>): ReadonlyMap<string, string> {
    const kept = get().texts;
    const isSame =
      kept.size === texts.size && [...texts].every(([name, text]) => kept.get(name) === text);
    return isSame ? kept : texts;
  }

  /** Goes through the rounds; each is begun again where it had to give way. */
  async function go(rounds: readonly number[]): Promise<void> {
    if (going || core.isReleased) return;
    going = true;
    try {
      while (get().rounds < rounds.length && !get().stopped && !spare.ended)
        await spare.inTurn(() => next(rounds));
    } finally {
      going = false;
    }
  }

  async function next(rounds: readonly number[]): Promise<void> {
    await spare.quiet();
    const sessions = rounds[get().rounds];
    if (sessions === undefined || get().stopped || spare.ended) return;
    const { signal } = spare;
    try {
      await round(sessions);
    } catch (caught) {
      // One that had to give way is begun again.
      if (!signal.aborted)
        set({ stopped: true, says: caught instanceof Error ? caught.message : String(caught) });
    } finally {
      set({ underway: null });
    }
  }

  /** The code, the form or a table is another: everything is looked at again. */
  function changed(): void {
    version++;
    spare.giveWay();
    set(({ stopped }) => ({
      sessions: 0,
      rounds: 0,
      reached: null,
      isOld: all.length > 0,
      stopped,
      underway: null,
    }));
    void go(ROUNDS);
  }

  /** Opens a finding at its moment in the live form, beside the answer to why. */
  async function open(finding: Finding, which: 'way' | 'other' = 'way'): Promise<void> {
    const { opening, steps } = which === 'other' ? (finding.other ?? finding.way) : finding.way;
    const { record } = opening;
    if (record !== null && !core.cast().records.some(({ id }) => id === record.id))
      core.putRecord(record);
    const { part, aspect } = finding;
    // What a script does by itself has no part to ask about.
    if (part.startsWith('@') || part.includes(':')) return form.show(openOf(opening), steps);
    const asked = aspect === 'hiddenValue' ? 'value' : aspect;
    const isAsked = ASKED_ABOUT.includes(asked);
    await form.show(openOf(opening), steps, steps.length, { part, aspect: isAsked ? asked : null });
    form.reveal(part);
    if (isAsked) tape.ask(part, asked);
  }

  /** Keeps a finding as a scenario, which fails until the fault is mended. */
  const keep = (finding: Finding): Promise<void> => keepOffered(scenarioOf(finding));

  /** The scenario of a finding, with the record that it opens saved; null where there is none, and people are told. */
  async function scenarioOf(finding: Finding): Promise<Scenario | null> {
    const { records } = core.cast();
    const { findingAsScenario } = await import('@/core/explore/as-scenario');
    const made = findingAsScenario(finding, core.form(), names(), records);
    if (made === null) {
      screen.complain('Nobody can know what would be right here.');
      return null;
    }
    return core.withSample(made);
  }

  /** Answers a finding in the code: it is meant, and why. */
  function mean(finding: Finding, reason: string): void {
    const at = placeOf(finding);
    const text = reason.replace(/\s+/g, ' ').trim();
    if (at === null || text === '') return;
    const lines = at.text.split('\n');
    const [indent] = /^\s*/.exec(lines[at.line - 1] ?? '')!;
    lines.splice(at.line - 1, 0, `${indent}// tavro: meant, ${finding.kind}: ${text}`);
    code.edit(at.name, lines.join('\n'));
  }

  /** The script and line of a finding as the code is now; null where no line says anything, or the text has changed since. */
  function placeOf({ lines }: Finding): { name: string; line: number; text: string } | null {
    const [first] = lines;
    if (first === undefined || typeof first.line !== 'number') return null;
    const script = code.store
      .getState()
      .behaviours.find(({ name }) => baseName(name) === first.behaviour);
    return script === undefined || get().texts.get(script.name) !== script.text
      ? null
      : { name: script.name, line: first.line, text: script.text };
  }

  return {
    store,
    placeOf,
    changed,
    /** Begins to search by itself, where there is a core to spare and nobody has stopped it. */
    begin(): void {
      set({ stopped: !spare.goesOn });
      changed();
    },
    open,
    keep: core.changes(keep, Promise.resolve()),
    mean: core.changes(mean, undefined),
    /** Searches on where it was stopped or had come to its end. */
    search(): void {
      const { rounds } = get();
      set({ stopped: false, says: null });
      spare.keepStopped(false);
      spare.hurry();
      void go(rounds < ROUNDS.length ? ROUNDS : [...Array<number>(rounds).fill(0), MORE]);
    },
    stop(): void {
      set({ stopped: true });
      spare.keepStopped(true);
      spare.giveWay();
    },
    /** Opens a finding by its name, as soon as it is found. */
    openNamed(key: string): void {
      const finding = all.find((one) => keyOf(one) === key);
      if (finding === undefined) wanted = key;
      else void open(finding);
    },
  };
}
