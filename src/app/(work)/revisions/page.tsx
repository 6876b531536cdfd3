import { RevisionsPage } from '@/features/go-live/revisions-page';
import { listRevisions } from '@/server/draft';
import { pageActor } from '@/server/page';

export default async function Page() {
  return <RevisionsPage revisions={await listRevisions(await pageActor())} />;
}
