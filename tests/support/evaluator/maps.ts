/*
 * Digit maps (ENGINE E2) by derivatives (Brzozowski 1964): what is left of a language after one symbol. Written from the
 * notation alone; it shares nothing with the automata of the core.
 */

export type Lang =
  | { is: 'none' }
  | { is: 'empty' }
  | { is: 'one'; of: string }
  | { is: 'then'; a: Lang; b: Lang }
  | { is: 'or'; a: Lang; b: Lang }
  | { is: 'many'; a: Lang };

const NONE: Lang = { is: 'none' };
const EMPTY: Lang = { is: 'empty' };

const then = (a: Lang, b: Lang): Lang =>
  a.is === 'none' || b.is === 'none' ? NONE : a.is === 'empty' ? b : b.is === 'empty' ? a : { is: 'then', a, b };
const or = (a: Lang, b: Lang): Lang =>
  a.is === 'none' ? b : b.is === 'none' ? a : JSON.stringify(a) === JSON.stringify(b) ? a : { is: 'or', a, b };

/** A string as a language. */
export const literal = (text: string): Lang =>
  [...text].reduceRight<Lang>((rest, c) => then({ is: 'one', of: c }, rest), EMPTY);

export function nullable(l: Lang): boolean {
  if (l.is === 'empty' || l.is === 'many') return true;
  if (l.is === 'then') return nullable(l.a) && nullable(l.b);
  return l.is === 'or' && (nullable(l.a) || nullable(l.b));
}

/** What may follow after one symbol. */
export function after(l: Lang, symbol: string): Lang {
  switch (l.is) {
    case 'none':
    case 'empty':
      return NONE;
    case 'one':
      return l.of.includes(symbol) ? EMPTY : NONE;
    case 'or':
      return or(after(l.a, symbol), after(l.b, symbol));
    case 'many':
      return then(after(l.a, symbol), l);
    case 'then': {
      const first = then(after(l.a, symbol), l.b);
      return nullable(l.a) ? or(first, after(l.b, symbol)) : first;
    }
  }
}

/** Whether a language has a string of one symbol or more. */
export function goesOn(l: Lang): boolean {
  if (l.is === 'one') return true;
  if (l.is === 'many') return goesOn(l.a);
  if (l.is === 'or' || l.is === 'then') return goesOn(l.a) || goesOn(l.b);
  return false;
}

/** Reads a map: its language, and that of those alternatives that wait for the timer (`T` at their end). */
export function readMap(text: string): { all: Lang; timed: Lang } {
  const s = text.replace(/\s/g, '');
  let at = 0;
  const alternatives = (): { lang: Lang; timer: boolean }[] => {
    const out: { lang: Lang; timer: boolean }[] = [];
    do {
      if (s[at] === '|') at++;
      let lang: Lang = EMPTY;
      while (at < s.length && !'|)tT'.includes(s[at]!)) lang = then(lang, repeated());
      const timer = at < s.length && 'tT'.includes(s[at]!);
      if (timer) at++;
      out.push({ lang, timer });
    } while (s[at] === '|');
    return out;
  };
  const repeated = (): Lang => {
    const element = single();
    if (s[at] === '.') {
      at++;
      return { is: 'many', a: element };
    }
    const count = /^\{(\d+)(?:,(\d+))?\}/.exec(s.slice(at));
    if (!count) return element;
    at += count[0].length;
    const [least, most] = [Number(count[1]), Number(count[2] ?? count[1])];
    let lang: Lang = EMPTY;
    for (let n = most; n > 0; n--) lang = n > least ? or(EMPTY, then(element, lang)) : then(element, lang);
    return lang;
  };
  const single = (): Lang => {
    const c = s[at++]!;
    if (c === '(') {
      const inner = alternatives();
      at++;
      return inner.reduce<Lang>((all, one) => or(all, one.lang), NONE);
    }
    if (c === 'x' || c === 'X') return { is: 'one', of: '0123456789' };
    if (c !== '[') return { is: 'one', of: c };
    let of = '';
    for (; s[at] !== ']'; at++)
      if (s[at] === '-') {
        for (let d = Number(s[at - 1]) + 1; d < Number(s[at + 1]); d++) of += d;
      } else of += s[at];
    at++;
    return { is: 'one', of };
  };
  const read = alternatives();
  const join = (list: typeof read) => list.reduce<Lang>((all, one) => or(all, one.lang), NONE);
  return { all: join(read), timed: join(read.filter((r) => r.timer)) };
}

/** Whether a map takes a string. */
export const takes = (map: string, text: string): boolean =>
  nullable([...text].reduce((l, c) => after(l, c), readMap(map).all));
