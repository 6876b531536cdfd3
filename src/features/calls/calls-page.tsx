'use client';

import { Box } from '@chakra-ui/react';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import type { CallRow, CallsPage as Page } from '@/contract/records';
import type { Input } from '@/contract';
import { addressOf, call } from '@/workbench/api';
import { Act, ActLink, Empty, Wrong } from '@/ui/controls';
import { drawingOf } from '@/ui/drawing';
import { copyRows, useLedgerState, type Column } from '@/ui/ledger-state';
import { useLedgerTable } from '@/ui/ledger-table';
import { LedgerView } from '@/ui/ledger-view';
import { useWriting } from '@/ui/time';
import { Workspace } from '@/ui/workspace';
import type { AboutCalls } from './about';
import { Filters } from './filters';
import { Party, duration } from './party';
import { Tabs } from './tabs';
import { said, useFilter, type Filter } from './use-filter';

const WAY_WORDS = { in: 'from outside', out: 'to outside', inside: 'inside' } as const;

function columnsFor(write: ReturnType<typeof useWriting>, zone: string): Column<CallRow>[] {
  const late = true;
  const at = (row: CallRow) => `${write(row.started, { zone, weekday: true })}:${row.started.slice(17, 19)}`;
  const party = (p: CallRow['end']) => (p ? <Party party={p} /> : null);
  return [
    { key: 'started', title: 'When', width: '140px', text: at, late },
    {
      key: 'from',
      title: 'From',
      width: 'minmax(158px, 1fr)',
      text: (r) => r.from.label,
      cell: (r) => party(r.from),
      late,
    },
    {
      key: 'to',
      title: 'Called',
      width: 'minmax(158px, 1fr)',
      text: (r) => r.to.label,
      cell: (r) => party(r.to),
      late,
    },
    {
      key: 'end',
      title: 'Ended at',
      width: 'minmax(160px, 1.1fr)',
      text: (r) => r.end?.label ?? 'nowhere',
      cell: (r) => party(r.end ?? { kind: 'refused', id: null, label: 'nowhere' }),
      late,
    },
    { key: 'result', title: 'What came of it', width: '94px', text: resultOf, late },
    { key: 'waited', title: 'Waited', width: '48px', text: (r) => duration(r.waited), late },
    { key: 'talked', title: 'Talked', width: '48px', text: (r) => (r.answered ? duration(r.talked) : ''), late },
    { key: 'trunk', title: 'Trunk', width: 'minmax(105px, 0.7fr)', text: (r) => r.trunk?.label ?? '', late },
    {
      key: 'by',
      title: 'Answered by',
      width: 'minmax(140px, 1fr)',
      text: (r) => r.answeredBy?.label ?? '',
      late,
      optional: true,
    },
    { key: 'way', title: 'Way', width: '100px', text: (r) => WAY_WORDS[r.way], late, optional: true },
    { key: 'queue', title: 'Queue', width: '120px', text: (r) => r.queue?.label ?? '', late, optional: true },
    { key: 'cause', title: 'Cause', width: '60px', text: (r) => String(r.cause ?? ''), late, optional: true },
  ];
}

function resultOf(r: CallRow): string {
  if (r.outcome !== 'routed') return 'failed';
  if (r.missed) return 'missed';
  return r.answered ? 'answered' : 'not answered';
}

/** Pages that come by themselves as one scrolls; then a button brings them, so that what stands after the list can be reached by keys. */
const MOST_BY_ITSELF = 5;

interface Props {
  about: AboutCalls;
  filter: Filter;
  first: Page;
  wrong: string | null;
}

/** Calls as they were, the newest first; more come as one scrolls. */
export function CallsPage({ about, filter: initial, first, wrong }: Props) {
  const write = useWriting();
  const { filter, asked, put } = useFilter(initial);
  const columns = useMemo(() => columnsFor(write, about.zone), [write, about.zone]);
  const [begun] = useState(JSON.stringify(initial));
  const query = JSON.stringify(asked);
  const drawing = drawingOf(first);
  const found = useInfiniteQuery({
    queryKey: ['calls', drawing, query],
    initialPageParam: '',
    ...(query === begun && !wrong ? { initialData: { pages: [first], pageParams: [''] } } : {}),
    getNextPageParam: (page: Page) => page.next,
    queryFn: async ({ pageParam, signal }): Promise<Page> => {
      const got = await call(
        'calls',
        { query: { ...said(asked), before: pageParam } as Input<'calls'>['query'] },
        signal,
      );
      if (!got.ok) throw new Error(got.errors[0]!.sentence);
      return got.value;
    },
    placeholderData: (before) => before,
    staleTime: Infinity,
    retry: false,
  });
  const pages = found.data?.pages;
  const rows = useMemo(() => (pages ?? []).flatMap((p) => p.calls), [pages]);
  const state = useLedgerState(columns);
  const table = useLedgerTable({ rows, columns, state, idOf: (r) => r.key, manual: true });
  const chosen = table.getSelectedRowModel().rows.map((r) => r.original);
  const more = found.hasNextPage && !found.isFetchingNextPage ? () => void found.fetchNextPage() : null;
  const searchedTo = pages?.at(-1)?.searchedTo ?? null;
  const byItself = searchedTo === null && (pages?.length ?? 0) < MOST_BY_ITSELF;
  const narrowed = Object.keys(said(filter)).length > 0;
  const file = { ...said(asked) } as Input<'callsFile'>['query'];
  return (
    <Workspace
      title="Calls"
      lead={`As they were, the newest first, by the clock of ${about.zone}.`}
      acts={
        <>
          <ActLink href={addressOf('callsFile', { query: { ...file, format: 'csv' } })}>Export CSV</ActLink>
          <ActLink href={addressOf('callsFile', { query: { ...file, format: 'jsonl' } })}>Export JSON lines</ActLink>
          {about.mayKeep ? <ActLink href="/calls/erase">Erase somebody</ActLink> : null}
        </>
      }
    >
      <Tabs about={about} />
      <Filters filter={filter} put={put} choices={about} />
      {found.error || (wrong && query === begun) ? (
        <Box mb="10px">
          <Wrong>{found.error?.message ?? wrong}</Wrong>
        </Box>
      ) : null}
      {rows.length === 0 && !narrowed && !found.isFetching ? (
        <Empty act={about.mayKeep ? <ActLink href="/calls/import">Bring in a call log</ActLink> : null}>
          No calls are kept yet. They come from the exchange, or from the log of another system: then the draft can be
          tried on them.
        </Empty>
      ) : (
        <Box aria-busy={found.isPlaceholderData}>
          <LedgerView
            name="calls"
            state={state}
            table={table}
            columns={columns}
            count={rows.length}
            of={rows.length}
            counted={`${rows.length.toLocaleString('en')} ${found.hasNextPage ? 'so far' : rows.length === 1 ? 'call' : 'calls'}`}
            rowAt={(i) => rows[i]}
            idOf={(r) => r.key}
            hrefOf={(r) => `/calls/${encodeURIComponent(r.key)}`}
            onRange={(_, last) => {
              if (last >= rows.length - 10 && byItself) more?.();
            }}
            selected={{
              has: (id) => table.state.rowSelection[id] === true,
              count: chosen.length,
              toggle: (id) => table.getRow(id).toggleSelected(),
            }}
            onCopy={() => copyRows(state.shown, chosen.length > 0 ? chosen : rows)}
          />
          {searchedTo !== null ? (
            <Box mt="10px" role="status">
              Looked back to {write(searchedTo, { zone: about.zone, dayOnly: true })}.{' '}
              <Act disabled={!more} onClick={() => more?.()}>
                Look further back
              </Act>
            </Box>
          ) : found.hasNextPage && !byItself ? (
            <Act mt="10px" disabled={!more} onClick={() => more?.()}>
              {found.isFetchingNextPage ? 'Fetching …' : 'Older calls'}
            </Act>
          ) : found.isFetchingNextPage ? (
            <Box mt="10px" color="quiet">
              Fetching …
            </Box>
          ) : null}
        </Box>
      )}
    </Workspace>
  );
}
