import { CallsPage } from '@/features/calls/calls-page';
import { callsPage } from '@/server/pages/calls';

interface Props {
  searchParams: Promise<Record<string, string | undefined>>;
}

export default async function Page({ searchParams }: Props) {
  return <CallsPage {...await callsPage(await searchParams)} />;
}
