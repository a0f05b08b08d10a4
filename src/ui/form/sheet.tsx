'use client';
/**
 * A form as people meet it, from its definition and what is seen of the session; the steps they do are handed on. The
 * bench gives it a margin that says which script decided what; the fill page shows it without.
 */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import type { Button as ButtonDefinition, Field, Form, Option, Section } from '@/core/form/definition';
import { indexTable } from '@/core/form/table-index';
import type { Table } from '@/core/form/table';
import type { Seen } from '@/core/scenario/snapshot';
import type { PartState, Step } from '@/core/session/step';
import { Button, Mono, Notice } from '../kit';
import { FieldInput } from './inputs';

export interface SheetProps {
  form: Form;
  tables: readonly Table[];
  seen: Seen;
  listens: { input: readonly string[]; focus: readonly string[]; blur: readonly string[] };
  onStep: (step: Step) => void;
  /** Nothing can be entered now. */
  frozen?: boolean;
  names?: boolean;
  /** What stands beside a part; only the bench has a margin. */
  margin?: (part: string) => ReactNode;
  /** Parts that a script decided, which are marked. */
  marked?: ReadonlySet<string>;
  onAsk?: (part: string) => void;
  asked?: string | null;
  children?: ReactNode;
}

export function FormSheet(props: SheetProps) {
  const { form, seen } = props;
  const root = useRef<HTMLDivElement>(null);
  const says = useAnnouncements(form, seen);
  useKeptFocus(root, seen);
  const page = form.pages.find((p) => p.name === seen.page);
  const shownPages = form.pages.filter((p) => seen.parts[p.name]?.onScreen);
  return (
    <Box ref={root} position="relative" bg="sheet" borderWidth="1px" borderColor="line" borderRadius="3px" px="18px" py="14px" pl={props.margin ? 0 : '18px'} tabIndex={-1}>
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
      {seen.replaced !== null ? (
        <Row {...props}>
          <Box py="20px">{seen.replaced}</Box>
        </Row>
      ) : (
        <>
          {shownPages.length > 1 && (
            <Row {...props}>
              <Flex as="nav" aria-label="Pages" gap="8px" mt="6px" flexWrap="wrap">
                {shownPages.map((p, i) => (
                  <Button key={p.name} aria-current={p.name === seen.page ? 'step' : undefined} look={p.name === seen.page ? 'go' : 'plain'} onClick={() => props.onStep({ turnTo: p.name })}>
                    {i + 1} {p.title}
                  </Button>
                ))}
              </Flex>
            </Row>
          )}
          {page?.sections.map((section) => <SectionBlock key={section.name} {...props} section={section} />)}
          {page === undefined && (
            <Row {...props}>
              <Box py="20px">No page of this form is shown.</Box>
            </Row>
          )}
          <Row {...props}>
            <Flex gap="8px" mt="14px" flexWrap="wrap">
              {(form.buttons ?? []).filter((button) => button.section === undefined).map((button) => (
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

/** A line of the sheet, with the margin beside it where there is one. */
function Row({ margin, note, children }: Pick<SheetProps, 'margin'> & { note?: ReactNode; children: ReactNode }) {
  if (margin === undefined) return <Box>{children}</Box>;
  return (
    <Flex gap="14px">
      <Box width="98px" flexShrink={0} textAlign="right" fontSize="11.5px" lineHeight="14px" color="said">
        {note}
      </Box>
      <Box flex="1" minW={0}>
        {children}
      </Box>
    </Flex>
  );
}

function SectionBlock({ section, ...props }: SheetProps & { section: Section }) {
  const state = props.seen.parts[section.name];
  if (!state?.onScreen) return section.keepsSpace ? <Box height="60px" aria-hidden /> : null;
  const buttons = (props.form.buttons ?? []).filter((button) => button.section === section.name);
  return (
    <chakra.section aria-labelledby={`section-${section.name}`} data-part={section.name}>
      <Row {...props} note={props.margin && <Box pt="11px">{props.margin(section.name)}</Box>}>
        <Flex mt="10px" mb="2px" pb="3px" borderBottomWidth="1px" borderColor="line" align="baseline" gap="8px">
          <chakra.h3 id={`section-${section.name}`} fontSize="13.5px" fontWeight={620}>
            {section.title}
          </chakra.h3>
          {props.names && <Name {...props} part={section.name} />}
        </Flex>
      </Row>
      {pairs(section.fields, props.seen).map((fields) => (
        <Row key={fields[0]!.name} {...props} note={props.margin && <Box pt="22px">{fields.map((field) => <Box key={field.name}>{props.margin!(field.name)}</Box>)}</Box>}>
          <Flex gap="12px">
            {fields.map((field) => (
              <FieldBlock key={field.name} {...props} field={field} />
            ))}
          </Flex>
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

/** Half-width fields that stand next to each other in the definition, two by two; hidden ones close up. */
function pairs(fields: readonly Field[], seen: Seen): Field[][] {
  const rows: Field[][] = [];
  for (const field of fields) {
    if (!seen.parts[field.name]?.onScreen && !field.keepsSpace) continue;
    const last = rows.at(-1);
    if (field.width === 'half' && last?.length === 1 && last[0]!.width === 'half') last.push(field);
    else rows.push([field]);
  }
  return rows;
}

function ScriptButton({ button, ...props }: SheetProps & { button: ButtonDefinition }) {
  const state = props.seen.parts[button.name];
  if (!state?.onScreen) return null;
  return (
    <Button data-part={button.name} disabled={!state.editable || props.frozen} onClick={() => props.onStep({ click: button.name })}>
      {state.label ?? button.label}
      {props.names && (
        <Mono color="soft" ml="6px">
          {button.name}
        </Mono>
      )}
    </Button>
  );
}

function Name({ part, onAsk, asked }: { part: string } & Pick<SheetProps, 'onAsk' | 'asked'>) {
  if (onAsk === undefined) return <Mono color="soft">{part}</Mono>;
  return (
    <chakra.button type="button" fontFamily="mono" fontSize="11.2px" color={asked === part ? 'act' : 'soft'} cursor="pointer" title={`Why is ${part} like that?`} onClick={() => onAsk(part)} _hover={{ color: 'act', textDecoration: 'underline' }}>
      {part}
    </chakra.button>
  );
}

function FieldBlock({ field, ...props }: SheetProps & { field: Field }) {
  const state = props.seen.parts[field.name]!;
  if (!state.onScreen) return <Box flex="1" height="50px" aria-hidden />;
  const id = `field-${field.name}`;
  const wrong = state.problem ?? state.fault ?? null;
  const notes = [wrong !== null && `${id}-wrong`, state.hint != null && `${id}-hint`, field.help !== undefined && `${id}-help`].filter(Boolean).join(' ');
  const isGroup = field.kind === 'yes_no' || (field.kind === 'choice' && field.display === 'radios');
  return (
    <Box flex="1" minW={0} my="4px" data-part={field.name} data-asked={props.asked === field.name || undefined}>
      <Flex gap="8px" fontSize="12.5px" lineHeight="18px" align="baseline">
        <chakra.label id={`${id}-label`} flexShrink={0} maxW="100%" htmlFor={isGroup ? undefined : id}>
          {field.label}
          {unitOf(field) !== null && <chakra.span color="soft">, {unitOf(field)}</chakra.span>}
          {state.required && (
            <chakra.span color={props.marked?.has(field.name) ? 'said' : 'soft'} ml="6px">
              required
            </chakra.span>
          )}
          {!state.editable && (
            <chakra.span color="soft" ml="6px">
              locked
            </chakra.span>
          )}
        </chakra.label>
        {props.names && (
          <Box ml="auto" minW={0} overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
            <Name {...props} part={field.name} />
          </Box>
        )}
      </Flex>
      <FieldInput
        field={field}
        id={id}
        value={state.value ?? null}
        options={optionsOf(field, state, props.tables)}
        editable={state.editable && !props.frozen}
        required={state.required ?? false}
        invalid={wrong !== null}
        marked={props.marked?.has(field.name) ?? false}
        describedBy={notes === '' ? undefined : notes}
        onCommit={(value) => props.onStep({ set: field.name, to: value })}
        onType={props.listens.input.includes(field.name) ? (value) => props.onStep({ input: field.name, to: value }) : null}
        onFocus={() => {
          if (props.listens.focus.includes(field.name)) props.onStep({ focus: field.name });
        }}
        onBlur={() => {
          if (props.listens.blur.includes(field.name)) props.onStep({ blur: field.name });
        }}
      />
      {wrong !== null && (
        <chakra.p id={`${id}-wrong`} color="bad" fontSize="12.5px">
          <span aria-hidden>× </span>
          {wrong}
        </chakra.p>
      )}
      {state.orphan && (
        <chakra.p color="said" fontSize="12.5px">
          This came with the record and is no longer offered.
        </chakra.p>
      )}
      {state.stray != null && (
        <chakra.p color="said" fontSize="12.5px">
          The record holds {JSON.stringify(state.stray)}, which this field no longer takes. It stays until you enter something.
        </chakra.p>
      )}
      {state.hint != null && (
        <chakra.p id={`${id}-hint`} color={props.margin ? 'said' : 'soft'} fontSize="12.5px">
          {state.hint}
        </chakra.p>
      )}
      {field.help !== undefined && (
        <chakra.p id={`${id}-help`} color="soft" fontSize="12px">
          {field.help}
        </chakra.p>
      )}
    </Box>
  );
}

function unitOf(field: Field): string | null {
  if (field.kind === 'number') return field.unit ?? null;
  return field.kind === 'money' ? (field.currency ?? null) : null;
}

const indexes = new WeakMap<Table, ReturnType<typeof indexTable>>();

function optionsOf(field: Field, state: PartState, tables: readonly Table[]): readonly Option[] {
  if (state.options != null) return state.options;
  if (field.kind === 'choice') return field.options;
  if (field.kind !== 'reference') return [];
  const table = tables.find((t) => t.name === field.table);
  if (table === undefined) return [];
  let index = indexes.get(table);
  if (index === undefined) indexes.set(table, (index = indexTable(table)));
  return index.options;
}

/** Sentences for what scripts showed and hid since the last step, for screen readers. */
function useAnnouncements(form: Form, seen: Seen): string {
  const before = useRef<Seen | null>(null);
  const [says, setSays] = useState('');
  useEffect(() => {
    const last = before.current;
    before.current = seen;
    if (last === null || last.page !== seen.page) return;
    const labels = labelsOf(form);
    const turned = Object.keys(seen.parts).filter((name) => labels.has(name) && last.parts[name] !== undefined && last.parts[name].shown !== seen.parts[name]!.shown);
    if (turned.length > 0) setSays(turned.map((name) => `${labels.get(name)} is ${seen.parts[name]!.shown ? 'shown' : 'hidden'}.`).join(' '));
  }, [form, seen]);
  return says;
}

function labelsOf(form: Form): Map<string, string> {
  const labels = new Map<string, string>();
  for (const page of form.pages) {
    for (const section of page.sections) {
      labels.set(section.name, section.title);
      for (const field of section.fields) labels.set(field.name, field.label);
    }
  }
  return labels;
}

/** When a script hides what has the focus, the focus goes to the next input of the sheet instead of being lost. */
function useKeptFocus(root: { current: HTMLDivElement | null }, seen: Seen): void {
  const last = useRef<string | null>(null);
  useEffect(() => {
    const sheet = root.current;
    if (sheet === null) return;
    const remember = (event: FocusEvent) => {
      last.current = (event.target as HTMLElement).closest<HTMLElement>('[data-part]')?.dataset.part ?? null;
    };
    const forget = (event: FocusEvent) => {
      if (event.relatedTarget !== null) last.current = null;
    };
    sheet.addEventListener('focusin', remember);
    sheet.addEventListener('focusout', forget);
    return () => {
      sheet.removeEventListener('focusin', remember);
      sheet.removeEventListener('focusout', forget);
    };
  }, [root]);
  useEffect(() => {
    const sheet = root.current;
    const name = last.current;
    if (sheet === null || name === null || seen.parts[name]?.onScreen !== false) return;
    if (document.activeElement !== document.body && document.activeElement !== null) return;
    last.current = null;
    const order = Object.keys(seen.parts);
    const after = order.slice(order.indexOf(name) + 1);
    const next = after.map((part) => sheet.querySelector<HTMLElement>(`[data-part="${part}"] :is(input, select, textarea):not(:disabled)`)).find((element) => element !== null);
    (next ?? sheet).focus();
  }, [root, seen]);
}
