import { spacedNumber } from '@/core/numbers';
import { SitesPage } from '@/features/sites/sites-page';
import { ledgerPage } from '@/server/ledger-page';

export default async function Page() {
  const data = await ledgerPage('site', (s, { plan, exchange }) => ({
    name: s.name,
    country: s.country,
    zone: s.zone,
    prefix: s.outsidePrefix ?? '',
    ranges: s.ranges.map((r) => `${r.from}-${r.to}`).join(', '),
    extensions: String(plan.extensions.filter((e) => e.site === s.id).length),
    main: s.mainNumber ? spacedNumber(exchange().numbers.get(s.mainNumber)!.e164) : '',
    emergency: s.emergencyTrunks.map((t) => exchange().trunks.get(t)!.name).join(', '),
  }));
  return <SitesPage data={data} />;
}
