import { problemsOf } from '@/core/analysis';
import { readWhen } from '@/core/ask';
import { Refusal, flagsOf, need, type Answer } from './answer';
import { exchangeOf } from './plan';

/** All problems of a plan file; exit 1 with an error or a doubt among them. */
export function check(args: string[]): Answer {
  const { flags } = flagsOf(args, { flags: ['plan', 'at'], words: 0 });
  const problems = problemsOf(exchangeOf(need(flags, 'plan', 'a plan file')), momentOf(flags.get('at')));
  const found = problems.some((p) => p.severity !== 'note');
  const lines = problems.map(
    (p) => `${p.severity.padEnd(6)} ${p.object.label}: ${p.sentence}${p.mend ? ` ${p.mend}` : ''}`,
  );
  return { exit: found ? 1 : 0, value: { problems }, text: lines.join('\n') || 'No problems.' };
}

/** The moment that time is judged by; now, where none is given. */
function momentOf(text: string | undefined): number {
  const read = readWhen(text ?? 'now', 'UTC', Date.now());
  if (!read.ok) throw new Refusal('bad-time', '--at', read.sentence);
  return read.at;
}
