import { ReachPage } from '@/features/reach/reach-page';
import { reachPage } from '@/server/pages/asking';

export default async function Page({ searchParams }: { searchParams: Promise<{ to?: string; of?: string }> }) {
  const asked = await reachPage(await searchParams);
  return <ReachPage key={JSON.stringify(asked)} {...asked} />;
}
