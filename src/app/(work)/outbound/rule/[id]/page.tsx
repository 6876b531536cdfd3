import { RungPage } from '@/features/outbound/rung-page';
import { objectPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <RungPage data={await objectPage('rung', (await params).id)} />;
}
