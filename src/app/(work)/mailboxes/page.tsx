import { MailboxesPage } from '@/features/extensions/mailboxes-page';
import { longLedger } from '@/server/pages/ledgers';

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  return <MailboxesPage data={await longLedger('mailbox', await searchParams, ['name', 'site', 'email'])} />;
}
