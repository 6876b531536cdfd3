/** The trace page for a question. */
export function tracePath(from: string, dial: string, at = 'now', everyRule = false): string {
  return `/trace?${new URLSearchParams({ from, dial, at, ...(everyRule ? { every: 'rule' } : {}) })}`;
}
