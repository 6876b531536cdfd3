import { TracePage } from '@/features/trace/trace-page';
import { tracePage } from '@/server/pages/others';

interface Props {
  searchParams: Promise<{ from?: string; dial?: string; at?: string; every?: string; with?: string; of?: string; beside?: string }>;
}

export default async function Page({ searchParams }: Props) {
  return <TracePage data={await tracePage(await searchParams)} />;
}
