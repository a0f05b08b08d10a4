/**
 * Searches a form for what is wrong without having been told what is right. The same seed and number of sessions find the
 * same in every host.
 */
import { causesOf } from './causes';
import { Checkpoints } from './checkpoints';
import type { Finding } from './finding';
import type { Ground, Stage } from './ground';
import type { Mentions } from './mentions';
import { never } from './never';
import { explored } from './phases';
import { reachedBy, type Reached } from './reached';
import { deadEnds } from './relations/submitting';
import { shrunk } from './shrink';

export interface SearchOptions {
  /** The same seed gives the same search. */
  seed: number;
  /** Sessions played at most. */
  sessions: number;
  /** Asked before each session; false ends the search with what it has found. `found` tells what it has so far. */
  goOn?: (sessions: number, found: () => readonly Finding[]) => boolean;
}

export interface Searched {
  findings: readonly Finding[];
  sessions: number;
  steps: number;
  /** It was ended before its sessions were used up. */
  cut: boolean;
  reached: Reached;
}

export function search(
  ground: Ground,
  mentions: Mentions,
  stage: Stage,
  { seed, sessions, goOn }: SearchOptions,
): Searched {
  const checkpoints = new Checkpoints();
  const { run, start, cut } = explored(
    ground,
    mentions,
    stage,
    {
      seed,
      sessions,
      goOn: (played, so) => goOn?.(played, () => causesOf(so.findings)) !== false,
    },
    checkpoints,
  );
  run.judgeGrowing();
  deadEnds(run);
  never(run, { opening: start, steps: [] });
  return {
    findings: causesOf(run.findings).map((finding) =>
      finding.level === 'wrong' ? shrunk(finding, ground, mentions, stage, checkpoints) : finding,
    ),
    sessions: run.sessions,
    steps: run.steps,
    cut,
    reached: reachedBy(run),
  };
}
