import { QueuesPage } from '@/features/queues/queues-page';
import { queues } from '@/server/pages/ledgers';

export default async function Page() {
  return <QueuesPage data={await queues()} />;
}
