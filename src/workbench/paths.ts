/** The trace page for a question. */
export function tracePath(from: string, dial: string, at = 'now'): string {
  return pathOfCall({ from, dial, at });
}

/** Which plan a trace is of, and which one it is laid beside; the draft alone where nothing is said. */
export interface TracedPlans {
  of: string;
  beside: string | null;
}

/** The trace page for a call that an answer names, with what happens on its way. */
export function pathOfCall({ from, calling, dial, at, situation }: NamedCall, plans?: TracedPlans): string {
  const query = new URLSearchParams({ from, dial, at });
  if (calling) query.set('calling', calling);
  if (situation && Object.keys(situation).length > 0) query.set('with', JSON.stringify(situation));
  if (plans && plans.of !== 'draft') query.set('of', plans.of);
  if (plans?.beside) query.set('beside', plans.beside);
  return `/trace?${query}`;
}

interface NamedCall {
  from: string;
  calling?: string | undefined;
  dial: string;
  at: string;
  situation?: object | undefined;
}

/** The rehearsal of a call: who calls, what is dialled, when, and the keys pressed so far as `second:key` pairs. */
export function rehearsalPath(from: string, dial: string, at = 'now'): string {
  return `/rehearsal?${new URLSearchParams({ from, dial, at })}`;
}
