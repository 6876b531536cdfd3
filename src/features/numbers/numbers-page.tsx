'use client';

import { Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call } from '@/workbench/api';
import { Act, ActLink } from '@/ui/controls';
import { Glyph } from '@/ui/glyph';
import type { Chosen } from '@/workbench/paged-ledger';
import type { LedgerRow } from '@/workbench/ledger-page';
import { PagedLedgerPage, type PagedLedgerData } from '@/workbench/paged-ledger-page';
import { useBulk } from '@/workbench/use-bulk';
import { SmallStrip } from './small-strip';
import { AssignPanel } from './assign-panel';
import { useWriting } from '@/ui/time';

/** Where a caller lands at one telling moment, with the glyph of that end. */
const landing = (key: string) =>
  function Landing(r: LedgerRow) {
    const write = useWriting();
    const kind = r.cells[`${key}Kind`];
    const at = r.cells[`${key}At`];
    if (!kind) return null;
    return (
      <Flex as="span" gap="7px" align="center" title={at && key !== 'now' ? write(at) : undefined}>
        <Glyph kind={kind} />
        <chakra.span color={kind === 'refused' ? 'quiet' : 'ink'} overflow="hidden" textOverflow="ellipsis">
          {at === '' ? <chakra.span color="quiet">the same</chakra.span> : r.cells[key]}
        </chakra.span>
      </Flex>
    );
  };

const week = (r: LedgerRow) =>
  r.cells.weekStrip ? <SmallStrip text={r.cells.weekStrip} words={r.cells.week ?? ''} /> : null;

const late = async (ids: string[]) => {
  const got = await call('landings', { body: { ids } });
  return got.ok ? got.value.landings : null;
};

export function NumbersPage({ data }: { data: PagedLedgerData }) {
  const router = useRouter();
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const bulk = useBulk('number', data.bulk);
  const width = 'minmax(130px, 1.3fr)';
  return (
    <PagedLedgerPage
      title="Numbers"
      late={late}
      word="number"
      data={data}
      lead="Bought numbers, what each belongs to, and where a caller from outside lands: now, when the hours on the way are closed, on their next holiday."
      addHref="/numbers/add"
      acts={
        data.canEdit ? (
          <ActLink
            look="main"
            href="/numbers/add"
            onClick={(e) => {
              e.preventDefault();
              router.push('/numbers/add');
            }}
          >
            Add numbers
          </ActLink>
        ) : null
      }
      chosenActs={(now) => (
        <>
          {bulk.chosenActs(now)}
          <Act disabled={now.ids === null} onClick={() => setChosen(now)}>
            {now.ids === null ? 'Pick rows to assign' : `Assign ${now.count}…`}
          </Act>
        </>
      )}
      above={
        <>
          {bulk.above}
          {chosen?.ids ? <AssignPanel numbers={chosen.ids} onClose={() => setChosen(null)} /> : null}
        </>
      }
      empty="Numbers are what a carrier sold you. Add one, a range or a pasted list, say which trunk they come by, and give them to extensions."
      columns={[
        { key: 'e164', title: 'Number', width: '148px', mono: true },
        { key: 'number', title: 'National', width: '140px', mono: true, optional: true },
        { key: 'state', title: 'State', width: '84px' },
        { key: 'site', title: 'Site', width: 'minmax(90px, 0.8fr)', optional: true },
        { key: 'trunk', title: 'Trunk', width: 'minmax(90px, 0.8fr)', optional: true },
        {
          key: 'belongs',
          title: 'Belongs to',
          width,
          cell: (r) => (r.cells.belongs === 'free' ? <chakra.span color="pine">free</chakra.span> : r.cells.belongs),
        },
        { key: 'week', title: 'This week', width: 'minmax(150px, 1.2fr)', cell: week, late: true },
        { key: 'now', title: 'Lands now', width, cell: landing('now'), late: true },
        { key: 'closed', title: 'Out of hours', width, cell: landing('closed'), late: true },
        { key: 'holiday', title: 'Next holiday', width, cell: landing('holiday'), late: true },
        { key: 'then', title: 'Then', width: 'minmax(110px, 1fr)', late: true, optional: true },
        { key: 'note', title: 'Note', width: 'minmax(120px, 1fr)', optional: true },
      ]}
    />
  );
}
