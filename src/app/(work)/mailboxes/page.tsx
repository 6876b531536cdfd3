import { MailboxesPage } from '@/features/extensions/mailboxes-page';
import { bulkOptions } from '@/server/bulk/options';
import { ledgerPageData } from '@/server/ledger/page-data';

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  const data = await ledgerPageData('mailbox', await searchParams, ['name', 'site', 'email']);
  return <MailboxesPage data={data} bulk={await bulkOptions()} />;
}
