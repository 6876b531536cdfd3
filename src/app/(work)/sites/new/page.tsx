import { NewSitePage } from '@/features/sites/new-site-page';
import { newSitePage } from '@/server/pages/others';

export default async function Page() {
  return <NewSitePage {...await newSitePage()} />;
}
