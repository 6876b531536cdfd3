import { ClassesPage } from '@/features/classes/classes-page';
import { classes } from '@/server/pages/ledgers';

export default async function Page() {
  return <ClassesPage data={await classes()} />;
}
