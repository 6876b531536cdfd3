import { InboundPage } from '@/features/inbound/inbound-page';
import { inbound } from '@/server/pages/ledgers';

export default async function Page() {
  return <InboundPage data={await inbound()} />;
}
