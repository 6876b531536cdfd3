import { LogImportPage } from '@/features/calls/import-page';
import { callImportPage } from '@/server/pages/calls';

export default async function Page() {
  return <LogImportPage {...await callImportPage()} />;
}
