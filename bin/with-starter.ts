/**
 * Ends this process when the one that started it has died, however that was: its end of our standard input closes then. Without
 * a start command around it (a service manager runs it) it lives on.
 */
export function endWithStarter(): void {
  if (process.env.POLYDROME_STARTED !== '1') return;
  process.stdin.on('end', () => process.exit(0));
  process.stdin.on('error', () => process.exit(0));
  process.stdin.resume();
  // What is said to nobody is no reason to break.
  process.stdout.on('error', () => undefined);
  process.stderr.on('error', () => undefined);
}
