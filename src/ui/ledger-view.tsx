'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRouter } from 'next/navigation';
import { memo, useCallback, useEffect, useRef, useState, type ReactNode } from 'react';
import { ColumnChooser } from './column-chooser';
import { Act, TextBox, TickBox } from './controls';
import type { LedgerTable } from './ledger-table';
import { isTyping, type Column, type LedgerState } from './ledger-state';

/** What both kinds of ledger are given by their page. */
export interface LedgerLook<T> {
  idOf: (row: T) => string;
  hrefOf?: (row: T) => string;
  /** marks a row that differs from live */
  markOf?: (row: T) => 'new' | 'changed' | null;
  /** what the n key opens, or does where one is added on this page */
  addHref?: string;
  onAdd?: () => void;
  /** what the d key opens: a new one like the row */
  likeHref?: (row: T) => string;
  /** row shown in the pane */
  onRow?: (row: T | null) => void;
  name: string;
}

interface ViewProps<T extends object> extends LedgerLook<T> {
  state: LedgerState<T>;
  table: LedgerTable<T>;
  columns: readonly Column<T>[];
  /** rows that fit, and rows in all */
  count: number;
  of: number;
  /** what is told of their number where nobody knows how many there are: then the page has its own filter too */
  counted?: string;
  /** a row by its place; undefined while it is on its way */
  rowAt: (place: number) => T | undefined;
  /** told which rows are in sight */
  onRange?: (first: number, last: number) => void;
  selected: { has: (id: string) => boolean; count: number; toggle: (id: string) => void };
  /** beside the filter */
  tools?: ReactNode;
  onCopy: () => void;
}

const ROW = 32;

/** A table for long lists: only rows in sight are drawn; by keyboard with j k Enter x. */
export function LedgerView<T extends object>({
  state,
  table,
  columns,
  count,
  of,
  counted,
  rowAt,
  onRange,
  selected,
  tools,
  onCopy,
  idOf,
  hrefOf,
  markOf,
  addHref,
  onAdd,
  likeHref,
  onRow,
  name,
}: ViewProps<T>) {
  const router = useRouter();
  const { text, shown } = state;
  const byKey = new Map(columns.map((c) => [c.key, c]));
  const heads = table.getVisibleLeafColumns();
  const [at, setAt] = useState(-1);
  // The place as the last key left it: a key may come before the page is drawn again.
  const place = useRef(-1);
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 6,
    // The head of the table stays in sight above the rows.
    scrollMargin: ROW,
    scrollPaddingStart: ROW,
  });

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || isTyping(e.target)) return;
      const move = (to: number) => {
        const next = Math.max(0, Math.min(count - 1, to));
        place.current = next;
        setAt(next);
        virtual.scrollToIndex(next);
        onRow?.(rowAt(next) ?? null);
      };
      const row = rowAt(place.current);
      if (e.key === 'j') move(place.current + 1);
      else if (e.key === 'k') move(place.current - 1);
      else if (
        (e.key === 'Enter' || e.key === 'e') &&
        row &&
        hrefOf &&
        document.activeElement?.tagName !== 'BUTTON' &&
        document.activeElement?.tagName !== 'A'
      )
        router.push(hrefOf(row));
      else if (e.key === 'x' && row) selected.toggle(idOf(row));
      else if (e.key === 'n' && addHref) router.push(addHref);
      else if (e.key === 'n' && onAdd) onAdd();
      else if (e.key === 'd' && likeHref && row) router.push(likeHref(row));
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });

  const items = virtual.getVirtualItems();
  const [first, last] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  useEffect(() => onRange?.(first, last), [onRange, first, last]);

  const grid = gridOf(shown);
  // Rows are drawn anew only when something of theirs changes; what they call is always the newest.
  const now = useRef({ selected, onRow });
  useEffect(() => {
    now.current = { selected, onRow };
  });
  const toggleNow = useCallback((id: string) => now.current.selected.toggle(id), []);
  const pointNow = useCallback((row: unknown) => now.current.onRow?.(row as T), []);
  return (
    <Box>
      <Flex gap="8px" align="center" mb="10px" wrap="wrap">
        {counted === undefined ? (
          <TextBox
            w="220px"
            placeholder="Filter these rows"
            aria-label={`Filter ${name}`}
            value={text}
            onChange={(e) => state.setText(e.target.value)}
          />
        ) : null}
        <ColumnChooser columns={columns} shown={shown} onShow={state.show} />
        <Act onClick={onCopy}>{selected.count > 0 ? `Copy ${selected.count} as CSV` : 'Copy as CSV'}</Act>
        {tools}
        <Box ml="auto" color="quiet" fontSize="13px">
          {counted ?? (count === of ? `${of} ${of === 1 ? 'row' : 'rows'}` : `${count} shown of ${of}`)}
        </Box>
      </Flex>
      <Box
        ref={scroller}
        overflow="auto"
        maxH="calc(100vh - 228px)"
        borderTop="1px solid"
        borderColor="line"
        data-testid="ledger-scroller"
      >
        <Box minW="fit-content" role="table" aria-label={name} aria-rowcount={count + 1}>
          <Box
            {...grid}
            role="row"
            h={`${ROW}px`}
            position="sticky"
            top={0}
            zIndex={3}
            bg="paper"
            borderBottom="1px solid"
            borderLeft="3px solid"
            borderColor="line"
            borderLeftColor="transparent"
            fontSize="12px"
            color="quiet"
          >
            <Box role="columnheader" aria-label="Selected" {...PINNED} left={0} bg="paper" />
            {heads.map((head) => {
              const sorted = head.getIsSorted();
              const pinned = head.getIsPinned();
              return (
                <chakra.button
                  key={head.id}
                  role="columnheader"
                  textAlign="left"
                  {...(pinned ? { ...PINNED, left: `${PIN_AT}px`, bg: 'paper' } : {})}
                  color={sorted ? 'plum' : 'quiet'}
                  aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
                  disabled={!head.getCanSort()}
                  onClick={head.getToggleSortingHandler()}
                >
                  {byKey.get(head.id)!.title}
                  {sorted ? (sorted === 'asc' ? ' ↑' : ' ↓') : ''}
                </chakra.button>
              );
            })}
          </Box>
          <Box position="relative" h={`${virtual.getTotalSize()}px`} minW="100%">
            {items.map((item) => {
              const row = rowAt(item.index);
              if (!row) return <Waiting key={item.key} top={item.start - ROW} />;
              const id = idOf(row);
              return (
                <DrawnRow
                  key={id}
                  id={id}
                  index={item.index}
                  top={item.start - ROW}
                  row={row}
                  shown={shown as Column<unknown>[]}
                  href={hrefOf?.(row)}
                  mark={markOf?.(row) ?? null}
                  current={item.index === at}
                  selected={selected.has(id)}
                  onToggle={toggleNow}
                  onPoint={pointNow}
                />
              );
            })}
          </Box>
          {count === 0 ? (
            <Box py="20px" color="quiet">
              {text === '' ? 'Nothing fits what is chosen above.' : `Nothing here has “${text}”.`}
            </Box>
          ) : null}
        </Box>
      </Box>
    </Box>
  );
}

/** Width of the column of ticks, of the gap between columns, and where the pinned column begins. */
const TICK = 24;
const GAP = 12;
const PIN_AT = TICK + GAP;
/** What stays in sight when the rest is moved sideways. */
const PINNED = { position: 'sticky', zIndex: 2 } as const;

const gridOf = (shown: readonly { width: string }[]) =>
  ({
    display: 'grid',
    gridTemplateColumns: `${TICK}px ${shown.map((c) => c.width).join(' ')}`,
    columnGap: `${GAP}px`,
    alignItems: 'center',
  }) as const;

/* Cells are many: plain elements are drawn several times as fast as styled ones. */
const CELL = { minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' } as const;
const MONO_CELL = { ...CELL, fontFamily: 'var(--chakra-fonts-mono)', fontSize: '13px' } as const;
/* What moves sideways goes under the pinned cells: they have the row's own ground. */
const CELL_BG = {
  background: 'var(--row-ground)',
  alignSelf: 'stretch',
  display: 'flex',
  alignItems: 'center',
} as const;
const PINNED_CELL = {
  ...PINNED,
  left: PIN_AT,
  background: 'var(--row-ground)',
  lineHeight: '31px',
  height: 31,
} as const;
const cellStyle = (pinned: boolean, mono = false) =>
  pinned ? { ...(mono ? MONO_CELL : CELL), ...PINNED_CELL } : mono ? MONO_CELL : CELL;
const LINK = { color: 'inherit', textDecoration: 'none' } as const;

interface RowProps {
  id: string;
  index: number;
  top: number;
  row: unknown;
  shown: readonly Column<unknown>[];
  href: string | undefined;
  mark: 'new' | 'changed' | null;
  current: boolean;
  selected: boolean;
  onToggle: (id: string) => void;
  onPoint: (row: unknown) => void;
}

const DrawnRow = memo(function DrawnRow(props: RowProps) {
  const { id, index, top, row, shown, href, mark, current, selected, onToggle, onPoint } = props;
  const router = useRouter();
  return (
    <Box
      {...gridOf(shown)}
      role="row"
      aria-rowindex={index + 2}
      data-row={id}
      aria-current={current ? true : undefined}
      position="absolute"
      top={0}
      left={0}
      w="100%"
      h={`${ROW}px`}
      style={{ transform: `translateY(${top}px)` }}
      borderBottom="1px solid"
      borderColor="line"
      borderLeft="3px solid"
      borderLeftColor={current ? 'plum' : mark ? 'saffron' : 'transparent'}
      css={{
        '--row-ground': `{colors.${current || selected ? 'plumTint' : mark ? 'saffronTint' : 'paper'}}`,
        '&:hover': { '--row-ground': `{colors.${current ? 'plumTint' : mark ? 'saffronTint' : 'raised'}}` },
        background: 'var(--row-ground)',
      }}
      cursor={href ? 'pointer' : undefined}
      onMouseEnter={() => onPoint(row)}
      onClick={(e) => {
        if ((e.target as HTMLElement).closest('a, input, button')) return;
        if (href) router.push(href);
      }}
    >
      <div role="cell" style={{ ...PINNED, ...CELL_BG, left: 0, lineHeight: 0 }}>
        <TickBox
          type="checkbox"
          ml="3px"
          aria-label={`Select ${shown[0]!.text(row)}`}
          checked={selected}
          onChange={() => onToggle(id)}
        />
      </div>
      {shown.map((c, i) => (
        <div key={c.key} role="cell" style={cellStyle(i === 0, c.mono)}>
          {i === 0 && href ? (
            <a
              href={href}
              style={LINK}
              onClick={(e) => {
                if (e.ctrlKey || e.metaKey) return;
                e.preventDefault();
                router.push(href);
              }}
            >
              {c.cell ? c.cell(row) : c.text(row)}
            </a>
          ) : c.cell ? (
            c.cell(row)
          ) : (
            c.text(row)
          )}
          {i === 1 && mark === 'new' ? (
            <chakra.span ml="6px" fontSize="12px" color="saffronText">
              new
            </chakra.span>
          ) : null}
        </div>
      ))}
    </Box>
  );
});

/** A row that is on its way. */
function Waiting({ top }: { top: number }) {
  return (
    <Box
      position="absolute"
      left={0}
      w="100%"
      h={`${ROW}px`}
      transform={`translateY(${top}px)`}
      borderBottom="1px solid"
      borderColor="line"
      aria-hidden
    />
  );
}
