import { HolidaysPage } from '@/features/hours/holidays-page';
import { holidaysPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <HolidaysPage {...await holidaysPage((await params).id)} />;
}
