'use client';
/** The bench's head: how the form is opened, its scenarios, and releasing. */
import { counted } from '@/core/counted';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { DEFAULT_CLOCK } from '@/core/scenario/opening';
import { DayLine } from '../day-line';
import { Button, Line, Notice, Select } from '../kit';
import { PageHead } from '../page-head';
import { RecordPicker } from '../records/picker';
import {
  behaviourCommands,
  CommandList,
  commandsOf,
  useCommandKeys,
  type BenchDialog,
} from './commands';
import { SearchScripts, Uses } from './code/finding';
import { openedHow } from '@/core/scenario/opening-words';
import { OpeningDialog } from './form/opening';
import { useFoundProblems } from './common/use-found';
import { Problems, problemsOf } from './problems';
import { StarterDialog } from './behaviours/starter-window';
import { lazily } from '../lazily';
import type { Bench } from './create-bench';
import { useRoom } from '../use-room';
import { useMaterial } from './common/use-bench';
import { Window, WindowTitle } from '../window';

/** Stands in the list of records for all that are not in it. */
const OTHER = '@other';

const ReleaseDialog = lazily(
  () => import('./release/dialog').then((module) => module.ReleaseDialog),
  () => <Box p="16px">Opening…</Box>,
);

export function BenchHead({ bench }: { bench: Bench }) {
  const material = useMaterial(bench);
  const { open, steps, isOpening } = useRoom(bench.form.session, (state) => ({
    open: state.open,
    steps: state.steps,
    // Before the form is open there is nothing to open otherwise.
    isOpening: state.answers.length === 0,
  }));
  const { scenarios, results } = useRoom(bench.tests, (state) => ({
    scenarios: state.scenarios,
    results: state.results,
  }));
  const newest = useRoom(bench.release, (state) => state.newest);
  const uses = useRoom(bench.code, (state) => state.uses);
  const [dialog, setDialog] = useState<BenchDialog | null>(null);
  const [picking, setPicking] = useState(false);
  useCommandKeys(bench, setDialog);
  const how = openedHow(open);
  const passed = scenarios.filter(({ name }) => results.get(name)?.passed === true).length;
  const failed = scenarios.filter(({ name }) => results.get(name)?.passed === false).length;
  return (
    <PageHead
      workspace={material.title}
      section="forms"
      title={material.form.title}
      form={{ name: material.form.name, room: 'bench' }}
    >
      <Flex align="center" gap="5px" color="soft" aria-label="Opening" role="group">
        <span>as</span>
        <Select
          aria-label="Which record"
          width="100px"
          disabled={isOpening}
          value={open.record ?? ''}
          options={[
            { key: '', label: 'new entry' },
            ...material.records.map((record) => ({ key: record.id, label: `record ${record.id}` })),
            { key: OTHER, label: 'another record…' },
          ]}
          onChange={(event) => {
            if (event.target.value === OTHER) setPicking(true);
            else
              void bench.form.reopen({
                ...open,
                record: event.target.value === '' ? null : event.target.value,
              });
          }}
        />
        <span>by</span>
        <Select
          aria-label="As whom"
          disabled={isOpening}
          value={open.as}
          options={material.people.map((person) => ({ key: person.key, label: person.name }))}
          title={material.people
            .find((person) => person.key === open.as)
            ?.roles.map((held) => material.roles.find(({ key }) => key === held)?.label ?? held)
            .join(', ')}
          onChange={(event) => void bench.form.reopen({ ...open, as: event.target.value })}
        />
        <DayLine
          label="On which day"
          disabled={isOpening}
          value={(open.clock ?? DEFAULT_CLOCK).slice(0, 10)}
          onTake={(day) => void bench.form.reopen({ ...open, clock: `${day}T09:00:00Z` })}
        />
        <Button
          disabled={isOpening}
          onClick={() => setDialog('opening')}
          title={how === '' ? 'Viewing only, launch parameters, parent, services' : how}
          color={how === '' ? undefined : 'said'}
        >
          <span aria-hidden>{how === '' ? '…' : '… changed'}</span>
          <chakra.span srOnly>How the form is opened</chakra.span>
        </Button>
        <Button
          disabled={isOpening}
          onClick={() => void bench.form.reopen()}
          title="Reopen the form without the steps done so far (Alt+R)"
        >
          Start again
        </Button>
      </Flex>
      {!bench.core.isReleased && (
        <>
          <ProblemsButton bench={bench} onClick={() => setDialog('problems')} />
          <Button
            onClick={() => bench.tests.open('scenarios')}
            color={failed > 0 ? 'bad' : scenarios.length === 0 ? 'soft' : 'act'}
            minW={COUNTED}
          >
            {scenariosInWords(scenarios.length, passed, failed)}
          </Button>
          <Button
            disabled={steps.length === 0}
            onClick={() => setDialog('keep')}
            aria-label="Keep as scenario"
            title="Keep what was done as a scenario (Alt+C)"
          >
            Keep
          </Button>
          <Button look="go" disabled={isOpening} onClick={() => setDialog('release')}>
            Make release {(newest ?? 0) + 1}
          </Button>
        </>
      )}
      <Button
        onClick={() => setDialog('commands')}
        aria-label="Commands"
        title="All commands (Alt+K)"
        px="7px"
      >
        <span aria-hidden>≡</span>
      </Button>
      <StarterDialog bench={bench} open={dialog === 'starter'} onDone={() => setDialog(null)} />
      <Window open={picking} onClose={() => setPicking(false)} size="md">
        <Box p="16px">
          <WindowTitle>Open the form with a record</WindowTitle>
          <RecordPicker
            form={material.form}
            tables={material.tables}
            onPick={({ id, values }) => {
              setPicking(false);
              void bench.form.takeRecord({ id, values });
            }}
          />
        </Box>
      </Window>
      <Window open={uses !== null} onClose={() => bench.code.closeUses()}>
        <Uses bench={bench} />
      </Window>
      <Window open={dialog !== null && dialog !== 'starter'} onClose={() => setDialog(null)}>
        {dialog === 'opening' && <OpeningDialog bench={bench} onDone={() => setDialog(null)} />}
        {dialog === 'problems' && <Problems bench={bench} onDone={() => setDialog(null)} />}
        {dialog === 'search' && <SearchScripts bench={bench} onDone={() => setDialog(null)} />}
        {dialog === 'release' && <ReleaseDialog bench={bench} onDone={() => setDialog(null)} />}
        {dialog === 'commands' && (
          <CommandList commands={commandsOf(bench, setDialog)} onDone={() => setDialog(null)} />
        )}
        {dialog === 'behaviours' && (
          <CommandList
            commands={behaviourCommands(bench)}
            title="Go to a behaviour"
            find="Find a behaviour, or press its number"
            byNumber
            onDone={() => setDialog(null)}
          />
        )}
        {dialog === 'keep' && <Keep bench={bench} onDone={() => setDialog(null)} />}
      </Window>
    </PageHead>
  );
}

/** Wide enough for the usual counts, so that those beside them stay where they are. */
const COUNTED = '112px';

const NO_SCENARIOS = { scenarios: [], results: new Map() };

/** How many problems there are, apart from scenarios, which have a count of their own. */
function ProblemsButton({ bench, onClick }: { bench: Bench; onClick: () => void }) {
  const form = useMaterial(bench).form.name;
  const found = useFoundProblems(bench);
  const written = useRoom(bench.code, (state) => {
    const problems = problemsOf(form, state, NO_SCENARIOS, []);
    return {
      checked: state.checked,
      count: problems.length,
      errors: problems.filter(({ severity }) => severity === 'error').length,
    };
  });
  const { checked } = written;
  const [count, errors] = [written.count + found.length, written.errors + found.length];
  return (
    <Button
      onClick={onClick}
      color={errors > 0 ? 'bad' : count > 0 ? 'said' : 'act'}
      minW={COUNTED}
      title="Types, mistakes, failing scenarios and what the search has found (Alt+P)"
    >
      {count === 0
        ? checked
          ? '✓ no problems'
          : 'checking…'
        : `${errors > 0 ? '×' : '!'} ${counted(count, 'problem')}`}
    </Button>
  );
}

function Keep({ bench, onDone }: { bench: Bench; onDone: () => void }) {
  const steps = useRoom(bench.form.session, (state) => state.steps);
  const notice = useRoom(bench.screen, (state) => state.notice);
  const scenarios = useRoom(bench.tests, (state) => state.scenarios);
  const [title, setTitle] = useState('');
  const isTaken = scenarios.some(({ scenario }) => scenario.title === title.trim());
  const keep = async () => {
    if (title.trim() === '') return;
    if ((await bench.tests.keepOrReplace(bench.tests.fromSession(title.trim()))) !== null) onDone();
  };
  return (
    <Box p="16px">
      <WindowTitle>Keep as scenario</WindowTitle>
      <Box color="soft" mt="4px">
        The opening and the {steps.length === 1 ? 'step' : `${steps.length} steps`} done so far,
        with expectations on all they changed and on nothing else.
      </Box>
      <chakra.label display="block" mt="10px">
        Title
        <Line
          autoFocus
          display="block"
          width="100%"
          value={title}
          placeholder="What it shows, in a few words"
          onChange={(event) => setTitle(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') void keep();
          }}
        />
      </chakra.label>
      {notice?.tone === 'error' && <Notice tone="error">{notice.text}</Notice>}
      <Flex mt="12px" gap="8px">
        <Button look="go" disabled={title.trim() === ''} onClick={() => void keep()}>
          {isTaken ? 'Replace the one of this title' : 'Keep'}
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </Flex>
    </Box>
  );
}

function scenariosInWords(all: number, passed: number, failed: number): string {
  if (all === 0) return 'No scenarios';
  if (failed > 0) return `× ${failed} of ${all} fail`;
  if (passed < all) return `${passed} of ${all} scenarios…`;
  return all === 1 ? '✓ 1 scenario' : `✓ ${all} scenarios`;
}
