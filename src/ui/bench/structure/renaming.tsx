'use client';
/** Renaming a part or a key everywhere, after a look at what will change. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import type { PartName } from '@/core/structure/edit';
import { Button, countInWords, Labelled, Line, Mono, Notice } from '../../kit';
import type { Bench } from '../create-bench';
import type { Renaming } from './state';
import { Decision } from './decision';

/** With a capital letter, as at the start of a sentence. */
const sentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** What a renaming changes, to be read before it is done. */
function Preview({ renaming: { plan, records } }: { renaming: Renaming }) {
  return (
    <Box role="region" aria-label="What renaming changes">
      {plan.behaviours.map((behaviour) => (
        <Box key={`${behaviour.form}/${behaviour.name}`} mb="4px">
          <chakra.b fontWeight={620}>{behaviour.title}</chakra.b>
          {behaviour.lines.map(({ line, before, after }) => (
            <Box
              key={line}
              fontFamily="mono"
              fontSize="12px"
              whiteSpace="pre-wrap"
              overflowWrap="anywhere"
            >
              <chakra.span color="soft">{String(line).padStart(4)} </chakra.span>
              <chakra.del color="bad">{before}</chakra.del>
              {'\n     '}
              <chakra.ins color="act" textDecoration="none">
                {after}
              </chakra.ins>
            </Box>
          ))}
        </Box>
      ))}
      <Box>
        {plan.scenarios.length === 0
          ? 'No scenario names it.'
          : `Scenarios: ${plan.scenarios.map(({ title }) => title).join('; ')}.`}
      </Box>
      <Box>
        {records.count === 0
          ? 'No record holds it.'
          : `${sentence(countInWords(records))} will hold it under the new name.`}
      </Box>
      {plan.forms.length > 1 && <Box>Definitions: {plan.forms.join(', ')}.</Box>}
      {plan.mentions.length > 0 && (
        <Notice tone="warning" mt="4px">
          These texts read like the name and are left as they are:{' '}
          {plan.mentions.map(({ behaviour, line }) => `${behaviour}, line ${line}`).join('; ')}.
        </Notice>
      )}
    </Box>
  );
}

/** What is renamed: a part, or one key of its options. */
interface Renamed {
  part: PartName;
  key: string | null;
}

/** The technical name, and renaming it everywhere after a look at what will change. */
export function Rename({ bench, part }: { bench: Bench; part: PartName }) {
  const [to, setTo] = useState<string | null>(null);
  const opener = useRef<HTMLButtonElement>(null);
  const bare = part.split('.').at(-1)!;
  const close = () => {
    setTo(null);
    requestAnimationFrame(() => opener.current?.focus());
  };
  if (to === null)
    return (
      <Flex gap="8px" align="baseline">
        <Mono>{part}</Mono>
        <Button look="text" ref={opener} onClick={() => setTo(bare)}>
          rename
        </Button>
      </Flex>
    );
  return (
    <Box borderWidth="1px" borderColor="line" borderRadius="4px" p="8px">
      <Carrying
        bench={bench}
        of={{ part, key: null }}
        label="New technical name"
        first={bare}
        onCancel={close}
      />
    </Box>
  );
}

/** Another key for an option that is in use: carried through everything, or changed in the definition alone. */
export function KeyChange({
  bench,
  part,
  from,
  to,
  onHere,
  onDone,
}: {
  bench: Bench;
  part: PartName;
  from: string;
  to: string;
  /** Changes it in the definition alone. */
  onHere: () => void;
  onDone: () => void;
}) {
  return (
    <Decision label={`The key ${from} is in use`}>
      The key <Mono>{from}</Mono> is in use.
      <Carrying
        bench={bench}
        of={{ part, key: from }}
        label="New key"
        first={to}
        at="preview"
        onCancel={onDone}
      >
        <Button onClick={onHere}>Change it only here</Button>
      </Carrying>
    </Decision>
  );
}

function Carrying({
  bench,
  of,
  label,
  first,
  at = 'name',
  onCancel,
  children,
}: {
  bench: Bench;
  of: Renamed;
  label: string;
  first: string;
  /** Whether it begins with the name or with what would change. */
  at?: 'name' | 'preview';
  onCancel: () => void;
  /** What else can be done. */
  children?: ReactNode;
}) {
  const [to, setTo] = useState(first);
  const [preview, setPreview] = useState<Renaming | null>(null);
  const [says, setSays] = useState<string | null>(null);
  const shown = useRef<HTMLDivElement>(null);
  const ask = async (apply: boolean) => {
    const reply = await bench.structure.rename({ ...of, to: to.trim() }, apply);
    if ('says' in reply) setSays(reply.says);
    else {
      setSays(null);
      setPreview(reply);
    }
  };
  useEffect(() => {
    if (at === 'preview') void ask(false);
  }, []);
  useEffect(() => {
    if (preview !== null) shown.current?.scrollIntoView({ block: 'nearest' });
  }, [preview]);
  return (
    <>
      <Flex gap="6px" align="end" wrap="wrap">
        <Labelled label={label}>
          <Line
            autoFocus={at === 'name'}
            fontFamily="mono"
            width="180px"
            value={to}
            onFocus={(event) => event.target.select()}
            onChange={(event) => {
              setTo(event.target.value);
              setPreview(null);
            }}
            onKeyDown={(event) => {
              if (event.key === 'Enter') void ask(false);
              if (event.key === 'Escape') onCancel();
            }}
          />
        </Labelled>
        <Button
          disabled={to.trim() === '' || (at === 'name' && to.trim() === first)}
          onClick={() => void ask(false)}
        >
          Show what changes
        </Button>
        {children}
        <Button onClick={onCancel}>Cancel</Button>
      </Flex>
      {says !== null && (
        <Notice tone="error" mt="6px">
          {says}
        </Notice>
      )}
      {preview !== null && !preview.applied && (
        <Box mt="8px" ref={shown}>
          <Preview renaming={preview} />
          <Button look="go" mt="6px" onClick={() => void ask(true)}>
            {of.key === null ? 'Rename everywhere' : 'Change it everywhere'}
          </Button>
        </Box>
      )}
    </>
  );
}
