'use client';
/**
 * The structure of the form: its parts as a tree that can be added to, cut down and put in another order, by drag and by
 * keyboard; beside it the definition of the part chosen. Everything is in force in the live form and in the editor at once.
 */
import { Box, chakra, Flex } from '@chakra-ui/react';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useState } from 'react';
import { useStore } from 'zustand';
import type { FieldKind, Form } from '@/core/form/definition';
import { editedSoundly } from '@/core/structure/checked-edit';
import {
  nameFor,
  namesTaken,
  newField,
  placeOf,
  type Definition,
  type PartName,
  type PartSort,
} from '@/core/structure/edit';
import { Button, Line, Mono, Notice, Select } from '../kit';
import { Definition as DefinitionPane, FormDefinition } from './structure-part';
import type { BenchMaterial, BenchStore } from './store';

interface Item {
  part: PartName;
  sort: PartSort;
  into: PartName | null;
  at: number;
  depth: number;
  label: string;
  name: string;
}

/** The parts as the lines of the tree. */
export function itemsOf(form: Form): Item[] {
  const items: Item[] = [];
  const add = (
    sort: PartSort,
    into: PartName | null,
    at: number,
    depth: number,
    part: PartName,
    definition: Definition,
  ) =>
    items.push({
      part,
      sort,
      into,
      at,
      depth,
      label: 'label' in definition ? definition.label : definition.title,
      name: definition.name,
    });
  form.pages.forEach((page, p) => {
    add('page', null, p, 0, page.name, page);
    page.sections.forEach((section, s) => {
      add('section', page.name, s, 1, section.name, section);
      section.fields.forEach((field, f) => {
        add('field', section.name, f, 2, field.name, field);
        if (field.kind === 'rows')
          field.fields.forEach((cell, c) =>
            add('cell', field.name, c, 3, `${field.name}.${cell.name}`, cell),
          );
      });
    });
  });
  form.buttons?.forEach((button, b) => add('button', null, b, 0, button.name, button));
  form.tracks?.forEach((track, t) => add('track', null, t, 0, track.name, track));
  form.children?.forEach((list, l) => add('list', null, l, 0, list.name, list));
  return items;
}

/** Where a part dropped on another goes: into the same list at its place, or to the beginning of what can hold it. */
export function dropTarget(
  items: readonly Item[],
  dragged: Item,
  over: Item,
): { into: PartName | null; at: number } | null {
  if (over.sort === dragged.sort) return { into: over.into, at: over.at };
  if (dragged.sort === 'field' && over.sort === 'section') return { into: over.part, at: 0 };
  if (dragged.sort === 'field' && over.sort === 'cell')
    return dropTarget(
      items,
      dragged,
      items.find((item) => item.part === over.into)!,
    );
  if (dragged.sort === 'section' && over.sort === 'page') return { into: over.part, at: 0 };
  if (dragged.sort === 'section' && over.sort === 'field')
    return dropTarget(
      items,
      dragged,
      items.find((item) => item.part === over.into)!,
    );
  if (
    dragged.sort === 'cell' &&
    over.sort === 'field' &&
    items.some((item) => item.into === over.part)
  )
    return { into: over.part, at: 0 };
  return null;
}

export function StructurePane({ bench }: { bench: BenchStore }) {
  const { structure, material } = useStore(bench.store);
  const { form } = material;
  const { selected, says, saving, history } = structure;
  useState(() => bench.editStructureBy(editedSoundly));
  const items = itemsOf(form);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over === null || over.id === active.id) return;
    const dragged = items.find((item) => item.part === active.id)!;
    const target = dropTarget(
      items,
      dragged,
      items.find((item) => item.part === over.id)!,
    );
    if (target !== null) bench.editStructure({ do: 'move', part: dragged.part, ...target });
  };
  return (
    <Flex direction="column" flex="1" minH={0}>
      <Flex
        px="14px"
        py="6px"
        gap="8px"
        align="center"
        borderBottomWidth="1px"
        borderColor="line"
        flexShrink={0}
        wrap="wrap"
      >
        <Add bench={bench} />
        <Button
          ml="auto"
          disabled={history.past.length === 0}
          onClick={bench.undoStructure}
          title="Undo the last edit of the structure"
        >
          Undo
        </Button>
        <Button disabled={history.future.length === 0} onClick={bench.redoStructure}>
          Redo
        </Button>
      </Flex>
      {says !== null && (
        <Box px="14px" pt="6px">
          <Notice tone="error">{says}</Notice>
        </Box>
      )}
      {saving.state === 'conflict' && (
        <Box px="14px" pt="6px">
          <Notice tone="warning">
            Somebody else changed the structure meanwhile. Nothing is overwritten until you choose.
            <Flex gap="8px" mt="6px">
              <Button onClick={() => bench.settleStructure('mine')}>Keep mine</Button>
              <Button onClick={() => bench.settleStructure('theirs')}>Take theirs</Button>
            </Flex>
          </Notice>
        </Box>
      )}
      <Flex flex="1" minH={0}>
        <Box
          width="46%"
          overflowY="auto"
          py="6px"
          borderRightWidth="1px"
          borderColor="line"
          role="region"
          aria-label="Parts in their order"
          tabIndex={0}
        >
          <DndContext
            id="structure"
            sensors={sensors}
            collisionDetection={closestCenter}
            onDragEnd={dropped}
          >
            <SortableContext
              items={items.map((item) => item.part)}
              strategy={verticalListSortingStrategy}
            >
              {items.map((item) => (
                <PartLine
                  key={item.part}
                  item={item}
                  bench={bench}
                  on={item.part === selected}
                  last={
                    !items.some(
                      (other) =>
                        other.sort === item.sort && other.into === item.into && other.at > item.at,
                    )
                  }
                />
              ))}
            </SortableContext>
          </DndContext>
        </Box>
        <Box
          flex="1"
          minW={0}
          overflowY="auto"
          overflowX="hidden"
          p="12px"
          role="region"
          aria-label="The part chosen"
          tabIndex={0}
        >
          {selected === null ? (
            <FormDefinition bench={bench} />
          ) : (
            <DefinitionPane key={`${selected}`} bench={bench} part={selected} />
          )}
        </Box>
      </Flex>
      <Flex
        px="14px"
        py="6px"
        borderTopWidth="1px"
        borderColor="line"
        color="soft"
        fontSize="13px"
        minH="33px"
        role="status"
      >
        <span>{items.filter((item) => item.sort === 'field').length} fields</span>
        <chakra.span ml="auto" color={saving.state === 'unsaved' ? 'bad' : 'soft'}>
          {saving.state === 'saved'
            ? 'structure saved'
            : saving.state === 'waiting'
              ? 'saving…'
              : saving.state === 'conflict'
                ? 'two versions'
                : `not saved: ${saving.says} Tried again on its own.`}
        </chakra.span>
      </Flex>
    </Flex>
  );
}

function PartLine({
  item,
  bench,
  on,
  last,
}: {
  item: Item;
  bench: BenchStore;
  on: boolean;
  last: boolean;
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: item.part,
  });
  const move = (by: number) =>
    bench.editStructure({ do: 'move', part: item.part, into: item.into, at: item.at + by });
  const act = {
    look: 'text',
    color: 'soft',
    px: '4px',
    minW: '22px',
    minH: '22px',
    textDecoration: 'none',
    fontSize: '12px',
  } as const;
  return (
    <Flex
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition: transition ?? undefined }}
      align="center"
      pl={`${6 + item.depth * 12}px`}
      pr="6px"
      bg={isDragging ? 'saidGround' : on ? 'actGround' : undefined}
      position="relative"
      zIndex={isDragging ? 2 : undefined}
      data-item={item.part}
    >
      <chakra.button
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move ${item.label}`}
        title="Drag, or press Space and use the arrow keys"
        cursor="grab"
        color="soft"
        px="4px"
        minH="22px"
        touchAction="none"
      >
        <span aria-hidden>⋮⋮</span>
      </chakra.button>
      <chakra.button
        type="button"
        flex="1"
        minW={0}
        textAlign="left"
        cursor="pointer"
        display="flex"
        gap="6px"
        py="1px"
        alignItems="baseline"
        fontWeight={item.sort === 'page' || item.sort === 'section' ? 620 : 400}
        aria-current={on || undefined}
        onClick={() => bench.select(item.part)}
      >
        <chakra.span overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
          {item.label}
        </chakra.span>
        <Mono color="soft" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap" ml="auto">
          {item.name}
        </Mono>
      </chakra.button>
      {on && (
        <>
          <Button
            {...act}
            disabled={item.at === 0}
            aria-label={`${item.label} up`}
            onClick={() => move(-1)}
          >
            ↑
          </Button>
          <Button
            {...act}
            disabled={last}
            aria-label={`${item.label} down`}
            onClick={() => move(1)}
          >
            ↓
          </Button>
        </>
      )}
    </Flex>
  );
}

const KIND_LABELS: Readonly<Record<FieldKind, string>> = {
  text: 'Text',
  number: 'Number',
  money: 'Money',
  date: 'Date',
  time: 'Time',
  datetime: 'Date and time',
  yes_no: 'Yes or no',
  choice: 'Choice',
  choices: 'Several choices',
  reference: 'Reference',
  file: 'File',
  rows: 'Rows',
};
const KINDS = Object.entries(KIND_LABELS).map(([key, label]) => ({ key: key as FieldKind, label }));

/** Adds a part after the one that is chosen, or into it. */
function Add({ bench }: { bench: BenchStore }) {
  const { structure, material } = useStore(bench.store);
  const [what, setWhat] = useState<string>('text');
  const [label, setLabel] = useState('');
  const { form, tables } = material;
  const frames = [
    { key: '@section', label: 'Section' },
    { key: '@page', label: 'Page' },
    { key: '@button', label: 'Button' },
    { key: '@track', label: 'Track' },
    { key: '@list', label: 'List of records' },
  ];
  const add = () => {
    const text = label.trim();
    if (text === '') return;
    const target = targetFor(form, structure.selected, what);
    const name = nameFor(text, namesTaken(form, target));
    const definition =
      what === '@list'
        ? listFor(material.others, name, text)
        : definitionFor(form, what, name, text, tables[0]?.name ?? null);
    if (definition === null || !bench.editStructure({ do: 'add', ...target, definition })) return;
    setLabel('');
    bench.select(target.sort === 'cell' ? `${target.into}.${name}` : name);
  };
  return (
    <Flex gap="6px" align="center">
      <Select
        aria-label="What to add"
        value={what}
        options={[...KINDS, ...frames]}
        onChange={(event) => setWhat(event.target.value)}
      />
      <Line
        aria-label="Label of the new part"
        placeholder="Label"
        width="130px"
        value={label}
        onChange={(event) => setLabel(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') add();
        }}
      />
      <Button disabled={label.trim() === ''} onClick={add}>
        Add
      </Button>
    </Flex>
  );
}

/** The list a new part goes to, and its place there. */
function targetFor(
  form: Form,
  selected: PartName | null,
  what: string,
): { sort: PartSort; into: PartName | null; at: number } {
  const place = selected === null ? null : placeOf(form, selected);
  const end = Number.MAX_SAFE_INTEGER;
  if (what === '@page')
    return { sort: 'page', into: null, at: place?.sort === 'page' ? place.at + 1 : end };
  if (what === '@button') return { sort: 'button', into: null, at: end };
  if (what === '@track') return { sort: 'track', into: null, at: end };
  if (what === '@list') return { sort: 'list', into: null, at: end };
  if (what === '@section') {
    if (place?.sort === 'section') return { sort: 'section', into: place.into, at: place.at + 1 };
    return {
      sort: 'section',
      into: place?.sort === 'page' ? selected : form.pages.at(-1)!.name,
      at: end,
    };
  }
  if (place?.sort === 'cell') return { sort: 'cell', into: place.into, at: place.at + 1 };
  if (
    place?.sort === 'field' &&
    'kind' in place.definition &&
    place.definition.kind === 'rows' &&
    what !== 'rows'
  )
    return { sort: 'cell', into: selected, at: end };
  if (place?.sort === 'field') return { sort: 'field', into: place.into, at: place.at + 1 };
  return {
    sort: 'field',
    into: place?.sort === 'section' ? selected : form.pages.at(-1)!.sections.at(-1)!.name,
    at: end,
  };
}

/** A list of the first other form's records; which form and by which field is chosen after. */
function listFor(others: BenchMaterial['others'], name: string, title: string): Definition | null {
  const other = others.find(({ fields }) => fields.length > 0);
  const field = other?.fields[0];
  return other === undefined || field === undefined
    ? null
    : { name, title, form: other.name, field: field.key, launch: field.key, columns: [field.key] };
}

function definitionFor(
  form: Form,
  what: string,
  name: string,
  label: string,
  table: string | null,
): Definition | null {
  switch (what) {
    case '@page': {
      const section = nameFor(
        `${name} part`,
        new Set([...namesTaken(form, { sort: 'page', into: null }), name]),
      );
      return { name, title: label, sections: [{ name: section, title: label, fields: [] }] };
    }
    case '@section':
      return { name, title: label, fields: [] };
    case '@button':
      return { name, label };
    case '@track':
      return { name, title: label, stages: [{ key: 'first', label: 'First' }] };
    default:
      // Without a table there is nothing a reference could refer to; the tables page adds one.
      return what === 'reference' && table === null
        ? null
        : newField(what as FieldKind, name, label, table);
  }
}
