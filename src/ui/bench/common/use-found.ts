/** What the search has found, as other rooms show it: as problems, at the lines of a script, at parts. */
import { useMemo } from 'react';
import { scriptAt, type Finding } from '@/core/explore/finding';
import { columnOf } from '@/core/explore/part-names';
import { isProvable } from '@/core/explore/settled';
import { told } from '@/core/explore/told';
import { ofFinding, type Problem } from '@/core/problems/problems';
import type { Names } from '@/core/tape/words';
import { useRoom } from '../../use-room';
import { useMaterial, useNames } from './use-bench';
import type { Bench } from '../create-bench';

/** What is wrong; hints stay in their own list. */
export function useWrong(bench: Bench): readonly Finding[] {
  const findings = useRoom(bench.faults, (state) => state.findings);
  return useMemo(() => findings.filter(({ level }) => level === 'wrong'), [findings]);
}

export function useFoundProblems(bench: Bench): Problem[] {
  const wrong = useWrong(bench);
  const { form, tables } = useMaterial(bench);
  const names = useNames(bench);
  return useMemo(
    () =>
      // What a check of the source says as well is listed once.
      wrong
        .filter((finding) => !isProvable(finding))
        .map((finding) =>
          ofFinding(
            form.name,
            finding,
            placeInWords(finding, names),
            told(finding, { form, tables }, names),
          ),
        ),
    [wrong, form, tables, names],
  );
}

/** `Safety, line 22`: the line that a finding names; the part where none says anything. */
export function placeInWords({ lines, part }: Finding, names: Names): string {
  const [first] = lines;
  if (first === undefined) return names.part(part);
  const { script, line } = scriptAt(first);
  return `${names.behaviour(script)}, line ${line}`;
}

/** Parts at which something is wrong, by their names in the outline. */
export function useWrongParts(bench: Bench): ReadonlySet<string> {
  const wrong = useWrong(bench);
  return useMemo(
    () => new Set(wrong.flatMap(({ part }) => [columnOf(part), columnOf(part).split('.')[0]!])),
    [wrong],
  );
}

/** What is found at the lines of a script, as long as its text is the one that was searched. */
export function useFoundIn(
  bench: Bench,
  name: string,
): readonly { line: number; says: string; finding: Finding }[] {
  const wrong = useWrong(bench);
  const texts = useRoom(bench.faults, (state) => state.texts);
  const text = useRoom(
    bench.code,
    ({ behaviours }) => behaviours.find((one) => one.name === name)?.text,
  );
  const { form, tables } = useMaterial(bench);
  const names = useNames(bench);
  return useMemo(() => {
    if (texts.get(name) !== text) return [];
    return wrong.flatMap((finding) => {
      const at = bench.faults.placeOf(finding);
      return at?.name === name
        ? [{ line: at.line, says: told(finding, { form, tables }, names), finding }]
        : [];
    });
  }, [bench, wrong, texts, text, name, form, tables, names]);
}
