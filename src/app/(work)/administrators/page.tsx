import { AdministratorsPage } from '@/features/administrators/administrators-page';
import { administratorsPage } from '@/server/pages/others';

export default async function Page() {
  return <AdministratorsPage {...await administratorsPage()} />;
}
