import { PeoplePage } from '@/features/people/people-page';
import { bulkOptions } from '@/server/bulk/options';
import { ledgerPageData } from '@/server/ledger/page-data';

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  return <PeoplePage data={await ledgerPageData('person', await searchParams)} bulk={await bulkOptions()} />;
}
