import { ImpactPage } from '@/features/impact/impact-page';
import { impactPage } from '@/server/pages/others';

export default async function Page({ searchParams }: { searchParams: Promise<{ from?: string; to?: string }> }) {
  return <ImpactPage {...await impactPage(await searchParams)} />;
}
