import { NumbersPage } from '@/features/numbers/numbers-page';
import { ledgerPageData } from '@/server/ledger/page-data';

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  return <NumbersPage data={await ledgerPageData('number', await searchParams)} />;
}
