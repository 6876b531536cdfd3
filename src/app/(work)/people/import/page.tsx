import { ImportPage } from '@/features/import/import-page';
import { importPage } from '@/server/pages/others';

export default async function Page() {
  return <ImportPage {...await importPage()} />;
}
