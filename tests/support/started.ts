import { spawn, type ChildProcess } from 'node:child_process';

/* Applications that a test starts itself, by the start command. */

/** Ports beside those of the application under test, so that two runs can stand beside each other. */
export const FIRST_PORT = Number(process.env.POLYDROME_PORT ?? 4700) + 80;

export interface Started {
  child: ChildProcess;
  /** everything it printed so far */
  said: () => string;
  /** the exit code, once it has ended */
  ended: Promise<number>;
}

/** Runs the start command with an environment of its own. */
export function start(environment: Record<string, string>, args: readonly string[] = []): Started {
  let text = '';
  const child: ChildProcess = spawn(process.execPath, ['bin/start.mjs', ...args], {
    env: { ...process.env, ...environment },
  });
  child.stdout!.on('data', (d) => (text += String(d)));
  child.stderr!.on('data', (d) => (text += String(d)));
  return { child, said: () => text, ended: new Promise((done) => child.once('exit', (code) => done(code ?? -1))) };
}

/** Ends it as Ctrl-C does. */
export async function stopped({ child, ended }: Started): Promise<number> {
  child.kill('SIGINT');
  return ended;
}
