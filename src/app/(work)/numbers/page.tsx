import { NumbersPage } from '@/features/numbers/numbers-page';
import { numbersData } from '@/server/numbers-data';

export default async function Page() {
  return <NumbersPage data={await numbersData()} />;
}
