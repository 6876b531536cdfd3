/* Several things in one cell: semicolons between, quotation marks around what has one in it. */

const NEEDS_QUOTES = /[;"]|^\s|\s$|^$/;

/** One thing of a list as it stands in a cell. */
export const quoted = (text: string): string => (NEEDS_QUOTES.test(text) ? JSON.stringify(text) : text);

/** The parts of a cell between semicolons, those in quotation marks included; blank ones are left out. */
export function splitList(text: string): string[] {
  const parts: string[] = [];
  let part = '';
  let inside = false;
  for (let i = 0; i < text.length; i++) {
    const c = text[i]!;
    if (inside && c === '\\') {
      part += c + (text[i + 1] ?? '');
      i += 1;
    } else if (c === ';' && !inside) {
      parts.push(part);
      part = '';
    } else {
      if (c === '"') inside = !inside;
      part += c;
    }
  }
  return [...parts, part].map((p) => p.trim()).filter((p) => p !== '');
}

/** What stands in quotation marks, or the text itself. */
export function unquoted(text: string): string {
  if (!/^"(?:[^"\\]|\\.)*"$/su.test(text)) return text;
  try {
    return JSON.parse(text) as string;
  } catch {
    return text.slice(1, -1);
  }
}
