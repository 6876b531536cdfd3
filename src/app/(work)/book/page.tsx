import { notFound } from 'next/navigation';
import { BookPage } from '@/features/book/book-page';
import { bookPage } from '@/server/pages/others';

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  const asked = await bookPage(await searchParams);
  return asked ? <BookPage {...asked} /> : notFound();
}
