import { TrunksPage } from '@/features/trunks/trunks-page';
import { trunks } from '@/server/pages/ledgers';

export default async function Page() {
  return <TrunksPage data={await trunks()} />;
}
