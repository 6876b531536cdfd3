import { LeavePage } from '@/features/people/leave-page';
import { pageActor } from '@/server/page';
import { leaveProposal } from '@/server/people/acts';
import { peopleChoices } from '@/server/people/choices';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <LeavePage id={id} first={await leaveProposal(await pageActor(), id)} {...await peopleChoices(id)} />;
}
