'use client';

import { LedgerPage, type LedgerPageData } from '@/workbench/ledger-page';

export function TeamsPage({ data }: { data: LedgerPageData }) {
  return (
    <LedgerPage
      kind="team"
      title="Teams"
      word="team"
      data={data}
      lead="People who work together. A person may be in several; rules and watching rights name teams."
      empty="A team is people who work together. Add one, then put people in it: here, on their page, or many at once."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(160px, 1.2fr)' },
        { key: 'people', title: 'People', width: '70px' },
        { key: 'sites', title: 'Sites', width: 'minmax(160px, 1.2fr)' },
        { key: 'used', title: 'Named by', width: 'minmax(160px, 1.4fr)' },
      ]}
    />
  );
}
