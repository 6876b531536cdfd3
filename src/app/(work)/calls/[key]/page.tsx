import { CallPage } from '@/features/calls/call-page';
import { callPage } from '@/server/pages/calls';

export default async function Page({ params }: { params: Promise<{ key: string }> }) {
  return <CallPage {...await callPage((await params).key)} />;
}
