import { PlacePage } from '@/features/places/place-page';
import { placePage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ name: string; id: string }> }) {
  const { name, id } = await params;
  return <PlacePage {...await placePage(name, id)} />;
}
