'use client';
/** A field of the sheet: its label, its input, and what there is to say about it. */
import { Box, chakra, Flex } from '@chakra-ui/react';
import type { Field, Option } from '@/core/form/definition';
import { indexOf } from '@/core/form/table-index';
import type { Table } from '@/core/form/table';
import type { PartState } from '@/core/session/step';
import { FieldInput, LIST_AT_MOST } from './inputs';
import type { SheetProps } from './sheet';

/** Where a field stands: its name on the tape, and how steps name it now. */
export interface Spot {
  field: Field;
  /** `draught`, or `cargo#3.weight` whatever place the row has. */
  name: string;
  /** `draught`, or `cargo[0].weight`. */
  address: string;
  state: PartState;
}

export function FieldBlock({ spot, ...props }: SheetProps & { spot: Spot }) {
  const { field, name, state } = spot;
  const id = idOf(name, props.depth);
  return (
    <Box flex="1" minW={0} my="4px" data-part={name} data-asked={props.asked === name || undefined}>
      <Flex gap="8px" fontSize="12.5px" lineHeight="18px" align="baseline">
        <chakra.label
          id={`${id}-label`}
          flexShrink={0}
          maxW="100%"
          htmlFor={isGroup(field) ? undefined : id}
        >
          {field.label}
          {unitOf(field, props.zone ?? 'UTC') !== null && (
            <chakra.span color="soft">, {unitOf(field, props.zone ?? 'UTC')}</chakra.span>
          )}
          {/* Blanks, so that names do not run together where they are read out. */}{' '}
          {state.required && (
            <chakra.span
              color={props.marked?.get(name)?.includes('required') ? 'said' : 'soft'}
              ml="6px"
            >
              required
            </chakra.span>
          )}{' '}
          {!state.editable && (
            <chakra.span color="soft" ml="6px">
              locked
            </chakra.span>
          )}
        </chakra.label>
        {props.names && (
          <Box ml="auto" minW={0} overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
            <Name {...props} part={name} shown={field.name} />
          </Box>
        )}
      </Flex>
      <SpotInput {...props} spot={spot} />
      <SpotNotes {...props} spot={spot} />
    </Box>
  );
}

/** The input alone, as the cells of a grid have it. `label` names it where no label stands beside it. */
export function SpotInput({ spot, label, ...props }: SheetProps & { spot: Spot; label?: string }) {
  const { field, name, address, state } = spot;
  const id = idOf(name, props.depth);
  const wrong = state.problem ?? state.fault ?? null;
  const notes = [
    wrong !== null && `${id}-wrong`,
    state.warning != null && `${id}-warning`,
    state.hint != null && `${id}-hint`,
    field.help !== undefined && label === undefined && `${id}-help`,
  ]
    .filter(Boolean)
    .join(' ');
  const column = address.replace(/\[\d+\]/, '');
  return (
    <FieldInput
      field={field}
      id={id}
      label={label}
      value={state.value ?? null}
      options={
        props.names === true && label === undefined
          ? withKeys(optionsOf(field, state, props.tables))
          : optionsOf(field, state, props.tables)
      }
      zone={props.zone ?? 'UTC'}
      editable={state.editable && !props.frozen}
      required={state.required ?? false}
      invalid={wrong !== null}
      marked={props.marked?.has(name) ?? false}
      describedBy={notes === '' ? undefined : notes}
      upload={props.upload === undefined ? null : (file) => props.upload!(file, column)}
      onCommit={(value) => props.onStep({ set: address, to: value })}
      onType={
        props.listens.input.includes(column)
          ? (value) => props.onStep({ input: address, to: value })
          : null
      }
      onFocus={() => {
        if (props.listens.focus.includes(column)) props.onStep({ focus: address });
      }}
      onBlur={() => {
        if (props.listens.blur.includes(column)) props.onStep({ blur: address });
      }}
    />
  );
}

/** What is worth a warning, and stops nothing. */
export function Warning({ id, children }: { id?: string; children: string }) {
  return (
    <chakra.p
      id={id}
      color="said"
      bg="saidGround"
      fontSize="12.5px"
      px="6px"
      my="2px"
      borderLeftWidth="3px"
      borderColor="saidEdge"
    >
      <span aria-hidden>! </span>
      {children}
    </chakra.p>
  );
}

/** What is wrong, what is worth a warning, what is waited for, what came with the record, the hint and the help. */
export function SpotNotes({ spot, brief, ...props }: SheetProps & { spot: Spot; brief?: boolean }) {
  const { field, name, state } = spot;
  const id = idOf(name, props.depth);
  const wrong = state.problem ?? state.fault ?? null;
  const calls = props.seen.waiting
    .filter((run) => run.part === name)
    .flatMap((run) => run.calls.filter((call) => call.name !== 'after'));
  return (
    <>
      {wrong !== null && (
        <chakra.p id={`${id}-wrong`} color="bad" fontSize="12.5px">
          <span aria-hidden>× </span>
          {wrong}
        </chakra.p>
      )}
      {state.warning != null && <Warning id={`${id}-warning`}>{state.warning}</Warning>}
      {calls.length > 0 && (
        <chakra.p color="soft" fontSize="12.5px" role="status">
          <span aria-hidden>… </span>
          Waiting for{' '}
          {[...new Set(calls.map((call) => call.name.split('.')[0]!.replace(/_/g, ' ')))].join(
            ' and ',
          )}
        </chakra.p>
      )}
      {state.orphan && (
        <chakra.p color="said" fontSize="12.5px">
          This came with the record and is no longer offered.
        </chakra.p>
      )}
      {state.stray != null && (
        <chakra.p color="said" fontSize="12.5px">
          The record holds {JSON.stringify(state.stray)}, which this field no longer takes. It stays
          until you enter something.
        </chakra.p>
      )}
      {state.hint != null && (
        <chakra.p
          id={`${id}-hint`}
          color={props.marked?.get(name)?.includes('hint') ? 'said' : 'soft'}
          fontSize="12.5px"
        >
          {state.hint}
        </chakra.p>
      )}
      {field.help !== undefined && brief !== true && (
        <chakra.p id={`${id}-help`} color="soft" fontSize="12px">
          {field.help}
        </chakra.p>
      )}
    </>
  );
}

/** A technical name: pressed it goes into the code, and the mark beside it asks why its part is as it is. `shown` spells it for people where that differs. */
export function Name({
  part,
  shown,
  onAsk,
  onInsert,
  asked,
}: { part: string; shown?: string } & Pick<SheetProps, 'onAsk' | 'onInsert' | 'asked'>) {
  const text = shown ?? part;
  const look = {
    fontFamily: 'mono',
    fontSize: '11.2px',
    color: asked === part ? 'act' : 'soft',
  } as const;
  if (onAsk === undefined) return <chakra.span {...look}>{text}</chakra.span>;
  // Tab goes from field to field, as for people filling in; by keyboard both are to be had in the outline.
  const press = {
    type: 'button',
    tabIndex: -1,
    cursor: 'pointer',
    _hover: { color: 'act', textDecoration: 'underline' },
  } as const;
  return (
    <chakra.span display="flex" whiteSpace="nowrap" minW={0} justifyContent="flex-end">
      {onInsert !== undefined && (
        <chakra.button
          {...look}
          {...press}
          minW={0}
          overflow="hidden"
          textOverflow="ellipsis"
          title={`Put ${text} into the code`}
          onClick={() => onInsert(part)}
        >
          {text}
        </chakra.button>
      )}
      <chakra.button
        {...look}
        {...press}
        px="4px"
        title={`Why is ${text} like that?`}
        onClick={() => onAsk(part)}
      >
        <span aria-hidden>?</span>
        <chakra.span srOnly>Why is {text} like that?</chakra.span>
      </chakra.button>
    </chakra.span>
  );
}

/** The id of what belongs to a part; a sheet that stands over others has ids of its own. */
export function idOf(part: string, depth = 0): string {
  return `${'over-'.repeat(depth)}field-${part.replace(/[#.]/g, '-')}`;
}

/** Fields of several inputs are named as a group, not by one of them. */
function isGroup(field: Field): boolean {
  return (
    field.kind === 'yes_no' ||
    field.kind === 'choices' ||
    field.kind === 'file' ||
    (field.kind === 'choice' && field.display === 'radios')
  );
}

export function unitOf(field: Field, zone: string): string | null {
  if (field.kind === 'number') return field.unit ?? null;
  if (field.kind === 'datetime') return zone.replace(/_/g, ' ');
  return field.kind === 'money' ? (field.currency ?? null) : null;
}

/** Labels with their keys, for those who write scripts; lists that are searched stay as they are, and so do narrow cells. */
function withKeys(options: readonly Option[]): readonly Option[] {
  if (options.length > LIST_AT_MOST) return options;
  return options.map(({ key, label }) => ({ key, label: `${label} · ${key}` }));
}

function optionsOf(field: Field, state: PartState, tables: readonly Table[]): readonly Option[] {
  if (state.options != null) return state.options;
  if (field.kind === 'choice' || field.kind === 'choices') return field.options;
  if (field.kind !== 'reference') return [];
  const table = tables.find((t) => t.name === field.table);
  return table === undefined ? [] : indexOf(table).options;
}
