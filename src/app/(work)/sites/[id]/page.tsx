import { SitePage } from '@/features/sites/site-page';
import { sitePage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <SitePage {...await sitePage((await params).id)} />;
}
