'use client';
/** The bench on one screen: outline, code, live form and tape. */
import { Box, Flex } from '@chakra-ui/react';
import { Splitter } from '@chakra-ui/react/splitter';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useStore } from 'zustand';
import { differences } from '@/core/debugging/differences';
import { entriesUntil } from '@/core/debugging/travel';
import { seenAt } from '@/core/scenario/seen';
import { standingClaims, Tape } from '@/core/tape/tape';
import { namesFor } from '@/core/tape/words';
import { inIdleTime, lazily } from '../lazily';
import { Pane } from '../pane';
import { useRoom } from '../use-room';
import { BehaviourList } from './behaviours/list';
import { CodeAt } from './code/code-at';
import { Tabs } from './code/code-pane';
import type { Bench } from './create-bench';
import { FolderNotice } from './folder-notice';
import { LiveForm } from './form/live-form';
import { spelled } from '@/core/script/spelled';
import { useWrongParts } from './common/use-found';
import { Outline } from './form/outline';
import { BenchHead } from './head';
import { Notices } from './notices';
import { CLIP, Handle, keepSizes, OneAtATime, readSizes, useFolded, useNarrow } from './panes';
import { StructureTree } from './structure/tree';
import { StepsStrip } from './tape/steps-strip';
import { ScenarioResults } from './tests/results';
import { useMaterial, useTitles } from './common/use-bench';

// What not everybody looks at is loaded by those who do.
const HandbookPane = lazily(
  () => import('./handbook').then((module) => module.HandbookPane),
  () => <Box p="14px">Opening the handbook…</Box>,
);
const StructurePane = lazily(
  () => import('./structure/pane').then((module) => module.StructurePane),
  () => <Box p="14px">Opening the structure…</Box>,
);
const TestsPane = lazily(
  () => import('./tests/pane').then((module) => module.TestsPane),
  () => <Box p="14px">Opening the tests…</Box>,
);
const BesidePane = lazily(
  () => import('./changes/beside-pane').then((module) => module.BesidePane),
  () => <Box p="14px">Opening both versions…</Box>,
);
const ChangesLine = lazily(() => import('./changes/line').then((module) => module.ChangesLine));
const DifferingMarks = lazily(() =>
  import('./changes/marks').then((module) => module.DifferingMarks),
);
const MapPane = lazily(
  () => import('./map/pane').then((module) => module.MapPane),
  () => <Box p="14px">Drawing the map…</Box>,
);
const HistoryPane = lazily(
  () => import('./code/history').then((module) => module.HistoryPane),
  () => <Box p="14px">Reading the revisions…</Box>,
);
const loadDrawer = () => import('./tape/drawer').then((module) => module.Drawer);
const Drawer = lazily(loadDrawer, () => <Box p="14px">Opening the tape…</Box>);
// Whoever asks why while the server is out of reach gets an answer.
inIdleTime(loadDrawer);

export function Layout({ bench }: { bench: Bench }) {
  const material = useMaterial(bench);
  const { answers, at, steps, opened } = useRoom(bench.form.session, (state) => ({
    answers: state.answers,
    at: state.at,
    steps: state.steps,
    opened: state.open,
  }));
  const asked = useRoom(bench.form, (state) => state.asked);
  const { pane, side: shown } = useRoom(bench.screen, ({ pane: middle, side: right }) => ({
    pane: middle,
    side: right,
  }));
  const { active, goTo } = useRoom(bench.code, (state) => ({
    active: state.active,
    goTo: state.goTo,
  }));
  const titles = useTitles(bench);
  const narrow = useNarrow();
  const [sizes, setSizes] = useState<{ columns: number[]; rows: number[] } | null>(null);
  // Sizes are known only in the browser.
  useEffect(() => {
    setSizes(readSizes());
    bench.tape.remember();
  }, [bench]);

  const { open, standing, look } = useStore(bench.tape.store);
  const whole = useRef<HTMLDivElement>(null);
  const folded = useFolded(whole, sizes !== null);
  const seen = useMemo(() => {
    const atStep = seenAt(answers, at);
    if (standing === null || look === null) return atStep;
    const { parts, rows, page, clock } = look;
    return { ...atStep, parts, rows, page, clock };
  }, [answers, at, standing, look]);
  const isPast = standing !== null || at < steps.length;
  // Against the step before, wherever one came from.
  const changed = useMemo(
    () =>
      !isPast || at === 0
        ? []
        : [
            ...new Set(
              differences(seenAt(answers, at - 1), seen, material.form).map(({ part }) => part),
            ),
          ],
    [isPast, answers, at, seen, material.form],
  );
  const tape = useMemo(
    () => new Tape(answers.slice(0, at + 1).flatMap((answer) => answer.tape)),
    [answers, at],
  );
  const words = useMemo(
    () => standingClaims(standing === null ? tape : new Tape(entriesUntil(tape.entries, standing))),
    [tape, standing],
  );
  const names = useMemo(() => namesFor(material.form, titles, material.people), [material, titles]);
  const there = titles.some(({ name }) => name === active);
  const who = material.people.find((person) => person.key === opened.as)?.name ?? opened.as;
  const marked = useMemo(() => new Set(words.keys()), [words]);

  const wrong = useWrongParts(bench);
  const beside = useRoom(bench.changes, (state) => state.beside);

  const onInsert = useCallback(
    (part: string) => bench.code.insert(spelled(bench.core.form(), part)),
    [bench],
  );
  const onPoint = useCallback((part: string | null) => bench.screen.shine(part, 'form'), [bench]);

  const sideLabel = shown === 'form' ? 'Live form' : 'Handbook';
  const outline = (
    <Pane what="The outline">
      <Outline
        form={material.form}
        seen={seen}
        said={marked}
        wrong={wrong}
        asked={asked?.part ?? null}
        behaviours={
          <>
            <BehaviourList bench={bench} seen={seen} tape={tape} />
            <ScenarioResults bench={bench} />
            <ChangesLine bench={bench} />
          </>
        }
        tree={pane === 'structure' ? <StructureTree bench={bench} /> : null}
        onAsk={bench.tape.ask}
        onInsert={onInsert}
        onPoint={onPoint}
      />
    </Pane>
  );
  const code = (
    <Flex direction="column" height="100%" width="100%" bg="sheet" minW={0}>
      <Tabs bench={bench} active={active} pane={pane} />
      <FolderNotice bench={bench} />
      <Pane what="This pane" of={`${pane} ${active}`}>
        {pane === 'structure' ? (
          <StructurePane bench={bench} />
        ) : pane === 'map' ? (
          <MapPane bench={bench} />
        ) : pane === 'tests' ? (
          <TestsPane bench={bench} />
        ) : pane === 'beside' ? (
          <BesidePane bench={bench} />
        ) : !there ? (
          <Box p="14px">
            This form has no behaviour yet. In the outline, “+ for a need” makes one from what you
            pick of the form (Alt+W), “+ new” an empty one (Alt+E).
          </Box>
        ) : pane === 'history' ? (
          <HistoryPane key={active} bench={bench} name={active} />
        ) : (
          <CodeAt
            bench={bench}
            name={active}
            seen={seen}
            tape={tape}
            goTo={goTo?.behaviour === active ? goTo : null}
          />
        )}
      </Pane>
    </Flex>
  );
  const side = (
    <Pane what={shown === 'form' ? 'The live form' : 'The handbook'} of={shown}>
      {shown === 'form' ? (
        <LiveForm bench={bench} seen={seen} words={words} names={names} changed={changed} />
      ) : (
        <HandbookPane bench={bench} />
      )}
    </Pane>
  );
  const strip = (
    <Pane what="The strip of steps" of={answers}>
      <StepsStrip
        bench={bench}
        steps={steps}
        answers={answers}
        at={at}
        openedAs={opened.record == null ? 'new' : `record ${opened.record}`}
        names={names}
        who={who}
      />
    </Pane>
  );
  const drawer = (
    <Pane what="The tape" of={answers}>
      <Drawer
        bench={bench}
        form={material.form}
        answers={answers}
        at={at}
        seen={seen}
        names={names}
        who={who}
      />
    </Pane>
  );

  return (
    <Flex direction="column" height="100vh" minH="560px" overflow="hidden">
      <Pane what="The head of the bench">
        <BenchHead bench={bench} />
      </Pane>
      <Notices bench={bench} />
      {beside !== null && <DifferingMarks bench={bench} beside={beside} />}
      {sizes === null ? null : narrow ? (
        <OneAtATime
          panes={[
            { label: 'Outline', content: outline },
            { label: 'Code', content: code },
            { label: sideLabel, content: side },
            {
              label: 'Tape',
              content: (
                <Flex direction="column" height="100%">
                  {strip}
                  <Box flex="1" minH={0}>
                    {drawer}
                  </Box>
                </Flex>
              ),
            },
          ]}
        />
      ) : (
        <Splitter.Root
          ref={whole}
          unstyled
          css={CLIP}
          as="main"
          orientation="vertical"
          flex="1"
          minH={0}
          panels={[
            { id: 'work', minSize: 30 },
            { id: 'tape', minSize: Math.min(folded, 12) },
          ]}
          size={open ? sizes.rows : [100 - folded, folded]}
          onResize={({ size }) => open && setSizes({ ...sizes, rows: size })}
          onResizeEnd={({ size }) => open && keepSizes({ rows: size })}
        >
          <Splitter.Panel css={CLIP} id="work" minH={0}>
            <Splitter.Root
              unstyled
              css={CLIP}
              orientation="horizontal"
              height="100%"
              panels={[
                { id: 'outline', minSize: 10 },
                { id: 'code', minSize: 20 },
                { id: 'form', minSize: 22 },
              ]}
              defaultSize={sizes.columns}
              onResizeEnd={({ size }) => keepSizes({ columns: size })}
            >
              <Splitter.Panel css={CLIP} id="outline" minW={0} as="nav" aria-label="Outline">
                {outline}
              </Splitter.Panel>
              <Handle id="outline:code" label="Width of the outline" />
              <Splitter.Panel css={CLIP} id="code" minW={0} as="section" aria-label="Code">
                {code}
              </Splitter.Panel>
              <Handle id="code:form" label="Width of the live form" />
              <Splitter.Panel css={CLIP} id="form" minW={0} as="section" aria-label={sideLabel}>
                {side}
              </Splitter.Panel>
            </Splitter.Root>
          </Splitter.Panel>
          <Handle id="work:tape" label="Height of the tape" flat />
          <Splitter.Panel css={CLIP} id="tape" minH={0} as="section" aria-label="Tape">
            <Flex direction="column" width="100%" height="100%" minH={0}>
              {strip}
              {open && (
                <Box flex="1" minH={0}>
                  {drawer}
                </Box>
              )}
            </Flex>
          </Splitter.Panel>
        </Splitter.Root>
      )}
    </Flex>
  );
}
