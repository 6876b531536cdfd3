import { TrunkPage } from '@/features/trunks/trunk-page';
import { objectPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <TrunkPage data={await objectPage('trunk', (await params).id)} />;
}
