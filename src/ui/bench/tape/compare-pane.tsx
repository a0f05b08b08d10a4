'use client';
/** The same steps under other conditions, and what is different at the end. */
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { useStore } from 'zustand';
import type { Difference } from '@/core/debugging/differences';
import type { Value } from '@/core/form/value';
import { becameInWords, valueInWords, type Names } from '@/core/tape/words';
import { Button, Select } from '../../kit';
import { sessionKey, type Compared } from './state';
import type { Bench } from '../create-bench';
import { useRoom } from '../../use-room';
import { useMaterial } from '../common/use-bench';

const NONE_COMPARED: readonly Compared[] = [];

export function ComparePane({ bench, names }: { bench: Bench; names: Names }) {
  const session = useRoom(bench.form.session, sessionKey);
  // Of a session that went on, or was opened otherwise, nothing is known.
  const compared = useStore(bench.tape.store, (state) =>
    state.comparedOf === session ? state.compared : NONE_COMPARED,
  );
  const open = useRoom(bench.form.session, (state) => state.open);
  const replayed = useRoom(bench.form, (state) => state.replayed);
  const { people, services, records } = useMaterial(bench);
  const [what, setWhat] = useState('');
  const others = people.filter(({ key }) => key !== open.as);
  const conditions: { key: string; label: string; open: object }[] = [
    ...others.map(({ key, name }) => ({
      key: `as ${key}`,
      label: `as ${name}`,
      open: { as: key },
    })),
    { key: 'later', label: 'a year later', open: { clock: aYearLater(open.clock) } },
    ...(open.record == null
      ? records.slice(0, 5).map(({ id }) => ({
          key: `record ${id}`,
          label: `with record ${id}`,
          open: { record: id },
        }))
      : [{ key: 'new', label: 'as a new entry', open: { record: null } }]),
    ...services.flatMap(({ name, title }) => [
      {
        key: `${name} fails`,
        label: `${title} fails`,
        open: { services: { ...open.services, [name]: { fails: 'does not answer' } } },
      },
      {
        key: `${name} slow`,
        label: `${title} takes 10 s`,
        open: { services: { ...open.services, [name]: { delay: 10_000 } } },
      },
    ]),
  ];
  const chosen = conditions.find(({ key }) => key === what) ?? conditions[0];
  return (
    <Box fontSize="12.5px">
      <b>The same steps</b>{' '}
      <Select
        aria-label="Under which conditions"
        fontSize="12px"
        py="0"
        value={chosen?.key ?? ''}
        options={conditions}
        onChange={(event) => setWhat(event.target.value)}
      />{' '}
      <Button
        disabled={chosen === undefined}
        onClick={() => void bench.tape.compare(chosen!.label, chosen!.open)}
      >
        Compare
      </Button>{' '}
      <Button
        title="Lets the calls that wait now be answered in every order"
        onClick={() => void bench.tape.tryOrders()}
      >
        Orders of answers
      </Button>
      {compared.map(({ title, differences, errors }, i) => (
        <Box key={i} mt="6px" borderTopWidth="1px" borderColor="line">
          <b>{title}</b>
          <DifferenceList differences={differences} names={names} />
          {errors.map((error, j) => (
            <Box key={j} color="bad">
              {error}
            </Box>
          ))}
        </Box>
      ))}
      <Box mt="8px" borderTopWidth="1px" borderColor="line">
        <b>Before and after the last edit</b>
        {replayed === null ? (
          <Box color="soft">Nothing has been edited since these steps were done.</Box>
        ) : (
          <DifferenceList differences={replayed} names={names} />
        )}
      </Box>
    </Box>
  );
}

function aYearLater(clock = '2031-05-02T09:00:00Z'): string {
  return `${Number(clock.slice(0, 4)) + 1}${clock.slice(4)}`;
}

export function DifferenceList({
  differences,
  names,
}: {
  differences: readonly Difference[];
  names: Names;
}) {
  if (differences.length === 0) return <Box color="soft">Nothing differs.</Box>;
  return (
    <Box as="ul" listStyleType="none">
      {differences.slice(0, 60).map(({ part, aspect, before, after }, i) => (
        <li key={i}>
          {names.part(part)}, {aspect}:{' '}
          <chakra.span color="soft">{shownAs(aspect, before)}</chakra.span> →{' '}
          <chakra.span color="said">{shownAs(aspect, after)}</chakra.span>
        </li>
      ))}
      {differences.length > 60 && <li>and {differences.length - 60} more</li>}
    </Box>
  );
}

function shownAs(aspect: string, value: Value | undefined): string {
  if (value === undefined) return 'not there';
  return aspect === 'shown' || aspect === 'locked' || aspect === 'required'
    ? becameInWords(aspect, value)
    : valueInWords(value);
}
