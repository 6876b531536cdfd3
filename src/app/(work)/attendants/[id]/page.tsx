import { AttendantPage } from '@/features/attendants/attendant-page';
import { attendantPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <AttendantPage page={await attendantPage((await params).id)} />;
}
