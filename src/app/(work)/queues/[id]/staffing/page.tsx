import { StaffingPage } from '@/features/queues/staffing/staffing-page';
import { staffingPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <StaffingPage data={await staffingPage((await params).id)} />;
}
