import { ReplayPage } from '@/features/calls/replay-page';
import { countedPage } from '@/server/pages/calls';

interface Props {
  searchParams: Promise<Record<string, string | undefined>>;
}

export default async function Page({ searchParams }: Props) {
  return <ReplayPage {...await countedPage(await searchParams)} />;
}
