'use client';
/** The bench's head: how the form is opened, its scenarios, and releasing. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { useStore } from 'zustand';
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
import { SearchScripts, Uses } from './finding';
import { openedHow, OpeningDialog } from './opening';
import { Problems, problemsOf } from './problems';
import { ReleaseDialog } from './release';
import { StarterDialog } from './starter-window';
import type { BenchStore } from './store';
import { useBench } from './use-bench';
import { Window, WindowTitle } from '../window';

/** Stands in the list of records for all that are not in it. */
const OTHER = '@other';

export function BenchHead({ bench }: { bench: BenchStore }) {
  const state = useBench(
    bench,
    ({ answers, material, open, release, results, scenarios, steps, uses }) => ({
      answers,
      material,
      open,
      release,
      results,
      scenarios,
      steps,
      uses,
    }),
  );
  const { material, open, scenarios, results } = state;
  const [dialog, setDialog] = useState<BenchDialog | null>(null);
  const [picking, setPicking] = useState(false);
  useCommandKeys(bench, setDialog);
  const how = openedHow(open);
  // Before the form is open there is nothing to open otherwise.
  const opening = state.answers.length === 0;
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
          disabled={opening}
          value={open.record ?? ''}
          options={[
            { key: '', label: 'new entry' },
            ...material.records.map((record) => ({ key: record.id, label: `record ${record.id}` })),
            { key: OTHER, label: 'another record…' },
          ]}
          onChange={(event) => {
            if (event.target.value === OTHER) setPicking(true);
            else
              void bench.reopen({
                ...open,
                record: event.target.value === '' ? null : event.target.value,
              });
          }}
        />
        <span>by</span>
        <Select
          aria-label="As whom"
          disabled={opening}
          value={open.as}
          options={material.people.map((person) => ({ key: person.key, label: person.name }))}
          title={material.people
            .find((person) => person.key === open.as)
            ?.roles.map((held) => material.roles.find(({ key }) => key === held)?.label ?? held)
            .join(', ')}
          onChange={(event) => void bench.reopen({ ...open, as: event.target.value })}
        />
        <DayLine
          label="On which day"
          disabled={opening}
          value={(open.clock ?? DEFAULT_CLOCK).slice(0, 10)}
          onTake={(day) => void bench.reopen({ ...open, clock: `${day}T09:00:00Z` })}
        />
        <Button
          disabled={opening}
          onClick={() => setDialog('opening')}
          title={how === '' ? 'Viewing only, launch parameters, parent, services' : how}
          color={how === '' ? undefined : 'said'}
        >
          <span aria-hidden>{how === '' ? '…' : '… changed'}</span>
          <chakra.span srOnly>How the form is opened</chakra.span>
        </Button>
        <Button
          disabled={opening}
          onClick={() => void bench.reopen()}
          title="Reopen the form without the steps done so far (Alt+R)"
        >
          Start again
        </Button>
      </Flex>
      {!bench.isReleased && (
        <>
          <ProblemsButton bench={bench} onClick={() => setDialog('problems')} />
          <Button
            onClick={() => bench.showTests('scenarios')}
            color={failed > 0 ? 'bad' : scenarios.length === 0 ? 'soft' : 'act'}
            minW={COUNTED}
          >
            {scenariosInWords(scenarios.length, passed, failed)}
          </Button>
          <Button
            disabled={state.steps.length === 0}
            onClick={() => setDialog('keep')}
            aria-label="Keep as scenario"
            title="Keep what was done as a scenario (Alt+C)"
          >
            Keep
          </Button>
          <Button look="go" disabled={opening} onClick={() => setDialog('release')}>
            Make release {(state.release ?? 0) + 1}
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
              void bench.takeRecord({ id, values });
            }}
          />
        </Box>
      </Window>
      <Window open={state.uses !== null} onClose={() => bench.closeUses()}>
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

/** How many problems there are, apart from scenarios, which have a count of their own. */
function ProblemsButton({ bench, onClick }: { bench: BenchStore; onClick: () => void }) {
  const { checked, count, errors } = useBench(bench, (state) => {
    const problems = problemsOf(state).filter(({ sort }) => sort !== 'scenario');
    return {
      checked: state.checked,
      count: problems.length,
      errors: problems.filter(({ severity }) => severity === 'error').length,
    };
  });
  return (
    <Button
      onClick={onClick}
      color={errors > 0 ? 'bad' : count > 0 ? 'said' : 'act'}
      minW={COUNTED}
      title="Types, mistakes and failing scenarios (Alt+P)"
    >
      {count === 0
        ? checked
          ? '✓ no problems'
          : 'checking…'
        : `${errors > 0 ? '×' : '!'} ${count === 1 ? '1 problem' : `${count} problems`}`}
    </Button>
  );
}

function Keep({ bench, onDone }: { bench: BenchStore; onDone: () => void }) {
  const { steps, notice, scenarios } = useStore(bench.store);
  const [title, setTitle] = useState('');
  const taken = scenarios.find(({ scenario }) => scenario.title === title.trim());
  const keep = async () => {
    if (title.trim() === '') return;
    if (taken === undefined) {
      if ((await bench.keepScenario(title.trim())) !== null) onDone();
      return;
    }
    void bench.changeScenario(
      taken.name,
      bench.asScenario(title.trim()),
      `“${title.trim()}” was replaced`,
    );
    onDone();
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
          {taken === undefined ? 'Keep' : 'Replace the one of this title'}
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
