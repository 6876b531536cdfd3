import { SitePage } from '@/features/sites/site-page';
import { objectPage } from '@/server/object-page';
import { movesOf } from '@/server/sites/sites';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <SitePage data={await objectPage('site', id)} moves={await movesOf(id)} />;
}
