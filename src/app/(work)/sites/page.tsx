import { SitesPage } from '@/features/sites/sites-page';
import { sites } from '@/server/pages/ledgers';

export default async function Page() {
  return <SitesPage data={await sites()} />;
}
