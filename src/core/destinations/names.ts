import { KEY_LETTERS } from '../plan';

/** The key of each letter (ITU-T E.161). */
const KEYS: Record<string, string> = {};
for (const [key, letters] of Object.entries(KEY_LETTERS)) for (const letter of letters) KEYS[letter] = key;

/** Letters that stand apart from their base letter and have a spelling of their own. */
const SPELT: Record<string, string> = { ß: 'ss', æ: 'ae', ø: 'o', đ: 'd', ł: 'l', þ: 'th', ð: 'd', œ: 'oe', ı: 'i' };
const UMLAUTS: Record<string, string> = { ä: 'ae', ö: 'oe', ü: 'ue' };

/** Fewest letters of a name that are looked up. */
export const FEWEST_LETTERS = 3;

/**
 * The ways a name can be spelt on the keypad, as keys: first and last name in either order, marks dropped, and ä ö ü also as
 * ae oe ue. Empty for a name in another script, which needs a typed spelling.
 */
export function keysOfName(name: string): string[] {
  const words = name
    .toLowerCase()
    .normalize('NFC')
    .split(/[\s,]+/)
    .filter(Boolean);
  const plain = words.map((w) => folded(w, false));
  const long = words.map((w) => folded(w, true));
  if ([...plain, ...long].some((w) => w === null)) return [];
  const spellings = [plain, long].flatMap((list) => orders(list as string[]));
  return [...new Set(spellings)].filter((keys) => keys.length >= FEWEST_LETTERS);
}

/** The words as they stand, and with the last one first. */
function orders(words: string[]): string[] {
  const keys = words.map((w) => [...w].map((c) => KEYS[c]!).join(''));
  return keys.length < 2 ? keys : [keys.join(''), [keys[keys.length - 1]!, ...keys.slice(0, -1)].join('')];
}

/** A word in the letters a to z; null when a letter has no place on the keypad. Hyphens and apostrophes are passed over. */
function folded(word: string, umlautsLong: boolean): string | null {
  let out = '';
  for (const c of word) {
    if (/[-'’.]/.test(c)) continue;
    const base = (umlautsLong ? UMLAUTS[c] : undefined) ?? SPELT[c] ?? c.normalize('NFKD').replace(/\p{M}/gu, '');
    if (!/^[a-z]*$/.test(base)) return null;
    out += base;
  }
  return out;
}
