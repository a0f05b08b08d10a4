'use client';
/** How the form is opened on the bench, beyond record and person: viewing, time and zone, launch parameters, a parent, moods of services. */
import { useRoom } from '../../use-room';
import { useMaterial } from '../common/use-bench';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { readLaunch } from '@/core/form/launch';
import type { ServiceMood } from '@/core/form/service';
import { fromWallClock, isZone, toWallClock } from '@/core/form/zone';
import { DEFAULT_CLOCK } from '@/core/scenario/opening';
import { launchIn, launchText } from '@/core/scenario/opening-words';
import { Button, Checkbox, Line, Mono, Notice, Select, TextArea } from '../../kit';
import { RecordPicker } from '../../records/picker';
import { servicesAsked } from './services-asked';
import type { Bench } from '../create-bench';
import { WindowTitle } from '../../window';

/** Stands before the name of a form whose records are not all in the list. */
const OTHER = '@other ';

/** What a service does for this session. The keys are those of the choice on screen. */
const MOODS: Record<string, { label: string; mood: ServiceMood | null }> = {
  defined: { label: 'as defined', mood: null },
  quick: { label: 'answers at once', mood: { delay: 0 } },
  slow: { label: 'answers after 4 s', mood: { delay: 4000 } },
  late: { label: 'answers after 20 s', mood: { delay: 20_000 } },
  fails: { label: 'fails', mood: { fails: 'set to fail on the bench' } },
  byHand: { label: 'I answer by hand', mood: { byHand: true } },
};

function moodKey(mood: ServiceMood | undefined): string {
  if (mood === undefined) return 'defined';
  return (
    Object.entries(MOODS).find(
      ([, known]) => JSON.stringify(known.mood) === JSON.stringify(mood),
    )?.[0] ?? 'defined'
  );
}

export function OpeningDialog({ bench, onDone }: { bench: Bench; onDone: () => void }) {
  const open = useRoom(bench.form.session, (state) => state.open);
  const material = useMaterial(bench);
  const [launch, setLaunch] = useState(launchText(open.launch ?? {}));
  const [viewing, setViewing] = useState(open.viewing === true);
  const [parent, setParent] = useState(
    open.parent === undefined ? '' : `${open.parent.form}/${open.parent.record}`,
  );
  /** The form of which a record is being looked for. */
  const [picking, setPicking] = useState<string | null>(null);
  const picked = material.forms.find(({ form }) => form.name === picking);
  const [zone, setZone] = useState(open.zone ?? 'UTC');
  const wall = toWallClock(open.zone ?? 'UTC', open.clock ?? DEFAULT_CLOCK);
  const [time, setTime] = useState(wall.slice(11, 16));
  const [moods, setMoods] = useState<Record<string, string>>(
    Object.fromEntries(
      Object.entries(open.services ?? {}).map(([name, mood]) => [name, moodKey(mood)]),
    ),
  );
  const [says, setSays] = useState<string | null>(null);
  const parents = material.forms.flatMap(({ form, records }) =>
    records.map((record) => ({
      key: `${form.name}/${record.id}`,
      label: `${form.title}, record ${record.id}`,
    })),
  );
  const functions = servicesAsked(bench).flatMap((service) =>
    Object.keys(service.functions).map((name) => `${service.name}.${name}`),
  );

  const apply = () => {
    const read = launchIn(launch);
    if ('says' in read) return setSays(read.says);
    const taken = readLaunch(material.form, read.launch);
    if ('says' in taken)
      return setSays(`${taken.says.charAt(0).toUpperCase()}${taken.says.slice(1)}.`);
    if (!isZone(zone.trim()))
      return setSays(`“${zone}” is not the name of a time zone, such as Europe/Lisbon.`);
    const services = Object.fromEntries(
      Object.entries(moods).flatMap(([name, key]) =>
        MOODS[key]?.mood == null ? [] : [[name, MOODS[key].mood]],
      ),
    );
    const [form, record] = parent.split('/');
    const day = wall.slice(0, 10);
    const { viewing: _, parent: __, services: ___, launch: ____, zone: _____, ...rest } = open;
    const instant = fromWallClock(zone.trim(), `${day}T${time}`);
    void bench.form.reopen({
      ...rest,
      clock: instant,
      ...(zone.trim() === 'UTC' ? {} : { zone: zone.trim() }),
      ...(Object.keys(read.launch).length > 0 ? { launch: read.launch } : {}),
      ...(viewing ? { viewing } : {}),
      ...(parent === '' ? {} : { parent: { form: form!, record: record! } }),
      ...(Object.keys(services).length > 0 ? { services } : {}),
    });
    onDone();
  };

  return (
    <Box p="16px">
      <WindowTitle>How the form is opened</WindowTitle>
      <Checkbox mt="10px" label="The record is only viewed" on={viewing} onSet={setViewing} />
      <Flex mt="10px" gap="16px" wrap="wrap">
        <chakra.label>
          At
          <Line
            type="time"
            ml="6px"
            value={time}
            onChange={(event) => event.target.value !== '' && setTime(event.target.value)}
          />{' '}
          in
          <Line
            list="zones"
            aria-label="Time zone"
            ml="6px"
            width="170px"
            value={zone}
            onChange={(event) => setZone(event.target.value)}
          />
          <datalist id="zones">
            {['UTC', ...Intl.supportedValuesOf('timeZone')].map((name) => (
              <option key={name} value={name} />
            ))}
          </datalist>
        </chakra.label>
        {parents.length > 0 && (
          <chakra.label>
            From
            <Select
              ml="6px"
              value={parent}
              options={[
                { key: '', label: 'no parent' },
                ...parents,
                ...material.forms.map(({ form }) => ({
                  key: OTHER + form.name,
                  label: `another record of ${form.title}…`,
                })),
              ]}
              onChange={({ target }) =>
                target.value.startsWith(OTHER)
                  ? setPicking(target.value.slice(OTHER.length))
                  : setParent(target.value)
              }
            />
          </chakra.label>
        )}
      </Flex>
      {picked !== undefined && (
        <Box mt="10px" borderWidth="1px" borderColor="line" borderRadius="4px" p="8px">
          <RecordPicker
            form={picked.form}
            tables={material.tables}
            onPick={({ id, values }) => {
              bench.core.putParent(picked.form.name, { id, values });
              setParent(`${picked.form.name}/${id}`);
              setPicking(null);
            }}
          />
        </Box>
      )}
      <chakra.label display="block" mt="10px">
        Launch parameters, one <Mono>name=value</Mono> a line
        {(material.form.launch ?? []).length > 0 && (
          <chakra.span color="soft">
            ; declared:{' '}
            {material.form
              .launch!.map(({ name, kind }) => `${name} (${kind.replace('_', ' or ')})`)
              .join(', ')}
          </chakra.span>
        )}
        <TextArea rows={3} value={launch} onChange={(event) => setLaunch(event.target.value)} />
      </chakra.label>
      {functions.length > 0 && (
        <chakra.fieldset mt="10px">
          <chakra.legend fontWeight={620}>Services in this session</chakra.legend>
          {functions.map((name) => (
            <Flex key={name} as="label" gap="10px" align="center" mt="4px">
              <Mono width="200px">{name}</Mono>
              <Select
                value={moods[name] ?? 'defined'}
                options={Object.entries(MOODS).map(([key, { label }]) => ({ key, label }))}
                onChange={(event) => {
                  const { value } = event.target;
                  setMoods((before) => ({ ...before, [name]: value }));
                }}
              />
            </Flex>
          ))}
        </chakra.fieldset>
      )}
      {says !== null && (
        <Box mt="8px">
          <Notice tone="error">{says}</Notice>
        </Box>
      )}
      <Flex mt="14px" gap="8px">
        <Button look="go" onClick={apply}>
          Open like this
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </Flex>
    </Box>
  );
}
