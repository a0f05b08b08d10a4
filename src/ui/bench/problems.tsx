'use client';
/** What is wrong with the form on the bench, as a window; and with the whole workspace, when asked. */
import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { useStore } from 'zustand';
import { inWeight, ofDiagnostic, ofPart, ofScenario, type Problem } from '@/core/problems/problems';
import { addressHere } from '../address';
import { useWorkspaceCheck } from '../check-workspace';
import { Button, Notice, Region } from '../kit';
import { addressOf, ProblemList } from '../problem-list';
import type { Bench } from './create-bench';
import { useFoundProblems } from './common/use-found';
import { useRoom } from '../use-room';
import type { TestsState } from './tests/state';
import { useMaterial } from './common/use-bench';
import type { CodeState } from './code/state';
import { WindowTitle } from '../window';

/** All that is wrong with the code as it is in the editor now, and with the scenarios as they came out last. */
export function problemsOf(
  form: string,
  { behaviours, idle }: Pick<CodeState, 'behaviours' | 'idle'>,
  { scenarios, results }: Pick<TestsState, 'scenarios' | 'results'>,
  found: readonly Problem[],
): Problem[] {
  return inWeight([
    ...behaviours.flatMap((behaviour) =>
      behaviour.diagnostics.map((diagnosis) => ofDiagnostic(form, behaviour, diagnosis)),
    ),
    ...idle.map((finding) => ofPart(form, finding)),
    ...scenarios.flatMap(({ name }) =>
      results.has(name) ? ofScenario(form, name, results.get(name)!) : [],
    ),
    ...found,
  ]);
}

export function Problems({ bench, onDone }: { bench: Bench; onDone: () => void }) {
  const material = useMaterial(bench);
  const code = useStore(bench.code.store);
  const tests = useStore(bench.tests.store);
  /** How many times the whole workspace was asked for. */
  const [turn, setTurn] = useState(0);
  const everywhere = useWorkspaceCheck(turn > 0, turn);
  const asking = turn > 0 && !everywhere.over && everywhere.says === null;
  const found = useFoundProblems(bench);
  const searching = useRoom(bench.faults, ({ underway }) => underway !== null);
  const here = problemsOf(material.form.name, code, tests, found);
  const elsewhere = everywhere.problems.filter(({ form }) => form !== material.form.name);
  const go = (problem: Problem) => {
    onDone();
    const { at } = problem;
    if (problem.form !== material.form.name || at.is === 'service')
      window.open(addressHere(addressOf(problem)), '_blank', 'noopener');
    else
      bench.goTo(
        at.is === 'behaviour'
          ? { is: 'line', behaviour: at.name, line: at.line }
          : at.is === 'form'
            ? null
            : at,
      );
  };
  const ask = async () => {
    await bench.core.saving.saveAll();
    setTurn(turn + 1);
  };
  const titleOf = (form: string) =>
    material.others.find(({ name }) => name === form)?.title ?? form;
  return (
    <Box p="16px">
      <WindowTitle>Problems of {material.form.title}</WindowTitle>
      <Region mt="8px" maxH="56vh" aria-label="Problems">
        {here.length === 0 && (
          <Box color="act">
            ✓ nothing found: no type error, no mistake, no failing scenario
            {searching ? '; the search for faults goes on' : ', no fault'}
          </Box>
        )}
        <ProblemList problems={here} onGo={go} />
        {everywhere.says !== null && <Notice tone="error">{everywhere.says}</Notice>}
        {turn > 0 && everywhere.says === null && (
          <>
            <Box mt="14px" fontWeight={620} role="status">
              {asking
                ? `Checking every form: ${everywhere.done} of ${Math.max(everywhere.of, material.others.length)}…`
                : elsewhere.length > 0
                  ? 'In the other forms'
                  : everywhere.cutShort.length > 0
                    ? 'The other forms are not checked to the end yet; that is tried again by itself'
                    : 'Nothing in the other forms'}
            </Box>
            <ProblemList problems={elsewhere} formTitle={titleOf} onGo={go} />
          </>
        )}
      </Region>
      <Flex mt="12px" gap="8px">
        <Button disabled={asking} onClick={() => void ask()}>
          Check the whole workspace
        </Button>
        <Button ml="auto" onClick={onDone}>
          Close
        </Button>
      </Flex>
    </Box>
  );
}
