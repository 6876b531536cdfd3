import { RehearsalPage } from '@/features/rehearsal/rehearsal-page';
import { rehearsalPage } from '@/server/pages/others';

interface Props {
  searchParams: Promise<Record<string, string | undefined>>;
}

export default async function Page({ searchParams }: Props) {
  return <RehearsalPage start={await rehearsalPage(await searchParams)} />;
}
