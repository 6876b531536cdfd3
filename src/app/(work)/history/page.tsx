import { HistoryPage } from '@/features/history/history-page';
import { historyPage } from '@/server/pages/others';

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  const data = await historyPage(await searchParams);
  return <HistoryPage key={JSON.stringify(data.asked)} {...data} />;
}
