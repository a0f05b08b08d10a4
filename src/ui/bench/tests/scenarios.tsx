'use client';
/** The scenarios of a form: how each came out, and the one that is open, to be edited beside the live form. */
import { counted } from '@/core/counted';
import { useRoom } from '../../use-room';
import { lastOf } from './changing';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { accepting, canAccept } from '@/core/scenario/editing';
import type { Miss } from '@/core/scenario/run-scenario';
import { useDates } from '../../writing';
import { Button, Line, Mono, Notice } from '../../kit';
import { useAnswer } from '../../server-data';
import type { PastRun } from '@/core/workspace/past-run';
import type { Bench } from '../create-bench';
import { useResults, useMaterial } from '../common/use-bench';
import { ScenarioEditor } from './editor';
import { MissLine, whenOf } from './misses';
import { Shown } from './value-input';

export function ScenariosTab({ bench }: { bench: Bench }) {
  const results = useResults(bench);
  const {
    scenarios,
    running,
    scenario: open,
    undoable,
  } = useRoom(bench.tests, (state) => ({
    scenarios: state.scenarios,
    running: state.running,
    scenario: state.scenario,
    undoable: state.undoable,
  }));
  const steps = useRoom(bench.form.session, (state) => state.steps);
  const [title, setTitle] = useState('');
  const shown = scenarios.find(({ name }) => name === open) ?? null;
  const failed = scenarios.filter(({ name }) => results.get(name)?.passed === false);
  const last = lastOf(undoable, shown === null ? null : shown.name);
  const taken = scenarios.find(({ scenario }) => scenario.title === title.trim());
  const keep = async () => {
    const made = bench.tests.fromSession(title.trim());
    if (taken !== undefined) {
      await bench.tests.change(taken.name, made, `“${taken.scenario.title}” was replaced`);
      return bench.tests.open('scenarios', taken.name);
    }
    const name = await bench.tests.keep(title.trim(), made);
    if (name !== null) bench.tests.open('scenarios', name);
    setTitle('');
  };
  if (shown !== null)
    return (
      <>
        <Flex gap="10px" align="center" mb="8px" wrap="wrap">
          <Button onClick={() => bench.tests.store.setState({ scenario: null })}>
            ‹ All scenarios
          </Button>
          <Undo bench={bench} name={shown.name} says={last?.says ?? null} />
        </Flex>
        <ScenarioEditor bench={bench} name={shown.name} scenario={shown.scenario} />
      </>
    );
  return (
    <>
      <Flex gap="8px" align="center" wrap="wrap" mb="8px">
        <Button disabled={running} onClick={() => void bench.tests.run()}>
          {running ? 'Running…' : 'Run all'}
        </Button>
        <span role="status">
          {scenarios.length === 0
            ? 'There is no scenario yet. Do steps in the live form, then keep them here.'
            : `${scenarios.length - failed.length} of ${scenarios.length} passed`}
        </span>
        <Undo bench={bench} name={null} says={last?.says ?? null} />
      </Flex>
      <Flex
        as="form"
        gap="6px"
        mb="10px"
        align="center"
        wrap="wrap"
        onSubmit={(event) => {
          event.preventDefault();
          if (title.trim() !== '') void keep();
        }}
      >
        <Line
          aria-label="Title of a new scenario"
          placeholder={
            steps.length === 0
              ? 'Keep the form as it opens as …'
              : `Keep the ${steps.length === 1 ? 'step' : `${steps.length} steps`} of the live form as …`
          }
          value={title}
          flex="1"
          minW="180px"
          onChange={(event) => setTitle(event.target.value)}
        />
        <Button type="submit" look="go" disabled={title.trim() === ''}>
          {taken === undefined ? 'Keep' : 'Replace it'}
        </Button>
        {taken !== undefined && (
          <chakra.span color="soft">A scenario has this title; it would be replaced.</chakra.span>
        )}
      </Flex>
      {failed.length > 0 && <Review bench={bench} names={failed.map(({ name }) => name)} />}
      <Box as="ul" listStyleType="none">
        {scenarios.map(({ name, scenario }) => {
          const result = results.get(name);
          return (
            <Box as="li" key={name} py="4px" borderTopWidth="1px" borderColor="line">
              <Flex gap="8px" align="baseline">
                <chakra.span
                  color={result?.passed === false ? 'bad' : 'act'}
                  flexShrink={0}
                  aria-label={
                    result === undefined ? 'not run yet' : result.passed ? 'passed' : 'failed'
                  }
                >
                  {result === undefined ? '…' : result.passed ? '✓' : '×'}
                </chakra.span>
                <Box flex="1" minW={0}>
                  <Button
                    look="text"
                    height="auto"
                    whiteSpace="normal"
                    textAlign="left"
                    onClick={() => {
                      bench.tests.open('scenarios', name);
                      void bench.tests.show(name, null);
                    }}
                  >
                    {scenario.title}
                  </Button>{' '}
                  <chakra.span color="soft" fontSize="12.5px">
                    {kindsOf(scenario).join(' · ')}
                  </chakra.span>
                </Box>
                <Button
                  look="text"
                  color="soft"
                  aria-label={`Remove ${scenario.title}`}
                  onClick={() => void bench.tests.drop(name)}
                >
                  remove
                </Button>
              </Flex>
              {result?.misses.slice(0, 3).map((miss, i) => (
                <MissLine key={i} bench={bench} name={name} miss={miss} />
              ))}
              {(result?.misses.length ?? 0) > 3 && (
                <Box pl="20px" color="soft">
                  and {result!.misses.length - 3} more
                </Box>
              )}
            </Box>
          );
        })}
      </Box>
      <Runs bench={bench} />
    </>
  );
}

/** How the scenarios came out before, each time that differed. */
function Runs({ bench }: { bench: Bench }) {
  const dates = useDates();
  const {
    form: { name: form },
    people,
  } = useMaterial(bench);
  const [open, setOpen] = useState(false);
  const { data: runs } = useAnswer<PastRun[]>(open ? `/api/forms/${form}/scenario-run` : null);
  return (
    <chakra.details mt="12px" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <chakra.summary cursor="pointer">Former runs</chakra.summary>
      {runs?.length === 0 && <Box color="soft">None is kept yet.</Box>}
      {runs?.map(({ passed, failed, failing, by, at }) => (
        <Flex key={at} gap="8px" py="2px" fontSize="13px" wrap="wrap">
          <chakra.span color="soft">{dates.moment(at)}</chakra.span>
          <chakra.span color={failed > 0 ? 'bad' : 'act'}>
            {passed} of {passed + failed} passed
          </chakra.span>
          <chakra.span color="soft">{people.find(({ key }) => key === by)?.name ?? by}</chakra.span>
          {failing.length > 0 && <span>{failing.slice(0, 3).join(' · ')}</span>}
        </Flex>
      ))}
    </chakra.details>
  );
}

function kindsOf({
  startsAs,
  steps,
  cases,
  grid,
}: {
  startsAs?: string | undefined;
  steps: readonly object[];
  cases?: { rows: readonly object[] } | undefined;
  grid?: { accepted: { rows: readonly object[] } } | undefined;
}): string[] {
  const count = steps.filter((step) => !('expect' in step)).length;
  return [
    ...(startsAs === undefined ? [] : [`starts as ${startsAs}`]),
    ...(count === 0 ? [] : [counted(count, 'step')]),
    ...(cases === undefined ? [] : [`${cases.rows.length} cases`]),
    ...(grid === undefined ? [] : [`grid of ${grid.accepted.rows.length}`]),
  ];
}

/** Changed on purpose? What came can be accepted, one by one or all. */
function Review({ bench, names }: { bench: Bench; names: readonly string[] }) {
  const results = useResults(bench);
  const { form } = useMaterial(bench);
  const scenarios = useRoom(bench.tests, (state) => state.scenarios);
  const [open, setOpen] = useState(false);
  const open1 = names.flatMap((name) =>
    (results.get(name)?.misses ?? []).filter(canAccept).map((miss) => ({ name, miss })),
  );
  if (open1.length === 0) return null;
  const accept = async (some: readonly { name: string; miss: Miss }[]) => {
    for (const name of new Set(some.map((one) => one.name))) {
      const entry = scenarios.find((one) => one.name === name)!;
      const misses = some.filter((one) => one.name === name).map(({ miss }) => miss);
      await bench.tests.change(
        name,
        accepting(entry.scenario, misses, form),
        `What came was accepted in “${entry.scenario.title}”`,
      );
    }
  };
  return (
    <Notice tone="warning" mb="8px">
      <Flex gap="8px" align="center" wrap="wrap">
        <span>
          {counted(open1.length, 'result is', 'results are')} not as expected. Changed on purpose?
        </span>
        <Button onClick={() => setOpen(!open)} aria-expanded={open}>
          {open ? 'Close the review' : 'Review'}
        </Button>
      </Flex>
      {open && (
        <Box mt="6px">
          <chakra.table
            width="100%"
            fontSize="13px"
            css={{
              '& td, & th': { textAlign: 'left', paddingRight: '10px', verticalAlign: 'top' },
            }}
          >
            <thead>
              <tr>
                <th>Scenario</th>
                <th>What</th>
                <th>Expected</th>
                <th>Now</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {open1.map(({ name, miss }, i) => (
                <tr key={i}>
                  <td>{scenarios.find((one) => one.name === name)?.scenario.title}</td>
                  <td>
                    <Mono>
                      {miss.part}
                      {miss.aspect === null ? '' : `.${miss.aspect}`}
                    </Mono>{' '}
                    {whenOf(miss)}
                  </td>
                  <td>
                    <Shown value={miss.expected ?? null} />
                  </td>
                  <td>
                    <Shown value={miss.actual ?? null} />
                  </td>
                  <td>
                    <Button
                      look="text"
                      aria-label={`Accept ${miss.says}`}
                      onClick={() => void accept([{ name, miss }])}
                    >
                      accept
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </chakra.table>
          <Button mt="6px" onClick={() => void accept(open1)}>
            Accept all
          </Button>
        </Box>
      )}
    </Notice>
  );
}

function Undo({
  bench,
  name,
  says,
}: {
  bench: Bench;
  /** The scenario that is undone; null for whichever changed last. */
  name: string | null;
  says: string | null;
}) {
  if (says === null) return null;
  return (
    <Flex gap="6px" align="center" color="soft" fontSize="13px">
      <span>{says}.</span>
      <Button look="text" onClick={() => void bench.tests.undo(name)}>
        Undo
      </Button>
    </Flex>
  );
}
