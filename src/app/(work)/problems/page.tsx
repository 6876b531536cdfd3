import { ProblemsPage } from '@/features/problems/problems-page';
import { problemsPage } from '@/server/pages/today';

export default async function Page({ searchParams }: { searchParams: Promise<{ muted?: string }> }) {
  return <ProblemsPage data={await problemsPage((await searchParams).muted === 'true')} />;
}
