import { RevisionsPage } from '@/features/go-live/revisions-page';
import { revisionsPage } from '@/server/pages/others';

export default async function Page() {
  return <RevisionsPage revisions={await revisionsPage()} />;
}
