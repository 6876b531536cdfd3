import { OwnPage } from '@/features/own/own-page';
import { ownPageData } from '@/server/pages/own';

export const dynamic = 'force-dynamic';

export default async function Page() {
  return <OwnPage data={await ownPageData()} />;
}
