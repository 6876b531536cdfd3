/** A large count for people: `1,000 numbers`, `8.8 billion numbers`, `13 trillion numbers`, `more than 999 trillion numbers`. */
export function bigCount(decimal: string): string {
  const n = Number(decimal);
  if (n === 1) return 'one number';
  if (n < 1e6) return `${n.toLocaleString('en-GB')} numbers`;
  if (n < 1e9) return `${trim(n / 1e6)} million numbers`;
  if (n < 1e12) return `${trim(n / 1e9)} billion numbers`;
  if (n < 1e15) return `${trim(n / 1e12)} trillion numbers`;
  return 'more than 999 trillion numbers';
}

const trim = (n: number) => n.toFixed(1).replace(/\.0$/, '');

/** A count of strings in decimal, short: `1 000`, `5.4 thousand million`, `10^33`. */
export function shortCount(count: string): string {
  if (count.length <= 6) return Number(count).toLocaleString('en');
  const places = count.length - 1;
  const first = count.slice(0, 1) + (count[1] === '0' ? '' : `.${count[1]}`);
  if (places < 9) return `${(Number(count) / 1e6).toFixed(places < 7 ? 1 : 0)} million`;
  return `${first} × 10^${places}`;
}
