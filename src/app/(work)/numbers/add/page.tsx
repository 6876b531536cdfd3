import { AddNumbersPage } from '@/features/numbers/add-numbers-page';
import { addNumbersPage } from '@/server/pages/others';

export default async function Page({ searchParams }: { searchParams: Promise<{ site?: string }> }) {
  return <AddNumbersPage {...await addNumbersPage((await searchParams).site)} />;
}
