import { ReachPlanPage } from '@/features/reach-plans/reach-plan-page';
import { reachPlanPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <ReachPlanPage {...await reachPlanPage((await params).id)} />;
}
