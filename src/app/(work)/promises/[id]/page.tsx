import { PromisePage } from '@/features/promises/promise-page';
import { promisePage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <PromisePage {...await promisePage((await params).id)} />;
}
