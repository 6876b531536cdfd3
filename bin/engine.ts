import { setPriority } from 'node:os';
import { fileURLToPath } from 'node:url';
import { serveEngine } from '@/server/engine/process';
import { endWithStarter } from './with-starter';

/* The engine process: holds the plans in threads and answers web processes over a local socket until it is told to end. */

endWithStarter();
try {
  setPriority(2);
} catch {
  // Not everywhere allowed; then it is as important as everything else.
}
const { end } = serveEngine(fileURLToPath(new URL('./engine-thread.mjs', import.meta.url)));
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => void end().finally(() => process.exit(0)));
