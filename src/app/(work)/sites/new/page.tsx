import { NewSitePage } from '@/features/sites/new-site-page';
import { pageActor } from '@/server/page';
import { newSiteData } from '@/server/sites/sites';

export default async function Page() {
  const actor = await pageActor();
  return <NewSitePage account={actor.account} {...await newSiteData()} />;
}
