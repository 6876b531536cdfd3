import { SitePage } from '@/features/sites/site-page';
import { objectPage } from '@/server/object-page';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <SitePage data={await objectPage('site', (await params).id)} />;
}
