import { InboundPage } from '@/features/inbound/inbound-page';
import { inboundData } from '@/server/lists';

export default async function Page() {
  return <InboundPage data={await inboundData()} />;
}
