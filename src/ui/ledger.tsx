'use client';

import type { ReactNode } from 'react';
import { Act } from './controls';
import { copyRows, useLedgerState, type Column } from './ledger-state';
import { useLedgerTable } from './ledger-table';
import { LedgerView, type LedgerLook } from './ledger-view';

interface LedgerProps<T> extends LedgerLook<T> {
  rows: T[];
  columns: Column<T>[];
  empty: ReactNode;
  /** acts on the rows that are chosen; drawn beside the filter while there are any */
  acts?: (ids: string[]) => ReactNode;
}

/** A ledger whose rows are all here: sort, filter, choose columns, select, copy as CSV; state in the address. */
export function Ledger<T extends object>({ rows, columns, empty, acts, ...look }: LedgerProps<T>) {
  const state = useLedgerState(columns);
  const table = useLedgerTable({ rows, columns, state, idOf: look.idOf });
  const visible = table.getRowModel().rows;
  const chosen = table.getSelectedRowModel().rows;
  if (rows.length === 0) return <>{empty}</>;
  return (
    <LedgerView
      {...look}
      state={state}
      table={table}
      columns={columns}
      count={visible.length}
      of={rows.length}
      rowAt={(i) => visible[i]?.original}
      selected={{
        has: (id) => table.state.rowSelection[id] === true,
        count: chosen.length,
        toggle: (id) => table.getRow(id).toggleSelected(),
      }}
      tools={
        acts ? (
          chosen.length > 0 ? (
            <>
              {acts(chosen.map((r) => look.idOf(r.original)))}
              <Act look="text" onClick={() => table.setRowSelection({})}>
                Choose none
              </Act>
            </>
          ) : visible.length > 0 ? (
            <Act onClick={() => table.setRowSelection(Object.fromEntries(visible.map((r) => [r.id, true as const])))}>
              {visible.length < rows.length ? `Choose these ${visible.length}` : `Choose all ${rows.length}`}
            </Act>
          ) : null
        ) : null
      }
      onCopy={() =>
        copyRows(
          state.shown,
          (chosen.length > 0 ? chosen : visible).map((r) => r.original),
        )
      }
    />
  );
}
