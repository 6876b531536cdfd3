'use client';

import { PagedLedgerPage, type PagedLedgerData } from '@/workbench/paged-ledger-page';
import { useBulk } from '@/workbench/use-bulk';

export function MailboxesPage({ data }: { data: PagedLedgerData }) {
  const many = useBulk('mailbox', data.bulk);
  return (
    <PagedLedgerPage
      title="Mailboxes"
      word="mailbox"
      data={data}
      {...many}
      empty="A mailbox takes a message when nobody answers. Adding an extension can make one with it."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(170px, 1.4fr)' },
        { key: 'extensions', title: 'Takes calls of', width: '120px', mono: true },
        { key: 'owner', title: 'Owners', width: 'minmax(130px, 1fr)', cell: (r) => r.cells.owner || 'nobody' },
        { key: 'state', title: 'State', width: '112px' },
        { key: 'site', title: 'Site', width: 'minmax(110px, 1fr)' },
        { key: 'email', title: 'Mails to', width: 'minmax(180px, 1.4fr)' },
      ]}
    />
  );
}
