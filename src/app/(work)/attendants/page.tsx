import { AttendantsPage } from '@/features/attendants/attendants-page';
import { attendants } from '@/server/pages/ledgers';

export default async function Page() {
  return <AttendantsPage data={await attendants()} />;
}
