import { ClassesPage } from '@/features/classes/classes-page';
import { classesData } from '@/server/lists';

export default async function Page() {
  return <ClassesPage data={await classesData()} />;
}
