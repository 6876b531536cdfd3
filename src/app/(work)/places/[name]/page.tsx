import { PlaceLedgerPage } from '@/features/places/place-ledger-page';
import { placesOf } from '@/server/pages/ledgers';

export default async function Page({ params }: { params: Promise<{ name: string }> }) {
  return <PlaceLedgerPage {...await placesOf((await params).name)} />;
}
