import { RingGroupPage } from '@/features/ring-groups/ring-group-page';
import { objectPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <RingGroupPage data={await objectPage('ringGroup', (await params).id)} />;
}
