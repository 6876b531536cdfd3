import { InboundRoutePage } from '@/features/inbound/inbound-route-page';
import { objectPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <InboundRoutePage data={await objectPage('inboundRoute', (await params).id)} />;
}
