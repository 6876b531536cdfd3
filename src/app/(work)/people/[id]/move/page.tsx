import { MovePage } from '@/features/people/move-page';
import { movePage } from '@/server/pages/others';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <MovePage {...await movePage((await params).id)} />;
}
