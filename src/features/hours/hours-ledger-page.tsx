'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Digits } from '@/ui/digits';
import { useWriting } from '@/ui/time';
import { LedgerPage, type LedgerPageData, type LedgerRow } from '@/workbench/ledger-page';

/** All opening hours: what each says, whether it is open now, what asks it. */
export function HoursLedgerPage({ data }: { data: LedgerPageData }) {
  const write = useWriting();
  const now = ({ cells }: LedgerRow) => (
    <Box as="span" color={cells.now === 'open' ? 'pine' : 'quiet'}>
      {cells.now}
      {cells.until ? (
        <chakra.span color="quiet"> until {write(cells.until, { zone: cells.zone, weekday: true })}</chakra.span>
      ) : null}
    </Box>
  );
  const week = ({ cells }: LedgerRow) => (
    <>
      <Digits title={cells.said}>{cells.week || 'never open'}</Digits>
      {cells.faults === '0' ? null : <chakra.span color="brick"> · has a hole or says something twice</chakra.span>}
    </>
  );
  return (
    <LedgerPage
      kind="hours"
      title="Hours"
      word="hours"
      data={data}
      lead="When it is open and when it is not: routes, attendants, queues, time switches and outbound rules ask it."
      empty="Hours say when it is open: a week, holidays, dates with times of their own. Add them once; routes and attendants ask them."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(140px, 1fr)' },
        { key: 'now', title: 'Now', width: '190px', cell: now },
        { key: 'week', title: 'The week', width: 'minmax(240px, 2.4fr)', cell: week },
        { key: 'zone', title: 'Time zone', width: '140px' },
        { key: 'asked', title: 'Asked by', width: 'minmax(120px, 1fr)' },
      ]}
    />
  );
}
