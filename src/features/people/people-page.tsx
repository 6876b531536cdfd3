'use client';

import { LedgerPage, type LedgerPageData } from '../objects/ledger-page';

export function PeoplePage({ data }: { data: LedgerPageData }) {
  return (
    <LedgerPage
      kind="person"
      title="People"
      word="person"
      data={data}
      empty="People are who extensions and mailboxes belong to. Adding an extension adds its person with it."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(180px, 1.4fr)' },
        { key: 'extensions', title: 'Extension', width: '100px', mono: true },
        { key: 'number', title: 'Own number', width: '150px', mono: true },
        { key: 'site', title: 'Site', width: 'minmax(110px, 1fr)' },
        { key: 'email', title: 'E-mail', width: 'minmax(200px, 1.6fr)' },
      ]}
    />
  );
}
