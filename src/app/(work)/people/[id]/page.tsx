import { PersonPage } from '@/features/people/person-page';
import { personPage } from '@/server/people/person-page';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <PersonPage {...await personPage((await params).id)} />;
}
