import { NumbersPage } from '@/features/numbers/numbers-page';
import { longLedger } from '@/server/pages/ledgers';

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  return <NumbersPage data={await longLedger('number', await searchParams)} />;
}
