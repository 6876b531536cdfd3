import { notFound } from 'next/navigation';
import { SameAsPage } from '@/features/people/same-as-page';
import { may } from '@/server/access/rights';
import { draftPlan } from '@/server/draft';
import { pageActor } from '@/server/page';
import { compareWith } from '@/server/people/acts';
import { peopleChoices } from '@/server/people/choices';

interface Props {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ other?: string }>;
}

export default async function Page({ params, searchParams }: Props) {
  const actor = await pageActor();
  const { id } = await params;
  const { plan } = await draftPlan();
  const person = plan.people.find((p) => p.id === id);
  if (!person) notFound();
  const asked = (await searchParams).other;
  const beside = plan.people.some((p) => p.id === asked) ? asked! : null;
  const { people, many } = await peopleChoices(id);
  return (
    <SameAsPage
      id={id}
      name={person.name}
      people={people}
      many={many}
      canEdit={may(actor, 'edit')}
      other={beside}
      comparison={beside ? await compareWith(actor, id, beside) : null}
    />
  );
}
