import { GoLivePage } from '@/features/go-live/go-live-page';
import { labelsOf } from '@/server/lists';
import { may } from '@/server/access/rights';
import { draftPlan, listRevisions, livePlan, pendingEdits } from '@/server/draft';
import { pageActor } from '@/server/page';

export default async function Page() {
  const actor = await pageActor();
  const pending = await pendingEdits(actor);
  const [revisions, draft, live] = [await listRevisions(actor), await draftPlan(), await livePlan()];
  return (
    <GoLivePage
      data={{
        ...pending,
        labels: { ...labelsOf(live.plan), ...labelsOf(draft.plan) },
        mayGoLive: may(actor, 'goLive'),
        mayEdit: may(actor, 'edit'),
        me: actor.name,
        live: revisions[0] ?? null,
      }}
    />
  );
}
