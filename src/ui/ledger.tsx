'use client';

import { useMemo, useState, type ReactNode } from 'react';
import { copyRows, useLedgerState, type Column } from './ledger-state';
import { LedgerView, type LedgerLook } from './ledger-view';

interface LedgerProps<T> extends LedgerLook<T> {
  rows: T[];
  columns: Column<T>[];
  empty: ReactNode;
}

/** A ledger whose rows are all here: sort, filter, choose columns, select, copy as CSV; state in the address. */
export function Ledger<T>({ rows, columns, empty, ...look }: LedgerProps<T>) {
  const state = useLedgerState(columns);
  const { text, sort, shown } = state;
  const { idOf } = look;
  const [selected, setSelected] = useState<ReadonlySet<string>>(new Set());
  const visible = useMemo(() => {
    const words = text.toLowerCase().split(/\s+/).filter(Boolean);
    const found =
      words.length === 0 ? rows : rows.filter((r) => words.every((w) => columns.some((c) => holds(c.text(r), w))));
    const by = columns.find((c) => c.key === sort.replace('-', ''));
    if (!by) return found;
    const way = sort.startsWith('-') ? -1 : 1;
    return [...found].sort((a, b) => way * by.text(a).localeCompare(by.text(b), undefined, { numeric: true }));
  }, [rows, columns, text, sort]);
  if (rows.length === 0) return <>{empty}</>;
  return (
    <LedgerView
      {...look}
      state={state}
      columns={columns}
      count={visible.length}
      of={rows.length}
      rowAt={(i) => visible[i]}
      selected={{
        has: (id) => selected.has(id),
        count: selected.size,
        toggle: (id) => {
          const next = new Set(selected);
          if (!next.delete(id)) next.add(id);
          setSelected(next);
        },
      }}
      onCopy={() => copyRows(shown, selected.size > 0 ? visible.filter((r) => selected.has(idOf(r))) : visible)}
    />
  );
}

/** Whether a cell's text holds a word; numbers are found with and without their blanks. */
function holds(text: string, word: string): boolean {
  const small = text.toLowerCase();
  return small.includes(word) || small.replace(/\s/g, '').includes(word);
}
