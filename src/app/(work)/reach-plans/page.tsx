import { ReachPlansPage } from '@/features/reach-plans/reach-plans-page';
import { reachPlans } from '@/server/pages/ledgers';

export default async function Page() {
  return <ReachPlansPage data={await reachPlans()} />;
}
