import { TimeSwitchesPage } from '@/features/time-switches/time-switches-page';
import { timeSwitches } from '@/server/pages/ledgers';

export default async function Page() {
  return <TimeSwitchesPage data={await timeSwitches()} />;
}
