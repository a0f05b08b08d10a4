'use client';
/** A scenario as a list of steps and expectations, beside the live form that shows it. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { namedParts } from '@/core/scenario/naming';
import { isExpect, stepsOf } from '@/core/scenario/beginning';
import type { Expectation, Scenario, ScenarioStep } from '@/core/scenario/definition';
import {
  movedTo,
  stepsBefore,
  whatStepChanged,
  wholeState,
  withEntries,
} from '@/core/scenario/editing';
import { sessionAt } from '@/core/scenario/run';
import { NoSuchOpening } from '@/core/scenario/opening';
import { seenAt, type Seen } from '@/core/scenario/snapshot';
import { equal, type Value } from '@/core/form/value';
import { stepInWords } from '@/core/tape/words';
import { Button, Line, Notice, Select } from '../../kit';
import type { BenchStore } from '../store';
import { useBench, useNames } from '../use-bench';
import { CasesTable } from './cases';
import { ExpectationLines } from './expectation';
import { GridKept } from './grid';
import { MissLine } from './misses';
import { PartSelect } from './part-select';
import { offeredFor, ValueInput } from './value-input';

export function ScenarioEditor({
  bench,
  name,
  scenario,
}: {
  bench: BenchStore;
  name: string;
  scenario: Scenario;
}) {
  const { form, result, scenarios, open, steps, answers } = useBench(bench, (state) => ({
    form: state.material.form,
    result: state.results.get(name),
    scenarios: state.scenarios,
    open: state.open,
    steps: state.steps,
    answers: state.answers,
  }));
  const live = { open, steps, answers };
  const names = useNames(bench);
  const [dragged, setDragged] = useState<number | null>(null);
  /** The entry above which a step is being inserted. */
  const [inserting, setInserting] = useState<number | null>(null);
  const session = useMemo(() => {
    try {
      return sessionAt({ ...scenario, cases: undefined, grid: undefined }, null, {
        form,
        cast: { ...bench.cast(), scenarios },
      });
    } catch (caught) {
      if (caught instanceof NoSuchOpening) return null;
      throw caught;
    }
  }, [bench, scenario, scenarios, form]);
  const before = session === null ? 0 : session.steps.length - stepsOf(scenario).length;
  /** Answers of the live form, where it shows this scenario. */
  const shows =
    session !== null &&
    equal(live.open as Value, session.open as Value) &&
    live.answers.length > session.steps.length &&
    session.steps.every((step, i) => equal(step as Value, live.steps[i] as Value));
  const more = shows ? live.steps.slice(session.steps.length) : [];
  const change = (next: Scenario, says: string) => void bench.changeScenario(name, next, says);
  const entries = (edit: (all: ScenarioStep[]) => ScenarioStep[], says: string) =>
    change(withEntries(scenario, edit), says);
  const seenAfter = (entry: number): Seen | null =>
    shows ? seenAt(live.answers, before + stepsBefore(scenario, entry)) : null;
  const takeMore = () =>
    entries(
      (all) => [
        ...all,
        ...more.flatMap((step, i): ScenarioStep[] => [
          step,
          {
            expect: {
              ...whatStepChanged(step, form, live.answers, session!.steps.length + i + 1),
              '@nothingElse': true,
            } as Expectation,
          },
        ]),
      ],
      `${more.length === 1 ? 'A step was' : `${more.length} steps were`} added`,
    );
  const startings = [
    { key: '', label: 'opens the form itself' },
    ...scenarios
      .filter((one) => one.name !== name)
      .map((one) => ({ key: one.name, label: `starts as “${one.scenario.title}”` })),
  ];

  return (
    <Box>
      <Flex gap="8px" mb="6px" align="center" wrap="wrap">
        <TitleLine
          key={scenario.title}
          title={scenario.title}
          onChange={(title) => change({ ...scenario, title }, 'The title was changed')}
        />
        <chakra.span color={result?.passed === false ? 'bad' : 'act'} role="status">
          {result === undefined ? 'not run yet' : result.passed ? '✓ passed' : '× failed'}
        </chakra.span>
      </Flex>
      <Flex gap="8px" mb="8px" align="center" wrap="wrap">
        <Select
          aria-label="How it begins"
          value={scenario.startsAs ?? ''}
          maxW="260px"
          options={startings}
          onChange={(event) => {
            const { open: _, startsAs: __, ...rest } = scenario;
            const { value } = event.target;
            change(
              value === ''
                ? { ...rest, open: session?.open ?? live.open }
                : { ...rest, startsAs: value },
              'How it begins was changed',
            );
          }}
        />
        {scenario.open !== undefined && (
          <chakra.span color="soft">
            as {names.person(scenario.open.as)},{' '}
            {scenario.open.record == null ? 'new' : `record ${scenario.open.record}`}
          </chakra.span>
        )}
        {!shows && (
          <Button onClick={() => void bench.showScenario(name, null)}>
            Show it in the live form
          </Button>
        )}
      </Flex>
      {session === null && (
        <Notice tone="error">
          It cannot be opened as things are: what it opens with or starts as is not there.
        </Notice>
      )}
      {result?.misses
        .filter((miss) => miss.entry >= scenario.steps.length || miss.at !== null)
        .slice(0, 8)
        .map((miss, i) => (
          <MissLine key={i} bench={bench} name={name} miss={miss} />
        ))}
      <Box as="ol" listStyleType="none" mt="4px">
        {before > 0 && (
          <Box as="li" color="soft" py="3px">
            {before === 1 ? 'one step' : `${before} steps`} of {scenario.startsAs}
          </Box>
        )}
        {scenario.steps.map((one, entry) => {
          const misses =
            result?.misses.filter((miss) => miss.entry === entry && miss.at === null) ?? [];
          const number = before + stepsBefore(scenario, entry) + 1;
          return (
            <Box
              as="li"
              key={entry}
              py="4px"
              pl="4px"
              borderTopWidth="1px"
              borderColor="line"
              bg={misses.length > 0 ? 'badGround' : isExpect(one) ? 'ground' : undefined}
              draggable
              onDragStart={() => setDragged(entry)}
              onDragOver={(event: React.DragEvent) => event.preventDefault()}
              onDrop={() => {
                if (dragged !== null && dragged !== entry)
                  entries((all) => movedTo(all, dragged, entry), 'An entry was moved');
                setDragged(null);
              }}
            >
              {inserting === entry && (
                <AddStep
                  bench={bench}
                  label={`Insert a step above entry ${entry + 1}`}
                  onAdd={(step) => {
                    setInserting(null);
                    entries((all) => all.toSpliced(entry, 0, step), 'A step was inserted');
                  }}
                />
              )}
              <Flex gap="6px" align="baseline">
                <Box flex="1" minW={0}>
                  {isExpect(one) ? (
                    <ExpectationLines
                      form={form}
                      tables={bench.store.getState().material.tables}
                      names={names}
                      expect={one.expect}
                      seen={seenAfter(entry)}
                      onChange={(expect, says) =>
                        entries((all) => all.with(entry, { expect }), says)
                      }
                    />
                  ) : (
                    <StepLine
                      bench={bench}
                      step={one}
                      number={number}
                      words={stepInWords(one, names, 'the person')}
                      onChange={(step) =>
                        entries((all) => all.with(entry, step), `Step ${number} was changed`)
                      }
                    />
                  )}
                </Box>
                <EntryButtons
                  what={
                    isExpect(one) ? `the expectation after step ${number - 1}` : `step ${number}`
                  }
                  canUp={entry > 0}
                  canDown={entry < scenario.steps.length - 1}
                  onInsert={() => setInserting(inserting === entry ? null : entry)}
                  onMove={(by) =>
                    entries((all) => movedTo(all, entry, entry + by), 'An entry was moved')
                  }
                  onShow={() =>
                    void bench.showScenario(name, null, isExpect(one) ? number - 1 : number)
                  }
                  onRemove={() =>
                    entries((all) => all.filter((_, i) => i !== entry), 'An entry was removed')
                  }
                />
              </Flex>
              {misses.map((miss, i) => (
                <MissLine key={i} bench={bench} name={name} miss={miss} />
              ))}
              {!isExpect(one) && shows && !isExpect(scenario.steps[entry + 1] ?? one) && (
                <Button
                  look="text"
                  fontSize="12.5px"
                  onClick={() =>
                    entries(
                      (all) =>
                        all.toSpliced(entry + 1, 0, {
                          expect: {
                            ...whatStepChanged(one, form, live.answers, number),
                            '@nothingElse': true,
                          } as Expectation,
                        }),
                      'An expectation was added',
                    )
                  }
                >
                  expect what this step changed
                </Button>
              )}
            </Box>
          );
        })}
      </Box>
      <Flex gap="8px" mt="8px" wrap="wrap" align="center">
        <AddStep
          bench={bench}
          onAdd={(step) => entries((all) => [...all, step], 'A step was added')}
        />
        <Button
          disabled={!shows}
          title="An expectation on every part as it stands in the live form"
          onClick={() =>
            entries(
              (all) => [
                ...all,
                { expect: wholeState(seenAt(live.answers, session!.steps.length)) },
              ],
              'An expectation was added',
            )
          }
        >
          Expect the whole state
        </Button>
        {more.length > 0 && (
          <Button look="go" onClick={takeMore}>
            Add the {more.length === 1 ? 'step' : `${more.length} steps`} done in the live form
          </Button>
        )}
      </Flex>
      <CasesTable
        bench={bench}
        form={form}
        name={name}
        scenario={scenario}
        result={result}
        onChange={change}
      />
      {scenario.grid !== undefined && <GridKept bench={bench} name={name} scenario={scenario} />}
    </Box>
  );
}

function TitleLine({ title, onChange }: { title: string; onChange: (title: string) => void }) {
  const [text, setText] = useState(title);
  const done = () => {
    if (text.trim() !== '' && text.trim() !== title) onChange(text.trim());
  };
  return (
    <Line
      aria-label="Title of the scenario"
      value={text}
      flex="1"
      minW="200px"
      fontWeight={620}
      onChange={(event) => setText(event.target.value)}
      onBlur={done}
      onKeyDown={(event) => {
        if (event.key === 'Enter') done();
      }}
    />
  );
}

function EntryButtons({
  what,
  canUp,
  canDown,
  onInsert,
  onMove,
  onShow,
  onRemove,
}: {
  what: string;
  canUp: boolean;
  canDown: boolean;
  onInsert: () => void;
  onMove: (by: -1 | 1) => void;
  onShow: () => void;
  onRemove: () => void;
}) {
  const small = { look: 'text', color: 'soft', fontSize: '12.5px' } as const;
  return (
    <Flex gap="2px" flexShrink={0}>
      <Button {...small} aria-label={`Run to ${what}`} title="Run to here" onClick={onShow}>
        run to
      </Button>
      <Button
        {...small}
        aria-label={`Insert above ${what}`}
        title="Insert a step above"
        onClick={onInsert}
      >
        +
      </Button>
      <Button
        {...small}
        aria-label={`Move ${what} up`}
        disabled={!canUp}
        onClick={() => onMove(-1)}
      >
        ↑
      </Button>
      <Button
        {...small}
        aria-label={`Move ${what} down`}
        disabled={!canDown}
        onClick={() => onMove(1)}
      >
        ↓
      </Button>
      <Button {...small} aria-label={`Remove ${what}`} onClick={onRemove}>
        ×
      </Button>
    </Flex>
  );
}

/** A step in words; what it sets can be changed in place. */
function StepLine({
  bench,
  step,
  number,
  words,
  onChange,
}: {
  bench: BenchStore;
  step: Exclude<ScenarioStep, { expect: Expectation }>;
  number: number;
  words: string;
  onChange: (step: ScenarioStep) => void;
}) {
  const { form, tables } = bench.store.getState().material;
  const sets = 'set' in step ? step.set : 'input' in step ? step.input : null;
  return (
    <Flex gap="6px" align="center" wrap="wrap">
      <chakra.span color="soft" minW="20px">
        {number}
      </chakra.span>
      {sets === null ? (
        'wait' in step ? (
          <>
            wait{' '}
            <ValueInput
              value={step.wait}
              offered={null}
              label={`Milliseconds of step ${number}`}
              onChange={(value) => typeof value === 'number' && onChange({ wait: value })}
            />{' '}
            ms
          </>
        ) : (
          <span>{words}</span>
        )
      ) : (
        <>
          <span>{'set' in step ? 'set' : 'type into'}</span>
          <PartSelect
            form={form}
            label={`Part of step ${number}`}
            only="values"
            value={sets}
            onChange={(part) =>
              onChange(
                'set' in step ? { ...step, set: part } : ({ ...step, input: part } as ScenarioStep),
              )
            }
          />
          <span>to</span>
          <ValueInput
            value={(step as { to: Value }).to}
            offered={offeredFor(form, tables, sets)}
            label={`Value of step ${number}`}
            onChange={(to) => onChange({ ...step, to } as ScenarioStep)}
          />
        </>
      )}
    </Flex>
  );
}

const KINDS = [
  { key: 'set', label: 'set a field' },
  { key: 'click', label: 'press a button' },
  { key: 'submit', label: 'submit' },
  { key: 'wait', label: 'wait' },
  { key: 'addRow', label: 'add a row' },
  { key: 'removeRow', label: 'remove the first row' },
  { key: 'turnTo', label: 'turn to a page' },
  { key: 'next', label: 'next record' },
  { key: 'previous', label: 'previous record' },
];

function AddStep({
  bench,
  label = 'Add a step',
  onAdd,
}: {
  bench: BenchStore;
  label?: string;
  onAdd: (step: ScenarioStep) => void;
}) {
  const { form } = bench.store.getState().material;
  const make = (kind: string): ScenarioStep | null => {
    const parts = namedParts(form, 'values');
    const rows = form.pages
      .flatMap((page) => page.sections.flatMap(({ fields }) => fields))
      .find((field) => field.kind === 'rows');
    switch (kind) {
      case 'set':
        return parts[0] === undefined ? null : { set: parts[0].key, to: null };
      case 'click':
        return form.buttons?.[0] === undefined ? null : { click: form.buttons[0].name };
      case 'submit':
        return { submit: true };
      case 'wait':
        return { wait: 1000 };
      case 'addRow':
        return rows === undefined ? null : { addRow: rows.name };
      case 'removeRow':
        return rows === undefined ? null : { removeRow: `${rows.name}[0]` };
      case 'turnTo':
        return { turnTo: form.pages.at(-1)!.name };
      case 'next':
        return { next: true };
      default:
        return { previous: true };
    }
  };
  return (
    <Select
      aria-label={label}
      value=""
      options={[
        { key: '', label: '+ add a step' },
        ...KINDS.filter(({ key }) => make(key) !== null),
      ]}
      onChange={(event) => {
        const step = make(event.target.value);
        if (step !== null) onAdd(step);
      }}
    />
  );
}
