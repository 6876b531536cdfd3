import { PeoplePage } from '@/features/people/people-page';
import { longLedger } from '@/server/pages/ledgers';

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  return <PeoplePage data={await longLedger('person', await searchParams)} />;
}
