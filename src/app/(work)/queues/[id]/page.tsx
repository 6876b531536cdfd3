import { QueuePage } from '@/features/queues/queue-page';
import { queuePage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <QueuePage {...await queuePage((await params).id)} />;
}
