'use client';
/** The bench: outline, code, live form and tape on one screen. State is in `store.ts`; this lays it out. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { Splitter } from '@chakra-ui/react/splitter';
import { useRouter } from 'next/navigation';
import {
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
  type ComponentProps,
  type ReactNode,
} from 'react';
import { readHeader } from '@/core/script/header';
import { baseName } from '@/core/script/script-name';
import type { Open } from '@/core/scenario/definition';
import { differences } from '@/core/debugging/differences';
import { notesAt } from '@/core/debugging/notes';
import { entriesUntil, placeAt } from '@/core/debugging/travel';
import { linesOf } from '@/core/tape/lines';
import { seenAt } from '@/core/scenario/seen';
import { standingWords, Tape, type Run } from '@/core/tape/tape';
import { useStore } from 'zustand';
import { FolderNotice } from './folder-notice';
import { Button, Notice } from '../kit';
import { inIdleTime, lazily } from '../lazily';
import { Pane } from '../pane';
import { BehaviourList } from './behaviours';
import { Code, Tabs } from './code-pane';
import { BenchHead } from './head';
import { LiveForm, spelled } from './live-form';
import { Outline } from './outline';
import { createBench, type BenchStore } from './store';
import type { BenchMaterial, BenchPlace, TakenOver } from './state';
import { StructureTree } from './structure/tree';
import { useLeaving } from '../draft/leaving';
import { LeftNotice } from '../draft/use-draft';
import { ScenarioResults } from './scenario-results';
import { STRIP, StepsStrip } from './steps-strip';
import { useBench, useTitles } from './use-bench';
import { namesFor } from '@/core/tape/words';

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
  () => import('./testing/pane').then((module) => module.TestsPane),
  () => <Box p="14px">Opening the tests…</Box>,
);
const MapPane = lazily(
  () => import('./map').then((module) => module.MapPane),
  () => <Box p="14px">Drawing the map…</Box>,
);
const HistoryPane = lazily(
  () => import('./history').then((module) => module.HistoryPane),
  () => <Box p="14px">Reading the revisions…</Box>,
);
const loadDrawer = () => import('./drawer').then((module) => module.Drawer);
const Drawer = lazily(loadDrawer, () => <Box p="14px">Opening the tape…</Box>);
// Whoever asks why while the server is out of reach gets an answer.
inIdleTime(loadDrawer);

/** `opened` says how the form is opened at first, such as from a parent; `at` what is looked at, such as a line. */
export function Bench({
  material,
  opened,
  at,
}: {
  material: BenchMaterial;
  opened: Partial<Open>;
  at: BenchPlace;
}) {
  const router = useRouter();
  /** What the next bench takes over, while its material is on the way. */
  const over = useRef<TakenOver | null>(null);
  const [{ bench, turn }, setBench] = useState(() => ({
    bench: createBench(material, opened),
    turn: 0,
  }));
  useEffect(() => {
    const taken = over.current;
    if (taken === null) return;
    over.current = null;
    // What was typed in between is saved before the bench goes.
    void bench.saveAll().then(() =>
      setBench((before) => ({
        bench: createBench(material, taken.open, taken),
        turn: before.turn + 1,
      })),
    );
  }, [material]);
  useEffect(() => {
    bench.renewBy((taken) => {
      over.current = taken;
      router.refresh();
    });
    // Structure does not need the editor's languageWorker, and somebody waits to write the first label.
    if (at?.is === 'part') bench.goToPlace(at);
    void bench.start().then(() => at?.is !== 'part' && bench.goToPlace(at));
    return () => bench.stop();
  }, [bench]);
  useLeaving(bench);
  // Nothing that was drawn for the bench before writes into this one, or the other way round.
  return <Layout key={turn} bench={bench} />;
}

/** A hidden overflow can still be scrolled by focus or by the editor, which would shift a whole pane; a clipped one cannot. */
const CLIP = { overflow: 'clip !important' };

const SIZES = 'tavro.bench.panes';

function readSizes(): { columns: number[]; rows: number[] } {
  const fallback = { columns: [13.5, 52.9, 33.6], rows: [62, 38] };
  try {
    return { ...fallback, ...(JSON.parse(localStorage.getItem(SIZES) ?? '{}') as object) };
  } catch {
    return fallback;
  }
}

function keepSizes(part: Partial<{ columns: number[]; rows: number[] }>): void {
  try {
    localStorage.setItem(SIZES, JSON.stringify({ ...readSizes(), ...part }));
  } catch {
    // Sizes are a convenience; a browser that keeps nothing still works.
  }
}

function Layout({ bench }: { bench: BenchStore }) {
  const state = useBench(
    bench,
    ({ material, answers, at, steps, active, pane, side, asked, open, goTo }) => ({
      material,
      answers,
      at,
      steps,
      active,
      pane,
      side,
      asked,
      open,
      goTo,
    }),
  );
  const titles = useTitles(bench);
  const narrow = useNarrow();
  const { material, answers, at, steps, active } = state;
  const [sizes, setSizes] = useState<{ columns: number[]; rows: number[] } | null>(null);
  // Sizes are known only in the browser.
  useEffect(() => {
    setSizes(readSizes());
    bench.rememberDebug();
  }, [bench]);

  const { open, standing, look } = useStore(bench.debug);
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
    () => standingWords(standing === null ? tape : new Tape(entriesUntil(tape.entries, standing))),
    [tape, standing],
  );
  const names = useMemo(() => namesFor(material.form, titles, material.people), [material, titles]);
  const there = titles.some(({ name }) => name === active);
  const who = material.people.find((person) => person.key === state.open.as)?.name ?? state.open.as;
  const marked = useMemo(() => new Set(words.keys()), [words]);

  const onInsert = useCallback(
    (part: string) => bench.insert(spelled(bench.store.getState().material.form, part)),
    [bench],
  );
  const onPoint = useCallback((part: string | null) => bench.shine(part, 'form'), [bench]);

  const sideLabel = state.side === 'form' ? 'Live form' : 'Handbook';
  const outline = (
    <Pane what="The outline">
      <Outline
        form={material.form}
        seen={seen}
        said={marked}
        asked={state.asked?.part ?? null}
        behaviours={
          <>
            <BehaviourList bench={bench} seen={seen} tape={tape} />
            <ScenarioResults bench={bench} />
          </>
        }
        tree={state.pane === 'structure' ? <StructureTree bench={bench} /> : null}
        onAsk={bench.ask}
        onInsert={onInsert}
        onPoint={onPoint}
      />
    </Pane>
  );
  const code = (
    <Flex direction="column" height="100%" width="100%" bg="sheet" minW={0}>
      <Tabs bench={bench} active={active} pane={state.pane} />
      <FolderNotice bench={bench} />
      <Pane what="This pane" of={`${state.pane} ${active}`}>
        {state.pane === 'structure' ? (
          <StructurePane bench={bench} />
        ) : state.pane === 'map' ? (
          <MapPane bench={bench} />
        ) : state.pane === 'tests' ? (
          <TestsPane bench={bench} />
        ) : !there ? (
          <Box p="14px">
            This form has no behaviour yet. In the outline, “+ for a need” makes one from what you
            pick of the form (Alt+W), “+ new” an empty one (Alt+E).
          </Box>
        ) : state.pane === 'history' ? (
          <HistoryPane key={active} bench={bench} name={active} />
        ) : (
          <CodeAt
            bench={bench}
            name={active}
            seen={seen}
            tape={tape}
            goTo={state.goTo?.behaviour === active ? state.goTo : null}
          />
        )}
      </Pane>
    </Flex>
  );
  const side = (
    <Pane what={state.side === 'form' ? 'The live form' : 'The handbook'} of={state.side}>
      {state.side === 'form' ? (
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
        openedAs={state.open.record == null ? 'new' : `record ${state.open.record}`}
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

/** The code of a behaviour with what stands beside its lines at the moment that is looked at. */
function CodeAt({
  bench,
  name,
  seen,
  tape,
  goTo,
}: Pick<ComponentProps<typeof Code>, 'bench' | 'name' | 'seen' | 'goTo'> & { tape: Tape }) {
  const { answers, at } = useBench(bench, (state) => ({ answers: state.answers, at: state.at }));
  const { standing, detailed, sites } = useStore(bench.debug);
  const script = baseName(name);
  const notes = useMemo(() => {
    if (detailed === null || standing === null) return linesOf(answers[at]?.tape ?? [], script);
    const run = tape.entry(detailed.entry);
    const behaviour = run?.type === 'run' ? (run as Run).behaviour : script;
    return notesAt(detailed, standing.detail ?? detailed.details.length, sites, script, behaviour);
  }, [answers, at, script, detailed, standing, sites, tape]);
  const line = useMemo(() => {
    const place =
      detailed === null || standing?.detail == null ? null : placeAt(detailed, standing.detail);
    return place === null || place.script !== script
      ? null
      : (sites.get(place.script)?.[place.site]?.line ?? null);
  }, [detailed, standing, sites, script]);
  return <Code bench={bench} name={name} seen={seen} notes={notes} standing={line} goTo={goTo} />;
}

/** What happened, over the page, so that nothing moves under the pointer. */
function Notices({ bench }: { bench: BenchStore }) {
  const { notice, left, deleted } = useBench(bench, (state) => ({
    notice: state.notice,
    left: state.left,
    deleted: state.deleted,
  }));
  // What went well need not be closed; what did not stays until it is.
  useEffect(() => {
    if (notice?.tone !== 'info') return;
    const timer = setTimeout(bench.dismiss, 8000);
    return () => clearTimeout(timer);
  }, [notice]);
  if (notice === null && left === null && deleted === null) return null;
  return (
    <Flex
      direction="column"
      gap="6px"
      position="fixed"
      bottom="14px"
      left="50%"
      transform="translateX(-50%)"
      width="min(720px, calc(100vw - 24px))"
      zIndex={5}
      css={{ '& > *': { boxShadow: '{shadows.raised}' } }}
    >
      {notice !== null && (
        <Flex gap="8px" align="center" bg="sheet" p="4px">
          <Box flex="1">
            <Notice tone={notice.tone}>{notice.text}</Notice>
          </Box>
          <Button onClick={bench.dismiss}>Close</Button>
        </Flex>
      )}
      {left !== null && (
        <Box bg="sheet" p="4px">
          <LeftNotice at={left.at} what="changes" onTake={bench.takeLeft} />
        </Box>
      )}
      {deleted !== null && (
        <Flex gap="8px" align="center" bg="sheet" p="4px">
          <Box flex="1">
            <Notice tone="info">“{readHeader(deleted).title}” is deleted.</Notice>
          </Box>
          <Button onClick={bench.restore}>Bring it back</Button>
          <Button onClick={bench.forgetDeleted}>Close</Button>
        </Flex>
      )}
    </Flex>
  );
}

/** How much of the height the strip takes while the drawer is closed, in per cent. */
function useFolded(whole: React.RefObject<HTMLDivElement | null>, drawn: boolean): number {
  const [folded, setFolded] = useState(8);
  useEffect(() => {
    if (whole.current === null) return;
    const observer = new ResizeObserver(([entry]) => {
      const { height } = entry!.contentRect;
      if (height > 0) setFolded((100 * (STRIP + 2)) / height);
    });
    observer.observe(whole.current);
    return () => observer.disconnect();
  }, [whole, drawn]);
  return folded;
}

/** On a narrow screen one pane is seen at a time. */
function OneAtATime({ panes }: { panes: { label: string; content: ReactNode }[] }) {
  const [at, setAt] = useState(1);
  return (
    <Flex as="main" direction="column" flex="1" minH={0}>
      <Flex
        role="group"
        aria-label="Panes"
        flexShrink={0}
        borderBottomWidth="1px"
        borderColor="line"
      >
        {panes.map(({ label }, i) => (
          <chakra.button
            key={label}
            type="button"
            flex="1"
            py="6px"
            aria-pressed={i === at}
            color={i === at ? 'ink' : 'soft'}
            fontWeight={i === at ? 620 : 400}
            boxShadow={i === at ? 'inset 0 -2px 0 {colors.act}' : undefined}
            onClick={() => setAt(i)}
          >
            {label}
          </chakra.button>
        ))}
      </Flex>
      {panes.map(({ label, content }, i) => (
        // All stay, so that nothing typed or scrolled to is lost by looking elsewhere.
        <Box
          key={label}
          as="section"
          aria-label={label}
          flex="1"
          minH={0}
          overflow="auto"
          display={i === at ? 'block' : 'none'}
        >
          {content}
        </Box>
      ))}
    </Flex>
  );
}

const NARROW = '(max-width: 759px)';

function useNarrow(): boolean {
  return useSyncExternalStore(
    (changed) => {
      const query = matchMedia(NARROW);
      query.addEventListener('change', changed);
      return () => query.removeEventListener('change', changed);
    },
    () => matchMedia(NARROW).matches,
    () => false,
  );
}

function Handle({
  id,
  label,
  flat = false,
}: {
  id: `${string}:${string}`;
  label: string;
  flat?: boolean;
}) {
  // A hairline to see, seven pixels to take hold of.
  const grip = flat
    ? { height: '7px', my: '-3px', cursor: 'row-resize' }
    : { width: '7px', mx: '-3px', cursor: 'col-resize' };
  const hairline = flat
    ? { height: '1px', width: '100%', top: '3px' }
    : { width: '1px', height: '100%', left: '3px' };
  return (
    <Splitter.ResizeTrigger
      id={id}
      aria-label={label}
      flexShrink={0}
      position="relative"
      zIndex={1}
      {...grip}
      _hover={{ '& > div': { bg: 'act' } }}
    >
      <Box position="absolute" bg="line" {...hairline} />
    </Splitter.ResizeTrigger>
  );
}
