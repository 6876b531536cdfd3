import { ErasePage } from '@/features/calls/erase-page';
import { erasePage } from '@/server/pages/calls';

export default async function Page() {
  return <ErasePage {...await erasePage()} />;
}
