import type { OneError } from '@/contract/shared';

/** Deepest that lists and objects may lie in each other. */
const MOST_DEPTH = 40;

/**
 * What makes a value from outside no value that can be kept: text that is none (half a surrogate pair, or a zero octet), or
 * things inside each other without end. Null when it is fine; keys count as text.
 */
export function unkeepable(value: unknown): OneError | null {
  const left: { value: unknown; path: string; depth: number }[] = [{ value, path: '', depth: 0 }];
  for (let at = left.pop(); at !== undefined; at = left.pop()) {
    const { value: v, path, depth } = at;
    if (typeof v === 'string') {
      const wrong = wrongText(v);
      if (wrong) return { code: 'no-text', path, sentence: `${path || 'The input'} ${wrong}.` };
    } else if (v !== null && typeof v === 'object') {
      if (depth >= MOST_DEPTH)
        return { code: 'too-deep', path: '', sentence: `Nothing of ours lies more than ${MOST_DEPTH} levels deep.` };
      for (const [key, inner] of Object.entries(v)) {
        if (wrongText(key))
          return { code: 'no-text', path, sentence: `${path || 'The input'} has a key that is no text.` };
        left.push({ value: inner, path: path === '' ? key : `${path}.${key}`, depth: depth + 1 });
      }
    }
  }
  return null;
}

function wrongText(text: string): string | null {
  if (!text.isWellFormed()) return 'holds half a surrogate pair, which is no character (Unicode, section 3.9)';
  if (text.includes('\u0000')) return 'holds a zero octet, which is no character of a text';
  return null;
}
