import { AddNumbersPage } from '@/features/numbers/add-numbers-page';
import { draftPlan } from '@/server/draft';
import { pageActor } from '@/server/page';

export default async function Page({ searchParams }: { searchParams: Promise<{ site?: string }> }) {
  const actor = await pageActor();
  const { plan } = await draftPlan();
  const { site } = await searchParams;
  return (
    <AddNumbersPage
      account={actor.account}
      site={plan.sites.find((s) => s.id === site)?.id ?? plan.sites[0]?.id ?? ''}
      sites={plan.sites.map((s) => ({ id: s.id, label: s.name }))}
      trunks={plan.trunks.map((t) => ({ id: t.id, label: t.name, site: t.site }))}
    />
  );
}
