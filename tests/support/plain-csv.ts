/** Reads CSV by the grammar of RFC 4180, section 2, one sign after the other; as little like our own reader as can be. */
export function parseCsv(text: string): string[][] {
  const rows: string[][] = [[]];
  let cell = '';
  let quoted = false;
  const signs = [...text.replace(/^\uFEFF/, '')];
  for (let i = 0; i < signs.length; i++) {
    const sign = signs[i]!;
    if (quoted && sign === '"' && signs[i + 1] === '"') {
      cell += '"';
      i++;
    } else if (sign === '"') quoted = !quoted;
    else if (!quoted && (sign === ',' || sign === '\n')) {
      rows.at(-1)!.push(cell);
      cell = '';
      if (sign === '\n') rows.push([]);
    } else if (quoted || sign !== '\r') cell += sign;
  }
  rows.at(-1)!.push(cell);
  return rows.filter((r) => r.length > 1 || r[0] !== '');
}
