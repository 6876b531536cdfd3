'use client';

import { LedgerPage, type LedgerPageData } from '@/workbench/ledger-page';

/** All reach plans: whom each looks for, where, and what follows. */
export function ReachPlansPage({ data }: { data: LedgerPageData }) {
  return (
    <LedgerPage
      kind="reachPlan"
      title="Reach plans"
      word="reach plan"
      data={data}
      lead="A reach plan looks for one person: phones step by step or together, outside ones too, then an end."
      empty="A reach plan looks for one person: the desk first, say, then the mobile with it, then the mailbox. An extension names the plan by which it is looked for."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(140px, 1.2fr)' },
        { key: 'whose', title: 'Looks for', width: 'minmax(130px, 1fr)' },
        { key: 'steps', title: 'Rings', width: 'minmax(160px, 1.6fr)' },
        { key: 'then', title: 'Then', width: 'minmax(110px, 1fr)' },
        { key: 'site', title: 'Site', width: 'minmax(90px, 0.8fr)' },
      ]}
    />
  );
}
