import { createInterface } from 'node:readline';
import { Refusal, printed, type Answer } from './answer';
import { digits } from './digits';
import { hours } from './hours';
import { load } from './load';
import { number } from './number';
import { traceCommand } from './trace';

const GROUPS: Record<string, (args: string[]) => Answer> = { digits, number, hours, load, trace: traceCommand };

const HELP = `polydrome asks the routing engine from the command line.

  polydrome digits check MAP              is this digit map well formed, and what does it say
  polydrome digits match MAP DIGITS       what is known after these digits
  polydrome number read TEXT --country CC [--area A]
  polydrome trace --plan FILE --from X --dial D [--at T] [--calling N] [--en-bloc] [--situation FILE]
  polydrome batch                         a JSON array of arguments a line in, a JSON value a line out

--json prints exactly one JSON value. Examples:
  polydrome digits match '90[1-8]x{8,9}' 901632960100
  polydrome number read '01632 960100' --country GB
  polydrome trace --plan demo/plan.yaml --from 2104 --dial 999 --at now
Exit: 0 fine, 1 it found something, 2 bad input.
`;

/** One command: never throws on bad input, which becomes an error answer with exit 2. */
function answer(args: string[]): Answer {
  const run = GROUPS[args[0] ?? ''];
  try {
    if (!run)
      throw new Refusal(
        'no-such-command',
        'command',
        `“${args[0] ?? ''}” is no command; digits, number, trace and batch are.`,
      );
    return run(args.slice(1));
  } catch (e) {
    if (!(e instanceof Refusal)) throw e;
    return { exit: 2, value: { error: e.error }, text: e.error.sentence };
  }
}

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
  return answer(args as string[]);
}

async function main(): Promise<number> {
  const args = process.argv.slice(2);
  if (args.length === 0 || args[0] === 'help' || args.includes('--help')) {
    process.stdout.write(HELP);
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
  const result = answer(args.filter((a: string) => a !== '--json'));
  const out = result.exit === 2 && !json ? process.stderr : process.stdout;
  out.write(json ? JSON.stringify(result.value) + '\n' : printed(result));
  return result.exit;
}

main().then((code) => {
  process.exitCode = code;
});
