'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import type { LedgerPage, LedgerRow } from '@/contract/plan';
import type { LedgerKind } from '@/core/plan';
import { call } from './api';
import { choiceWords } from '@/core/plan/facts/choice-words';
import { Act, SelectBox } from '@/ui/controls';
import { copyRows, useLedgerState, type Column } from '@/ui/ledger-state';
import { useLedgerTable } from '@/ui/ledger-table';
import { LedgerView, type LedgerLook } from '@/ui/ledger-view';

/** One way to choose rows besides text, such as by site. */
export interface Facet {
  name: string;
  title: string;
  options: { id: string; label: string }[];
}

/** Which rows are meant: those picked, or all that fit. */
export interface Chosen {
  ids: string[] | null;
  filter: string;
  facets: Record<string, string>;
  count: number;
}

interface PagedProps extends LedgerLook<LedgerRow> {
  kind: LedgerKind;
  /** cells that take longer than the rows: asked for what is in sight */
  late?: (ids: string[]) => Promise<Record<string, Record<string, string>> | null>;
  /** the first page, made with the page itself for the address it was asked with */
  first: LedgerPage;
  pageRows: number;
  columns: Column<LedgerRow>[];
  facets: readonly Facet[];
  empty: ReactNode;
  /** acts on the rows that are chosen; drawn beside the filter while there are any */
  acts?: (chosen: Chosen, clear: () => void) => ReactNode;
}

interface Loaded {
  query: string;
  first: LedgerPage;
  rows: ReadonlyMap<number, readonly LedgerRow[]>;
}

/** A ledger of any length: the server filters and sorts, pages come by key as they scroll into sight, and stay. */
export function PagedLedger({ kind, first, pageRows, columns, facets, empty, acts, late, ...look }: PagedProps) {
  const state = useLedgerState(columns);
  const { text, sort, shown } = state;
  const chosenFacets = Object.fromEntries(facets.map((f) => [f.name, state.param(f.name)]));
  const query = new URLSearchParams({ filter: text, sort, ...chosenFacets }).toString();
  const asking = useCallback(
    (of: string, after?: string, signal?: AbortSignal) =>
      call(
        'ledger',
        { params: { kind }, query: { ...Object.fromEntries(new URLSearchParams(of)), ...(after ? { after } : {}) } },
        signal,
      ),
    [kind],
  );
  const [initial] = useState(query);
  const [loaded, setLoaded] = useState<Loaded>({ query, first, rows: new Map([[0, first.rows]]) });
  const [all, setAll] = useState(false);
  // Pages on their way, of the first page they belong to: what is loaded anew is asked for anew.
  const asked = useRef({ of: first, pages: new Set<number>() });
  const latest = useRef({ query, version: first.draftVersion });

  // What the server drew anew (after an edit) replaces what was loaded, unless the reader has filtered since.
  const [drawn, setDrawn] = useState(first);
  if (drawn !== first) {
    setDrawn(first);
    if (query === initial) setLoaded({ query, first, rows: new Map([[0, first.rows]]) });
  }

  useEffect(() => {
    const stale = first.draftVersion !== latest.current.version;
    latest.current = { query, version: first.draftVersion };
    if (loaded.query === query && !(stale && query !== initial)) return;
    const aborter = new AbortController();
    void asking(query, undefined, aborter.signal).then((got) => {
      if (got.ok && latest.current.query === query)
        setLoaded({ query, first: got.value, rows: new Map([[0, got.value.rows]]) });
    });
    return () => aborter.abort();
  }, [asking, query, initial, loaded.query, first.draftVersion]);

  const onRange = useCallback(
    (from: number, to: number) => {
      for (let page = Math.floor(from / pageRows); page <= Math.floor(to / pageRows); page++) {
        const key = loaded.first.pages[page];
        if (asked.current.of !== loaded.first) asked.current = { of: loaded.first, pages: new Set() };
        const { pages } = asked.current;
        if (!key || loaded.rows.has(page) || pages.has(page)) continue;
        pages.add(page);
        void asking(loaded.query, key).then((got) => {
          if (!got.ok) return void pages.delete(page);
          setLoaded((now) =>
            now.first === loaded.first ? { ...now, rows: new Map(now.rows).set(page, got.value.rows) } : now,
          );
        });
      }
    },
    [asking, pageRows, loaded],
  );

  const here = useMemo(() => [...loaded.rows.values()].flat(), [loaded.rows]);
  const table = useLedgerTable({ rows: here, columns, state, idOf: look.idOf, manual: true });
  const { rowSelection } = table.state;
  // Rows that were chosen stay chosen when others are shown.
  const picked = useRef(new Map<string, LedgerRow>());
  const chosen = useMemo<Chosen>(
    () => ({
      ids: all ? null : Object.keys(rowSelection),
      filter: text,
      facets: Object.fromEntries(Object.entries(chosenFacets).filter(([, v]) => v !== '')),
      count: all ? loaded.first.count : Object.keys(rowSelection).length,
    }),
    // The facets are part of the query.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [all, rowSelection, query, loaded.first.count],
  );
  const clear = () => {
    table.setRowSelection({});
    setAll(false);
  };
  const cellsOf = useLate(loaded, late);
  const rowAt = (i: number) => withLate(loaded.rows.get(Math.floor(i / pageRows))?.[i % pageRows], cellsOf);
  /** The rows that are chosen, or all that fit: pages that are not here yet are fetched. */
  const everyRow = async (): Promise<LedgerRow[]> => {
    const ids = Object.keys(rowSelection);
    if (ids.length > 0 && !all) return ids.flatMap((id) => picked.current.get(id) ?? []);
    const out: LedgerRow[] = [];
    for (const [page, key] of loaded.first.pages.entries()) {
      const known = loaded.rows.get(page);
      if (known) out.push(...known);
      else {
        const got = await asking(query, key);
        if (got.ok) out.push(...got.value.rows);
      }
    }
    return out;
  };
  const narrowed = text !== '' || Object.values(chosenFacets).some((v) => v !== '');

  if (loaded.first.of === 0) return <>{empty}</>;
  return (
    <Box data-query={loaded.query}>
      {facets.length > 0 ? (
        <Flex gap="8px" wrap="wrap" mb="8px" align="center">
          {facets.map((f) => (
            <SelectBox
              key={f.name}
              aria-label={f.title}
              w="auto"
              maxW="200px"
              value={chosenFacets[f.name]}
              onChange={(e) => {
                clear();
                state.put({ [f.name]: e.target.value });
              }}
            >
              <option value="">{f.title}: all</option>
              {f.options.map((o) => (
                <option key={o.id} value={o.id}>
                  {o.label === o.id ? choiceWords(o.id) : o.label}
                </option>
              ))}
            </SelectBox>
          ))}
          {acts ? (
            chosen.count > 0 ? (
              <>
                {acts(chosen, clear)}
                <Act look="text" onClick={clear}>
                  Choose none
                </Act>
              </>
            ) : (
              <Act onClick={() => setAll(true)}>
                {narrowed ? `Choose these ${loaded.first.count}` : `Choose all ${loaded.first.count}`}
              </Act>
            )
          ) : null}
        </Flex>
      ) : null}
      <LedgerView
        {...look}
        state={state}
        table={table}
        columns={columns}
        count={loaded.first.count}
        of={loaded.first.of}
        rowAt={rowAt}
        onRange={onRange}
        selected={{
          has: (id) => all || rowSelection[id] === true,
          count: chosen.count,
          toggle: (id) => {
            for (const row of here) if (all || row.id === id) picked.current.set(row.id, row);
            // Of all that fit, those that are here stay chosen but for this one.
            table.setRowSelection((now) => {
              const next = all ? Object.fromEntries(here.map((r) => [r.id, true as const])) : { ...now };
              if (next[id]) delete next[id];
              else next[id] = true;
              return next;
            });
            setAll(false);
          },
        }}
        onCopy={() =>
          void everyRow().then(async (rows) => {
            const more = await lateCells(rows, late);
            copyRows(
              shown,
              rows.map((r) => withLate(r, more)!),
            );
          })
        }
      />
    </Box>
  );
}

type Cells = Readonly<Record<string, Record<string, string>>>;
type Late = ((ids: string[]) => Promise<Cells | null>) | undefined;

const withLate = (row: LedgerRow | undefined, cells: Cells): LedgerRow | undefined =>
  row && cells[row.id] ? { ...row, cells: { ...row.cells, ...cells[row.id] } } : row;

/** Rows asked for at once. */
const LATE_AT_ONCE = 300;

async function lateCells(rows: readonly LedgerRow[], late: Late): Promise<Cells> {
  if (!late) return {};
  const out: Record<string, Record<string, string>> = {};
  for (let at = 0; at < rows.length; at += LATE_AT_ONCE)
    Object.assign(out, await late(rows.slice(at, at + LATE_AT_ONCE).map((r) => r.id)));
  return out;
}

/** The late cells of every page that is here, asked for once each. */
function useLate(loaded: Loaded, late: Late): Cells {
  const [known, setKnown] = useState<{ of: LedgerPage | null; cells: Cells }>({ of: null, cells: {} });
  const asked = useRef({ of: loaded.first, pages: new Set<number>() });
  useEffect(() => {
    if (!late) return;
    if (asked.current.of !== loaded.first) asked.current = { of: loaded.first, pages: new Set() };
    const { pages } = asked.current;
    for (const [page, rows] of loaded.rows) {
      if (pages.has(page)) continue;
      pages.add(page);
      void lateCells(rows, late).then((cells) => {
        if (asked.current.of === loaded.first)
          setKnown((now) => ({ of: loaded.first, cells: { ...now.cells, ...cells } }));
      });
    }
  }, [loaded, late]);
  return known.cells;
}
