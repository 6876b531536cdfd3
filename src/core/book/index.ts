export { bookOf } from './book';
export type { Book, BookChapter } from './schema';
