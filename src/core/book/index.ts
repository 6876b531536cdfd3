export { bookOf, type BookAsked } from './book';
export type { Book, BookChapter } from './schema';
