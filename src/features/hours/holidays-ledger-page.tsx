'use client';

import { chakra } from '@chakra-ui/react';
import { useWriting } from '@/ui/time';
import { ActLink } from '@/ui/controls';
import { LedgerPage, type LedgerPageData, type LedgerRow } from '@/workbench/ledger-page';

/** All holiday calendars: whose holidays, how far ahead they reach, which hours ask them. */
export function HolidaysLedgerPage({ data }: { data: LedgerPageData }) {
  const write = useWriting();
  const next = ({ cells }: LedgerRow) =>
    cells.next ? (
      <>
        {write(cells.next, { dayOnly: true, zone: 'UTC' })} <chakra.span color="quiet">{cells.nextName}</chakra.span>
      </>
    ) : (
      <chakra.span color="brick">none any more</chakra.span>
    );
  return (
    <LedgerPage
      kind="holidays"
      title="Holiday calendars"
      word="holiday calendar"
      data={data}
      lead="Days that are closed all day, for the hours that name them; callers hear what is set for holidays."
      acts={<ActLink href="/hours">Hours</ActLink>}
      empty="A holiday calendar follows a country or a region and is corrected by hand. Add one for each country; hours name it."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(160px, 1.4fr)' },
        { key: 'country', title: 'Country', width: '130px' },
        { key: 'dates', title: 'Dates', width: '60px' },
        { key: 'next', title: 'Next', width: 'minmax(180px, 1.2fr)', cell: next },
        { key: 'until', title: 'Reaches', width: '110px' },
        { key: 'asked', title: 'Asked by', width: 'minmax(120px, 1fr)' },
      ]}
    />
  );
}
