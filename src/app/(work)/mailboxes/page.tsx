import { MailboxesPage } from '@/features/extensions/mailboxes-page';
import { ledgerPage } from '@/server/ledger-page';

export default async function Page() {
  const data = await ledgerPage(
    'mailbox',
    (m, { plan, exchange }) => ({
      name: m.name,
      site: exchange().sites.get(m.site)!.name,
      owner: m.owners.map((o) => plan.people.find((p) => p.id === o)!.name).join(', '),
      extensions: plan.extensions
        .filter((e) => e.mailbox === m.id)
        .map((e) => e.digits)
        .join(', '),
      email: m.email ?? '',
    }),
    ['name', 'site', 'owner', 'email'],
  );
  return <MailboxesPage data={data} />;
}
