'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
  type Announcements,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { ArrowDown, ArrowUp, GripVertical } from 'lucide-react';
import { useId, useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import { Act } from './controls';

export interface OrderedItem {
  id: string;
  /** its name, for screen readers */
  name: string;
}

/** What a row gets to be moved by: a handle to drag (or space and arrow keys), and two arrows. */
export type MoveControls = { handle: ReactNode; arrows: ReactNode };

/**
 * A list that is read from top to bottom and put in order by dragging, by the handle's keys, or by arrows. The focus stays on
 * what was moved, and screen readers hear where it is now.
 */
export function OrderedList<T extends OrderedItem>({
  items,
  label,
  disabled = false,
  gap = '6px',
  onMove,
  children,
}: {
  items: readonly T[];
  label: string;
  disabled?: boolean;
  gap?: string;
  /** moves one right behind another; null: to the front */
  onMove: (id: string, after: string | null) => void;
  children: (item: T, index: number, controls: MoveControls) => ReactNode;
}) {
  const dragId = useId();
  const [told, setTold] = useState('');
  const focus = useRef<{ id: string; by: -1 | 1 } | null>(null);
  const list = useRef<HTMLDivElement>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const nameOf = (id: unknown) => items.find((i) => i.id === id)?.name ?? '';
  const placeOf = (id: unknown) => items.findIndex((i) => i.id === id) + 1;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${nameOf(active.id)} is lifted, place ${placeOf(active.id)} of ${items.length}.`,
    onDragOver: ({ active, over }) => (over ? `${nameOf(active.id)} over place ${placeOf(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) =>
      `${nameOf(active.id)} is put down at place ${over ? placeOf(over.id) : placeOf(active.id)}.`,
    onDragCancel: ({ active }) => `${nameOf(active.id)} stays where it was.`,
  };
  /** Moves an item to a place among the others as they stand now. */
  const place = (id: string, to: number) => {
    const others = items.filter((i) => i.id !== id);
    onMove(id, to === 0 ? null : others[to - 1]!.id);
  };
  const step = (index: number, by: -1 | 1) => {
    const to = index + by;
    if (disabled || to < 0 || to >= items.length) return;
    const item = items[index]!;
    focus.current = { id: item.id, by };
    setTold(`${item.name}: place ${to + 1} of ${items.length}.`);
    place(item.id, to);
  };
  // A row that is put elsewhere in the page loses the focus it had.
  useLayoutEffect(() => {
    const wanted = focus.current;
    if (!wanted) return;
    const button = list.current?.querySelector<HTMLElement>(`[data-move="${CSS.escape(wanted.id)} ${wanted.by}"]`);
    if (
      button &&
      document.activeElement !== button &&
      (document.activeElement === document.body || !document.activeElement)
    )
      button.focus();
  });
  return (
    <DndContext
      id={dragId}
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{
        announcements,
        screenReaderInstructions: {
          draggable: 'Space lifts it, the arrow keys move it, space puts it down, Escape leaves it where it was.',
        },
      }}
      onDragEnd={({ active, over }) => {
        if (!over || over.id === active.id) return;
        place(
          String(active.id),
          items.findIndex((i) => i.id === over.id),
        );
      }}
    >
      <SortableContext items={items.map((i) => i.id)} strategy={verticalListSortingStrategy} disabled={disabled}>
        <Flex
          ref={list}
          direction="column"
          gap={gap}
          role="list"
          aria-label={label}
          onBlur={(e) => {
            // Left by hand: what was moved has no claim on the focus any more.
            if (e.relatedTarget) focus.current = null;
          }}
        >
          {items.map((item, i) => (
            <Row key={item.id} item={item} disabled={disabled}>
              {(handle) =>
                children(item, i, {
                  handle,
                  arrows: (
                    <Flex gap="3px">
                      {([-1, 1] as const).map((by) => (
                        <Act
                          key={by}
                          h="24px"
                          px="5px"
                          data-move={`${item.id} ${by}`}
                          aria-label={`Move ${item.name} ${by < 0 ? 'up' : 'down'}`}
                          aria-disabled={by < 0 ? i === 0 : i === items.length - 1}
                          opacity={(by < 0 ? i === 0 : i === items.length - 1) ? 0.4 : undefined}
                          onClick={() => step(i, by)}
                        >
                          {by < 0 ? <ArrowUp size={14} /> : <ArrowDown size={14} />}
                        </Act>
                      ))}
                    </Flex>
                  ),
                })
              }
            </Row>
          ))}
        </Flex>
      </SortableContext>
      <chakra.span srOnly aria-live="polite">
        {told}
      </chakra.span>
    </DndContext>
  );
}

function Row({
  item,
  disabled,
  children,
}: {
  item: OrderedItem;
  disabled: boolean;
  children: (handle: ReactNode) => ReactNode;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: item.id,
    disabled,
  });
  const handle = disabled ? null : (
    <chakra.button
      ref={setActivatorNodeRef}
      type="button"
      {...attributes}
      {...listeners}
      aria-label={`Drag ${item.name}`}
      color="quiet"
      cursor={isDragging ? 'grabbing' : 'grab'}
      h="24px"
      touchAction="none"
    >
      <GripVertical size={16} />
    </chakra.button>
  );
  return (
    <Box
      ref={setNodeRef}
      role="listitem"
      position="relative"
      zIndex={isDragging ? 2 : undefined}
      style={{
        transform: transform ? `translate3d(0, ${transform.y}px, 0)` : undefined,
        transition,
      }}
    >
      {children(handle)}
    </Box>
  );
}
