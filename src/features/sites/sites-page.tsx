'use client';

import { ActLink } from '@/ui/controls';
import { LedgerPage, type LedgerPageData } from '@/workbench/ledger-page';

export function SitesPage({ data }: { data: LedgerPageData }) {
  return (
    <LedgerPage
      kind="site"
      title="Sites"
      word="site"
      data={data}
      addHref="/sites/new"
      acts={
        data.canEdit ? (
          <ActLink look="main" href="/sites/new">
            Add site
          </ActLink>
        ) : null
      }
      empty="A site is a place with phones: its country decides emergency numbers, its zone the time, its ladder how calls leave."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(130px, 1.2fr)' },
        { key: 'country', title: 'Country', width: '110px' },
        { key: 'zone', title: 'Time zone', width: 'minmax(120px, 1fr)' },
        { key: 'prefix', title: 'Outside', width: '60px', mono: true },
        { key: 'ranges', title: 'Extensions', width: '100px', mono: true },
        { key: 'extensions', title: 'In use', width: '56px' },
        { key: 'main', title: 'Main number', width: '148px', mono: true },
        { key: 'emergency', title: 'Emergency by', width: 'minmax(120px, 1fr)' },
      ]}
    />
  );
}
