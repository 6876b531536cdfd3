'use client';

import { ActLink } from '@/ui/controls';
import { LedgerPage, type LedgerPageData } from '@/workbench/ledger-page';

/** All queues: who takes their calls and how, and how long callers wait. */
export function QueuesPage({ data }: { data: LedgerPageData }) {
  return (
    <LedgerPage
      kind="queue"
      title="Queues"
      word="queue"
      data={data}
      acts={<ActLink href="/queues/board">Board</ActLink>}
      lead="A queue keeps callers in the order they came until one of its agents is free."
      empty="A queue keeps callers until an agent is free, and says what happens when nobody is, when too many wait, or when it takes too long."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(110px, 1.2fr)' },
        { key: 'digits', title: 'Digits', width: '60px', mono: true },
        { key: 'agents', title: 'Agents', width: '80px' },
        { key: 'offers', title: 'Offers calls', width: 'minmax(120px, 1fr)' },
        { key: 'waits', title: 'Waits at most', width: 'minmax(120px, 1.2fr)' },
        { key: 'nobody', title: 'Nobody signed in', width: 'minmax(110px, 1fr)' },
        { key: 'site', title: 'Site', width: 'minmax(80px, 1fr)' },
      ]}
    />
  );
}
