import { PromisesPage } from '@/features/promises/promises-page';
import { promises } from '@/server/pages/ledgers';

export default async function Page() {
  return <PromisesPage data={await promises()} />;
}
