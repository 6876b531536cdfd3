import { PublicCallPage } from '@/features/call-page/call-page';
import { callPage } from '@/server/pages/board';

export const dynamic = 'force-dynamic';

export default async function Page({ params }: { params: Promise<{ page: string }> }) {
  return <PublicCallPage {...await callPage((await params).page)} />;
}
