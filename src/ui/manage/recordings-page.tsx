'use client';
/** Filling-ins that were kept, by people or by the server: each opens on the bench in the release that it happened in. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import type { Person } from '@/core/form/table';
import type { Because, RecordingHead } from '@/core/scenario/recording';
import { addressHere, useAddress } from '../address';
import { call, get } from '../api';
import { useDates } from '../writing';
import { Anchor, Button, Cell, ListTable, Notice, Select, TextLink } from '../kit';
import { PageHead } from '../page-head';

const BECAUSE: Readonly<Record<Because, string>> = {
  asked: 'kept by a person',
  refused: 'a step was refused',
  differs: 'the server came to other values',
  'too long': 'a script took too long',
  failed: 'a script failed',
};

export function RecordingsPage({
  title,
  people,
  forms,
  narrowed,
  recordings,
}: {
  title: string;
  people: Person[];
  forms: { name: string; title: string }[];
  narrowed: { form?: string | undefined; record?: string | undefined };
  recordings: RecordingHead[];
}) {
  const router = useRouter();
  const address = useAddress();
  const dates = useDates();
  const [says, setSays] = useState<string | null>(null);
  const [removed, setRemoved] = useState<{ id: number; content: unknown } | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const formTitle = (name: string) => forms.find((form) => form.name === name)?.title ?? name;
  const bringIn = async (chosen: File | undefined) => {
    if (chosen === undefined) return;
    setSays(null);
    let read: unknown;
    try {
      read = JSON.parse(await chosen.text());
    } catch {
      return setSays(`${chosen.name} is not JSON. Choose a file that was saved from this page.`);
    }
    const reply = await call<{ recording: number; form: string }>('POST', '/api/recordings', read);
    if (!reply.ok) return setSays(`${chosen.name} was not taken. ${reply.says}`);
    router.push(addressHere(`/bench/${reply.body.form}?recording=${reply.body.recording}`));
  };
  const remove = async ({ id, form }: RecordingHead) => {
    const content = await get<unknown>(`/api/recordings/${id}`);
    const reply = content.ok ? await call('DELETE', `/api/recordings/${id}?form=${form}`) : content;
    if (!reply.ok) return setSays(reply.says);
    setRemoved({ id, content: content.body });
    router.refresh();
  };
  const bringBack = async (content: unknown) => {
    const reply = await call('POST', '/api/recordings', content);
    if (!reply.ok) return setSays(reply.says);
    setRemoved(null);
    router.refresh();
  };
  return (
    <>
      <PageHead workspace={title} section="recordings" title="Recordings" />
      <Box as="main" px="16px" py="14px" maxW="1180px">
        <Flex gap="10px" align="center" mb="8px" wrap="wrap">
          <Select
            aria-label="Of which form"
            value={narrowed.form ?? ''}
            options={[
              { key: '', label: 'of all forms' },
              ...forms.map(({ name, title: label }) => ({ key: name, label })),
            ]}
            onChange={({ target: { value } }) =>
              router.push(addressHere(value === '' ? '/recordings' : `/recordings?form=${value}`))
            }
          />
          {narrowed.record !== undefined && (
            <span>
              of record {narrowed.record} ·{' '}
              <TextLink href={`/recordings?form=${narrowed.form ?? ''}`}>all of the form</TextLink>
            </span>
          )}
          <Button ml="auto" onClick={() => file.current?.click()}>
            Bring in from a file…
          </Button>
          <chakra.input
            ref={file}
            type="file"
            accept=".json,application/json"
            aria-label="A recording as a file"
            display="none"
            onChange={({ target }) => {
              void bringIn(target.files?.[0]);
              target.value = '';
            }}
          />
        </Flex>
        {says !== null && (
          <Box mb="8px">
            <Notice tone="error">{says}</Notice>
          </Box>
        )}
        {removed !== null && (
          <Flex gap="10px" mb="8px" align="center" role="status">
            Recording {removed.id} is removed.
            <Button onClick={() => void bringBack(removed.content)}>Bring it back</Button>
          </Flex>
        )}
        {recordings.length === 0 ? (
          <Box color="soft">
            Nothing has been kept. People keep a recording with the link below a form that they fill
            in; the server keeps one when a submission fails there, or comes to other values than
            the browser showed.
          </Box>
        ) : (
          <ListTable
            caption="Recordings"
            heads={['Recording', 'Form', 'Kept', 'Why', 'Record', '']}
          >
            {recordings.map((one) => (
              <chakra.tr key={one.id} borderTopWidth="1px" borderColor="line" verticalAlign="top">
                <Cell>
                  <TextLink href={`/bench/${one.form}?recording=${one.id}`}>
                    Recording {one.id}
                  </TextLink>
                </Cell>
                <Cell>
                  {formTitle(one.form)}
                  <Box color="soft" fontSize="12.5px">
                    {one.release === null ? 'no release' : `release ${one.release}`}
                  </Box>
                </Cell>
                <Cell>
                  {dates.moment(one.keptAt)}
                  <Box color="soft" fontSize="12.5px">
                    {people.find(({ key }) => key === one.keptBy)?.name ?? one.keptBy}
                  </Box>
                </Cell>
                <Cell>
                  <Box maxW="420px">
                    <chakra.span color={one.because === 'asked' ? 'soft' : 'bad'}>
                      {BECAUSE[one.because]}
                    </chakra.span>
                    {one.says !== '' && <Box>{one.says}</Box>}
                  </Box>
                </Cell>
                <Cell>
                  {one.record === null ? (
                    <chakra.span color="soft">not saved</chakra.span>
                  ) : (
                    <TextLink href={`/fill/${one.form}?record=${encodeURIComponent(one.record)}`}>
                      {one.record}
                    </TextLink>
                  )}
                </Cell>
                <Cell>
                  <Flex gap="10px" justify="flex-end">
                    <Anchor
                      href={address(`/api/recordings/${one.id}`)}
                      download
                      aria-label={`Save recording ${one.id} as a file`}
                    >
                      save as a file
                    </Anchor>
                    <Button
                      look="text"
                      color="soft"
                      aria-label={`Remove recording ${one.id}`}
                      onClick={() => void remove(one)}
                    >
                      remove
                    </Button>
                  </Flex>
                </Cell>
              </chakra.tr>
            ))}
          </ListTable>
        )}
      </Box>
    </>
  );
}
