import { TimeSwitchPage } from '@/features/time-switches/time-switch-page';
import { timeSwitchPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <TimeSwitchPage {...await timeSwitchPage((await params).id)} />;
}
