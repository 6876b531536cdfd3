'use client';

import { usePathname, useSearchParams } from 'next/navigation';
import { writeCsv } from '@/core/formats/csv';
import { useMemo, useState, type ReactNode } from 'react';

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
  /** can't be sorted by: made for the rows that are shown only */
  late?: boolean;
}

/** Filter, sorting and columns of a ledger; they stand in the address. */
export function useLedgerState<T>(columns: readonly Column<T>[]) {
  const path = usePathname();
  const params = useSearchParams();
  const [text, setText] = useState(params.get('filter') ?? '');
  const sort = params.get('sort') ?? '';
  const wanted = params.get('columns') ?? '';
  const shown = useMemo(() => {
    // In the order of the address; names of columns that are gone say nothing.
    const named = wanted.split(',').flatMap((key) => columns.find((c) => c.key === key) ?? []);
    return named.length > 0 ? [...new Set(named)] : columns.filter((c) => !c.optional);
  }, [columns, wanted]);
  const put = (changes: Record<string, string>) => {
    const next = new URLSearchParams(window.location.search);
    for (const [k, v] of Object.entries(changes))
      if (v) next.set(k, v);
      else next.delete(k);
    window.history.replaceState(null, '', next.size > 0 ? `${path}?${next}` : path);
  };
  return {
    text,
    setText: (value: string) => {
      setText(value);
      put({ filter: value });
    },
    sort,
    /** a column's key, with `-` in front for downwards; empty: as at first */
    sortBy: (by: string) => put({ sort: by }),
    shown,
    /** which columns are shown, in this order; never none */
    show: (next: readonly Column<T>[]) => {
      if (next.length > 0) put({ columns: next.map((c) => c.key).join() });
    },
    param: (name: string) => params.get(name) ?? '',
    put,
  };
}
export type LedgerState<T> = ReturnType<typeof useLedgerState<T>>;

/** Rows as CSV (RFC 4180) into the clipboard. */
export function copyRows<T>(columns: readonly Column<T>[], rows: readonly T[]): void {
  const lines = [columns.map((c) => c.title), ...rows.map((r) => columns.map((c) => c.text(r)))];
  void navigator.clipboard.writeText(writeCsv(lines));
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
