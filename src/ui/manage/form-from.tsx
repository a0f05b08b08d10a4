'use client';
/** A form from a JSON Schema or a page with an HTML form: what it would become is shown before it is made. */
import { counted } from '@/core/counted';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import type { TakenForm } from '@/core/interchange/taken';
import { call } from '../api';
import { Button, Labelled, Line, Mono, Notice, Region } from '../kit';
import { Window, WindowTitle } from '../window';
import { kindInWords } from '@/core/form/traits';

interface Picked {
  source: { text: string; as: 'json-schema' | 'html'; called: string };
  file: string;
  taken: TakenForm;
}

export function FormFrom({ onMade }: { onMade: (name: string) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [picked, setPicked] = useState<Picked | null>(null);
  const [says, setSays] = useState<string | null>(null);

  const look = async (file: File) => {
    const text = await file.text();
    const source = {
      text,
      as: /^\s*</.test(text) ? ('html' as const) : ('json-schema' as const),
      called: file.name.replace(/\.[^.]*$/, '').replace(/\.schema$/, '') || 'Form',
    };
    const reply = await call<TakenForm>('POST', '/api/forms/preview', source);
    setSays(reply.ok ? null : `${file.name} becomes no form. ${reply.says}`);
    setPicked(reply.ok ? { source, file: file.name, taken: reply.body } : null);
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".json,.html,.htm,application/json,text/html"
        aria-label="JSON Schema or HTML page"
        hidden
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          if (file !== undefined)
            void look(file).finally(() => {
              target.value = '';
            });
        }}
      />
      <Button
        title="A form from a JSON Schema, or from a page with an HTML form"
        onClick={() => input.current?.click()}
      >
        From a schema or page…
      </Button>
      {says !== null && (
        <chakra.span color="bad" whiteSpace="pre-line">
          {says}
        </chakra.span>
      )}
      <Window open={picked !== null} onClose={() => setPicked(null)} size="lg">
        {picked !== null && (
          <Preview picked={picked} onMade={onMade} onDone={() => setPicked(null)} />
        )}
      </Window>
    </>
  );
}

function Preview({
  picked: { source, file, taken },
  onMade,
  onDone,
}: {
  picked: Picked;
  onMade: (name: string) => void;
  onDone: () => void;
}) {
  const [title, setTitle] = useState(taken.form.title.slice(0, 120));
  const [says, setSays] = useState<string | null>(null);
  const [making, setMaking] = useState(false);
  const sections = taken.form.pages.flatMap((page) => page.sections);
  const count = sections.reduce((sum, { fields }) => sum + fields.length, 0);
  const make = async () => {
    setMaking(true);
    const reply = await call<{ name: string }>('POST', '/api/forms', { title, from: source });
    setMaking(false);
    if (reply.ok) onMade(reply.body.name);
    else setSays(reply.says);
  };
  return (
    <Box p="16px">
      <WindowTitle>What {file} becomes</WindowTitle>
      <Box mt="8px">
        <Labelled label="Title of the form">
          <Line
            width="320px"
            maxLength={120}
            value={title}
            onChange={(event) => setTitle(event.target.value)}
          />
        </Labelled>
      </Box>
      <Region mt="10px" maxH="50vh" aria-label="Preview">
        <Box color="soft">{counted(count, 'field')}</Box>
        {sections.map((section) => (
          <Box key={section.name} mt="6px">
            <Box fontWeight={620}>{section.title}</Box>
            {section.fields.map((field) => (
              <Box key={field.name} pl="12px">
                {field.label}
                <chakra.span color="soft">
                  , {kindInWords(field)}
                  {field.required === true && ', required'}
                </chakra.span>{' '}
                <Mono color="soft">{field.name}</Mono>
              </Box>
            ))}
          </Box>
        ))}
        {taken.behaviours.map(({ name, text }) => (
          <Box key={name} mt="10px">
            <Box>Its conditions become a behaviour:</Box>
            <chakra.pre fontFamily="mono" fontSize="12px" bg="ground" p="8px" overflowX="auto">
              {text}
            </chakra.pre>
          </Box>
        ))}
        {taken.notes.length > 0 && (
          <Notice tone="warning" mt="10px">
            Not taken as it stands:
            <Box as="ul" pl="18px">
              {taken.notes.map((note) => (
                <li key={note}>{note}</li>
              ))}
            </Box>
          </Notice>
        )}
      </Region>
      {says !== null && (
        <Notice tone="error" mt="8px">
          {says}
        </Notice>
      )}
      <Flex mt="12px" gap="8px">
        <Button look="go" disabled={making || title.trim() === ''} onClick={() => void make()}>
          Make form
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </Flex>
    </Box>
  );
}
