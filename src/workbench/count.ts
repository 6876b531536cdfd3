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
