import { ClassPage } from '@/features/classes/class-page';
import { objectPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <ClassPage data={await objectPage('class', (await params).id)} />;
}
