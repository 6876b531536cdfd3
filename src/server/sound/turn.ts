/** So much work with sound runs at once: each piece takes a core. */
const MOST_AT_ONCE = 2;

let running = 0;
const waiting: (() => void)[] = [];

/** Does something when it is its turn; whoever has gone away by then is passed over. */
export async function inTurn<T>(signal: AbortSignal | undefined, work: () => Promise<T>): Promise<T> {
  if (running >= MOST_AT_ONCE) await new Promise<void>((go) => waiting.push(go));
  running++;
  try {
    signal?.throwIfAborted();
    return await work();
  } finally {
    running--;
    waiting.shift()?.();
  }
}
