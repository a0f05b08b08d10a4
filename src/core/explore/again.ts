/** Whether what was found before is still there, without searching for it: its sessions are played once more. */
import { Exploration } from './exploration';
import { placesOf, type Finding } from './finding';
import type { Ground, Stage } from './ground';
import type { Mentions } from './mentions';
import { Checkpoints } from './checkpoints';
import { repeatOf } from './repeat';
import { differencesOf } from './state';

/** The finding as it is now; null where it is gone, or where only another search can tell. */
export function stillFound(
  finding: Finding,
  ground: Ground,
  mentions: Mentions,
  stage: Stage,
): Finding | null {
  const { way, other, part, aspect } = finding;
  const search = new Exploration(ground, mentions, stage, 1, () => undefined, new Checkpoints());
  const repeat = repeatOf(finding);
  if (repeat !== null) {
    repeat.repeat(search, repeat.common, true);
    const now = search.foundAgain(finding);
    return now === null ? null : { ...now, lines: placesOf([...now.lines, ...finding.lines]) };
  }
  if (other === null) return null;
  const [one, theirs] = [way, other].map(({ opening, steps }) => search.quietly(opening, steps));
  const isThere = differencesOf(ground.form, one!, theirs!).some(
    (difference) => difference.part === part && difference.aspect === aspect,
  );
  return isThere ? { ...finding, lines: placesOf(search.said(part, aspect, one!, theirs!)) } : null;
}
