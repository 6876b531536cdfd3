/** The trace page for a question. */
export function tracePath(from: string, dial: string, at = 'now', everyRule = false): string {
  return `/trace?${new URLSearchParams({ from, dial, at, ...(everyRule ? { every: 'rule' } : {}) })}`;
}

/** The rehearsal of a call: who calls, what is dialled, when, and the keys pressed so far as `second:key` pairs. */
export function rehearsalPath(from: string, dial: string, at = 'now'): string {
  return `/rehearsal?${new URLSearchParams({ from, dial, at })}`;
}
