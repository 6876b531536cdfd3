/** The trace page for a question. */
export function tracePath(from: string, dial: string, at = 'now', everyRule = false): string {
  return `/trace?${new URLSearchParams({ from, dial, at, ...(everyRule ? { every: 'rule' } : {}) })}`;
}

/** The trace page for a call that an answer names, with what happens on its way. */
export function pathOfCall({ from, dial, at, situation }: NamedCall): string {
  const query = new URLSearchParams({ from, dial, at });
  if (situation && Object.keys(situation).length > 0) query.set('with', JSON.stringify(situation));
  return `/trace?${query}`;
}

interface NamedCall {
  from: string;
  dial: string;
  at: string;
  situation?: object | undefined;
}

/** The rehearsal of a call: who calls, what is dialled, when, and the keys pressed so far as `second:key` pairs. */
export function rehearsalPath(from: string, dial: string, at = 'now'): string {
  return `/rehearsal?${new URLSearchParams({ from, dial, at })}`;
}
