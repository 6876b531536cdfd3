import { TracePage } from '@/features/trace/trace-page';
import { traceData } from '@/server/trace-page';

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<{ from?: string; dial?: string; at?: string }>;
}) {
  return <TracePage data={await traceData(await searchParams)} />;
}
