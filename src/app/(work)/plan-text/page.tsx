import { PlanTextPage } from '@/features/plan-text/plan-text-page';
import { planTextPage } from '@/server/pages/others';

export default async function Page() {
  return <PlanTextPage {...await planTextPage()} />;
}
