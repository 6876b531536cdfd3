/** The alphabet of a digit map, in the order witnesses are sorted by (ENGINE E2): `0-9 * # +`. */
export const SYMBOLS = '0123456789*#+';
export const SYMBOL_COUNT = SYMBOLS.length;

/** One bit a symbol; bit i is `SYMBOLS[i]`. */
export type SymbolMask = number;

export const ANY_DIGIT: SymbolMask = 0x3ff;
export const PLUS_INDEX = 12;
export const HASH_INDEX = 11;

/** The longest string anybody can dial; counting and dialling stop here (ENGINE E2). */
export const LONGEST_DIALLED = 32;

const indexByCode = new Int8Array(128).fill(-1);
for (let i = 0; i < SYMBOL_COUNT; i++) indexByCode[SYMBOLS.charCodeAt(i)] = i;

/** The index of one UTF-16 code in `SYMBOLS`, or -1 when it is no dialable symbol. */
export function symbolIndex(code: number): number {
  return code < 128 ? (indexByCode[code] ?? -1) : -1;
}

/** Offset of the first character that is no dialable symbol, or that is a `+` after the first place; -1 when all are good. */
export function firstBadSymbol(text: string): number {
  for (let i = 0; i < text.length; i++) {
    const index = symbolIndex(text.charCodeAt(i));
    if (index < 0 || (index === PLUS_INDEX && i > 0)) return i;
  }
  return -1;
}

/** A set of symbols as people read it: `7`, `2-9`, `0, 3 or *`, `any digit`. */
export function maskInWords(mask: SymbolMask): string {
  const known = words.get(mask);
  if (known !== undefined) return known;
  const text = maskWords(mask);
  words.set(mask, text);
  return text;
}

/** At most one entry for each of the 8192 sets of symbols. */
const words = new Map<SymbolMask, string>();

function maskWords(mask: SymbolMask): string {
  if (mask === ANY_DIGIT) return 'any digit';
  const parts = ranges(mask).map(([from, to]) =>
    from === to
      ? SYMBOLS[from]
      : to === from + 1
        ? `${SYMBOLS[from]}, ${SYMBOLS[to]}`
        : `${SYMBOLS[from]}-${SYMBOLS[to]}`,
  );
  const flat = parts.join(', ').split(', ');
  return flat.length < 2 ? flat[0] || 'nothing' : `${flat.slice(0, -1).join(', ')} or ${flat[flat.length - 1]}`;
}

/** Runs of neighbouring digits in a mask as [first, last] indexes; `*`, `#` and `+` always stand alone. */
export function ranges(mask: SymbolMask): [number, number][] {
  const out: [number, number][] = [];
  for (let i = 0; i < SYMBOL_COUNT; i++) {
    if (!(mask & (1 << i))) continue;
    const last = out[out.length - 1];
    if (last && last[1] === i - 1 && i < 10) last[1] = i;
    else out.push([i, i]);
  }
  return out;
}

/** `1st`, `2nd`, `3rd`, `4th` … */
export function ordinal(n: number): string {
  const tens = n % 100;
  const suffix = tens > 10 && tens < 14 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${suffix}`;
}
