import { OutboundPage } from '@/features/outbound/outbound-page';
import { outbound } from '@/server/pages/ledgers';

export default async function Page({ searchParams }: { searchParams: Promise<{ ladder?: string }> }) {
  return <OutboundPage data={await outbound((await searchParams).ladder)} />;
}
