'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { CornerUpLeft, GripVertical, Hash, PhoneOff, Repeat, Users } from 'lucide-react';
import { useId, useState } from 'react';
import { KEY_ACT_WORDS, KEY_LETTERS, PHONE_KEYS, type KeyAct } from '@/core/plan/facts/attendants';
import { Glyph } from '@/ui/glyph';
import type { KeyShown } from './data';

const ACT_SIGNS = {
  'ask extension': Hash,
  'ask name': Users,
  repeat: Repeat,
  back: CornerUpLeft,
  end: PhoneOff,
} as const satisfies Record<Exclude<KeyAct, 'lead'>, unknown>;

/** What stands on one key. */
export interface KeyFace {
  key: string;
  shown: KeyShown | null;
  /** where it leads */
  end: { kind: string; label: string } | null;
  /** seconds that a caller waits after it, since more digits could follow */
  waitSeconds: number | null;
  /** what the greeting says it is for, and nothing is set */
  promised: string | null;
}

/** The keys of a telephone, 3 × 4, each with its end; a key is moved to another by dragging, or with its handle and the arrow keys. */
export function Keypad({
  faces,
  selected,
  canEdit,
  onSelect,
  onMove,
}: {
  faces: readonly KeyFace[];
  selected: string;
  canEdit: boolean;
  onSelect: (key: string) => void;
  /** what stands on one key goes to another; what stood there comes here */
  onMove: (from: string, to: string) => void;
}) {
  const dragId = useId();
  const [told, setTold] = useState('');
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, {
      // A step of the arrow keys is a key further.
      coordinateGetter: (e, { context, currentCoordinates }) => {
        const over = context.droppableRects.get(String(context.active?.id ?? ''));
        if (!over) return undefined;
        const [dx, dy] = { ArrowRight: [1, 0], ArrowLeft: [-1, 0], ArrowDown: [0, 1], ArrowUp: [0, -1] }[e.code] ?? [];
        if (dx === undefined || dy === undefined) return undefined;
        e.preventDefault();
        return { x: currentCoordinates.x + dx * (over.width + 8), y: currentCoordinates.y + dy * (over.height + 8) };
      },
    }),
  );
  return (
    <DndContext
      id={dragId}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        if (!over || over.id === active.id) return;
        onMove(String(active.id), String(over.id));
        setTold(`Key ${active.id} is now key ${over.id}.`);
      }}
    >
      <Grid role="group" aria-label="Keypad" templateColumns="repeat(3, minmax(0, 1fr))" gap="8px" data-testid="keypad">
        {PHONE_KEYS.map((key) => (
          <Key
            key={key}
            face={faces.find((f) => f.key === key)!}
            selected={selected === key}
            canEdit={canEdit}
            onSelect={() => onSelect(key)}
          />
        ))}
      </Grid>
      <Box srOnly role="status">
        {told}
      </Box>
    </DndContext>
  );
}

function Key({
  face: { key, shown, end, waitSeconds, promised },
  selected,
  canEdit,
  onSelect,
}: {
  face: KeyFace;
  selected: boolean;
  canEdit: boolean;
  onSelect: () => void;
}) {
  const { setNodeRef: dropRef, isOver } = useDroppable({ id: key });
  const {
    setNodeRef: dragRef,
    listeners,
    attributes,
    transform,
  } = useDraggable({ id: key, disabled: !canEdit || !shown });
  return (
    <Box
      ref={dropRef}
      position="relative"
      minW={0}
      h="84px"
      border="1px solid"
      borderColor={selected ? 'plum' : shown?.mark ? 'saffron' : isOver ? 'plum' : 'line'}
      borderWidth={selected ? '2px' : '1px'}
      borderStyle={shown || selected ? 'solid' : 'dashed'}
      bg={shown?.mark ? 'saffronTint' : shown ? 'raised' : undefined}
      rounded="4px"
    >
      <chakra.button
        type="button"
        data-key={key}
        aria-pressed={selected}
        aria-label={`Key ${key}: ${said(shown, end, promised)}`}
        position="absolute"
        inset={0}
        p={selected ? '6px 8px' : '7px 9px'}
        textAlign="left"
        display="flex"
        flexDirection="column"
        onClick={onSelect}
      >
        <Flex align="baseline" gap="8px" w="100%">
          <chakra.span fontFamily="mono" fontSize="19px" lineHeight="22px" fontWeight={700}>
            {key}
          </chakra.span>
          <chakra.span fontFamily="mono" fontSize="11px" color="quiet" letterSpacing="0.08em">
            {(KEY_LETTERS[key] ?? '').toUpperCase()}
          </chakra.span>
        </Flex>
        <Box flex="1" />
        {shown ? (
          <Face shown={shown} end={end} />
        ) : (
          <chakra.span fontSize="13px" color={promised === null ? 'quiet' : 'brick'} lineClamp={2}>
            {promised === null ? 'wrong key' : `empty; the greeting says${promised ? ` ${promised}` : ' it'}`}
          </chakra.span>
        )}
      </chakra.button>
      {waitSeconds !== null && shown ? (
        <Box
          position="absolute"
          top="6px"
          right={canEdit ? '28px' : '6px'}
          bg="saffronTint"
          color="saffronText"
          rounded="3px"
          px="5px"
          fontSize="12px"
          pointerEvents="none"
        >
          waits {waitSeconds} s
        </Box>
      ) : null}
      {canEdit && shown ? (
        <chakra.button
          type="button"
          ref={dragRef}
          position="absolute"
          top="4px"
          right="4px"
          p="3px"
          color="quiet"
          cursor="grab"
          aria-label={`Move key ${key} to another`}
          style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)`, zIndex: 5 } : undefined}
          {...listeners}
          {...attributes}
          aria-describedby={undefined}
        >
          <GripVertical size={14} aria-hidden />
        </chakra.button>
      ) : null}
    </Box>
  );
}

function Face({ shown: { value }, end }: { shown: KeyShown; end: KeyFace['end'] }) {
  const Sign = value.does === 'lead' ? null : ACT_SIGNS[value.does];
  return (
    <>
      <Flex align="center" gap="6px" w="100%" minW={0}>
        {Sign ? <Sign size={15} aria-hidden /> : <Glyph kind={end?.kind ?? 'refused'} />}
        <chakra.span fontWeight={600} fontSize="14px" truncate>
          {value.does === 'lead' ? (end?.label ?? 'nowhere') : KEY_ACT_WORDS[value.does]}
        </chakra.span>
      </Flex>
      <chakra.span fontSize="12px" color="quiet">
        {value.does !== 'lead' ? ' ' : value.silent ? 'silently' : 'says so first'}
      </chakra.span>
    </>
  );
}

/** A key for who can't see it. */
function said(shown: KeyShown | null, end: KeyFace['end'], promised: string | null): string {
  if (!shown) return promised === null ? 'wrong key' : `empty, though the greeting names it`;
  const { does, silent } = shown.value;
  if (does !== 'lead') return KEY_ACT_WORDS[does];
  return `${end?.label ?? 'nowhere'}${silent ? '' : ', says so first'}`;
}
