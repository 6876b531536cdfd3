import { notFound } from 'next/navigation';
import { MovePage } from '@/features/people/move-page';
import { draftPlan } from '@/server/draft';
import { pageActor } from '@/server/page';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  await pageActor();
  const { id } = await params;
  const { plan } = await draftPlan();
  const person = plan.people.find((p) => p.id === id);
  if (!person) notFound();
  return (
    <MovePage
      id={id}
      name={person.name}
      from={plan.sites.find((s) => s.id === person.site)!.name}
      sites={plan.sites.filter((s) => s.id !== person.site).map((s) => ({ id: s.id, label: s.name }))}
    />
  );
}
