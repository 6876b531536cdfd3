import { MissedPage } from '@/features/calls/missed-page';
import { missedPage } from '@/server/pages/calls';

interface Props {
  searchParams: Promise<{ days?: string; all?: string }>;
}

export default async function Page({ searchParams }: Props) {
  return <MissedPage {...await missedPage(await searchParams)} />;
}
