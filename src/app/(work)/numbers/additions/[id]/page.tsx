import { NumberAdditionPage } from '@/features/numbers/number-addition-page';
import { objectPage } from '@/server/object-page';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <NumberAdditionPage data={await objectPage('numberAddition', (await params).id)} />;
}
