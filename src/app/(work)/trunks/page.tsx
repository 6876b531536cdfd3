import { TrunksPage } from '@/features/trunks/trunks-page';
import { ledgerPage } from '@/server/ledger-page';

const KINDS = { 'sip-registration': 'SIP, registered', 'sip-peer': 'SIP peer', isdn: 'ISDN primary rate' };

export default async function Page() {
  const data = await ledgerPage(
    'trunk',
    (t, { plan, exchange }) => ({
      name: t.name,
      kind: KINDS[t.kind],
      site: exchange().sites.get(t.site)!.name,
      channels: String(t.channels),
      kept: String(t.keptForIncoming),
      numbers: String(plan.numbers.filter((n) => n.trunk === t.id).length),
      writes: t.writes,
      delivers: `${t.deliveredLength === null ? 'any length' : `${t.deliveredLength} digits`}, ${t.deliveredForm}`,
      enabled: t.enabled ? 'yes' : 'no',
    }),
    ['name', 'kind', 'site', 'channels'],
    () => ({ channels: 10 }),
  );
  return <TrunksPage data={data} />;
}
