/** A large count for people: `1,000 numbers`, `8.8 billion numbers`, `13 trillion numbers`, `more than 999 trillion numbers`. */
export function bigCount(decimal: string): string {
  const n = Number(decimal);
  if (n === 1) return 'one number';
  return `${n < 1e15 ? inWords(n) : 'more than 999 trillion'} numbers`;
}

/** A count of strings in decimal, short: `1,000`, `5.4 billion`, `2.1 × 10³³`. */
export function shortCount(count: string): string {
  const n = Number(count);
  if (n < 1e15) return inWords(n);
  // The first two digits as they are: nothing is rounded up to a power of ten.
  const first = `${count[0]}.${count[1]}`.replace(/\.0$/, '');
  const power = [...String(count.length - 1)].map((digit) => '⁰¹²³⁴⁵⁶⁷⁸⁹'[Number(digit)]).join('');
  return `${first} × 10${power}`;
}

const STEPS = [
  [1e12, 'trillion'],
  [1e9, 'billion'],
  [1e6, 'million'],
] as const;

function inWords(n: number): string {
  if (n < 1e6) return n.toLocaleString('en-GB');
  // What would be rounded to a thousand of one word is one of the next.
  const step = STEPS.find(([from]) => n >= from * 0.99995)!;
  return step
    ? `${(Math.round(n / (step[0] / 10)) / 10).toLocaleString('en-GB')} ${step[1]}`
    : n.toLocaleString('en-GB');
}
