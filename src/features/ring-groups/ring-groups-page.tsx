'use client';

import { LedgerPage, type LedgerPageData } from '@/workbench/ledger-page';

/** All ring groups: whose phones ring, how, and what follows. */
export function RingGroupsPage({ data }: { data: LedgerPageData }) {
  return (
    <LedgerPage
      kind="ringGroup"
      title="Ring groups"
      word="ring group"
      data={data}
      lead="A ring group rings several phones, and goes on when none of them answers."
      empty="A ring group rings the phones of a desk at once or one after the other. Nobody waits in it: when nobody answers, the caller goes on."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(150px, 1.3fr)' },
        { key: 'digits', title: 'Digits', width: '70px', mono: true },
        { key: 'members', title: 'Members', width: '100px' },
        { key: 'rings', title: 'Rings', width: 'minmax(150px, 1fr)' },
        { key: 'then', title: 'Then', width: 'minmax(140px, 1fr)' },
        { key: 'site', title: 'Site', width: 'minmax(110px, 1fr)' },
      ]}
    />
  );
}
