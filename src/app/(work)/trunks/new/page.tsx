import { NewTrunkPage } from '@/features/trunks/new-trunk-page';
import { newTrunkPage } from '@/server/pages/others';

export default async function Page() {
  return <NewTrunkPage {...await newTrunkPage()} />;
}
