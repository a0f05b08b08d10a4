'use client';
/** A form that was handed out and is filled in, with all that is said above it and the forms opened from it. */
import { Box, Flex } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { ChildList } from '@/core/form/definition';
import { fieldsOf } from '@/core/form/fields';
import type { Value } from '@/core/form/value';
import { call, get } from '../api';
import { useLeaving } from '../draft/leaving';
import type { ChildListProps, RelatedRecords } from '../form/child-list';
import { FormSheet } from '../form/sheet';
import { Button, OutOfReach } from '../kit';
import { lazily } from '../lazily';
import { Window, WindowTitle } from '../window';
import type { HandedOut } from './handed-out';
import { FillNotices, SavedAs } from './notices';
import type { KeepRecordingProps } from './keep-recording';
import { upload } from './upload';
import { useFilling } from './use-filling';
import { useSubmission } from './use-submission';

const ChildRecordsList = lazily<ChildListProps>(() =>
  import('../form/child-list').then((module) => module.ChildRecordsList),
);

const KeepRecording = lazily<KeepRecordingProps>(() =>
  import('./keep-recording').then((module) => module.KeepRecording),
);

const NOTHING = {};

interface FilledFormProps extends HandedOut {
  /** How many forms it stands over: the one it was opened from, and those that one was opened from. */
  depth?: number;
  related: Record<string, RelatedRecords>;
  onChanged?: (changed: boolean) => void;
  /** Stands over a parent: what was saved, and what it asks to be set there. */
  onSaved?: (id: string, toParent: { set: string; to: Value }[]) => void;
}

/** The form itself, with all that is said above it. */
export function FilledForm(props: FilledFormProps) {
  const { material, handout, depth = 0 } = props;
  const { form } = material;
  const { opening } = handout;
  const session = useFilling(material, handout);
  const { seen, answer } = session;
  const submission = useSubmission(form, session, props.onSaved);
  const { outcome, stops, step } = submission;
  const [related, setRelated] = useState(props.related);
  const [child, setChild] = useState<(HandedOut & { list: ChildList }) | null>(null);
  const [says, setSays] = useState<string | null>(null);
  const [keeping, setKeeping] = useState(false);
  const sheet = useRef<HTMLDivElement>(null);
  const notices = useRef<HTMLDivElement>(null);
  const { onChanged } = props;
  const unsaved = session.changed && outcome.kind !== 'saved' && opening.viewing !== true;
  useEffect(() => {
    onChanged?.(unsaved);
  }, [unsaved, onChanged]);
  // Whoever leaves in the middle of a word has it taken over.
  const flush = () => {
    if (sheet.current?.contains(document.activeElement) === true)
      (document.activeElement as HTMLElement).blur();
  };
  useLeaving({ flush, unsaved: () => unsaved && depth === 0 });
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
      if (result !== null && result.refused !== null)
        setSays(`A value that was handed back could not be set: ${result.refused}.`);
    }
    const reply = await get<Record<string, RelatedRecords>>(
      `/api/fill/${form.name}/children?${new URLSearchParams({ record: opening.record!.id }).toString()}`,
    );
    if (reply.ok) setRelated(reply.body);
  }

  const drawList = (list: ChildList) => (
    <ChildRecordsList
      list={list}
      depth={depth}
      related={related[list.name]}
      tables={material.tables}
      record={opening.record?.id ?? null}
      onAdd={() => void openChild(list, null)}
      onOpen={(record) => void openChild(list, record)}
    />
  );

  return (
    <>
      <Box ref={sheet} onInput={typed}>
        {outcome.kind === 'saved' ? (
          <SavedAs form={form.name} id={outcome.id} />
        ) : (
          <>
            <FillNotices
              ref={notices}
              form={form}
              session={session}
              submission={submission}
              says={says}
              onTakeLeft={(take) => void takeLeft(take)}
            />
            {session.cannotStart && (
              <OutOfReach
                what={
                  answer === null
                    ? 'The form could not be opened'
                    : 'What the form runs in could not be loaded'
                }
                onAgain={session.tryAgain}
              />
            )}
            {answer === null && session.cannotStart ? null : answer === null &&
              outcome.kind === 'filling' ? (
              <Box color="soft">Opening the form…</Box>
            ) : (
              <FormSheet
                form={form}
                depth={depth}
                tables={material.tables}
                seen={seen}
                zone={opening.zone ?? 'UTC'}
                listens={session.listens}
                frozen={!isOpen}
                onStep={(done) => void step(done)}
                upload={(file, field) => upload(form.name, session, file, field)}
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
      {answer !== null && opening.viewing !== true && (
        <Flex mt="8px" justify="flex-end">
          <Button look="text" color="soft" fontSize="12.5px" onClick={() => setKeeping(true)}>
            Something is not right? Keep a recording
          </Button>
        </Flex>
      )}
      <Window open={keeping} onClose={() => setKeeping(false)} size="md">
        {keeping && (
          <KeepRecording form={form} session={session} onDone={() => setKeeping(false)} />
        )}
      </Window>
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
                depth={depth + 1}
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
