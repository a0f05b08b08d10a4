'use client';
/**
 * Filling a release in. The session runs in the browser at once and on the server again when it is submitted; what the
 * server says counts, and a refusal loses nothing that was typed.
 */
import { Box, chakra, Flex } from '@chakra-ui/react';
import Link from 'next/link';
import { useEffect, useRef, useState } from 'react';
import { fieldsOf } from '@/core/form/definition';
import type { Person } from '@/core/form/table';
import type { Value, Values } from '@/core/form/value';
import { NOTHING_SEEN, seenAfter, type Seen } from '@/core/scenario/snapshot';
import type { Engine } from '@/core/sandbox/engine';
import type { Material } from '@/core/session/session';
import type { Answer, Opening, Step, TimedStep } from '@/core/session/step';
import { engineInWorker } from '@/workers/in-browser';
import { call } from '../api';
import { FormSheet } from '../form/sheet';
import { Button, Notice, PageHead } from '../kit';
import { PersonSwitch } from '../person-switch';

export interface FillProps {
  workspace: string;
  people: Person[];
  number: number;
  material: Material;
  handout: { filling: string; opening: Opening };
  recordRevision: number | null;
}

type Outcome =
  | { kind: 'filling' }
  | { kind: 'sending' }
  | { kind: 'saved'; id: string }
  | { kind: 'refused'; says: string }
  | { kind: 'differs'; says: string; differences: { label: string; browser: Value; server: Value }[]; values: Values }
  | { kind: 'conflict'; says: string; theirs: { values: Values; revision: number }; mine: Values };

export function Fill(props: FillProps) {
  const { material, handout } = props;
  const { form } = material;
  const { opening } = handout;
  const engine = useRef<Engine | null>(null);
  const steps = useRef<TimedStep[]>([]);
  const began = useRef(0);
  const [seen, setSeen] = useState<Seen>(NOTHING_SEEN);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [listens, setListens] = useState({ input: [] as string[], focus: [] as string[], blur: [] as string[] });
  const [outcome, setOutcome] = useState<Outcome>({ kind: 'filling' });
  const sheet = useRef<HTMLDivElement>(null);
  const notices = useRef<HTMLDivElement>(null);

  useEffect(() => {
    const made = engineInWorker();
    engine.current = made;
    began.current = Date.now();
    const open = async () => {
      await made.load(material);
      const [first] = await made.play(opening, steps.current);
      setListens(made.listens);
      setSeen(seenAfter(NOTHING_SEEN, first!));
      setAnswer(first!);
    };
    void open();
    return () => made.close();
  }, [material, opening]);

  // What the server says stands above the form, while the button that was pressed is below it.
  useEffect(() => {
    if (outcome.kind === 'filling' || outcome.kind === 'sending') return;
    notices.current?.focus({ preventScroll: true });
    scrollTo({ top: 0 });
  }, [outcome]);

  // After a failed check the first field that has to be mended gets the focus.
  useEffect(() => {
    if (answer?.submit?.saved === false) sheet.current?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
  }, [answer]);

  const isOpen = outcome.kind === 'filling' || outcome.kind === 'refused';

  async function step(done: Step): Promise<void> {
    const timed: TimedStep = { ...done, at: Date.now() - began.current };
    const result = await engine.current!.step(timed);
    // A step that came too late, such as on a field just hidden, is none.
    if (result.refused === null) steps.current.push(timed);
    setSeen((before) => seenAfter(before, result));
    setAnswer(result);
    if (result.submit?.saved === true) await send(result.submit.values, undefined);
  }

  async function send(shown: Values, overRevision: number | undefined): Promise<void> {
    setOutcome({ kind: 'sending' });
    const reply = await call<{ id: string }>('POST', `/api/fill/${form.name}/submissions`, {
      filling: handout.filling,
      steps: steps.current,
      shown,
      ...(overRevision === undefined ? {} : { overRevision }),
    });
    if (reply.ok) {
      setOutcome({ kind: 'saved', id: reply.body.id });
      return;
    }
    const body = reply.body as { kind?: string } | null;
    if (body?.kind === 'differs' || body?.kind === 'conflict') {
      setOutcome(body as Outcome);
      return;
    }
    await backToFilling(reply.says);
  }

  /** The submission did not go through: the session is brought back to before it, with all that was typed. */
  async function backToFilling(says: string): Promise<void> {
    steps.current = steps.current.slice(0, -1);
    const answers = await engine.current!.play(opening, steps.current);
    setSeen(answers.reduce(seenAfter, NOTHING_SEEN));
    setAnswer(null);
    setOutcome({ kind: 'refused', says });
  }

  const label = (value: Value) => (value === null ? 'nothing' : String(value));

  return (
    <>
      <PageHead trail={[{ label: props.workspace, href: '/' }, { label: form.title }]}>
        <chakra.span color="soft">
          release {props.number} · {opening.record === null ? 'new entry' : `record ${opening.record.id}`}
        </chakra.span>
        <PersonSwitch people={props.people} person={opening.person.key} />
      </PageHead>
      <Box as="main" maxW="720px" mx="auto" px="16px" py="16px" ref={sheet}>
        {outcome.kind === 'saved' ? (
          <Box bg="sheet" borderWidth="1px" borderColor="line" p="18px" role="status">
            <chakra.h2 fontSize="17px" fontWeight={640}>
              Saved as record {outcome.id}
            </chakra.h2>
            <Flex gap="14px" mt="10px">
              <chakra.a color="act" textDecoration="underline" href={`/fill/${form.name}?record=${encodeURIComponent(outcome.id)}`}>
                Open it again
              </chakra.a>
              <chakra.a color="act" textDecoration="underline" href={`/fill/${form.name}`}>
                Fill in another
              </chakra.a>
              <chakra.a asChild color="act" textDecoration="underline">
                <Link href={`/records/${form.name}`}>All records</Link>
              </chakra.a>
            </Flex>
          </Box>
        ) : (
          <>
            <Flex ref={notices} tabIndex={-1} direction="column" gap="6px" mb="8px">
              {outcome.kind === 'refused' && <Notice tone="error">{outcome.says} What you entered is still here.</Notice>}
              {outcome.kind === 'sending' && <Notice tone="info">Saving…</Notice>}
              {outcome.kind === 'differs' && (
                <Notice tone="warning">
                  {outcome.says}
                  <Comparison head={['Field', 'You saw', 'The server says']} rows={outcome.differences.map((d) => [d.label, label(d.browser), label(d.server)])} />
                  <Flex gap="8px" mt="8px">
                    <Button look="go" onClick={() => void send(outcome.values, undefined)}>
                      Save what the server says
                    </Button>
                    <Button onClick={() => void backToFilling('Nothing was saved.')}>Go on filling in</Button>
                  </Flex>
                </Notice>
              )}
              {outcome.kind === 'conflict' && (
                <Notice tone="warning">
                  {outcome.says}
                  <Comparison
                    head={['Field', 'Yours', 'Saved meanwhile']}
                    rows={fieldsOf(form).flatMap((field) => {
                      const [mine, theirs] = [outcome.mine[field.name] ?? null, outcome.theirs.values[field.name] ?? null];
                      return mine === theirs ? [] : [[field.label, label(mine), label(theirs)] as const];
                    })}
                  />
                  <Flex gap="8px" mt="8px">
                    <Button look="go" onClick={() => void send(outcome.mine, outcome.theirs.revision)}>
                      Save mine over it
                    </Button>
                    <Button onClick={() => void backToFilling('Nothing was saved.')}>Go on filling in</Button>
                  </Flex>
                </Notice>
              )}
              {seen.failing.map((failure, i) => (
                <Notice key={i} tone="warning">
                  A part of this form does not work at the moment ({failure.behaviour}
                  {failure.line === null ? '' : `, line ${failure.line}`}). You can go on filling it in.
                </Notice>
              ))}
              {answer?.messages.map((message, i) => (
                <Notice key={i} tone={message.tone}>
                  {message.text}
                </Notice>
              ))}
              {answer?.submit?.saved === false && (
                <Notice tone="error">
                  Not saved yet. {answer.submit.stops.length === 1 ? answer.submit.stops[0]!.says : `${answer.submit.stops.length} things have to be mended.`}
                </Notice>
              )}
            </Flex>
            {answer === null && outcome.kind === 'filling' ? (
              <Box color="soft">Opening the form…</Box>
            ) : (
              <FormSheet form={form} tables={material.tables} seen={seen} listens={listens} frozen={!isOpen} onStep={(done) => void step(done)}>
                <Flex mt="16px" gap="10px">
                  <Button look="go" px="18px" py="6px" disabled={!isOpen} onClick={() => void step({ submit: true })}>
                    {opening.record === null ? 'Submit' : 'Save'}
                  </Button>
                </Flex>
              </FormSheet>
            )}
          </>
        )}
      </Box>
    </>
  );
}

function Comparison({ head, rows }: { head: readonly string[]; rows: readonly (readonly string[])[] }) {
  return (
    <chakra.table mt="6px" width="100%">
      <thead>
        <tr>
          {head.map((text) => (
            <chakra.th key={text} textAlign="left" fontWeight={620}>
              {text}
            </chakra.th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row[0]}>
            {row.map((cell, i) => (
              <td key={i}>{cell}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </chakra.table>
  );
}
