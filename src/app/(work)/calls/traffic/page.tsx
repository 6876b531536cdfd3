import { TrafficPage } from '@/features/calls/traffic-page';
import { countedPage } from '@/server/pages/calls';

interface Props {
  searchParams: Promise<Record<string, string | undefined>>;
}

export default async function Page({ searchParams }: Props) {
  return <TrafficPage {...await countedPage(await searchParams)} />;
}
