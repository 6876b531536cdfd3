import { problemsOf } from '@/core/analysis';
import { flagsOf, need, type Answer } from './answer';
import { exchangeOf } from './plan';

/** All problems of a plan file; exit 1 with an error or a doubt among them. */
export function check(args: string[]): Answer {
  const { flags } = flagsOf(args, { flags: ['plan', 'at'], words: 0 });
  const problems = problemsOf(exchangeOf(need(flags, 'plan', 'a plan file')));
  const found = problems.some((p) => p.severity !== 'note');
  const lines = problems.map(
    (p) => `${p.severity.padEnd(6)} ${p.object.label}: ${p.sentence}${p.mend ? ` ${p.mend}` : ''}`,
  );
  return { exit: found ? 1 : 0, value: { problems }, text: lines.join('\n') || 'No problems.' };
}
