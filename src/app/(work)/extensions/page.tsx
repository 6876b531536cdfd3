import { spacedNumber } from '@/core/numbers';
import { nameOf } from '@/core/routing';
import { ExtensionsPage } from '@/features/extensions/extensions-page';
import { ledgerPage } from '@/server/ledger-page';

export default async function Page() {
  const data = await ledgerPage('extension', (e, { plan, exchange }) => {
    const x = exchange();
    const own = x.numberOf.get(e.id)?.[0];
    const number = own ? spacedNumber(own.e164) : '';
    const outgoing = e.outgoingNumber ? spacedNumber(x.numbers.get(e.outgoingNumber)!.e164) : '';
    return {
      digits: e.digits,
      name: e.name,
      kind: e.kind,
      site: x.sites.get(e.site)!.name,
      class: x.classes.get(e.class)!.name,
      number,
      shows: e.withholdNumber ? 'withheld' : outgoing || number || 'site number',
      mailbox: e.mailbox ? nameOf(x, e.mailbox) : '',
      rings: `${e.ringSeconds} s`,
      person: plan.people.find((p) => p.id === e.person)?.name ?? '',
    };
  });
  return <ExtensionsPage data={data} />;
}
