import { TodayPage } from '@/features/today/today-page';
import { todayData } from '@/server/pages/today';

export default async function Page() {
  return <TodayPage data={await todayData()} />;
}
