'use client';

import {
  columnFilteringFeature,
  columnOrderingFeature,
  columnPinningFeature,
  columnVisibilityFeature,
  createFilteredRowModel,
  createSortedRowModel,
  globalFilteringFeature,
  rowSelectionFeature,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type Row,
  type RowSelectionState,
  type Updater,
} from '@tanstack/react-table';
import { useMemo, useState } from 'react';
import type { Column, LedgerState } from './ledger-state';

/* The table under both ledgers: sorting, columns in their order, the first one pinned, rows that are chosen. */

const FEATURES = tableFeatures({
  columnFilteringFeature,
  columnOrderingFeature,
  columnPinningFeature,
  columnVisibilityFeature,
  globalFilteringFeature,
  rowSelectionFeature,
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  filteredRowModel: createFilteredRowModel(),
});
type Features = typeof FEATURES;

/** A column that is never shown: what the filter looks at, all texts of a row together. */
const ALL = '*';

/** Whether a row's texts hold every word; numbers are found with and without their blanks. */
function holdsAll(row: Row<Features, object>, _column: string, words: string): boolean {
  const text = row.getValue<string>(ALL);
  const tight = text.replace(/[^\S\n]/g, '');
  return words
    .split(/\s+/)
    .filter(Boolean)
    .every((w) => text.includes(w) || tight.includes(w));
}

const byText = (a: Row<Features, object>, b: Row<Features, object>, column: string) =>
  a.getValue<string>(column).localeCompare(b.getValue<string>(column), undefined, { numeric: true });

/**
 * The table of a ledger. `rows` are those that are here; `manual`: the server filters and sorts, and they are a part of all
 * that fit. What is sorted by and which columns are shown stands in the address (`state`).
 */
export function useLedgerTable<T extends object>({
  rows,
  columns,
  state,
  idOf,
  manual = false,
}: {
  rows: readonly T[];
  columns: readonly Column<T>[];
  state: LedgerState<T>;
  idOf: (row: T) => string;
  manual?: boolean;
}) {
  const [rowSelection, setRowSelection] = useState<RowSelectionState>({});
  const defs = useMemo<ColumnDef<Features, T>[]>(
    () => [
      ...columns.map((c): ColumnDef<Features, T> => ({
        id: c.key,
        header: c.title,
        accessorFn: (row) => c.text(row),
        enableSorting: !c.late,
        enableGlobalFilter: false,
        sortFn: byText as never,
        sortDescFirst: false,
      })),
      {
        id: ALL,
        accessorFn: (row) =>
          columns
            .map((c) => c.text(row))
            .join('\n')
            .toLowerCase(),
        enableSorting: false,
      },
    ],
    [columns],
  );
  const { shown, sort } = state;
  const order = useMemo(() => {
    const first = shown.map((c) => c.key);
    return [...first, ...columns.map((c) => c.key).filter((k) => !first.includes(k)), ALL];
  }, [columns, shown]);
  const visibility = useMemo(
    () => Object.fromEntries(order.map((key) => [key, shown.some((c) => c.key === key)])),
    [order, shown],
  );
  const sorting = useMemo(() => (sort ? [{ id: sort.replace('-', ''), desc: sort.startsWith('-') }] : []), [sort]);
  const pinning = useMemo(() => ({ start: order.slice(0, 1), end: [] }), [order]);
  return useTable({
    features: FEATURES,
    columns: defs,
    data: rows as T[],
    getRowId: idOf,
    manualSorting: manual,
    manualFiltering: manual,
    enableMultiSort: false,
    globalFilterFn: holdsAll as never,
    getColumnCanGlobalFilter: (column) => column.id === ALL,
    state: {
      sorting,
      rowSelection,
      columnOrder: order,
      columnVisibility: visibility,
      columnPinning: pinning,
      globalFilter: state.text.toLowerCase(),
    },
    onRowSelectionChange: setRowSelection,
    onSortingChange: (next: Updater<{ id: string; desc: boolean }[]>) => {
      const [by] = typeof next === 'function' ? next(sorting) : next;
      state.sortBy(by ? `${by.desc ? '-' : ''}${by.id}` : '');
    },
  });
}
export type LedgerTable<T extends object> = ReturnType<typeof useLedgerTable<T>>;
