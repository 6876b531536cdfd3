'use client';

import { keepPreviousData, queryOptions, useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo, useState } from 'react';
import type { LedgerPage, LedgerRow } from '@/contract/plan';
import type { LedgerKind } from '@/core/plan';
import { drawingOf } from '@/ui/drawing';
import { call } from './api';

type Cells = Readonly<Record<string, Record<string, string>>>;
/** Asks for cells that take longer than their rows, by id of row. */
export type Late = (ids: string[]) => Promise<Cells | null>;

/** The first page of what was asked for, and what it was asked with. */
interface Shown {
  query: string;
  /** which drawing of the page it belongs to: every drawing begins anew */
  drawing: number;
  page: LedgerPage;
}

export interface PagedRows {
  /** what the rows that are shown were asked with */
  query: string;
  page: LedgerPage;
  rowAt: (index: number) => LedgerRow | undefined;
  /** the rows that are here */
  here: readonly LedgerRow[];
  /** these come into sight */
  onRange: (from: number, to: number) => void;
  /** every row that fits, with its late cells; pages that are not here yet are fetched */
  every: () => Promise<LedgerRow[]>;
  withLateCells: (rows: readonly LedgerRow[]) => Promise<LedgerRow[]>;
  wrong: string | null;
}

/** Rows whose late cells are asked for at once. */
const LATE_AT_ONCE = 300;

const ledgerPage = (kind: LedgerKind, query: string, drawing: number, after?: string) =>
  queryOptions({
    queryKey: ['ledger', kind, drawing, query, after ?? null],
    queryFn: async ({ signal }): Promise<Shown> => {
      const asked = { ...Object.fromEntries(new URLSearchParams(query)), ...(after ? { after } : {}) };
      const got = await call('ledger', { params: { kind }, query: asked }, signal);
      if (!got.ok) throw new Error(got.errors[0]!.sentence);
      return { query, drawing, page: got.value };
    },
    staleTime: Infinity,
    retry: 1,
  });

async function lateCells(rows: readonly LedgerRow[], late: Late): Promise<Cells> {
  const out: Record<string, Record<string, string>> = {};
  for (let at = 0; at < rows.length; at += LATE_AT_ONCE)
    Object.assign(out, await late(rows.slice(at, at + LATE_AT_ONCE).map((r) => r.id)));
  return out;
}

const withCells = (row: LedgerRow, cells: Cells): LedgerRow =>
  cells[row.id] ? { ...row, cells: { ...row.cells, ...cells[row.id] } } : row;

/**
 * The rows of a ledger of any length, for a filter, an order and facets (`query`). The first page comes with the page itself; what is
 * asked otherwise, and what scrolls into sight, is fetched. While something else is asked for, what was shown stays.
 */
export function usePagedRows(
  kind: LedgerKind,
  first: LedgerPage,
  query: string,
  pageRows: number,
  late?: Late,
): PagedRows {
  const client = useQueryClient();
  const [initial] = useState(query);
  // What the server drew anew (after an edit, after going live) begins anew.
  const drawing = drawingOf(first);
  const brought: Shown = { query, drawing, page: first };
  const asked = useQuery({
    ...ledgerPage(kind, query, drawing),
    initialData: query === initial ? brought : undefined,
    placeholderData: keepPreviousData,
  });
  const [kept, setKept] = useState<Shown>(brought);
  if (asked.data && asked.data !== kept) setKept(asked.data);
  const shown = asked.data ?? kept;

  const [wanted, setWanted] = useState<{ of: LedgerPage; pages: readonly number[] }>({ of: shown.page, pages: [] });
  const pages = wanted.of === shown.page ? wanted.pages : NONE;
  const optionsOf = useCallback(
    (page: number) => ledgerPage(kind, shown.query, shown.drawing, shown.page.pages[page] ?? undefined),
    [kind, shown],
  );
  const fetched = useQueries({ queries: pages.map(optionsOf), combine: rowsOf });
  const rows = useMemo(() => {
    const all = new Map<number, readonly LedgerRow[]>([[0, shown.page.rows]]);
    pages.forEach((page, i) => fetched[i] && all.set(page, fetched[i]));
    return all;
  }, [shown, pages, fetched]);
  const onRange = useCallback(
    (from: number, to: number) => {
      const seen: number[] = [];
      for (let page = Math.floor(from / pageRows); page <= Math.floor(to / pageRows); page++)
        if (page > 0 && shown.page.pages[page]) seen.push(page);
      for (const page of seen)
        if (client.getQueryState(optionsOf(page).queryKey)?.status === 'error')
          void client.refetchQueries({ queryKey: optionsOf(page).queryKey });
      setWanted((now) => {
        const known = now.of === shown.page ? now.pages : NONE;
        const more = seen.filter((page) => !known.includes(page));
        return more.length === 0 && now.of === shown.page ? now : { of: shown.page, pages: [...known, ...more] };
      });
    },
    [client, optionsOf, pageRows, shown.page],
  );

  const cells = useQueries({
    queries: late
      ? [...rows].map(([page, of]) => ({
          queryKey: ['ledger late', kind, shown.drawing, shown.query, page],
          queryFn: () => lateCells(of, late),
          staleTime: Infinity,
        }))
      : [],
    combine: cellsOf,
  });
  const here = useMemo(() => [...rows.values()].flat(), [rows]);
  return {
    query: shown.query,
    page: shown.page,
    here,
    onRange,
    rowAt: (i) => {
      const row = rows.get(Math.floor(i / pageRows))?.[i % pageRows];
      return row && withCells(row, cells);
    },
    every: async () => {
      const out: LedgerRow[] = [];
      for (const page of shown.page.pages.keys())
        out.push(...(rows.get(page) ?? (await client.fetchQuery(optionsOf(page))).page.rows));
      return out;
    },
    withLateCells: async (of) => {
      if (!late) return [...of];
      const more = await lateCells(of, late);
      return of.map((r) => withCells(r, more));
    },
    wrong: asked.error?.message ?? null,
  };
}

const NONE: readonly number[] = [];

const rowsOf = (results: readonly { data?: Shown }[]) => results.map((r) => r.data?.page.rows);

const cellsOf = (results: readonly { data?: Cells }[]): Cells =>
  Object.assign({}, ...results.map((r) => r.data ?? {})) as Cells;
