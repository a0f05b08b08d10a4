'use client';
/** The drawer below the steps: the tape as a tree, what stands beside it, and the answer to why. Arrow keys travel. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useMemo, useState, type KeyboardEvent } from 'react';
import { useStore } from 'zustand';
import type { Wanted, Way } from '@/core/debugging/travel';
import type { Form } from '@/core/form/definition';
import type { Seen } from '@/core/scenario/seen';
import type { Answer } from '@/core/session/step';
import { Tape } from '@/core/tape/tape';
import { withPlaces, type Names } from '@/core/tape/words';
import { lazily } from '../../lazily';
import { Pane } from '../../pane';
import { Button, Region } from '../../kit';
import type { DrawerTab } from './state';
import { ComparePane } from './compare-pane';
import { CostPane } from './cost-pane';
import { ValuesPane } from './values-pane';
import { WatchesPane } from './watches-pane';
import type { Bench } from '../create-bench';
import { TabStrip } from '../common/tab-strip';
import { TapeTree, useListed } from './tree';
import { WhyPane } from './why';

const CallsPane = lazily(
  () => import('./calls').then((module) => module.CallsPane),
  () => <Box>Drawing the calls…</Box>,
);

const TABS: readonly { key: DrawerTab; label: string }[] = [
  { key: 'values', label: 'Values' },
  { key: 'watches', label: 'Watches' },
  { key: 'calls', label: 'Calls' },
  { key: 'compare', label: 'Other conditions' },
  { key: 'cost', label: 'Cost' },
];

const WAYS: Readonly<Record<string, Way>> = {
  ArrowDown: 'next',
  ArrowUp: 'last',
  ArrowRight: 'into',
  ArrowLeft: 'out',
};

/** What a letter goes to: the next one, with Shift the last. */
function directly(key: string, part: string | null, behaviour: string | null): Wanted | null {
  if (key === 'e') return { is: 'error' };
  if (key === 'c' && part !== null) return { is: 'effect', part };
  return key === 'r' && behaviour !== null ? { is: 'run', behaviour } : null;
}

export function Drawer({
  bench,
  form,
  answers,
  at,
  seen,
  names,
  who,
}: {
  bench: Bench;
  form: Form;
  answers: readonly Answer[];
  at: number;
  seen: Seen;
  names: Names;
  who: string;
}) {
  const { tab, question, standing, filter, says } = useStore(bench.tape.store);
  const { behaviour } = filter;
  const [scope, setScope] = useState<'step' | 'all'>('step');
  // What touched a part lies in whatever step.
  useEffect(() => {
    if (filter.part !== null) setScope('all');
  }, [filter.part]);
  const tape = useMemo(
    () =>
      new Tape(
        scope === 'all' ? answers.flatMap((answer) => answer.tape) : (answers[at]?.tape ?? []),
      ),
    [answers, at, scope],
  );
  const whole = useMemo(
    () => new Tape(answers.slice(0, at + 1).flatMap((answer) => answer.tape)),
    [answers, at],
  );
  // Rows by the place that they have at the moment that is looked at.
  const placed = useMemo(() => withPlaces(names, seen.rows), [names, seen.rows]);
  const all = useListed({ bench, tape, names: placed, who });
  const shown = all.map(({ entry }) => entry.n);
  const travel = (event: KeyboardEvent<HTMLElement>): void => {
    const typing = (event.target as HTMLElement).closest('input, select, textarea, summary');
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    if (event.key === 'Escape') {
      event.preventDefault();
      if (standing === null) bench.tape.showDrawer(false);
      else void bench.tape.standOn(null);
      return;
    }
    if (typing !== null) return;
    const way = WAYS[event.key];
    const wanted = directly(event.key.toLowerCase(), question?.part ?? null, behaviour);
    if (way === undefined && wanted === null) return;
    event.preventDefault();
    if (way !== undefined) void bench.tape.go(way, shown);
    else void bench.tape.goNearest(wanted!, event.key === event.key.toLowerCase());
  };
  return (
    <Flex
      direction="column"
      height="100%"
      minH={0}
      borderTopWidth="1px"
      borderColor="line"
      onKeyDown={travel}
    >
      <Box
        flex="1"
        minH={0}
        display="grid"
        gridTemplateColumns="minmax(0, 34fr) minmax(0, 34fr) minmax(0, 32fr)"
      >
        <Box minH={0} overflow="hidden">
          <Pane what="The tree of the tape" of={tape}>
            <TapeTree
              bench={bench}
              tape={tape}
              names={placed}
              who={who}
              asked={question?.part ?? null}
              all={all}
              scope={scope}
              onScope={setScope}
            />
          </Pane>
        </Box>
        <Flex direction="column" minH={0} borderLeftWidth="1px" borderColor="line">
          <TabStrip
            label="Beside the tape"
            tabs={TABS}
            chosen={tab}
            fontSize="12.5px"
            onChoose={(key) => bench.tape.showDrawer(true, key)}
            gap="10px"
            px="12px"
          />
          <Region
            flex="1"
            minH={0}
            px="12px"
            py="5px"
            aria-label={TABS.find(({ key }) => key === tab)!.label}
          >
            <Pane what="This tab" of={`${tab} ${at} ${answers.length}`}>
              {tab === 'values' && <ValuesPane bench={bench} names={names} />}
              {tab === 'watches' && <WatchesPane bench={bench} names={names} />}
              {tab === 'calls' && <CallsPane bench={bench} tape={whole} />}
              {tab === 'compare' && <ComparePane bench={bench} names={names} />}
              {tab === 'cost' && <CostPane bench={bench} names={names} />}
            </Pane>
          </Region>
        </Flex>
        <Region
          minH={0}
          px="12px"
          py="5px"
          borderLeftWidth="1px"
          borderColor="line"
          aria-label="Why"
        >
          <Pane what="The answer" of={question}>
            <WhyPane bench={bench} form={form} seen={seen} tape={whole} names={names} who={who} />
          </Pane>
        </Region>
      </Box>
      <Flex
        gap="10px"
        px="14px"
        py="2px"
        color="soft"
        fontSize="12px"
        borderTopWidth="1px"
        borderColor="line"
        flexShrink={0}
        align="center"
        flexWrap="wrap"
      >
        <span>↓ ↑ next, last · → into · ← out · Esc to now</span>
        {says !== null && (
          <chakra.span role="status" color="bad">
            {says}
          </chakra.span>
        )}
        <Nearest bench={bench} what="error" letter="e" wanted={{ is: 'error' }} />
        {question !== null && !question.part.startsWith('@') && (
          <Nearest
            bench={bench}
            what={`change of ${names.part(question.part)}`}
            letter="c"
            wanted={{ is: 'effect', part: question.part }}
          />
        )}
        {behaviour !== null && (
          <Nearest
            bench={bench}
            what={`run of ${names.behaviour(behaviour)}`}
            letter="r"
            wanted={{ is: 'run', behaviour }}
          />
        )}
      </Flex>
    </Flex>
  );
}

/** The last and the next of what can be gone to directly. */
function Nearest({
  bench,
  what,
  letter,
  wanted,
}: {
  bench: Bench;
  what: string;
  letter: string;
  wanted: Wanted;
}) {
  return (
    <Flex gap="6px" align="center">
      <Button
        look="text"
        title={`Shift+${letter.toUpperCase()}`}
        aria-label={`last ${what}`}
        onClick={() => void bench.tape.goNearest(wanted, false)}
      >
        ◂
      </Button>
      <span>{what}</span>
      <Button
        look="text"
        title={letter.toUpperCase()}
        aria-label={`next ${what}`}
        onClick={() => void bench.tape.goNearest(wanted, true)}
      >
        ▸
      </Button>
    </Flex>
  );
}
