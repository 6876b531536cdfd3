import { SameAsPage } from '@/features/people/same-as-page';
import { sameAsPage } from '@/server/pages/others';

interface Props {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ other?: string }>;
}

export default async function Page({ params, searchParams }: Props) {
  return <SameAsPage {...await sameAsPage((await params).id, (await searchParams).other)} />;
}
