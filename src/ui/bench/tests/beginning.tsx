'use client';
/** How a scenario begins: as another one, or opened by somebody with a record. */
import { useRoom } from '../../use-room';
import { useMaterial } from '../common/use-bench';
import { chakra, Flex } from '@chakra-ui/react';
import { equal, type Value } from '@/core/form/value';
import type { Open, Scenario } from '@/core/scenario/definition';
import { Button, Select } from '../../kit';
import { openedHow } from '@/core/scenario/opening-words';
import type { Bench } from '../create-bench';

import type { ShownSession } from './shown-session';

export function Beginning({
  bench,
  name,
  scenario,
  shown: { session, shows },
  onChange,
}: {
  bench: Bench;
  name: string;
  scenario: Scenario;
  shown: ShownSession;
  onChange: (scenario: Scenario, says: string) => void;
}) {
  const { people, records } = useMaterial(bench);
  const scenarios = useRoom(bench.tests, (state) => state.scenarios);
  const live = useRoom(bench.form.session, (state) => state.open);
  const { open } = scenario;
  const reopen = (next: Open) =>
    onChange({ ...scenario, open: next }, 'How it is opened was changed');
  return (
    <Flex gap="8px" mb="8px" align="center" wrap="wrap">
      <Select
        aria-label="How it begins"
        value={scenario.startsAs ?? ''}
        maxW="260px"
        options={[
          { key: '', label: 'opens the form itself' },
          ...scenarios
            .filter((one) => one.name !== name)
            .map((one) => ({ key: one.name, label: `starts as “${one.scenario.title}”` })),
        ]}
        onChange={(event) => {
          const { open: _, startsAs: __, ...rest } = scenario;
          const { value } = event.target;
          onChange(
            value === '' ? { ...rest, open: session?.open ?? live } : { ...rest, startsAs: value },
            'How it begins was changed',
          );
        }}
      />
      {open !== undefined && (
        <>
          <Select
            aria-label="Opened by"
            maxW="170px"
            value={open.as}
            options={withOwn(
              people.map((person) => ({ key: person.key, label: person.name })),
              open.as,
            )}
            onChange={(event) => reopen({ ...open, as: event.target.value })}
          />
          <Select
            aria-label="Record"
            maxW="150px"
            value={open.record ?? ''}
            options={withOwn(
              [
                { key: '', label: 'new' },
                ...records.map(({ id }) => ({ key: id, label: `record ${id}` })),
              ],
              open.record ?? '',
            )}
            onChange={(event) => {
              const { record: _, ...rest } = open;
              const { value } = event.target;
              reopen(value === '' ? rest : { ...rest, record: value });
            }}
          />
          <chakra.span color="soft">{openedHow(open)}</chakra.span>
          {!equal(live as Value, open as Value) && (
            <Button
              title="Person, record, time, launch parameters and services as in the live form"
              onClick={() => reopen(live)}
            >
              Open as the live form is
            </Button>
          )}
        </>
      )}
      {!shows && (
        <Button onClick={() => void bench.tests.show(name, null)}>Show it in the live form</Button>
      )}
    </Flex>
  );
}

/** Options, with the one that stands there though it is none. */
const withOwn = (options: { key: string; label: string }[], own: string) =>
  options.some(({ key }) => key === own)
    ? options
    : [...options, { key: own, label: `${own} (missing)` }];
