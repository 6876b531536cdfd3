import { RingGroupsPage } from '@/features/ring-groups/ring-groups-page';
import { ringGroups } from '@/server/pages/ledgers';

export default async function Page() {
  return <RingGroupsPage data={await ringGroups()} />;
}
