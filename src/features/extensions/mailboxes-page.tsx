'use client';

import { LedgerPage, type LedgerPageData } from '../objects/ledger-page';

export function MailboxesPage({ data }: { data: LedgerPageData }) {
  return (
    <LedgerPage
      kind="mailbox"
      title="Mailboxes"
      word="mailbox"
      data={data}
      empty="A mailbox takes a message when nobody answers. Adding an extension can make one with it."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(170px, 1.4fr)' },
        { key: 'extensions', title: 'Takes calls of', width: '120px', mono: true },
        { key: 'owner', title: 'Owner', width: 'minmax(130px, 1fr)', cell: (r) => r.cells.owner || 'nobody' },
        { key: 'site', title: 'Site', width: 'minmax(110px, 1fr)' },
        { key: 'email', title: 'Mails to', width: 'minmax(180px, 1.4fr)' },
      ]}
    />
  );
}
