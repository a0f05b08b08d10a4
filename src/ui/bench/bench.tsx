'use client';
/** The bench: outline, code, live form and tape on one screen. State is in `store.ts`; this lays it out. */
import { Box, chakra, Flex, Splitter } from '@chakra-ui/react';
import dynamic from 'next/dynamic';
import { useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { fieldsOf, type ChildList } from '@/core/form/definition';
import { textOf } from '@/core/form/kinds';
import { indexOf } from '@/core/form/table-index';
import type { Value } from '@/core/form/value';
import { readHeader } from '@/core/language/header';
import type { Open } from '@/core/scenario/definition';
import { linesOf } from '@/core/tape/lines';
import { standingWords, Tape, type Word } from '@/core/tape/tape';
import { ChildRecordsList } from '../form/child-list';
import { FormSheet } from '../form/sheet';
import { Button, Notice } from '../kit';
import { BenchHead } from './head';
import { Outline } from './outline';
import { createBench, seenAt, type Behaviour, type BenchMaterial, type BenchStore } from './store';
import { StructurePane } from './structure';
import { TapePane } from './tape-pane';
import { WaitingBar } from './waiting';
import { becameInWords, namesFor } from './words';

const Editor = dynamic(() => import('./editor'), { ssr: false, loading: () => <Box p="14px">Opening the editor…</Box> });

/** `opened` says how the form is opened at first, such as from a parent. */
export function Bench({ material, opened }: { material: BenchMaterial; opened: Partial<Open> }) {
  const [bench] = useState(() => createBench(material, opened));
  useEffect(() => {
    void bench.start();
    addEventListener('pagehide', bench.flush);
    return () => {
      removeEventListener('pagehide', bench.flush);
      bench.stop();
    };
  }, [bench]);
  return <Layout bench={bench} />;
}

/** A hidden overflow can still be scrolled by focus or by the editor, which would shift a whole pane; a clipped one cannot. */
const CLIP = { overflow: 'clip !important' };

const SIZES = 'tavro.bench.sizes';

function readSizes(): { columns: number[]; rows: number[] } {
  const fallback = { columns: [17, 46, 37], rows: [72, 28] };
  try {
    return { ...fallback, ...(JSON.parse(localStorage.getItem(SIZES) ?? '{}') as object) };
  } catch {
    return fallback;
  }
}

function keepSizes(part: Partial<{ columns: number[]; rows: number[] }>): void {
  try {
    localStorage.setItem(SIZES, JSON.stringify({ ...readSizes(), ...part }));
  } catch {
    // Sizes are a convenience; a browser that keeps nothing still works.
  }
}

function Layout({ bench }: { bench: BenchStore }) {
  const state = useStore(bench.store);
  const { material, answers, at, steps, behaviours, active } = state;
  const [sizes, setSizes] = useState<{ columns: number[]; rows: number[] } | null>(null);
  // Sizes are known only in the browser.
  useEffect(() => setSizes(readSizes()), []);

  const seen = useMemo(() => seenAt(answers, at), [answers, at]);
  const tape = useMemo(() => new Tape(answers.slice(0, at + 1).flatMap((answer) => answer.tape)), [answers, at]);
  const words = useMemo(() => standingWords(tape), [tape]);
  const names = useMemo(() => namesFor(material.form, behaviours, material.people), [material, behaviours]);
  const behaviour = behaviours.find((candidate) => candidate.name === active);
  const bare = active.replace(/\.[jt]s$/, '');
  const notes = useMemo(() => linesOf(answers[at]?.tape ?? [], bare), [answers, at, bare]);
  const who = material.people.find((person) => person.key === state.open.as)?.name ?? state.open.as;
  const marked = useMemo(() => new Set(words.keys()), [words]);

  const margin = (part: string) => {
    const said = words.get(part) ?? cellsSaid(words, part);
    if (said === undefined) return null;
    const last = said.at(-1)!;
    const cells = words.has(part) ? 0 : said.length;
    const label = cells > 0 ? (cells === 1 ? '1 in its rows' : `${cells} in its rows`) : said.map((word) => shortWord(word.aspect, word.to, part, material)).filter(Boolean).join(', ');
    return (
      <chakra.button type="button" textAlign="right" cursor="pointer" width="100%" onClick={() => bench.goTo(last.behaviour, last.line)} title={`${names.behaviour(last.behaviour)}, line ${last.line}`}>
        <Box color="said">{label}</Box>
        <Box color="soft" overflow="hidden" textOverflow="ellipsis">
          {names.behaviour(last.behaviour)}, {last.line}
        </Box>
      </chakra.button>
    );
  };

  // Time that passes after it does not take the outcome away.
  const lastDone = steps.slice(0, at).findLast((step) => !('wait' in step));
  const submittedLast = lastDone !== undefined && 'submit' in lastDone;

  const drawList = (list: ChildList) => {
    const all = material.related[list.name];
    const related = all && { form: all.form, records: all.records.filter(({ values }) => seen.record !== null && values[list.field] === seen.record) };
    const goTo = (query: Record<string, string>) => window.open(`/bench/${list.form}?${new URLSearchParams(query).toString()}`, '_blank', 'noopener');
    return (
      <ChildRecordsList
        list={list}
        related={related}
        tables={material.tables}
        record={seen.record}
        onAdd={() => goTo({ parent: `${material.form.name}/${seen.record}`, [`launch.${list.launch}`]: seen.record! })}
        onOpen={(record) => goTo({ record, parent: `${material.form.name}/${seen.record}` })}
      />
    );
  };

  return (
    <Flex direction="column" height="100vh" minH="560px" overflow="hidden">
      <BenchHead bench={bench} />
      {state.notice !== null && (
        <Flex px="16px" py="4px" gap="8px" align="center">
          <Box flex="1">
            <Notice tone={state.notice.tone}>{state.notice.text}</Notice>
          </Box>
          <Button onClick={bench.dismiss}>Close</Button>
        </Flex>
      )}
      {sizes !== null && (
        <Splitter.Root unstyled css={CLIP} as="main" orientation="vertical" flex="1" minH={0} panels={[{ id: 'work', minSize: 30 }, { id: 'tape', minSize: 12 }]} defaultSize={sizes.rows} onResizeEnd={({ size }) => keepSizes({ rows: size })}>
          <Splitter.Panel css={CLIP} id="work" minH={0}>
            <Splitter.Root unstyled css={CLIP} orientation="horizontal" height="100%" panels={[{ id: 'outline', minSize: 10 }, { id: 'code', minSize: 20 }, { id: 'form', minSize: 22 }]} defaultSize={sizes.columns} onResizeEnd={({ size }) => keepSizes({ columns: size })}>
              <Splitter.Panel css={CLIP} id="outline" minW={0} as="nav" aria-label="Outline">
                <Outline
                  form={material.form}
                  seen={seen}
                  said={marked}
                  asked={state.asked?.part ?? null}
                  behaviours={behaviours}
                  active={active}
                  tape={tape}
                  onAsk={bench.ask}
                  onChoose={bench.choose}
                  onAdd={bench.addBehaviour}
                />
              </Splitter.Panel>
              <Handle id="outline:code" label="Width of the outline" />
              <Splitter.Panel css={CLIP} id="code" minW={0} as="section" aria-label="Code">
                <Flex direction="column" height="100%" width="100%" bg="sheet" minW={0}>
                  <Tabs behaviours={behaviours} active={state.pane === 'structure' ? STRUCTURE : active} onChoose={(name) => (name === STRUCTURE ? bench.showPane('structure') : bench.choose(name))} />
                  {state.pane === 'structure' ? <StructurePane bench={bench} /> : behaviour === undefined ? <Box p="14px">This form has no behaviour yet. Add one in the outline.</Box> : <Code bench={bench} behaviour={behaviour} notes={notes} goTo={state.goTo?.behaviour === active ? state.goTo : null} />}
                </Flex>
              </Splitter.Panel>
              <Handle id="code:form" label="Width of the live form" />
              <Splitter.Panel css={CLIP} id="form" minW={0} as="section" aria-label="Live form">
                <Flex direction="column" height="100%" width="100%" overflowY="auto" position="relative" px="12px" py="10px" gap="8px">
                  {/* What has failed stays in sight however far the form is scrolled. */}
                  <Flex direction="column" gap="6px" position="sticky" top="-10px" zIndex={2} bg="ground" mx="-12px" px="12px" my="-4px" py="6px" flexShrink={0}>
                  <Flex gap="14px" color="soft" fontSize="13px" flexWrap="wrap" align="center">
                    <span>
                      <chakra.b color="ink" fontWeight={620}>
                        Live form
                      </chakra.b>{' '}
                      after step {at} of {steps.length}
                    </span>
                    {seen.record !== null && <RecordTurn bench={bench} record={seen.record} changed={seen.changed} frozen={at < steps.length} records={material.records} />}
                    <chakra.span ml="auto" role="status">
                      {state.busy ? 'replaying…' : (state.replayed ?? '')}
                    </chakra.span>
                    <chakra.button type="button" aria-pressed={state.names} cursor="pointer" onClick={() => bench.showNames(!state.names)} title="Show technical names (Alt+N)">
                      names {state.names ? '◑' : '○'}
                    </chakra.button>
                  </Flex>
                  <Failing bench={bench} seen={seen} names={names} behaviours={behaviours} />
                  <WaitingBar bench={bench} seen={seen} material={material} frozen={at < steps.length} />
                  </Flex>
                  {at < steps.length && <Notice tone="info">Looking back at step {at}. Go forward to use the form.</Notice>}
                  {answers[at]?.refused != null && <Notice tone="warning">That step was refused: {answers[at].refused}.</Notice>}
                  {answers[at]?.messages.map((message, i) => (
                    <Notice key={i} tone={message.tone}>
                      {message.text}
                    </Notice>
                  ))}
                  {answers.length > 0 && (
                    <FormSheet
                      form={material.form}
                      tables={material.tables}
                      seen={seen}
                      listens={state.listens}
                      frozen={at < steps.length}
                      names={state.names}
                      margin={margin}
                      marked={marked}
                      asked={state.asked?.part ?? null}
                      onAsk={bench.ask}
                      onStep={(step) => void bench.step(step)}
                      childList={drawList}
                    >
                      <Hidden material={material} seen={seen} onAsk={bench.ask} />
                      <Flex mt="12px" gap="10px" align="center">
                        <Button look="go" disabled={at < steps.length} onClick={() => void bench.step({ submit: true })}>
                          Submit
                        </Button>
                        {seen.submit !== null && submittedLast && (
                          <chakra.span role="status" color={seen.submit.saved ? 'act' : 'bad'}>
                            {seen.submit.saved ? '✓ would be saved' : `× not saved: ${seen.submit.stops[0]?.says ?? ''}`}
                          </chakra.span>
                        )}
                      </Flex>
                    </FormSheet>
                  )}
                </Flex>
              </Splitter.Panel>
            </Splitter.Root>
          </Splitter.Panel>
          <Handle id="work:tape" label="Height of the tape" flat />
          <Splitter.Panel css={CLIP} id="tape" minH={0} as="section" aria-label="Tape">
            <Box width="100%" height="100%" minH={0}>
              <TapePane
                steps={steps}
                answers={answers}
                at={at}
                openedAs={state.open.record == null ? 'new' : `record ${state.open.record}`}
                who={who}
                names={names}
                seen={seen}
                tape={tape}
                asked={state.asked}
                onLookAt={bench.lookAt}
                onUndo={() => void bench.undo()}
                onAsk={bench.ask}
                onGoTo={bench.goTo}
              />
            </Box>
          </Splitter.Panel>
        </Splitter.Root>
      )}
    </Flex>
  );
}

/** Next and previous record, which asks before changes are left behind. */
function RecordTurn({ bench, record, changed, frozen, records }: { bench: BenchStore; record: string; changed: boolean; frozen: boolean; records: readonly { id: string }[] }) {
  const [asking, setAsking] = useState<'next' | 'previous' | null>(null);
  const at = records.findIndex(({ id }) => id === record);
  const turn = (way: 'next' | 'previous') => {
    setAsking(null);
    void bench.step(way === 'next' ? { next: true } : { previous: true });
  };
  const want = (way: 'next' | 'previous') => (changed ? setAsking(way) : turn(way));
  if (asking !== null) {
    return (
      <Flex gap="6px" align="center" role="alert">
        Changes in record {record} are not saved.
        <Button onClick={() => turn(asking)}>Go on</Button>
        <Button onClick={() => setAsking(null)}>Stay</Button>
      </Flex>
    );
  }
  return (
    <Flex gap="4px" align="center" role="group" aria-label="Records">
      <Button look="text" disabled={frozen || at <= 0} onClick={() => want('previous')} aria-label="Previous record">
        ‹
      </Button>
      record {record}
      <Button look="text" disabled={frozen || at < 0 || at >= records.length - 1} onClick={() => want('next')} aria-label="Next record">
        ›
      </Button>
    </Flex>
  );
}

function Handle({ id, label, flat = false }: { id: `${string}:${string}`; label: string; flat?: boolean }) {
  // A hairline to see, seven pixels to take hold of.
  const grip = flat ? { height: '7px', my: '-3px', cursor: 'row-resize' } : { width: '7px', mx: '-3px', cursor: 'col-resize' };
  const hairline = flat ? { height: '1px', width: '100%', top: '3px' } : { width: '1px', height: '100%', left: '3px' };
  return (
    <Splitter.ResizeTrigger id={id} aria-label={label} flexShrink={0} position="relative" zIndex={1} {...grip} _hover={{ '& > div': { bg: 'act' } }}>
      <Box position="absolute" bg="line" {...hairline} />
    </Splitter.ResizeTrigger>
  );
}

/** The tab of the form's structure, which no behaviour can be called. */
const STRUCTURE = '@structure';

function Tabs({ behaviours, active, onChoose }: { behaviours: readonly Behaviour[]; active: string; onChoose: (name: string) => void }) {
  return (
    <Flex role="tablist" aria-label="Behaviours" gap="2px" px="10px" pt="6px" bg="ground" borderBottomWidth="1px" borderColor="line" overflowX="auto" flexShrink={0}>
      <chakra.button type="button" role="tab" aria-selected={active === STRUCTURE} px="12px" py="4px" cursor="pointer" whiteSpace="nowrap" borderWidth="1px" borderBottomWidth={0} borderRadius="5px 5px 0 0" borderColor={active === STRUCTURE ? 'line' : 'transparent'} bg={active === STRUCTURE ? 'sheet' : undefined} color={active === STRUCTURE ? 'ink' : 'soft'} fontStyle="italic" mb="-1px" onClick={() => onChoose(STRUCTURE)}>
        Structure
      </chakra.button>
      {behaviours.map((behaviour) => {
        const on = behaviour.name === active;
        return (
          <chakra.button key={behaviour.name} type="button" role="tab" aria-selected={on} px="12px" py="4px" cursor="pointer" whiteSpace="nowrap" borderWidth="1px" borderBottomWidth={0} borderRadius="5px 5px 0 0" borderColor={on ? 'line' : 'transparent'} bg={on ? 'sheet' : undefined} color={on ? 'ink' : 'soft'} mb="-1px" onClick={() => onChoose(behaviour.name)}>
            {readHeader(behaviour).title}
            {behaviour.saving.state !== 'saved' && <span title="not saved yet"> •</span>}
          </chakra.button>
        );
      })}
    </Flex>
  );
}

function Code({ bench, behaviour, notes, goTo }: { bench: BenchStore; behaviour: Behaviour; notes: ReturnType<typeof linesOf>; goTo: { line: number; count: number } | null }) {
  const { saving, diagnoses, broken } = behaviour;
  const first = diagnoses[0];
  return (
    <>
      {saving.state === 'conflict' && (
        <Box p="10px" borderBottomWidth="1px" borderColor="line">
          <Notice tone="warning">
            Somebody else saved this behaviour meanwhile. Yours is in the editor, theirs is below. Nothing is overwritten until you choose.
            <Flex gap="8px" mt="6px">
              <Button onClick={() => bench.settleConflict(behaviour.name, 'mine')}>Keep mine</Button>
              <Button onClick={() => bench.settleConflict(behaviour.name, 'theirs')}>Take theirs</Button>
            </Flex>
            <chakra.pre aria-label="Their version" tabIndex={0} fontFamily="mono" fontSize="12px" mt="6px" maxH="160px" overflow="auto" bg="sheet" p="6px">
              {saving.theirs.text}
            </chakra.pre>
          </Notice>
        </Box>
      )}
      <Box flex="1" minH={0}>
        <Editor
          key={behaviour.name}
          name={behaviour.name}
          text={behaviour.text}
          diagnoses={diagnoses}
          notes={notes}
          goTo={goTo}
          onEdit={(text) => bench.edit(behaviour.name, text)}
          complete={(position) => bench.complete(behaviour.name, position)}
          explain={(position) => bench.explain(behaviour.name, position)}
        />
      </Box>
      <Flex px="14px" py="6px" gap="16px" borderTopWidth="1px" borderColor="line" color="soft" minH="33px" align="center" fontSize="13px" role="status">
        {broken !== null ? (
          <>
            <chakra.span color="bad">× line {broken.line}</chakra.span>
            <span>
              {broken.says} {behaviour.running?.code != null && 'The last version that worked goes on running.'}
            </span>
          </>
        ) : first !== undefined ? (
          <>
            <chakra.span color="bad" whiteSpace="nowrap">
              {diagnoses.length === 1 ? '1 problem' : `${diagnoses.length} problems`}
            </chakra.span>
            <chakra.span flex="1" minW={0} overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap" title={first.says}>
              <Button look="text" onClick={() => bench.goTo(behaviour.name.replace(/\.[jt]s$/, ''), first.line)}>
                line {first.line}
              </Button>
              : {first.says}
            </chakra.span>
          </>
        ) : (
          <span>no problems</span>
        )}
        <chakra.span ml="auto" whiteSpace="nowrap" color={saving.state === 'unsaved' ? 'bad' : 'soft'}>
          {saving.state === 'saved' ? `saved, revision ${behaviour.revision}` : saving.state === 'waiting' ? 'saving…' : saving.state === 'conflict' ? 'two versions' : `not saved: ${saving.says} Tried again on its own.`}
        </chakra.span>
      </Flex>
    </>
  );
}

/** The bar on the form: which behaviours failed, in the same words as in the editor and on the tape. */
function Failing({ bench, seen, names, behaviours }: { bench: BenchStore; seen: ReturnType<typeof seenAt>; names: ReturnType<typeof namesFor>; behaviours: readonly Behaviour[] }) {
  const broken = behaviours.filter((behaviour) => behaviour.broken !== null && behaviour.running?.code != null);
  return (
    <>
      {broken.map((behaviour) => (
        <Notice key={behaviour.name} tone="error">
          {readHeader(behaviour).title}, line {behaviour.broken!.line}, {behaviour.broken!.says} The last version that worked goes on running.
        </Notice>
      ))}
      {seen.failing.map((failure, i) => (
        <Notice key={i} tone="error">
          {names.behaviour(failure.behaviour)}
          {failure.line !== null && (
            <>
              ,{' '}
              <Button look="text" color="bad" onClick={() => bench.goTo(failure.behaviour, failure.line!)}>
                line {failure.line}
              </Button>
              ,
            </>
          )}{' '}
          {failure.says}
        </Notice>
      ))}
    </>
  );
}

function Hidden({ material, seen, onAsk }: { material: BenchMaterial; seen: ReturnType<typeof seenAt>; onAsk: (part: string) => void }) {
  const sections = material.form.pages.flatMap((page) => page.sections);
  const hidden = sections.flatMap((section) => {
    if (seen.parts[section.name]?.onScreen === false) return [{ name: section.name, label: section.title }];
    return section.fields.filter((field) => seen.parts[field.name]?.onScreen === false).map(({ name, label }) => ({ name, label }));
  });
  if (hidden.length === 0) return null;
  return (
    <Box color="soft" fontSize="12px" borderTopWidth="1px" borderStyle="dashed" borderColor="line" mt="8px" pt="4px">
      {hidden.length === 1 ? '1 part is hidden: ' : `${hidden.length} parts are hidden: `}
      {hidden.map((part, i) => (
        <span key={part.name}>
          {i > 0 && ', '}
          <chakra.button type="button" textDecoration="underline" cursor="pointer" onClick={() => onAsk(part.name)}>
            {part.label}
          </chakra.button>
        </span>
      ))}
    </Box>
  );
}

/** What scripts said in the rows of a field, where nothing was said of the field itself. */
function cellsSaid(words: ReadonlyMap<string, Word[]>, part: string): Word[] | undefined {
  const said = [...words].flatMap(([name, ofPart]) => (name.startsWith(`${part}#`) ? ofPart : []));
  return said.length === 0 ? undefined : said;
}

/** What the margin has room for. */
function shortWord(aspect: string, to: unknown, part: string, material: BenchMaterial): string {
  const field = fieldsOf(material.form).find(({ name }) => name === part);
  if (aspect === 'value' && field !== undefined && to !== null) {
    return textOf(to as Value, field, { options: null, table: (name) => indexOf(material.tables.find((table) => table.name === name)!) });
  }
  if (aspect !== 'options') return aspect === 'hint' || aspect === 'problem' ? (to === null ? '' : aspect) : becameInWords(aspect, to);
  if (!Array.isArray(to)) return '';
  const all = field?.kind === 'reference' ? material.tables.find((table) => table.name === field.table)?.rows.length : field?.kind === 'choice' ? field.options.length : undefined;
  return all === undefined ? `${to.length} options` : `${to.length} of ${all} offered`;
}

