import { NumberAdditionPage } from '@/features/numbers/number-addition-page';
import { objectPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <NumberAdditionPage data={await objectPage('numberAddition', (await params).id)} />;
}
