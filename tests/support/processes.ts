import { readFileSync, readdirSync } from 'node:fs';

/** A process of the application under test, and of no other on this machine, by the end of its command line. */
export function processOf(end: string): number | null {
  for (const pid of readdirSync('/proc').filter((p) => /^\d+$/.test(p))) {
    try {
      const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ').trim();
      const port = `POLYDROME_PORT=${process.env.POLYDROME_PORT}\0`;
      if (line.endsWith(end) && readFileSync(`/proc/${pid}/environ`, 'utf8').includes(port)) return Number(pid);
    } catch {
      // It has ended meanwhile.
    }
  }
  return null;
}

/** Kills it outright; gives which it was. */
export function killed(end: string): number {
  const pid = processOf(end);
  if (pid === null) throw new Error(`nothing runs as ${end}`);
  process.kill(pid, 'SIGKILL');
  return pid;
}
