'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Act, TextBox, TickBox } from './controls';

export interface Column<T> {
  key: string;
  title: string;
  /** text to sort, filter and copy by */
  text: (row: T) => string;
  cell?: (row: T) => ReactNode;
  /** CSS grid width */
  width: string;
  /** hidden until asked for */
  optional?: boolean;
  mono?: boolean;
}

interface LedgerProps<T> {
  rows: T[];
  columns: Column<T>[];
  idOf: (row: T) => string;
  hrefOf?: (row: T) => string;
  /** marks a row that differs from live */
  markOf?: (row: T) => 'new' | 'changed' | null;
  empty: ReactNode;
  /** what the n key opens */
  addHref?: string;
  /** what the d key opens: a new one like the row */
  likeHref?: (row: T) => string;
  /** row shown in the pane */
  onRow?: (row: T | null) => void;
  foot?: ReactNode;
  /** opens under these rows; without it selecting is for copying only */
  name: string;
}

const ROW = 32;

/** A table for long lists: sort, filter, choose columns, select, copy as CSV; by keyboard with j k Enter x; state in the URL. */
export function Ledger<T>({
  rows,
  columns,
  idOf,
  hrefOf,
  markOf,
  empty,
  addHref,
  likeHref,
  onRow,
  foot,
  name,
}: LedgerProps<T>) {
  const router = useRouter();
  const path = usePathname();
  const params = useSearchParams();
  const [text, setText] = useState(params.get('filter') ?? '');
  const sort = params.get('sort') ?? '';
  const shownKeys = (params.get('columns') ?? '').split(',').filter(Boolean);
  const shown = columns.filter((c) => (shownKeys.length > 0 ? shownKeys.includes(c.key) : !c.optional));
  const [at, setAt] = useState(-1);
  // The place as the last key left it: a key may come before the page is drawn again.
  const place = useRef(-1);
  const [selected, setSelected] = useState<ReadonlySet<string>>(new Set());
  const [choosing, setChoosing] = useState(false);
  const scroller = useRef<HTMLDivElement>(null);

  const put = (changes: Record<string, string>) => {
    const next = new URLSearchParams(params);
    for (const [k, v] of Object.entries(changes))
      if (v) next.set(k, v);
      else next.delete(k);
    window.history.replaceState(null, '', next.size > 0 ? `${path}?${next}` : path);
  };

  const visible = useMemo(() => {
    const words = text.toLowerCase().split(/\s+/).filter(Boolean);
    const found =
      words.length === 0 ? rows : rows.filter((r) => words.every((w) => columns.some((c) => holds(c.text(r), w))));
    const by = columns.find((c) => c.key === sort.replace('-', ''));
    if (!by) return found;
    const way = sort.startsWith('-') ? -1 : 1;
    return [...found].sort((a, b) => way * by.text(a).localeCompare(by.text(b), undefined, { numeric: true }));
  }, [rows, columns, text, sort]);

  const virtual = useVirtualizer({
    count: visible.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
  });

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || isTyping(e.target)) return;
      const move = (to: number) => {
        const next = Math.max(0, Math.min(visible.length - 1, to));
        place.current = next;
        setAt(next);
        virtual.scrollToIndex(next);
        onRow?.(visible[next] ?? null);
      };
      const row = visible[place.current];
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
      else if (e.key === 'x' && row) toggle(idOf(row));
      else if (e.key === 'n' && addHref) router.push(addHref);
      else if (e.key === 'd' && likeHref && row) router.push(likeHref(row));
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });

  const toggle = (id: string) => {
    const next = new Set(selected);
    if (!next.delete(id)) next.add(id);
    setSelected(next);
  };

  const copy = () => {
    const chosen = selected.size > 0 ? visible.filter((r) => selected.has(idOf(r))) : visible;
    const quote = (s: string) => (/[",\r\n]/.test(s) ? `"${s.replaceAll('"', '""')}"` : s);
    const lines = [shown.map((c) => c.title), ...chosen.map((r) => shown.map((c) => c.text(r)))].map((l) =>
      l.map(quote).join(','),
    );
    void navigator.clipboard.writeText(lines.join('\r\n') + '\r\n');
  };

  const grid = {
    display: 'grid',
    gridTemplateColumns: `24px ${shown.map((c) => c.width).join(' ')}`,
    columnGap: '12px',
    alignItems: 'center',
  } as const;
  if (rows.length === 0) return <>{empty}</>;
  return (
    <Box>
      <Flex gap="8px" align="center" mb="10px" wrap="wrap">
        <TextBox
          w="220px"
          placeholder="Filter these rows"
          aria-label={`Filter ${name}`}
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            put({ filter: e.target.value });
          }}
        />
        <Act onClick={() => setChoosing(!choosing)} aria-expanded={choosing}>
          Columns
        </Act>
        <Act onClick={copy}>{selected.size > 0 ? `Copy ${selected.size} as CSV` : 'Copy as CSV'}</Act>
        <Box ml="auto" color="quiet" fontSize="13px">
          {visible.length === rows.length
            ? `${rows.length} ${rows.length === 1 ? 'row' : 'rows'}`
            : `${visible.length} shown of ${rows.length}`}
        </Box>
      </Flex>
      {choosing ? (
        <Flex gap="14px" wrap="wrap" mb="10px" fontSize="13px">
          {columns.map((c) => (
            <Flex as="label" key={c.key} gap="6px" align="center">
              <TickBox
                type="checkbox"
                checked={shown.includes(c)}
                onChange={() => {
                  const next = columns.filter((o) => (o === c ? !shown.includes(c) : shown.includes(o)));
                  if (next.length > 0) put({ columns: next.map((o) => o.key).join() });
                }}
              />
              {c.title}
            </Flex>
          ))}
        </Flex>
      ) : null}
      <Box overflowX="auto" borderTop="1px solid" borderColor="line">
        <Box minW="fit-content" role="table" aria-label={name} aria-rowcount={visible.length + 1}>
          <Box
            {...grid}
            role="row"
            h={`${ROW}px`}
            borderBottom="1px solid"
            borderLeft="3px solid"
            borderColor="line"
            borderLeftColor="transparent"
            fontSize="12px"
            color="quiet"
          >
            <Box role="columnheader" aria-label="Selected" />
            {shown.map((c) => (
              <chakra.button
                key={c.key}
                role="columnheader"
                textAlign="left"
                color={sort.replace('-', '') === c.key ? 'plum' : 'quiet'}
                aria-sort={sort === c.key ? 'ascending' : sort === `-${c.key}` ? 'descending' : 'none'}
                onClick={() => put({ sort: sort === c.key ? `-${c.key}` : sort === `-${c.key}` ? '' : c.key })}
              >
                {c.title}
                {sort === c.key ? ' ↑' : sort === `-${c.key}` ? ' ↓' : ''}
              </chakra.button>
            ))}
          </Box>
          <Box ref={scroller} maxH="calc(100vh - 260px)" overflowY="auto">
            <Box position="relative" h={`${virtual.getTotalSize()}px`} minW="100%">
              {virtual.getVirtualItems().map((item) => {
                const row = visible[item.index]!;
                const id = idOf(row);
                const mark = markOf?.(row) ?? null;
                return (
                  <Box
                    {...grid}
                    key={id}
                    role="row"
                    aria-rowindex={item.index + 2}
                    data-row={id}
                    aria-current={item.index === at ? true : undefined}
                    position="absolute"
                    top={0}
                    left={0}
                    w="100%"
                    h={`${ROW}px`}
                    transform={`translateY(${item.start}px)`}
                    borderBottom="1px solid"
                    borderColor="line"
                    borderLeft="3px solid"
                    borderLeftColor={item.index === at ? 'plum' : mark ? 'saffron' : 'transparent'}
                    bg={item.index === at || selected.has(id) ? 'plumTint' : mark ? 'saffronTint' : undefined}
                    cursor={hrefOf ? 'pointer' : undefined}
                    _hover={{ bg: item.index === at ? 'plumTint' : mark ? 'saffronTint' : 'raised' }}
                    onMouseEnter={() => onRow?.(row)}
                    onClick={(e) => {
                      if ((e.target as HTMLElement).closest('a, input, button')) return;
                      if (hrefOf) router.push(hrefOf(row));
                    }}
                  >
                    <Box role="cell" lineHeight={0}>
                      <TickBox
                        type="checkbox"
                        ml="3px"
                        aria-label={`Select ${shown[0]!.text(row)}`}
                        checked={selected.has(id)}
                        onChange={() => toggle(id)}
                      />
                    </Box>
                    {shown.map((c, i) => (
                      <Box
                        key={c.key}
                        role="cell"
                        minW={0}
                        overflow="hidden"
                        textOverflow="ellipsis"
                        whiteSpace="nowrap"
                        fontFamily={c.mono ? 'mono' : undefined}
                        fontSize={c.mono ? '13px' : undefined}
                      >
                        {i === 0 && hrefOf ? (
                          <chakra.a
                            href={hrefOf(row)}
                            color="ink"
                            textDecoration="none"
                            onClick={(e) => {
                              if (e.ctrlKey || e.metaKey) return;
                              e.preventDefault();
                              router.push(hrefOf(row));
                            }}
                          >
                            {c.cell ? c.cell(row) : c.text(row)}
                          </chakra.a>
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
                      </Box>
                    ))}
                  </Box>
                );
              })}
            </Box>
          </Box>
          {visible.length === 0 ? (
            <Box py="20px" color="quiet">
              No row fits “{text}”.
            </Box>
          ) : null}
        </Box>
      </Box>
      {foot}
    </Box>
  );
}

/** Whether a cell's text holds a word; numbers are found with and without their blanks. */
function holds(text: string, word: string): boolean {
  const small = text.toLowerCase();
  return small.includes(word) || small.replace(/\s/g, '').includes(word);
}

/** Whether a key press goes into a field and so is none of ours. */
export function isTyping(target: EventTarget | null): boolean {
  const element = target as HTMLElement | null;
  return (
    !!element &&
    (/^(TEXTAREA|SELECT)$/.test(element.tagName) ||
      (element.tagName === 'INPUT' && !/^(checkbox|radio|button)$/.test((element as HTMLInputElement).type)) ||
      element.isContentEditable)
  );
}
