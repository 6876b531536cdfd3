import { ExtensionsPage } from '@/features/extensions/extensions-page';
import { bulkOptions } from '@/server/bulk/options';
import { ledgerPageData } from '@/server/ledger/page-data';

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  return <ExtensionsPage data={await ledgerPageData('extension', await searchParams)} bulk={await bulkOptions()} />;
}
