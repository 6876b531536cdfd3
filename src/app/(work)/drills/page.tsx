import { DrillsPage } from '@/features/drills/drills-page';
import { mayAskPage } from '@/server/pages/others';

export default async function Page() {
  await mayAskPage();
  return <DrillsPage />;
}
