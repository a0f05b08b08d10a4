'use client';
/** The parts of the form as a tree, put in another order by drag and by keyboard; one of them is chosen. */
import { useMaterial } from '../common/use-bench';
import { chakra, Flex } from '@chakra-ui/react';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useRef } from 'react';
import { useStore } from 'zustand';
import { dropTarget, itemsOf, type Item } from '@/core/structure/tree';
import { BareButton, Button } from '../../kit';
import { Caption } from '../form/outline';
import { SortableList } from '../common/sortable-list';
import type { Bench } from '../create-bench';
import { useInSight } from '../common/use-in-sight';
import { PartList } from '../common/pane-parts';

export function StructureTree({ bench }: { bench: Bench }) {
  const structure = useStore(bench.structure.store);
  const material = useMaterial(bench);
  const { selected } = structure;
  const items = itemsOf(material.form);
  const root = useRef<HTMLDivElement>(null);
  const itemOf = (part: string) => items.find((item) => item.part === part)!;
  const dropped = (part: string, over: string) => {
    const target = dropTarget(items, itemOf(part), itemOf(over));
    if (target !== null) bench.structure.edit({ do: 'move', part, ...target });
  };
  // What is chosen elsewhere, or was just added, comes into sight.
  useInSight(root, 'item', selected);
  return (
    <PartList ref={root} label="Parts in their order">
      <Caption>
        <BareButton
          textAlign="left"
          aria-current={selected === null || undefined}
          color={selected === null ? 'ink' : 'soft'}
          fontWeight={selected === null ? 620 : 400}
          title="Title, settings and launch parameters of the form"
          onClick={() => bench.structure.select(null)}
        >
          Form as a whole
        </BareButton>
      </Caption>
      <SortableList id="structure" items={items.map((item) => item.part)} onDrop={dropped}>
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
      </SortableList>
    </PartList>
  );
}

function PartLine({
  item,
  bench,
  on,
  last,
}: {
  item: Item;
  bench: Bench;
  on: boolean;
  last: boolean;
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: item.part,
  });
  const move = (by: number) =>
    bench.structure.edit({ do: 'move', part: item.part, into: item.into, at: item.at + by });
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
      <BareButton
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
      </BareButton>
      <BareButton
        flex="1"
        minW={0}
        textAlign="left"
        display="flex"
        gap="6px"
        py="1px"
        alignItems="baseline"
        title={`${item.label} · ${item.name}`}
        fontWeight={item.sort === 'page' || item.sort === 'section' ? 620 : 400}
        aria-current={on || undefined}
        onClick={() => bench.structure.select(item.part)}
      >
        <chakra.span overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
          {item.label}
        </chakra.span>
      </BareButton>
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
