import { ChartsPage } from '@/features/calls/charts-page';
import { countedPage } from '@/server/pages/calls';

interface Props {
  searchParams: Promise<Record<string, string | undefined>>;
}

export default async function Page({ searchParams }: Props) {
  return <ChartsPage {...await countedPage(await searchParams)} />;
}
