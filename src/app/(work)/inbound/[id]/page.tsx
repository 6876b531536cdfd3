import { InboundRoutePage } from '@/features/inbound/inbound-route-page';
import { inboundRoutePage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <InboundRoutePage {...await inboundRoutePage((await params).id)} />;
}
