import { notFound } from 'next/navigation';
import { AdministratorsPage } from '@/features/administrators/administrators-page';
import { listAdministrators } from '@/server/access/administrators';
import { AREAS, AREA_WORDS } from '@/server/access/area-names';
import { RIGHTS, RIGHT_WORDS, UNLIMITED_RIGHTS, may } from '@/server/access/rights';
import { listRoles } from '@/server/access/roles';
import { draftPlan } from '@/server/draft';
import { pageActor } from '@/server/page';

export default async function Page() {
  const actor = await pageActor();
  if (!may(actor, 'administer')) notFound();
  return (
    <AdministratorsPage
      me={actor.account}
      administrators={await listAdministrators(actor)}
      roles={await listRoles()}
      rights={RIGHTS.map((r) => ({ right: r, words: RIGHT_WORDS[r], unlimited: UNLIMITED_RIGHTS.includes(r) }))}
      areas={AREAS.map((a) => ({ id: a, label: AREA_WORDS[a] }))}
      sites={(await draftPlan()).plan.sites.map((s) => ({ id: s.id, label: s.name }))}
    />
  );
}
