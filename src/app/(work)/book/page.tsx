import { notFound } from 'next/navigation';
import { BookPage } from '@/features/book/book-page';
import { bookPage } from '@/server/pages/asking';

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  const asked = await bookPage(await searchParams);
  return asked ? <BookPage {...asked} /> : notFound();
}
