import { GoLivePage } from '@/features/go-live/go-live-page';
import { goLivePage } from '@/server/pages/others';

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<{ kind?: string; by?: string; act?: string }>;
}) {
  const data = await goLivePage(await searchParams);
  return <GoLivePage key={JSON.stringify(data.asked)} data={data} />;
}
