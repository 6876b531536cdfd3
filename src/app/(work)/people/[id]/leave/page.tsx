import { LeavePage } from '@/features/people/leave-page';
import { leavePage } from '@/server/pages/others';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <LeavePage {...await leavePage((await params).id)} />;
}
