'use client';
/**
 * A rows field on the sheet: a grid, or one row under the other. Of long lists only the rows in view are drawn. Rows are
 * added, removed and moved with the pointer and with the keyboard: Enter goes down and adds at the end, the arrow keys
 * go up and down a column, with Alt they move the row.
 */
import { counted } from '@/core/counted';
import { ROWS_PER_FIELD } from '@/core/limits';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import type { Field, FieldOf } from '@/core/form/definition';
import { cellsOf } from '@/core/form/fields';
import { cellState } from '@/core/scenario/seen';
import type { PartState, RowState } from '@/core/session/step';
import { Button } from '../kit';
import {
  FieldBlock,
  idOf,
  Name,
  SpotInput,
  SpotNotes,
  unitOf,
  Warning,
  type Spot,
} from './field-block';
import type { SheetProps } from './sheet';

export interface RowsProps extends SheetProps {
  field: FieldOf<'rows'>;
  state: PartState;
}

/** Rows that fit before the list scrolls by itself. */
const IN_FULL = 12;

export function RowsBlock(props: RowsProps) {
  const { field, state, seen } = props;
  const rows = seen.rows[field.name] ?? { order: [], byId: {} };
  const editable = state.editable && !props.frozen;
  const most = field.maxRows ?? ROWS_PER_FIELD;
  const root = useRef<HTMLDivElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const wanted = useRef<{ place: number; column: string | null } | null>(null);
  const [wished, setWished] = useState(field.display ?? 'grid');
  const stacked = wished === 'stack';
  const virtual = useVirtualizer({
    count: rows.order.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => (stacked ? 150 : 36),
    getItemKey: (place) => rows.order[place]!,
    overscan: 6,
    // Before the first measurement a server or a hidden pane would draw nothing at all.
    initialRect: { width: 600, height: 400 },
  });

  // The focus follows a row that was added, moved or removed once it is drawn.
  useEffect(() => {
    const want = wanted.current;
    if (want === null) return;
    wanted.current = null;
    const place = Math.min(want.place, rows.order.length - 1);
    if (place < 0) {
      root.current?.querySelector<HTMLElement>('[data-add]')?.focus();
      return;
    }
    virtual.scrollToIndex(place);
    requestAnimationFrame(() =>
      focusCell(root.current, field.name, rows.order[place]!, want.column),
    );
  }, [rows.order, field.name, virtual]);

  const add = () => {
    wanted.current = { place: rows.order.length, column: null };
    props.onStep({ addRow: field.name });
  };
  const remove = (place: number) => {
    wanted.current = { place, column: null };
    props.onStep({ removeRow: `${field.name}[${place}]` });
  };
  const move = (place: number, to: number, column: string | null) => {
    if (to < 0 || to >= rows.order.length) return;
    wanted.current = { place: to, column };
    props.onStep({ moveRow: `${field.name}[${place}]`, to });
  };

  const onKeyDown = (event: KeyboardEvent) => {
    const target = event.target as HTMLElement;
    const cell = target.closest<HTMLElement>('[data-column]');
    const row = target.closest<HTMLElement>('[data-place]');
    if (cell === null || row === null) return;
    const place = Number(row.dataset.place);
    const column = cell.dataset.column!;
    const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
    if (event.altKey && by !== 0) {
      event.preventDefault();
      if (editable) move(place, place + by, column);
      return;
    }
    const plain =
      target instanceof HTMLInputElement &&
      (target.type === 'text' || target.type === '') &&
      target.getAttribute('role') !== 'combobox';
    if (!plain || stacked) return;
    const enter = event.key === 'Enter';
    if (!enter && by === 0) return;
    event.preventDefault();
    const to = place + (enter ? 1 : by);
    if (to >= rows.order.length) {
      if (enter && editable && rows.order.length < most) {
        target.blur();
        add();
      }
      return;
    }
    if (to >= 0) {
      virtual.scrollToIndex(to);
      requestAnimationFrame(() => focusCell(root.current, field.name, rows.order[to]!, column));
    }
  };

  const items = virtual.getVirtualItems();
  const id = idOf(field.name, props.depth);
  const hint = { field, name: field.name, address: field.name, state } satisfies Spot;
  return (
    <Box ref={root} flex="1" minW={0} my="4px" data-part={field.name} onKeyDown={onKeyDown}>
      <Flex gap="8px" fontSize="12.5px" lineHeight="18px" align="baseline">
        <chakra.span id={`${id}-label`} fontWeight={620}>
          {field.label}
          <chakra.span color="soft" fontWeight={400} ml="6px">
            {counted(rows.order.length, 'row')}
            {state.required ? ', required' : ''}
            {state.editable ? '' : ', locked'}
          </chakra.span>
        </chakra.span>
        {rows.order.length > 0 && (
          <Button
            look="text"
            color="soft"
            fontSize="12px"
            aria-label={`${field.label} ${stacked ? 'as a grid' : 'one row under the other'}`}
            onClick={() => setWished(stacked ? 'grid' : 'stack')}
          >
            {stacked ? 'as a grid' : 'one under the other'}
          </Button>
        )}
        {props.names && (
          <Box ml="auto">
            <Name {...props} part={field.name} />
          </Box>
        )}
      </Flex>
      <Box
        ref={scroller}
        maxH={rows.order.length > IN_FULL ? '400px' : undefined}
        overflowX="auto"
        overflowY={rows.order.length > IN_FULL ? 'auto' : undefined}
        borderWidth={rows.order.length > IN_FULL ? '1px' : undefined}
        borderColor="line"
        {...(rows.order.length > IN_FULL
          ? { tabIndex: 0, role: 'region', 'aria-labelledby': `${id}-label` }
          : {})}
      >
        <Box
          // Rows have other heights then, and are measured once more.
          key={wished}
          role={stacked ? 'list' : 'table'}
          aria-labelledby={`${id}-label`}
          aria-rowcount={stacked ? undefined : rows.order.length + 1}
          minW={stacked ? undefined : `${cellsOf(field).length * 96 + 84}px`}
        >
          {!stacked && rows.order.length > 0 && <GridHead {...props} />}
          <Box
            role={stacked ? undefined : 'rowgroup'}
            position="relative"
            height={`${virtual.getTotalSize()}px`}
          >
            {items.map((item) => {
              const row = rows.byId[rows.order[item.index]!]!;
              return (
                <Box
                  key={item.key}
                  ref={virtual.measureElement}
                  data-index={item.index}
                  data-place={item.index}
                  data-part={`${field.name}#${String(item.key)}`}
                  role={stacked ? 'listitem' : 'row'}
                  aria-rowindex={stacked ? undefined : item.index + 2}
                  aria-label={stacked ? `Row ${item.index + 1}` : undefined}
                  position="absolute"
                  top={0}
                  left={0}
                  width="100%"
                  transform={`translateY(${item.start}px)`}
                >
                  <RowBody
                    {...props}
                    stacked={stacked}
                    id={String(item.key)}
                    place={item.index}
                    row={row}
                  >
                    <RowActions
                      label={`row ${item.index + 1}`}
                      first={item.index === 0}
                      last={item.index === rows.order.length - 1}
                      editable={editable && !row.locked}
                      onMove={(by) => move(item.index, item.index + by, null)}
                      onRemove={() => remove(item.index)}
                    />
                  </RowBody>
                </Box>
              );
            })}
          </Box>
        </Box>
      </Box>
      <SpotNotes {...props} spot={hint} />
      {field.scriptOnly !== true && (
        <Button data-add mt="4px" disabled={!editable || rows.order.length >= most} onClick={add}>
          {field.addLabel ?? 'Add a row'}
        </Button>
      )}
    </Box>
  );
}

function focusCell(
  root: HTMLElement | null,
  field: string,
  row: string,
  column: string | null,
): void {
  const cell = column === null ? '' : ` [data-column="${column}"]`;
  const element = root?.querySelector<HTMLElement>(
    `[data-part="${CSS.escape(`${field}#${row}`)}"]${cell} :is(input, select, textarea, button):not(:disabled)`,
  );
  element?.focus();
}

const ACTIONS_WIDTH = '76px';

function GridHead(props: RowsProps) {
  const { field } = props;
  return (
    <Box role="rowgroup" position="sticky" top={0} zIndex={1} bg="sheet">
      <Flex
        role="row"
        aria-rowindex={1}
        gap="6px"
        borderBottomWidth="1px"
        borderColor="line"
        px="2px"
      >
        {field.fields.map((cell, i) => (
          <Box
            role="columnheader"
            key={cell.name}
            {...(i === 0 ? STAYS : {})}
            {...widthOf(cell)}
            fontSize="12px"
            color="soft"
            lineHeight="16px"
            py="2px"
          >
            {cell.label}
            {unitOf(cell, props.zone ?? 'UTC') !== null && `, ${unitOf(cell, props.zone ?? 'UTC')}`}
            {props.names && (
              <chakra.span display="block" fontFamily="mono" fontSize="11px">
                {cell.name}
              </chakra.span>
            )}
          </Box>
        ))}
        {field.scriptOnly !== true && (
          <Box role="columnheader" width={ACTIONS_WIDTH} flexShrink={0}>
            <chakra.span srOnly>Move and remove</chakra.span>
          </Box>
        )}
      </Flex>
    </Box>
  );
}

/** The first column stays in sight while the others scroll. */
const STAYS = { position: 'sticky', left: 0, zIndex: 1, bg: 'sheet' } as const;

/** Numbers and dates need less room than texts. */
function widthOf(cell: Field): { flex: string; minW: string } {
  return cell.kind === 'text' || cell.kind === 'reference' || cell.kind === 'choice'
    ? { flex: '2 1 0', minW: '88px' }
    : { flex: '1.2 1 0', minW: '72px' };
}

function RowBody({
  stacked,
  id,
  place,
  row,
  children,
  ...props
}: RowsProps & {
  stacked: boolean;
  id: string;
  place: number;
  row: RowState;
  children: React.ReactNode;
}) {
  const { field, state } = props;
  const spots = field.fields.map((cell): Spot => ({
    field: cell,
    name: `${field.name}#${id}.${cell.name}`,
    address: `${field.name}[${place}].${cell.name}`,
    state: cellState(state, row, cell),
  }));
  const shown = spots.filter((spot) => spot.state.onScreen || spot.field.keepsSpace);
  if (stacked) {
    return (
      <Box borderTopWidth="1px" borderColor="line" py="4px">
        <Flex align="center" fontSize="12px" color="soft">
          Row {place + 1}
          <Box ml="auto">{field.scriptOnly !== true && children}</Box>
        </Flex>
        <RowNotes row={row} />
        <Box display="grid" gridTemplateColumns="repeat(2, minmax(0, 1fr))" columnGap="12px">
          {shown.map((spot) => (
            <Box
              key={spot.field.name}
              data-column={spot.field.name}
              gridColumn={spot.field.width === 'half' ? undefined : '1 / -1'}
            >
              {spot.state.onScreen && <FieldBlock {...props} spot={spot} />}
            </Box>
          ))}
        </Box>
      </Box>
    );
  }
  return (
    <Flex
      gap="6px"
      px="2px"
      py="3px"
      borderBottomWidth="1px"
      borderColor="line"
      align="flex-start"
      wrap={row.problem == null && row.warning == null ? 'nowrap' : 'wrap'}
    >
      {spots.map((spot, i) => (
        <Box
          role="cell"
          key={spot.field.name}
          {...widthOf(spot.field)}
          {...(i === 0 ? STAYS : {})}
          data-column={spot.field.name}
          data-part={spot.name}
          data-asked={props.asked === spot.name || undefined}
        >
          {spot.state.onScreen && (
            <>
              <SpotInput {...props} spot={spot} label={`${spot.field.label}, row ${place + 1}`} />
              <SpotNotes {...props} spot={spot} brief />
              {props.names && props.marked?.has(spot.name) && (
                <Name {...props} onInsert={undefined} part={spot.name} shown={spot.field.name} />
              )}
            </>
          )}
        </Box>
      ))}
      {field.scriptOnly !== true && (
        <Box role="cell" width={ACTIONS_WIDTH} flexShrink={0}>
          {children}
        </Box>
      )}
      {(row.problem != null || row.warning != null) && (
        <Box role="cell" width="100%">
          <RowNotes row={row} />
        </Box>
      )}
    </Flex>
  );
}

/** What is wrong with a row as a whole, or worth a warning. */
function RowNotes({ row }: { row: RowState }) {
  return (
    <>
      {row.problem != null && (
        <chakra.p color="bad" fontSize="12.5px">
          <span aria-hidden>× </span>
          {row.problem}
        </chakra.p>
      )}
      {row.warning != null && <Warning>{row.warning}</Warning>}
    </>
  );
}

function RowActions({
  label,
  first,
  last,
  editable,
  onMove,
  onRemove,
}: {
  label: string;
  first: boolean;
  last: boolean;
  editable: boolean;
  onMove: (by: number) => void;
  onRemove: () => void;
}) {
  const act = {
    look: 'text',
    color: 'soft',
    px: '5px',
    minW: '24px',
    minH: '24px',
    textDecoration: 'none',
  } as const;
  return (
    <Flex gap="0">
      <Button
        {...act}
        aria-label={`Move ${label} up`}
        title="Move up (Alt+↑)"
        disabled={!editable || first}
        onClick={() => onMove(-1)}
      >
        <span aria-hidden>↑</span>
      </Button>
      <Button
        {...act}
        aria-label={`Move ${label} down`}
        title="Move down (Alt+↓)"
        disabled={!editable || last}
        onClick={() => onMove(1)}
      >
        <span aria-hidden>↓</span>
      </Button>
      <Button
        {...act}
        aria-label={`Remove ${label}`}
        title="Remove this row"
        disabled={!editable}
        onClick={onRemove}
      >
        <span aria-hidden>×</span>
      </Button>
    </Flex>
  );
}
