'use client';
/**
 * Filling a release in. The session runs in the browser at once and on the server again when it is submitted; what the
 * server says counts, and a refusal loses nothing that was typed.
 */
import { Box, chakra, Flex } from '@chakra-ui/react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import type { ChildList, Form } from '@/core/form/definition';
import { fieldsOf } from '@/core/form/fields';
import type { FileValue } from '@/core/form/kinds';
import type { Person } from '@/core/form/table';
import { equal, type Value, type Values } from '@/core/form/value';
import type { Material } from '@/core/session/session';
import type { Answer, Opening, Step, SubmitOutcome } from '@/core/session/step';
import { call } from '../api';
import type { ChildListProps, RelatedRecords } from '../form/child-list';
import { useLeaving } from '../draft/leaving';
import { LeftNotice } from '../draft/use-draft';
import { FormSheet } from '../form/sheet';
import { Button, Notice } from '../kit';
import { PageHead } from '../page-head';
import { PersonSwitch } from '../person-switch';
import { useSession } from './use-session';
import { Window, WindowTitle } from '../window';
import { inIdleTime, lazily } from '../lazily';
import type { TwoVersionsProps } from './two-versions';

const loadTwoVersions = () => import('./two-versions').then((module) => module.TwoVersions);
const TwoVersions = lazily<TwoVersionsProps>(loadTwoVersions);
inIdleTime(loadTwoVersions);
const ChildRecordsList = lazily<ChildListProps>(() =>
  import('../form/child-list').then((module) => module.ChildRecordsList),
);

export interface FillProps {
  workspace: string;
  people: Person[];
  number: number;
  material: Material;
  /** Its ticket becomes a filling-in when something is entered. */
  handout: { ticket: string; opening: Opening };
  recordRevision: number | null;
  /** The records before and after this one; null at the ends and for a new entry. */
  neighbours: { previous: string | null; next: string | null };
  /** For each list of the form, the records that refer to this one. */
  related: Record<string, RelatedRecords>;
}

/** A form that was handed out, whether it fills the page or stands over the one it was opened from. */
export interface HandedOut {
  number: number;
  material: Material;
  /** Its ticket becomes a filling-in when something is entered. */
  handout: { ticket: string; opening: Opening };
  recordRevision: number | null;
}

type Outcome =
  | { kind: 'filling' }
  | { kind: 'sending' }
  | { kind: 'saved'; id: string }
  | { kind: 'refused'; says: string }
  | {
      kind: 'differs';
      says: string;
      differences: { label: string; browser: Value; server: Value }[];
      values: Values;
    }
  | { kind: 'conflict'; says: string; theirs: { values: Values; revision: number }; mine: Values };

export function Fill(props: FillProps) {
  const { form } = props.material;
  const { opening } = props.handout;
  const router = useRouter();
  const [changed, setChanged] = useState(false);
  /** Where to go once the person has said what becomes of the changes. */
  const [leaving, setLeaving] = useState<string | null>(null);
  const pathOf = (record: string) =>
    `/fill/${form.name}?record=${encodeURIComponent(record)}${opening.viewing === true ? '&view' : ''}`;
  const go = (record: string | null) => {
    if (record === null) return;
    if (changed) setLeaving(record);
    else router.push(pathOf(record));
  };
  return (
    <>
      <PageHead
        workspace={props.workspace}
        section="forms"
        title={form.title}
        form={{ name: form.name, room: 'fill' }}
      >
        <chakra.span color="soft">
          release {props.number} ·{' '}
          {opening.record === null ? 'new entry' : `record ${opening.record.id}`}
          {opening.viewing === true && ' · only viewing'}
        </chakra.span>
        {opening.record !== null && (
          <Flex gap="4px" role="group" aria-label="Other records">
            <Button
              disabled={props.neighbours.previous === null}
              onClick={() => go(props.neighbours.previous)}
            >
              Previous
            </Button>
            <Button
              disabled={props.neighbours.next === null}
              onClick={() => go(props.neighbours.next)}
            >
              Next
            </Button>
          </Flex>
        )}
        <PersonSwitch people={props.people} person={opening.person.key} />
      </PageHead>
      <Box as="main" maxW={hasGrid(form) ? '900px' : '720px'} mx="auto" px="16px" py="16px">
        {leaving !== null && (
          <Box mb="8px">
            <Notice tone="warning">
              What you changed in this record is not saved.
              <Flex gap="8px" mt="6px">
                <Button look="go" onClick={() => setLeaving(null)}>
                  Stay here
                </Button>
                <Button onClick={() => router.push(pathOf(leaving))}>Go without saving</Button>
              </Flex>
            </Notice>
          </Box>
        )}
        <FilledForm {...props} onChanged={setChanged} />
      </Box>
    </>
  );
}

/** The page on which a field stands, of rows the field of them; null for what stands on none. */
function pageOf(form: Form, part: string | null): string | null {
  const name = part?.replace(/\[.*$/, '');
  return (
    form.pages.find((page) =>
      page.sections.some((section) => section.fields.some((field) => field.name === name)),
    )?.name ?? null
  );
}

function hasGrid(form: Form): boolean {
  return fieldsOf(form).some((field) => field.kind === 'rows' && field.display !== 'stack');
}

const NOTHING = {};

interface FilledFormProps extends HandedOut {
  /** It stands over the form it was opened from. */
  over?: boolean;
  related: Record<string, RelatedRecords>;
  onChanged?: (changed: boolean) => void;
  /** Stands over a parent: what was saved, and what it asks to be set there. */
  onSaved?: (id: string, toParent: { set: string; to: Value }[]) => void;
}

/** The form itself, with all that is said above it. */
function FilledForm(props: FilledFormProps) {
  const { material, handout } = props;
  const { form } = material;
  const { opening } = handout;
  const session = useSession(material, handout);
  const { seen, answer } = session;
  const [outcome, setOutcome] = useState<Outcome>({ kind: 'filling' });
  const [related, setRelated] = useState(props.related);
  const [child, setChild] = useState<(HandedOut & { list: ChildList }) | null>(null);
  const [says, setSays] = useState<string | null>(null);
  /** What stopped the last submission, until something else is done. */
  const [stops, setStops] = useState<SubmitOutcome['stops'] | null>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const notices = useRef<HTMLDivElement>(null);
  const { onChanged } = props;
  const unsaved = seen.changed && outcome.kind !== 'saved' && opening.viewing !== true;
  useEffect(() => onChanged?.(unsaved), [unsaved, onChanged]);
  // Whoever leaves in the middle of a word has it taken over.
  const flush = () => {
    if (sheet.current?.contains(document.activeElement) === true)
      (document.activeElement as HTMLElement).blur();
  };
  useLeaving({ flush, unsaved: () => unsaved && props.over !== true });
  async function takeLeft(take: boolean): Promise<void> {
    const lost = await session.takeLeft(take);
    if (lost > 0)
      setSays(
        lost === 1
          ? 'One entry could not be brought back, since the form is another one now.'
          : `${lost} entries could not be brought back, since the form is another one now.`,
      );
  }
  /** Texts are kept while they are typed. */
  function typed({ target }: { target: EventTarget }): void {
    const part = (target as HTMLElement).closest<HTMLElement>('[data-part]')?.dataset.part;
    const field = fieldsOf(form).find(({ name }) => name === part);
    if (field?.kind === 'text') session.typing(field.name, (target as HTMLInputElement).value);
  }

  // What the server says stands above the form, while the button that was pressed is below it.
  useEffect(() => {
    if (outcome.kind === 'filling' || outcome.kind === 'sending') return;
    notices.current?.focus({ preventScroll: true });
    scrollTo({ top: 0 });
  }, [outcome]);

  // After a failed check the first field that has to be mended gets the focus.
  useEffect(() => {
    if (stops !== null) sheet.current?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
  }, [stops, seen.page]);

  const isOpen = outcome.kind === 'filling' || outcome.kind === 'refused';

  async function step(done: Step): Promise<void> {
    setStops(null);
    let result: Answer;
    try {
      result = await session.step(done);
    } catch (caught) {
      // The server did not begin the filling-in; the session is as before.
      return setOutcome({
        kind: 'refused',
        says: caught instanceof Error ? caught.message : 'The server is out of reach.',
      });
    }
    if (result.submit?.saved === true) return send(result.submit.values, undefined);
    if (result.submit === null) return;
    setStops(result.submit.stops);
    // What has to be mended may stand on another page.
    const wrong = pageOf(form, result.submit.stoppedBy);
    if (wrong !== null && wrong !== result.page) await session.step({ turnTo: wrong });
  }

  /** Keeps the content of a file on the server, for this filling-in. */
  async function upload(file: File, field: string): Promise<FileValue> {
    const query = new URLSearchParams({
      filling: await session.begin(),
      field,
      name: file.name,
      type: file.type,
    });
    const response = await fetch(`/api/fill/${form.name}/files?${query.toString()}`, {
      method: 'POST',
      body: file,
      headers: { 'content-type': 'application/octet-stream' },
    }).catch(() => null);
    if (response === null) throw new Error('The server is out of reach, so the file was not kept.');
    const body = (await response.json()) as FileValue & { says?: string };
    if (!response.ok) throw new Error(body.says ?? 'The server did not take the file.');
    return body;
  }

  async function openChild(list: ChildList, record: string | null): Promise<void> {
    setSays(null);
    const filling = await session.begin().catch((caught: Error) => caught);
    if (filling instanceof Error) return setSays(filling.message);
    const reply = await call<HandedOut>('POST', `/api/fill/${list.form}/handouts`, {
      ...(record === null ? { launch: { [list.launch]: opening.record!.id } } : { record }),
      parent: { form: form.name, filling },
    });
    if (reply.ok) setChild({ ...reply.body, list });
    else setSays(reply.says);
  }

  /** What a child asks to be set here is a step of this session, with all that follows from it. */
  async function childSaved(toParent: { set: string; to: Value }[]): Promise<void> {
    setChild(null);
    for (const { set, to } of toParent) {
      const result = await session.step({ fromChild: set, to });
      if (result.refused !== null)
        setSays(`A value that was handed back could not be set: ${result.refused}.`);
    }
    const response = await fetch(
      `/api/fill/${form.name}/children?${new URLSearchParams({ record: opening.record!.id }).toString()}`,
    ).catch(() => null);
    if (response?.ok === true)
      setRelated((await response.json()) as Record<string, RelatedRecords>);
  }

  async function send(shown: Values, overRevision: number | undefined): Promise<void> {
    setOutcome({ kind: 'sending' });
    const reply = await call<{ id: string; toParent?: { set: string; to: Value }[] }>(
      'POST',
      `/api/fill/${form.name}/submissions`,
      {
        filling: await session.begin(),
        steps: session.steps(),
        shown,
        ...(overRevision === undefined ? {} : { overRevision }),
      },
    );
    if (reply.ok) {
      session.forget();
      setOutcome({ kind: 'saved', id: reply.body.id });
      props.onSaved?.(reply.body.id, reply.body.toParent ?? []);
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
    await session.takeBack();
    setOutcome({ kind: 'refused', says });
  }

  const drawList = (list: ChildList) => (
    <ChildRecordsList
      list={list}
      related={related[list.name]}
      tables={material.tables}
      record={opening.record?.id ?? null}
      onAdd={() => void openChild(list, null)}
      onOpen={(record) => void openChild(list, record)}
    />
  );

  const label = (value: Value) =>
    value === null ? 'nothing' : typeof value === 'object' ? JSON.stringify(value) : String(value);

  return (
    <>
      <Box ref={sheet} onInput={typed}>
        {outcome.kind === 'saved' ? (
          <Box bg="sheet" borderWidth="1px" borderColor="line" p="18px" role="status">
            <chakra.h2 fontSize="17px" fontWeight={640}>
              Saved as record {outcome.id}
            </chakra.h2>
            <Flex gap="14px" mt="10px">
              <chakra.a
                color="act"
                textDecoration="underline"
                href={`/fill/${form.name}?record=${encodeURIComponent(outcome.id)}`}
              >
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
              {outcome.kind === 'refused' && (
                <Notice tone="error">{outcome.says} What you entered is still here.</Notice>
              )}
              {outcome.kind === 'sending' && <Notice tone="info">Saving…</Notice>}
              {outcome.kind === 'differs' && (
                <TwoVersions
                  says={outcome.says}
                  head={['Field', 'You saw', 'The server says']}
                  rows={outcome.differences.map((d) => [
                    d.label,
                    label(d.browser),
                    label(d.server),
                  ])}
                  save="Save what the server says"
                  onSave={() => void send(outcome.values, undefined)}
                  onBack={() => void backToFilling('Nothing was saved.')}
                />
              )}
              {outcome.kind === 'conflict' && (
                <TwoVersions
                  says={outcome.says}
                  head={['Field', 'Yours', 'Saved meanwhile']}
                  rows={fieldsOf(form).flatMap((field) => {
                    const [mine, theirs] = [
                      outcome.mine[field.name] ?? null,
                      outcome.theirs.values[field.name] ?? null,
                    ];
                    return equal(mine, theirs)
                      ? []
                      : [[field.label, label(mine), label(theirs)] as const];
                  })}
                  save="Save mine over it"
                  onSave={() => void send(outcome.mine, outcome.theirs.revision)}
                  onBack={() => void backToFilling('Nothing was saved.')}
                />
              )}
              {says !== null && <Notice tone="error">{says}</Notice>}
              {session.left !== null && (
                <LeftNotice
                  at={session.left.at}
                  what="entries"
                  onTake={(take) => void takeLeft(take)}
                />
              )}
              {seen.failing.map((failure, i) => (
                <Notice key={i} tone="warning">
                  A part of this form does not work at the moment ({failure.behaviour}
                  {failure.line === null ? '' : `, line ${failure.line}`}). You can go on filling it
                  in.
                </Notice>
              ))}
              {answer?.messages.map((message, i) => (
                <Notice key={i} tone={message.tone}>
                  {message.text}
                </Notice>
              ))}
              {stops !== null && (
                <Notice tone="error">
                  Not saved yet.{' '}
                  {stops.length === 1 ? stops[0]!.says : `${stops.length} fields need attention.`}
                </Notice>
              )}
            </Flex>
            {answer === null && outcome.kind === 'filling' ? (
              <Box color="soft">Opening the form…</Box>
            ) : (
              <FormSheet
                form={form}
                over={props.over === true}
                tables={material.tables}
                seen={seen}
                zone={opening.zone ?? 'UTC'}
                listens={session.listens}
                frozen={!isOpen}
                onStep={(done) => void step(done)}
                upload={upload}
                childList={drawList}
              >
                <Flex
                  mt="16px"
                  gap="10px"
                  hidden={opening.viewing === true || seen.replaced !== null}
                >
                  <Button
                    look="go"
                    px="18px"
                    py="6px"
                    disabled={!isOpen}
                    onClick={() => void step({ submit: true })}
                  >
                    {opening.record === null ? 'Submit' : 'Save'}
                  </Button>
                </Flex>
              </FormSheet>
            )}
          </>
        )}
      </Box>
      <Window open={child !== null} onClose={() => setChild(null)} size="xl" stays>
        <Box p="16px" bg="ground" borderRadius="5px">
          {child !== null && (
            <>
              <Flex align="baseline" mb="8px" gap="12px">
                <WindowTitle>
                  {child.list.title}:{' '}
                  {child.handout.opening.record === null
                    ? 'new entry'
                    : `record ${child.handout.opening.record.id}`}
                </WindowTitle>
                <Button ml="auto" onClick={() => setChild(null)}>
                  Back without saving
                </Button>
              </Flex>
              <FilledForm
                key={child.handout.ticket}
                {...child}
                over
                related={NOTHING}
                onSaved={(_, toParent) => void childSaved(toParent)}
              />
            </>
          )}
        </Box>
      </Window>
    </>
  );
}
