import { TracePage } from '@/features/trace/trace-page';
import { tracePage, type TraceAddress } from '@/server/pages/asking';

interface Props {
  searchParams: Promise<TraceAddress>;
}

export default async function Page({ searchParams }: Props) {
  return <TracePage data={await tracePage(await searchParams)} />;
}
