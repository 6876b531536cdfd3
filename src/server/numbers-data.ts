import { showNumber, spacedNumber } from '@/core/numbers';
import { fromOutside } from '@/core/analysis';
import { trace } from '@/core/routing';
import { ledgerPage } from './ledger-page';
import { situationAt } from './state/forwarding';

/** The numbers with where a caller from outside lands now. */
export async function numbersData() {
  const now = Date.now();
  const situation = await situationAt(now);
  return ledgerPage(
    'number',
    (n, { exchange }) => {
      const x = exchange();
      const t = trace(x, fromOutside(n.e164, now).call, situation);
      const site = x.sites.get(n.site)!;
      return {
        number: showNumber(n.e164, site.country),
        e164: spacedNumber(n.e164),
        state: n.state,
        site: site.name,
        trunk: n.trunk ? x.trunks.get(n.trunk)!.name : '',
        lands: t.lands ? t.lands.label : t.outcome,
        landsKind: t.lands?.kind ?? 'refused',
        then: t.then[0]?.lands.label ?? '',
        note: n.note,
      };
    },
    ['e164', 'site', 'trunk', 'state'],
    () => ({ state: 'active' }),
  );
}
