import { AtlasPage } from '@/features/atlas/atlas-page';
import { atlasPage } from '@/server/pages/others';

interface Props {
  searchParams: Promise<{ phone?: string; at?: string; under?: string; of?: string }>;
}

export default async function Page({ searchParams }: Props) {
  const asked = await atlasPage(await searchParams);
  return <AtlasPage key={JSON.stringify(asked)} {...asked} />;
}
