/** Does something when it is its turn; whoever has gone away by then is passed over. */
export type InTurn = <T>(signal: AbortSignal | undefined, work: () => Promise<T>) => Promise<T>;

/** Turns for work of which at most so much goes on at once. */
export function turnsOf(most: number): InTurn {
  let running = 0;
  const waiting: (() => void)[] = [];
  return async (signal, work) => {
    if (running >= most) await new Promise<void>((go) => waiting.push(go));
    running++;
    try {
      signal?.throwIfAborted();
      return await work();
    } finally {
      running--;
      waiting.shift()?.();
    }
  };
}
