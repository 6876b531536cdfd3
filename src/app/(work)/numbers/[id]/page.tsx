import { NumberPage } from '@/features/numbers/number-page';
import { numberPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <NumberPage {...await numberPage((await params).id)} />;
}
