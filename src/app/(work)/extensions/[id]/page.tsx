import { spacedNumber } from '@/core/numbers';
import { ExtensionPage } from '@/features/extensions/extension-page';
import { hasPin } from '@/server/access/secrets';
import { draftPlan } from '@/server/draft';
import { objectPage } from '@/server/object-page';
import { forwardingAt } from '@/server/state/forwarding';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const data = await objectPage('extension', id);
  const { plan } = await draftPlan();
  const mailbox = data.object.mailbox as string | null;
  return (
    <ExtensionPage
      data={data}
      forwarding={await forwardingAt(new Date(), id)}
      pinSet={mailbox ? await hasPin(mailbox) : false}
      numbers={plan.numbers.filter((n) => n.belongsTo === id).map((n) => ({ id: n.id, e164: spacedNumber(n.e164) }))}
    />
  );
}
