import { createInterface } from 'node:readline';
import { printed, type Answer } from './answer';
import { helpFor } from './help';
import { answer } from './run';

function batchLine(line: string): Answer {
  let args: unknown;
  try {
    args = JSON.parse(line);
  } catch {
    args = null;
  }
  if (!Array.isArray(args) || !args.every((a) => typeof a === 'string')) {
    const error = { code: 'bad-line', path: '', sentence: 'This line is no JSON array of strings.' };
    return { exit: 2, value: { error }, text: error.sentence };
  }
  try {
    return answer(args as string[]);
  } catch (e) {
    // One line that breaks us loses no other.
    const error = { code: 'our-fault', path: '', sentence: `This line broke us: ${(e as Error).message}` };
    return { exit: 2, value: { error }, text: error.sentence };
  }
}

async function main(): Promise<number> {
  const args = process.argv.slice(2);
  if (args.length === 0 || args[0] === 'help' || args.includes('--help')) {
    process.stdout.write(helpFor(args.filter((a) => a !== '--help' && a !== 'help')));
    return args.length === 0 ? 2 : 0;
  }
  if (args[0] === 'batch') {
    let pending: string[] = [];
    for await (const line of createInterface({ input: process.stdin, crlfDelay: Infinity })) {
      if (line.trim() === '') continue;
      pending.push(JSON.stringify(batchLine(line).value));
      if (pending.length >= 1000) {
        process.stdout.write(pending.join('\n') + '\n');
        pending = [];
      }
    }
    if (pending.length > 0) process.stdout.write(pending.join('\n') + '\n');
    return 0;
  }
  const json = args.includes('--json');
  const result = answer(args[0] === '--json' ? args.slice(1) : args);
  const out = result.exit === 2 && !json ? process.stderr : process.stdout;
  out.write(json ? JSON.stringify(result.value) + '\n' : printed(result));
  return result.exit;
}

// A reader that has seen enough closes the pipe; that is no error of ours.
process.stdout.on('error', (e: NodeJS.ErrnoException) => {
  if (e.code !== 'EPIPE') throw e;
  process.exit(0);
});

main().then((code) => {
  process.exitCode = code;
});
