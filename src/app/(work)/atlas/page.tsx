import { AtlasPage } from '@/features/atlas/atlas-page';
import { atlasPage, type AtlasAddress } from '@/server/pages/asking';

interface Props {
  searchParams: Promise<AtlasAddress>;
}

export default async function Page({ searchParams }: Props) {
  const asked = await atlasPage(await searchParams);
  return <AtlasPage key={JSON.stringify(asked)} {...asked} />;
}
