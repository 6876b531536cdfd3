import { messagesAt } from '@/server/pages/own';

export const dynamic = 'force-dynamic';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  await messagesAt((await params).id);
}
