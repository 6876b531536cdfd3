import { ExtensionsPage } from '@/features/extensions/extensions-page';
import { longLedger } from '@/server/pages/ledgers';

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  return <ExtensionsPage data={await longLedger('extension', await searchParams)} />;
}
