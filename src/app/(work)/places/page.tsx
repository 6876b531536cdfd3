import { PlacesPage } from '@/features/places/places-page';
import { places } from '@/server/pages/ledgers';

export default async function Page({ searchParams }: { searchParams: Promise<{ site?: string }> }) {
  return <PlacesPage data={await places((await searchParams).site)} />;
}
