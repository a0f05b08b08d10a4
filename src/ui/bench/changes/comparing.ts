/** Plays a former version and the form as it is side by side, in workers. Loaded by whoever compares. */
import type { Compared } from '@/core/compare/compare';
import type { Difference } from '@/core/compare/difference';
import type { Change } from '@/core/compare/version';
import { parentsOf } from '@/core/explore/ground';
import { KEPT_FILLINGS_PER_PAGE } from '@/core/limits';
import type { KeptFilling, KeptFillingsPage } from '@/core/scenario/kept-steps';
import { DEFAULT_CLOCK } from '@/core/scenario/opening';
import { takingPart, type Source } from '@/core/script/header';
import { modulesUsed } from '@/core/script/imports';
import type { Material } from '@/core/session/material';
import type { FormerVersion } from '@/core/workspace/release-changes';
import type { LanguageClient } from '@/workers/language-client';
import type { VersionRequest } from '@/workers/compare-calls';
import { compareInWorker } from '@/workers/compare-in-browser';
import { replayInWorker } from '@/workers/replay-in-browser';
import { get } from '../../api';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import { doneByPeople } from '../common/done-by-people';

/** A comparison as far as it has come. */
export interface ComparedSoFar {
  differences: readonly Difference[];
  sessions: number;
  /** What it came to; null while it goes on. */
  compared: Compared | null;
}

/** Filling-ins as far as they have been done again. */
export interface ReplayedSoFar {
  done: number;
  /** Those that are kept. */
  all: number;
  differing: readonly { filling: KeptFilling; differences: readonly Difference[] }[];
  isOver: boolean;
}

export interface BothVersions {
  before: VersionRequest;
  after: VersionRequest;
  change: Change;
}

/** Compiled once each. */
const materials = new WeakMap<FormerVersion, Promise<Material>>();

/** What a former version runs with. */
export function materialOf(former: FormerVersion, language: LanguageClient): Promise<Material> {
  const made = materials.get(former) ?? compiledOf(former, language);
  materials.set(former, made);
  return made;
}

async function compiledOf(former: FormerVersion, language: LanguageClient): Promise<Material> {
  const compiled = (some: readonly Source[]) =>
    Promise.all(some.map((source) => language.compile(source)));
  const [scripts, modules] = await Promise.all([
    compiled(takingPart(former.sources)),
    compiled(modulesUsed(former.sources)),
  ]);
  const { form, tables, services, answering } = former;
  return { form, tables, services, answering, scripts, modules, traced: true };
}

/** Both versions as workers are told of them, and what changed from the one to the other. */
export async function bothVersions(
  core: BenchCore,
  code: Code,
  former: FormerVersion,
): Promise<BothVersions> {
  const language = core.languageWorker();
  const then = await materialOf(former, language);
  const sources = code.scripts.sources();
  const now = code.scripts.material();
  const [mentionsBefore, mentionsAfter, change, done] = await Promise.all([
    language.mentions(takingPart(former.sources)),
    language.mentions(takingPart(sources)),
    language.change(takingPart(former.sources), takingPart(sources)),
    doneByPeople(core),
  ]);
  const versionOf = (
    its: Material,
    mentions: typeof mentionsBefore,
    of: readonly Source[],
  ): VersionRequest => ({
    material: its,
    people: [...core.people],
    records: core.cast().records.map(({ id, values }) => ({ id, values })),
    parents: parentsOf(its.form.name, core.cast().forms ?? []),
    clock: Date.parse(DEFAULT_CLOCK),
    done,
    mentions,
    sources: of.map(({ name, text }) => ({ name, text })),
  });
  return {
    before: versionOf(then, mentionsBefore, former.sources),
    after: versionOf(now, mentionsAfter, sources),
    change,
  };
}

/** Throws WorkFailed, also when it is stopped. */
export async function compareBoth(
  both: BothVersions,
  limits: { sessions: number; milliseconds: number },
  hear: (so: ComparedSoFar) => void,
  stop: AbortSignal,
): Promise<void> {
  const done = await compareInWorker(
    { ...both, seed: 1, sessions: limits.sessions, until: Date.now() + limits.milliseconds },
    (sessions, differences) => hear({ sessions, differences, compared: null }),
    stop,
  );
  hear({ sessions: done.sessions, differences: done.differences, compared: done });
}

/** Does again what people did, in as many workers as there are cores to spare. Throws WorkFailed and Error. */
export async function replayKept(
  core: BenchCore,
  { before, after }: BothVersions,
  hear: (so: ReplayedSoFar) => void,
  stop: AbortSignal,
): Promise<void> {
  const so: ReplayedSoFar = { done: 0, all: 0, differing: [], isOver: false };
  let last: number | null = null;
  let isRead = false;
  /** Pages are read one after the other, since each begins where the one before it ends. */
  let reading: Promise<unknown> = Promise.resolve();
  const page = async (): Promise<readonly KeptFilling[]> => {
    if (isRead) return [];
    const from: string = last === null ? '' : `&before=${last}`;
    const reply = await get<KeptFillingsPage>(
      core.pathOf(`kept?most=${KEPT_FILLINGS_PER_PAGE}${from}`),
    );
    if (!reply.ok) throw new Error(reply.says);
    const { fillings, all } = reply.body;
    isRead = fillings.length < KEPT_FILLINGS_PER_PAGE;
    last = fillings.at(-1)?.id ?? null;
    so.all = Math.max(so.all, all);
    return fillings;
  };
  const work = async () => {
    for (;;) {
      const read = reading.then(page);
      reading = read.catch(() => undefined);
      const fillings = await read;
      if (fillings.length === 0 || stop.aborted) return;
      let told = 0;
      const tell = (done: number) => {
        so.done += done - told;
        told = done;
        hear({ ...so });
      };
      const differing = await replayInWorker(
        { before, after, done: fillings.map(({ opening, steps }) => ({ opening, steps })) },
        tell,
        stop,
      );
      so.differing = [
        ...so.differing,
        ...differing.map(({ at, differences }) => ({ filling: fillings[at]!, differences })),
      ].toSorted((a, b) => b.filling.id - a.filling.id);
      tell(fillings.length);
    }
  };
  const cores = Math.max(1, Math.min(4, navigator.hardwareConcurrency || 1));
  await Promise.all(Array.from({ length: cores }, work));
  hear({ ...so, isOver: true });
}
