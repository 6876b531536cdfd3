import { PersonPage } from '@/features/people/person-page';
import { objectPage } from '@/server/object-page';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <PersonPage data={await objectPage('person', (await params).id)} />;
}
