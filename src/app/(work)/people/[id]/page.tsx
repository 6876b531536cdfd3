import { PersonPage } from '@/features/people/person-page';
import { personPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <PersonPage {...await personPage((await params).id)} />;
}
