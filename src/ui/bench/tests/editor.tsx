'use client';
/** A scenario as a list of steps and expectations, beside the live form that shows it. */
import { useRoom } from '../../use-room';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import type { Scenario } from '@/core/scenario/definition';
import { expectChanged, wholeState, withEntries } from '@/core/scenario/editing';
import { seenAt } from '@/core/scenario/seen';
import { Button, Line, Notice } from '../../kit';
import type { Saving } from '../../draft/draft';
import { ConflictNotice, SavingLine } from '../../draft/saving';
import type { Bench } from '../create-bench';
import { useResults, useMaterial } from '../common/use-bench';
import { Beginning } from './beginning';
import { CasesTable } from './cases';
import { Entry, type EditEntries } from './entry';
import { MissLine } from './misses';
import { GridKept } from './outcomes';
import { useShownSession } from './shown-session';
import { AddStep } from './step-line';

const SAVED: Saving<Scenario | null> = { state: 'saved' };

export function ScenarioEditor({
  bench,
  name,
  scenario,
}: {
  bench: Bench;
  name: string;
  scenario: Scenario;
}) {
  const result = useResults(bench).get(name);
  const { form } = useMaterial(bench);
  const { startsAs, saving } = useRoom(bench.tests, ({ scenarios }) => ({
    startsAs: scenarios.find((one) => one.name === scenario.startsAs)?.scenario.title,
    saving: scenarios.find((one) => one.name === name)?.saving ?? SAVED,
  }));
  const shown = useShownSession(bench, name, scenario);
  const { session, before, shows, answers, more } = shown;
  const draggedRef = useRef<number | null>(null);
  const change = (next: Scenario, says: string) => void bench.tests.change(name, next, says);
  const onEdit: EditEntries = (edit, says) => change(withEntries(scenario, edit), says);
  const takeMore = () =>
    onEdit(
      (all) =>
        more.reduce((steps, step, i) => {
          const at = session!.steps.length + i + 1;
          return [...steps, step, expectChanged({ ...scenario, steps }, step, form, answers, at)];
        }, all),
      `${more.length === 1 ? 'A step was' : `${more.length} steps were`} added`,
    );

  return (
    <Box>
      <Flex gap="8px" mb="6px" align="center" wrap="wrap">
        <TitleLine
          key={scenario.title}
          title={scenario.title}
          onChange={(title) => change({ ...scenario, title }, 'The title was changed')}
        />
        <SavingLine saving={saving} saved="saved" />
        <chakra.span color={result?.passed === false ? 'bad' : 'act'} role="status">
          {result === undefined ? 'not run yet' : result.passed ? '✓ passed' : '× failed'}
        </chakra.span>
      </Flex>
      {saving.state === 'conflict' && (
        <ConflictNotice
          says={
            saving.theirs.content === null
              ? 'Somebody else removed this scenario meanwhile.'
              : 'Somebody else saved this scenario meanwhile. Nothing is overwritten until you choose.'
          }
          theirs={saving.theirs.content === null ? 'Remove it here too' : 'Take theirs'}
          onSettle={(take) => bench.tests.settle(name, take)}
        />
      )}
      <Beginning bench={bench} name={name} scenario={scenario} shown={shown} onChange={change} />
      {session === null && (
        <Notice tone="error">
          It cannot be opened as things are: what it opens with or starts as is not there.
        </Notice>
      )}
      {result?.misses
        .filter(({ at, entry }) =>
          at === null ? entry >= scenario.steps.length : scenario.grid !== undefined,
        )
        .slice(0, 8)
        .map((miss, i) => (
          <MissLine key={i} bench={bench} name={name} miss={miss} />
        ))}
      <Box as="ol" listStyleType="none" mt="4px">
        {before > 0 && (
          <Box as="li" color="soft" py="3px">
            {before === 1 ? 'one step' : `${before} steps`} of “{startsAs}”
          </Box>
        )}
        {scenario.steps.map((_, entry) => (
          <Entry
            key={entry}
            bench={bench}
            name={name}
            scenario={scenario}
            entry={entry}
            shown={shown}
            misses={result?.misses.filter((miss) => miss.entry === entry && miss.at === null) ?? []}
            draggedRef={draggedRef}
            onEdit={onEdit}
          />
        ))}
      </Box>
      <Flex gap="8px" mt="8px" wrap="wrap" align="center">
        <AddStep
          bench={bench}
          onAdd={(step) => onEdit((all) => [...all, step], 'A step was added')}
        />
        <Button
          disabled={!shows}
          title="An expectation on every part as it stands in the live form"
          onClick={() =>
            onEdit(
              (all) => [...all, { expect: wholeState(seenAt(answers, session!.steps.length)) }],
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
