import { JoinPage } from '@/features/own/join-page';
import { joinPageData } from '@/server/pages/own';

export const dynamic = 'force-dynamic';

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  return <JoinPage token={token} of={await joinPageData(token)} />;
}
