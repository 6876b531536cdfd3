import { BoardPage } from '@/features/queues/board/board-page';
import { boardPage } from '@/server/pages/board';

export default async function Page({ searchParams }: { searchParams: Promise<{ queue?: string | string[] }> }) {
  const { queue } = await searchParams;
  return <BoardPage first={await boardPage(typeof queue === 'string' ? queue : '')} />;
}
