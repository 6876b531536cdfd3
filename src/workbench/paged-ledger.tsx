'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useMemo, useRef, useState, type ReactNode } from 'react';
import type { LedgerPage, LedgerRow } from '@/contract/plan';
import type { LedgerKind } from '@/core/plan';
import { choiceWords } from '@/core/plan/facts/choice-words';
import { Act, SelectBox, Wrong } from '@/ui/controls';
import { copyRows, useLedgerState, type Column } from '@/ui/ledger-state';
import { useLedgerTable } from '@/ui/ledger-table';
import { LedgerView, type LedgerLook } from '@/ui/ledger-view';
import { usePagedRows, type Late } from './paged-rows';

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
  late?: Late;
  /** the first page, made with the page itself for the address it was asked with */
  first: LedgerPage;
  pageRows: number;
  columns: Column<LedgerRow>[];
  facets: readonly Facet[];
  empty: ReactNode;
  /** acts on the rows that are chosen; drawn beside the filter while there are any */
  acts?: (chosen: Chosen, clear: () => void) => ReactNode;
}

/** A ledger of any length: the server filters and sorts, pages come by key as they scroll into sight, and stay. */
export function PagedLedger({ kind, first, pageRows, columns, facets, empty, acts, late, ...look }: PagedProps) {
  const state = useLedgerState(columns);
  const { text, sort, shown } = state;
  const chosenFacets = Object.fromEntries(facets.map((f) => [f.name, state.param(f.name)]));
  const query = new URLSearchParams({ filter: text, sort, ...chosenFacets }).toString();
  const rows = usePagedRows(kind, first, query, pageRows, late);
  const { here, page } = rows;
  const [all, setAll] = useState(false);
  const table = useLedgerTable({ rows: here, columns, state, idOf: look.idOf, manual: true });
  const { rowSelection } = table.state;
  // Rows that were chosen stay chosen when others are shown.
  const picked = useRef(new Map<string, LedgerRow>());
  const chosen = useMemo<Chosen>(
    () => ({
      ids: all ? null : Object.keys(rowSelection),
      filter: text,
      facets: Object.fromEntries(Object.entries(chosenFacets).filter(([, v]) => v !== '')),
      count: all ? page.count : Object.keys(rowSelection).length,
    }),
    // The facets are part of the query.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [all, rowSelection, query, page.count],
  );
  const clear = () => {
    table.setRowSelection({});
    setAll(false);
  };
  /** The rows that are chosen, or all that fit. */
  const everyRow = async (): Promise<LedgerRow[]> => {
    const ids = Object.keys(rowSelection);
    return rows.withLateCells(
      ids.length > 0 && !all ? ids.flatMap((id) => picked.current.get(id) ?? []) : await rows.every(),
    );
  };
  const narrowed = text !== '' || Object.values(chosenFacets).some((v) => v !== '');

  if (page.of === 0) return <>{empty}</>;
  return (
    <Box data-query={rows.query}>
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
                {narrowed ? `Choose these ${page.count}` : `Choose all ${page.count}`}
              </Act>
            )
          ) : null}
        </Flex>
      ) : null}
      {rows.wrong ? <Wrong>{rows.wrong}</Wrong> : null}
      <LedgerView
        {...look}
        state={state}
        table={table}
        columns={columns}
        count={page.count}
        of={page.of}
        rowAt={rows.rowAt}
        onRange={rows.onRange}
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
        onCopy={() => void everyRow().then((every) => copyRows(shown, every))}
      />
    </Box>
  );
}
