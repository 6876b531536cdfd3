import { parseSpans, parseWeek, type Span, type Week } from '@/core/hours';

/** Opening times of a week in text, read; throws on a bad one. */
export function week(text: string): Week {
  const read = parseWeek(text);
  if (!read.ok) throw new Error(read.error.sentence);
  return read.week;
}

/** Times of one day in text, read; throws on a bad one. */
export function spans(text: string): Span[] {
  const read = parseSpans(text);
  if (!read.ok) throw new Error(read.error.sentence);
  return read.spans;
}
