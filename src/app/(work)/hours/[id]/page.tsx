import { HoursPage } from '@/features/hours/hours-page';
import { hoursPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <HoursPage {...await hoursPage((await params).id)} />;
}
