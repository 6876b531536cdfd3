import { MailboxPage } from '@/features/extensions/mailbox-page';
import { objectPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <MailboxPage data={await objectPage('mailbox', (await params).id)} />;
}
