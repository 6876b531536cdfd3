import type { BookQuery, bookFacts } from '@/contract/book';
import type { Actor } from '../access/rights';
import { bookPdf } from '../book/pdf';
import { ask } from '../engine';
import { piecesAround } from '../state/situation';
import { file } from './exports';
import type { Handlers } from './handler';

async function bookFor(actor: Actor, query: BookQuery, signal: AbortSignal) {
  const now = Date.now();
  return ask('book', { reader: actor, ...query, now, pieces: await piecesAround(now) }, { signal });
}

export const bookHandlers: Handlers<keyof typeof bookFacts> = {
  book: ({ actor, query, request }) => bookFor(actor, query, request.signal),
  bookFile: async ({ actor, query, request }) => {
    const book = await bookFor(actor, query, request.signal);
    const of = { draft: 'As drafted', live: 'As it is live' }[query.of] ?? `Revision ${query.of}`;
    return file(await bookPdf(book, of), 'application/pdf', `call-flow-book-${query.site || query.number}.pdf`);
  },
};
