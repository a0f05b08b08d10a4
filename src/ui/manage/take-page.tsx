'use client';
/** Bringing a folder into a workspace that is there: what would change, which of it is taken, and undoing that. */
import { counted } from '@/core/counted';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import type { Person } from '@/core/form/table';
import type { Change } from '@/core/workspace/taking';
import { useDates } from '../writing';
import { Button, Cell, Checkbox, ListTable, Mono, Notice } from '../kit';
import { PageHead } from '../page-head';
import { SaidNotice, useAsking } from './use-change';

interface Taking {
  id: number;
  what: string;
  by: string | null;
  at: string;
  count: number;
}

interface Plan {
  title: string;
  known: boolean;
  changes: Change[];
}

interface Brought {
  name: string;
  zip: string;
  records: boolean;
  plan: Plan;
  chosen: ReadonlySet<string>;
}

export function TakePage({
  title,
  people,
  takings,
}: {
  title: string;
  people: readonly Person[];
  takings: readonly Taking[];
}) {
  const { said, setSaid, ask } = useAsking<number>();
  const [brought, setBrought] = useState<Brought | null>(null);
  const [busy, setBusy] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const dates = useDates();

  const look = async (name: string, zip: string, records: boolean) => {
    setBusy(true);
    const plan = await ask<Plan>('POST', '/api/workspace/changes', { folder: { zip }, records });
    setBusy(false);
    if (plan === null) return;
    setSaid(null);
    setBrought({ name, zip, records, plan, chosen: new Set(usual(plan)) });
  };
  const bring = async (given: File) => look(given.name, await inBase64(given), false);
  const take = async ({ name, zip, chosen }: Brought) => {
    setBusy(true);
    const taken = await ask<{ id: number | null; saved: number }>(
      'POST',
      '/api/workspace/takings',
      { folder: { zip }, units: [...chosen], what: name },
    );
    setBusy(false);
    if (taken === null) return;
    setBrought(null);
    setSaid({
      tone: 'info',
      text: `${counted(taken.saved, 'thing')} of ${name} ${taken.saved === 1 ? 'is' : 'are'} in the workspace now.`,
      ...(taken.id === null ? {} : { undo: taken.id }),
    });
  };
  const undo = async (id: number) => {
    if ((await ask('DELETE', `/api/workspace/takings/${id}`)) !== null)
      setSaid({ tone: 'info', text: 'It is as it was before.' });
  };
  return (
    <>
      <PageHead workspace={title} title="Bring in a folder" />
      <Box as="main" px="16px" py="14px" maxW="1100px">
        <Flex gap="12px" align="center" wrap="wrap" mb="12px">
          <input
            ref={file}
            type="file"
            accept=".zip,application/zip"
            aria-label="Zip of the folder"
            hidden
            onChange={({ target }) => {
              const [given] = target.files ?? [];
              if (given !== undefined)
                void bring(given).finally(() => {
                  target.value = '';
                });
            }}
          />
          <Button look="go" disabled={busy} onClick={() => file.current?.click()}>
            Choose a zip…
          </Button>
          <chakra.span color="soft" fontSize="13px">
            Nothing is changed before you have seen what would be.
          </chakra.span>
        </Flex>
        <SaidNotice said={said} onUndo={(id) => void undo(id)} />
        {brought !== null && (
          <Preview
            brought={brought}
            busy={busy}
            onChoose={(chosen) => setBrought({ ...brought, chosen })}
            onRecords={(records) => void look(brought.name, brought.zip, records)}
            onTake={() => void take(brought)}
            onCancel={() => setBrought(null)}
          />
        )}
        {takings.length > 0 && (
          <Box mt="18px">
            <Box as="h2" fontSize="14px" fontWeight={620}>
              Brought in lately
            </Box>
            {takings.map((taking) => (
              <Box key={taking.id} py="3px" fontSize="13.5px">
                {taking.what}, {counted(taking.count, 'thing')}, {dates.moment(taking.at)}
                {taking.by !== null &&
                  `, by ${people.find(({ key }) => key === taking.by)?.name ?? taking.by}`}{' '}
                <Button
                  look="text"
                  aria-label={`Undo ${taking.what}`}
                  onClick={() => void undo(taking.id)}
                >
                  Undo
                </Button>
              </Box>
            ))}
          </Box>
        )}
      </Box>
    </>
  );
}

/** What is chosen at first: no conflict, and nothing that would go where nobody knows whether it was ever there. */
const usual = ({ known, changes }: Plan) =>
  changes.flatMap(({ unit, is, conflict }) =>
    conflict || (is === 'removed' && !known) ? [] : [unit],
  );

const MARKS = { new: '+ new', changed: 'changed', removed: '− removed' } as const;

function Preview({
  brought: { name, records, plan, chosen },
  busy,
  onChoose,
  onRecords,
  onTake,
  onCancel,
}: {
  brought: Brought;
  busy: boolean;
  onChoose: (chosen: ReadonlySet<string>) => void;
  onRecords: (records: boolean) => void;
  onTake: () => void;
  onCancel: () => void;
}) {
  const { changes, known } = plan;
  const conflicts = changes.filter(({ conflict }) => conflict).length;
  const toggle = (unit: string) => {
    const next = new Set(chosen);
    if (!next.delete(unit)) next.add(unit);
    onChoose(next);
  };
  const all = changes.every(({ unit }) => chosen.has(unit));
  return (
    <Box>
      <Box role="status">
        {changes.length === 0
          ? `${name} holds what the workspace has: nothing would change.`
          : `${name} would change ${counted(changes.length, 'thing')}${conflicts === 0 ? '' : `, ${conflicts === 1 ? 'one of them' : `${conflicts} of them`} changed here as well`}.`}
      </Box>
      {!known && changes.length > 0 && (
        <Notice tone="info" mt="6px">
          The zip does not say what it was made from, so whatever differs is shown, and what is only
          here counts as removed. A zip that was downloaded here says it.
        </Notice>
      )}
      {changes.length > 0 && (
        <Box overflowX="auto" mt="8px">
          <ListTable caption="What would change" heads={['Take', 'What', 'How', 'In words']}>
            {changes.map(({ unit, is, conflict, says }) => (
              <tr key={unit}>
                <Cell>
                  <input
                    type="checkbox"
                    aria-label={`Take ${unit}`}
                    checked={chosen.has(unit)}
                    onChange={() => toggle(unit)}
                  />
                </Cell>
                <Cell>
                  <Mono>{unit}</Mono>
                </Cell>
                <Cell>
                  {MARKS[is]}
                  {conflict && (
                    <chakra.div color="bad">× here too: taking it replaces what is here</chakra.div>
                  )}
                </Cell>
                <Cell>
                  {says.slice(0, 6).map((line) => (
                    <div key={line}>{line}</div>
                  ))}
                  {says.length > 6 && <div>and {says.length - 6} more</div>}
                </Cell>
              </tr>
            ))}
          </ListTable>
        </Box>
      )}
      <Flex mt="12px" gap="12px" align="center" wrap="wrap">
        {changes.length > 0 && (
          <Button look="go" disabled={busy || chosen.size === 0} onClick={onTake}>
            Take {counted(chosen.size, 'thing')}
          </Button>
        )}
        <Button onClick={onCancel}>Cancel</Button>
        {changes.length > 0 && (
          <Button
            look="text"
            onClick={() => onChoose(new Set(all ? [] : changes.map(({ unit }) => unit)))}
          >
            {all ? 'Choose none' : 'Choose all'}
          </Button>
        )}
        <Checkbox
          fontSize="13px"
          label="records too"
          on={records}
          disabled={busy}
          onSet={onRecords}
        />
      </Flex>
    </Box>
  );
}

/** The bytes of a file as text, since they go to the server in JSON. */
function inBase64(file: File): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.addEventListener('load', () => resolve(String(reader.result).replace(/^[^,]*,/, '')));
    reader.addEventListener('error', () => reject(reader.error ?? new Error('not read')));
    reader.readAsDataURL(file);
  });
}
