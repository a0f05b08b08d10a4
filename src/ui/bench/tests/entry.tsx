'use client';
/** An entry of a scenario: a step or an expectation, with what can be done with it and what of it was not met. */
import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { isExpect } from '@/core/scenario/beginning';
import type { Scenario, ScenarioStep } from '@/core/scenario/definition';
import { expectChanged, movedTo, stepsBefore } from '@/core/scenario/editing';
import type { Miss } from '@/core/scenario/run-scenario';
import { stepInWords } from '@/core/tape/words';
import { Button } from '../../kit';
import type { Bench } from '../create-bench';
import { useNames, useMaterial } from '../common/use-bench';
import { ExpectationLines } from './expectation';
import { MissLine } from './misses';
import type { ShownSession } from './shown-session';
import { AddStep, StepLine } from './step-line';

export type EditEntries = (edit: (all: ScenarioStep[]) => ScenarioStep[], says: string) => void;

export function Entry({
  bench,
  name,
  scenario,
  entry,
  shown,
  misses,
  draggedRef,
  onEdit,
}: {
  bench: Bench;
  name: string;
  scenario: Scenario;
  /** Its place, from 0. */
  entry: number;
  shown: ShownSession;
  misses: readonly Miss[];
  /** The place of the entry that is being dragged. */
  draggedRef: React.RefObject<number | null>;
  onEdit: EditEntries;
}) {
  const material = useMaterial(bench);
  const names = useNames(bench);
  const [inserting, setInserting] = useState(false);
  const one = scenario.steps[entry]!;
  const next = scenario.steps[entry + 1];
  const number = shown.before + stepsBefore(scenario, entry) + 1;
  const what = isExpect(one) ? `the expectation after step ${number - 1}` : `step ${number}`;
  return (
    <Box
      as="li"
      py="4px"
      pl="4px"
      borderTopWidth="1px"
      borderColor="line"
      bg={misses.length > 0 ? 'badGround' : isExpect(one) ? 'ground' : undefined}
      draggable
      onDragStart={() => {
        draggedRef.current = entry;
      }}
      onDragOver={(event: React.DragEvent) => event.preventDefault()}
      onDrop={() => {
        const from = draggedRef.current;
        if (from !== null && from !== entry)
          onEdit((all) => movedTo(all, from, entry), 'An entry was moved');
        draggedRef.current = null;
      }}
    >
      {inserting && (
        <AddStep
          bench={bench}
          label={`Insert a step above entry ${entry + 1}`}
          onAdd={(step) => {
            setInserting(false);
            onEdit((all) => all.toSpliced(entry, 0, step), 'A step was inserted');
          }}
        />
      )}
      <Flex gap="6px" align="baseline">
        <Box flex="1" minW={0}>
          {isExpect(one) ? (
            <ExpectationLines
              form={material.form}
              tables={material.tables}
              people={material.people}
              names={names}
              expect={one.expect}
              seen={shown.seenAfter(entry)}
              onChange={(expect, says) => onEdit((all) => all.with(entry, { expect }), says)}
            />
          ) : (
            <StepLine
              bench={bench}
              step={one}
              number={number}
              words={stepInWords(one, names, 'the person')}
              placesOf={shown.placesOf}
              onChange={(step) =>
                onEdit((all) => all.with(entry, step), `Step ${number} was changed`)
              }
            />
          )}
        </Box>
        <EntryButtons
          what={what}
          canUp={entry > 0}
          canDown={next !== undefined}
          onInsert={() => setInserting(!inserting)}
          onMove={(by) => onEdit((all) => movedTo(all, entry, entry + by), 'An entry was moved')}
          onShow={() => void bench.tests.show(name, null, isExpect(one) ? number - 1 : number)}
          onRemove={() => onEdit((all) => all.toSpliced(entry, 1), 'An entry was removed')}
        />
      </Flex>
      {misses.map((miss, i) => (
        <MissLine key={i} bench={bench} name={name} miss={miss} />
      ))}
      {!isExpect(one) && shown.shows && (next === undefined || !isExpect(next)) && (
        <Button
          look="text"
          fontSize="12.5px"
          onClick={() =>
            onEdit(
              (all) =>
                all.toSpliced(
                  entry + 1,
                  0,
                  expectChanged(
                    { ...scenario, steps: all.slice(0, entry) },
                    one,
                    material.form,
                    shown.answers,
                    number,
                  ),
                ),
              'An expectation was added',
            )
          }
        >
          expect what this step changed
        </Button>
      )}
    </Box>
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
