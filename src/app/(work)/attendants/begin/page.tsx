import { BeginPage } from '@/features/attendants/begin-page';
import { attendantBegun } from '@/server/pages/others';

export default async function Page() {
  return <BeginPage data={await attendantBegun()} />;
}
