'use client';

import { LedgerPage, type LedgerPageData } from '@/workbench/ledger-page';

/** All time switches: how each stands now and where it leads. */
export function TimeSwitchesPage({ data }: { data: LedgerPageData }) {
  return (
    <LedgerPage
      kind="timeSwitch"
      title="Time switches"
      word="time switch"
      data={data}
      lead="A time switch sends calls one way or another, silently: by its hours, or as somebody sets it by hand."
      empty="A time switch needs no mailbox, no person and counts against no limit: it sends calls one way when open and another when closed, without a word."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(150px, 1.3fr)' },
        { key: 'digits', title: 'Digits', width: '70px', mono: true },
        { key: 'setting', title: 'Set', width: '130px' },
        { key: 'now', title: 'Leads now to', width: 'minmax(160px, 1.4fr)' },
        { key: 'hours', title: 'Hours', width: 'minmax(120px, 1fr)' },
        { key: 'site', title: 'Site', width: 'minmax(110px, 1fr)' },
        { key: 'fax', title: 'Fax', width: '70px' },
      ]}
    />
  );
}
