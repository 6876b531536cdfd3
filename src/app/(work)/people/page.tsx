import { spacedNumber } from '@/core/numbers';
import { PeoplePage } from '@/features/people/people-page';
import { ledgerPage } from '@/server/ledger-page';

export default async function Page() {
  const data = await ledgerPage(
    'person',
    (p, { plan, exchange }) => {
      const mine = plan.extensions.filter((e) => e.person === p.id);
      return {
        name: p.name,
        site: exchange().sites.get(p.site)!.name,
        extensions: mine.map((e) => e.digits).join(', '),
        number: mine
          .flatMap((e) => exchange().numberOf.get(e.id) ?? [])
          .map((n) => spacedNumber(n.e164))
          .join(', '),
        email: p.email ?? '',
      };
    },
    ['name', 'email', 'site'],
  );
  return <PeoplePage data={data} />;
}
