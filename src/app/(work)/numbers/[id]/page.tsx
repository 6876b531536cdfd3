import { NumberPage } from '@/features/numbers/number-page';
import { objectPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <NumberPage data={await objectPage('number', (await params).id)} />;
}
