import { OutboundPage } from '@/features/outbound/outbound-page';
import { outboundData } from '@/server/lists';

export default async function Page({ searchParams }: { searchParams: Promise<{ ladder?: string }> }) {
  return <OutboundPage data={await outboundData((await searchParams).ladder)} />;
}
