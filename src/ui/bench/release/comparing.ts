/** Plays the last release and the form as it is side by side, in a worker. Loaded by whoever makes a release. */
import type { Compared } from '@/core/compare/compare';
import type { Difference } from '@/core/compare/difference';
import { parentsOf } from '@/core/explore/ground';
import { DEFAULT_CLOCK } from '@/core/scenario/opening';
import { takingPart, type Source } from '@/core/script/header';
import { modulesUsed } from '@/core/script/imports';
import type { Material } from '@/core/session/material';
import type { FormerVersion } from '@/core/workspace/release-changes';
import type { CompareRequest } from '@/workers/compare-calls';
import { compareInWorker } from '@/workers/compare-in-browser';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';

/** Sessions played on both versions before a release, and real milliseconds after which it has to do with fewer. */
const SESSIONS = 1200;
const AT_MOST = 20_000;

/** What changes for people, as far as it is known. */
export interface ComparedSoFar {
  differences: readonly Difference[];
  sessions: number;
  /** What it came to; null while it goes on. */
  compared: Compared | null;
}

/** Throws WorkFailed, also when it is stopped. */
export async function compareWithFormer(
  core: BenchCore,
  code: Code,
  former: FormerVersion,
  hear: (so: ComparedSoFar) => void,
  stop: AbortSignal,
): Promise<void> {
  const language = core.languageWorker();
  const sources = code.scripts.sources();
  const compiled = (some: readonly Source[]) =>
    Promise.all(some.map((source) => language.compile(source)));
  const [scripts, modules, mentionsBefore, mentionsAfter, change] = await Promise.all([
    compiled(takingPart(former.sources)),
    compiled(modulesUsed(former.sources)),
    language.mentions(takingPart(former.sources)),
    language.mentions(takingPart(sources)),
    language.change(takingPart(former.sources), takingPart(sources)),
  ]);
  const versionOf = (
    its: Material,
    mentions: typeof mentionsBefore,
    of: readonly Source[],
  ): CompareRequest['before'] => ({
    material: its,
    people: [...core.people],
    records: core.cast().records.map(({ id, values }) => ({ id, values })),
    parents: parentsOf(its.form.name, core.cast().forms ?? []),
    clock: Date.parse(DEFAULT_CLOCK),
    mentions,
    sources: of.map(({ name, text }) => ({ name, text })),
  });
  const { form, tables, services, answering } = former;
  const then = { form, tables, services, answering, scripts, modules, traced: true };
  const done = await compareInWorker(
    {
      before: versionOf(then, mentionsBefore, former.sources),
      after: versionOf(code.scripts.material(), mentionsAfter, sources),
      change,
      seed: 1,
      sessions: SESSIONS,
      until: Date.now() + AT_MOST,
    },
    (sessions, differences) => hear({ sessions, differences, compared: null }),
    stop,
  );
  hear({ sessions: done.sessions, differences: done.differences, compared: done });
}
