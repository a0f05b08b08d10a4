'use client';
/**
 * A form as people meet it, from its definition and what is seen of the session; the steps they do are handed on. The
 * bench gives it a margin that says which script decided what; the fill page shows it without.
 */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { memo, useEffect, useRef, useState, type ReactNode } from 'react';
import type {
  Button as ButtonDefinition,
  ChildList,
  Field,
  Form,
  Section,
  Track,
} from '@/core/form/definition';
import type { FileValue } from '@/core/form/kinds';
import type { Table } from '@/core/form/table';
import type { Seen } from '@/core/scenario/seen';
import type { Step } from '@/core/session/step';
import { Button, Notice } from '../kit';
import { useAnnouncements, useKeptFocus } from './attention';
import { FieldBlock, idOf, Name } from './field-block';
import { columnsOf, linesOf } from './field-lines';

import { lazily } from '../lazily';
import type { RowsProps } from './rows-block';

/** Not every form has rows. */
const RowsBlock = lazily<RowsProps>(
  () => import('./rows-block').then((module) => module.RowsBlock),
  () => <Box minH="120px" />,
);

export interface SheetProps {
  form: Form;
  tables: readonly Table[];
  seen: Seen;
  /** The time zone that moments are shown in; UTC unless said. */
  zone?: string;
  listens: { input: readonly string[]; focus: readonly string[]; blur: readonly string[] };
  onStep: (step: Step) => void;
  /** How many sheets it stands over, whose ids are taken; none unless said. */
  depth?: number;
  /** Nothing can be entered now. */
  frozen?: boolean;
  names?: boolean;
  /** What stands beside a part; only the bench has a margin. */
  margin?: (part: string) => ReactNode;
  /** The same text as long as the margin beside a part is the same. */
  marginKey?: (part: string) => string;
  /** Parts that a script decided, with the aspects it decided, which are marked. */
  marked?: ReadonlyMap<string, readonly string[]>;
  onAsk?: (part: string) => void;
  /** Puts the part's name into the code. */
  onInsert?: (part: string) => void;
  /** The pointer is on a part, or on none. */
  onPoint?: (part: string | null) => void;
  asked?: string | null;
  /** Draws a list of records that refer to this one. */
  childList?: (list: ChildList) => ReactNode;
  /** Keeps the content of a file that was chosen; without it only what is known of the file is taken. */
  upload?: ((file: File, field: string) => Promise<FileValue>) | undefined;
  children?: ReactNode;
}

export function FormSheet({ onStep, onAsk, onInsert, upload, ...rest }: SheetProps) {
  /** What was entered last, which a message instead of the form may follow from. */
  const entered = useRef<string | null>(null);
  const [changing, setChanging] = useState(false);
  const doStep = (step: Step) => {
    if ('set' in step) entered.current = step.set;
    onStep(step);
  };
  const props: SheetProps = {
    ...rest,
    onStep: useSteady(doStep),
    onAsk: useSteady(onAsk),
    onInsert: useSteady(onInsert),
    upload: useSteady(upload),
  };
  const { form, seen } = props;
  const root = useRef<HTMLDivElement>(null);
  const says = useAnnouncements(form, seen);
  useKeptFocus(root, seen);
  const page = form.pages.find((p) => p.name === seen.page);
  const replaced = seen.replaced !== null;
  // Once the message has gone, another one is met as the first was.
  useEffect(() => setChanging(false), [replaced]);
  useEffect(() => {
    if (changing) inputOf(root.current!, entered.current)?.focus();
  }, [changing]);
  const shownPages = form.pages.filter((p) => seen.parts[p.name]?.onScreen);
  return (
    <Box
      ref={root}
      position="relative"
      bg="sheet"
      borderWidth="1px"
      borderColor="line"
      borderRadius="3px"
      px={props.margin ? '12px' : '18px'}
      py="14px"
      pl={props.margin ? 0 : '18px'}
      css={props.margin ? MARGIN : undefined}
      tabIndex={-1}
      onPointerOver={
        props.onPoint &&
        ((event) =>
          props.onPoint!(
            (event.target as HTMLElement)
              .closest<HTMLElement>('[data-part]')
              ?.dataset.part?.replace(/#\d+/, '') ?? null,
          ))
      }
      onPointerLeave={props.onPoint && (() => props.onPoint!(null))}
    >
      <Row {...props}>
        <chakra.h2 fontSize="17px" fontWeight={640} lineHeight="24px">
          {form.title}
        </chakra.h2>
      </Row>
      <chakra.div aria-live="polite" srOnly data-testid="announcements">
        {says}
      </chakra.div>
      {seen.notice !== null && (
        <Row {...props}>
          <Notice tone={seen.notice.tone} mt="6px">
            {seen.notice.text}
          </Notice>
        </Row>
      )}
      {seen.replaced !== null && (
        <Row {...props}>
          <Box py={changing ? '6px' : '20px'} role="status">
            {seen.replaced.text}
          </Box>
          {!seen.replaced.final && !changing && (
            <Button mb="14px" onClick={() => setChanging(true)}>
              Change the last answer
            </Button>
          )}
          {changing && (
            <Notice tone="info">
              Change the answer that led here. The form cannot be submitted while the message
              stands.
            </Notice>
          )}
        </Row>
      )}
      {(seen.replaced === null || changing) && (
        <>
          {(form.tracks ?? []).map((track) => (
            <TrackBar key={track.name} {...props} track={track} />
          ))}
          {shownPages.length > 1 && (
            <Row {...props}>
              <Flex as="nav" aria-label="Pages" gap="8px" mt="6px" flexWrap="wrap">
                {shownPages.map((p, i) => (
                  <Button
                    key={p.name}
                    aria-current={p.name === seen.page ? 'step' : undefined}
                    look={p.name === seen.page ? 'go' : 'plain'}
                    onClick={() => props.onStep({ turnTo: p.name })}
                  >
                    {i + 1} {p.title}
                  </Button>
                ))}
              </Flex>
            </Row>
          )}
          {page?.sections.map((section) => (
            <SectionBlock key={section.name} {...props} section={section} />
          ))}
          {page === undefined && (
            <Row {...props}>
              <Box py="20px">No page of this form is shown.</Box>
            </Row>
          )}
          {(form.children ?? [])
            .filter((list) => list.section === undefined)
            .map((list) => (
              <Row key={list.name} {...props}>
                {props.childList?.(list)}
              </Row>
            ))}
          <Row {...props}>
            <Flex gap="8px" mt="14px" flexWrap="wrap">
              {(form.buttons ?? [])
                .filter((button) => button.section === undefined)
                .map((button) => (
                  <ScriptButton key={button.name} {...props} button={button} />
                ))}
            </Flex>
          </Row>
        </>
      )}
      <Row {...props}>{props.children}</Row>
    </Box>
  );
}

/** The input of what was entered last, or the first one. */
function inputOf(sheet: HTMLElement, name: string | null): HTMLElement | null {
  const input = ':is(input, select, textarea):not(:disabled)';
  return (
    (name === null
      ? null
      : sheet.querySelector<HTMLElement>(`[data-part="${CSS.escape(name)}"] ${input}`)) ??
    sheet.querySelector<HTMLElement>(`[data-part] ${input}`)
  );
}

/** Where there is no room for a margin beside the parts, what it says stands under each of them. */
const NARROW = '@container sheet (max-width: 500px)';
const MARGIN = {
  containerType: 'inline-size',
  containerName: 'sheet',
  '& [data-note=below]': { display: 'none' },
  [NARROW]: {
    '& [data-note=beside]': { display: 'none' },
    '& [data-note=below]': { display: 'block' },
    '& [data-row]': { paddingLeft: '12px' },
  },
};

/** A line of the sheet, with the margin beside it where there is one, and what is said of it below. */
function Row({
  margin,
  beside,
  below,
  children,
}: Pick<SheetProps, 'margin'> & { beside?: ReactNode; below?: ReactNode; children: ReactNode }) {
  if (margin === undefined) return <Box>{children}</Box>;
  return (
    <Flex gap="14px" data-row>
      <Box
        width="98px"
        flexShrink={0}
        textAlign="right"
        fontSize="11.5px"
        lineHeight="14px"
        color="said"
        data-note="beside"
      >
        {beside}
      </Box>
      <Box flex="1" minW={0}>
        {children}
        {below}
      </Box>
    </Flex>
  );
}

function NoteBelow({ note }: { note: ReactNode }) {
  return note == null ? null : (
    <Box data-note="below" fontSize="11.5px" lineHeight="15px" color="said">
      {note}
    </Box>
  );
}

function SectionBlock({ section, ...props }: SheetProps & { section: Section }) {
  const state = props.seen.parts[section.name];
  if (!state?.onScreen) return section.keepsSpace ? <Box height="60px" aria-hidden /> : null;
  const buttons = (props.form.buttons ?? []).filter((button) => button.section === section.name);
  return (
    <chakra.section aria-labelledby={idOf(section.name, props.depth)} data-part={section.name}>
      <Row
        {...props}
        beside={props.margin && <Box pt="11px">{props.margin(section.name)}</Box>}
        below={<NoteBelow note={props.margin?.(section.name)} />}
      >
        <Flex
          mt="10px"
          mb="2px"
          pb="3px"
          borderBottomWidth="1px"
          borderColor="line"
          align="baseline"
          gap="8px"
        >
          <chakra.h3 id={idOf(section.name, props.depth)} fontSize="13.5px" fontWeight={620}>
            {section.title}
          </chakra.h3>
          {props.names && <Name {...props} part={section.name} />}
        </Flex>
      </Row>
      {linesOf(section, props.seen).map((fields) => (
        <FieldsLine
          key={fields[0]!.name}
          {...props}
          fields={fields}
          columns={fields.length === 1 && fields[0]!.width !== 'half' ? 1 : columnsOf(section)}
        />
      ))}
      {(props.form.children ?? [])
        .filter((list) => list.section === section.name)
        .map((list) => (
          <Row key={list.name} {...props}>
            {props.childList?.(list)}
          </Row>
        ))}
      {buttons.length > 0 && (
        <Row {...props}>
          <Flex gap="8px" my="4px">
            {buttons.map((button) => (
              <ScriptButton key={button.name} {...props} button={button} />
            ))}
          </Flex>
        </Row>
      )}
    </chakra.section>
  );
}

type LineProps = SheetProps & { fields: Field[]; columns: number };

/** Fields that stand beside each other. Renders again only when one of them shows something else: a form may have hundreds. */
const FieldsLine = memo(function FieldsLine({ fields, columns, ...props }: LineProps) {
  return (
    <Row
      {...props}
      beside={
        props.margin && (
          <Box pt="22px">
            {fields.map((field) => (
              <Box key={field.name}>{props.margin!(field.name)}</Box>
            ))}
          </Box>
        )
      }
    >
      <Box
        display="grid"
        gridTemplateColumns={`repeat(${columns}, minmax(0, 1fr))`}
        columnGap="12px"
      >
        {fields.map((field) => (
          <Placed key={field.name} {...props} field={field} />
        ))}
      </Box>
    </Row>
  );
}, showsTheSame);

/** What is called is left out: `useSteady` keeps it the same. Rows are looked at by their own block. */
function showsTheSame(a: LineProps, b: LineProps): boolean {
  if (
    a.columns !== b.columns ||
    a.names !== b.names ||
    a.zone !== b.zone ||
    a.frozen !== b.frozen ||
    a.tables !== b.tables ||
    a.fields.length !== b.fields.length
  )
    return false;
  return a.fields.every(
    (field, i) =>
      field === b.fields[i] && field.kind !== 'rows' && fieldShowsTheSame(field.name, a, b),
  );
}

function fieldShowsTheSame(name: string, a: SheetProps, b: SheetProps): boolean {
  const [before, after] = [a.seen.parts[name], b.seen.parts[name]];
  if (before !== after && JSON.stringify(before) !== JSON.stringify(after)) return false;
  const waits = ({ seen }: SheetProps) =>
    JSON.stringify(seen.waiting.filter(({ part }) => part === name));
  return (
    (a.asked === name) === (b.asked === name) &&
    String(a.marked?.get(name)) === String(b.marked?.get(name)) &&
    a.marginKey?.(name) === b.marginKey?.(name) &&
    (['input', 'focus', 'blur'] as const).every(
      (event) => a.listens[event].includes(name) === b.listens[event].includes(name),
    ) &&
    waits(a) === waits(b)
  );
}

/** A function that stays the same and calls the latest one. */
function useSteady<A extends never[], R, F extends ((...given: A) => R) | undefined>(call: F): F {
  const latest = useRef(call);
  useEffect(() => {
    latest.current = call;
  });
  const [steady] = useState(
    () =>
      (...given: A) =>
        latest.current!(...given),
  );
  return (call === undefined ? undefined : steady) as F;
}

function Placed({ field, ...props }: SheetProps & { field: Field }) {
  const state = props.seen.parts[field.name]!;
  // Its place stays empty.
  if (!state.onScreen) return <Box minH="50px" aria-hidden data-kept={field.name} />;
  return (
    <Box minW={0}>
      {field.kind === 'rows' ? (
        <RowsBlock {...props} field={field} state={state} />
      ) : (
        <FieldBlock {...props} spot={{ field, name: field.name, address: field.name, state }} />
      )}
      <NoteBelow note={props.margin?.(field.name)} />
    </Box>
  );
}

/** A bar of stages: those before the present one are done, those after it are to come. */
function TrackBar({ track, ...props }: SheetProps & { track: Track }) {
  const state = props.seen.parts[track.name];
  if (!state?.onScreen) return null;
  const at = track.stages.findIndex((stage) => stage.key === state.stage);
  return (
    <Row
      {...props}
      beside={props.margin && <Box pt="10px">{props.margin(track.name)}</Box>}
      below={<NoteBelow note={props.margin?.(track.name)} />}
    >
      <Flex mt="8px" align="center" gap="2px 8px" wrap="wrap" data-part={track.name}>
        <chakra.ol
          aria-label={track.title}
          display="flex"
          flex="1 1 100%"
          listStyleType="none"
          borderWidth="1px"
          borderColor="line"
          borderRadius="4px"
          overflow="hidden"
          fontSize="12.5px"
        >
          {track.stages.map((stage, i) => (
            <chakra.li
              key={stage.key}
              flex="1"
              px="8px"
              py="3px"
              bg={i === at ? 'actGround' : undefined}
              color={i < at ? 'soft' : 'ink'}
              fontWeight={i === at ? 640 : 400}
              borderLeftWidth={i === 0 ? 0 : '1px'}
              borderColor="line"
              aria-current={i === at ? 'step' : undefined}
            >
              <span aria-hidden>{i < at ? '✓ ' : ''}</span>
              {stage.label}
            </chakra.li>
          ))}
        </chakra.ol>
        {props.names && <Name {...props} part={track.name} />}
      </Flex>
    </Row>
  );
}

function ScriptButton({ button, ...props }: SheetProps & { button: ButtonDefinition }) {
  const state = props.seen.parts[button.name];
  if (!state?.onScreen) return null;
  const busy = props.seen.waiting.some((run) => run.part === button.name);
  return (
    <Flex align="center" gap="6px" data-part={button.name}>
      <Button
        aria-busy={busy || undefined}
        disabled={!state.editable || busy || props.frozen}
        onClick={() => props.onStep({ click: button.name })}
      >
        {state.label ?? button.label}
        {busy && ' …'}
      </Button>
      {props.names && <Name {...props} part={button.name} />}
    </Flex>
  );
}
