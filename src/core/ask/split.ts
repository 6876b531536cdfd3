/** The three parts of an asked line: `from > digits @ when`. */
export interface AskParts {
  from: string;
  dial: string;
  when: string;
}

/** Splits an asked line; null when it holds no `>` and so only looks for something. */
export function splitAsk(text: string): AskParts | null {
  const arrow = text.indexOf('>');
  if (arrow < 0) return null;
  const rest = text.slice(arrow + 1);
  const at = rest.lastIndexOf('@');
  return {
    from: text.slice(0, arrow).trim(),
    dial: (at < 0 ? rest : rest.slice(0, at)).trim(),
    when: at < 0 ? '' : rest.slice(at + 1).trim(),
  };
}
