/** A large count for people: `1,000 numbers`, `8.8 billion numbers`, `1.0 × 10¹³ numbers`. */
export function bigCount(decimal: string): string {
  const n = Number(decimal);
  if (n === 1) return 'one number';
  if (n < 1e6) return `${n.toLocaleString('en-GB')} numbers`;
  if (n < 1e9) return `${trim(n / 1e6)} million numbers`;
  if (n < 1e12) return `${trim(n / 1e9)} billion numbers`;
  const power = Math.floor(Math.log10(n));
  const raised = [...String(power)].map((d) => '⁰¹²³⁴⁵⁶⁷⁸⁹'[Number(d)]).join('');
  return `${trim(n / 10 ** power)} × 10${raised} numbers`;
}

const trim = (n: number) => n.toFixed(1).replace(/\.0$/, '');
