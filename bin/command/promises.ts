import { readWhen } from '@/core/ask';
import { AHEAD_MS, checkPromise, type Verdict } from '@/core/proof';
import { Refusal, flagsOf, need, type Answer } from './answer';
import { exchangeOf } from './plan';
import { situationOf } from './trace';

/** Whether each promise of a plan holds of all its calls, within 53 weeks from a moment. */
export function promisesCommand(args: string[]): Answer {
  const { flags } = flagsOf(args, { flags: ['plan', 'at', 'situation'], words: 0 });
  const exchange = exchangeOf(need(flags, 'plan', 'a plan file'));
  const read = readWhen(flags.get('at') ?? 'now', 'UTC', Date.now());
  if (!read.ok) throw new Refusal('bad-time', '--at', read.sentence);
  const situation = situationOf(flags.get('situation'), exchange);
  const span = { from: read.at, to: read.at + AHEAD_MS };
  const promises = exchange.plan.promises.map((p) => checkPromise({ exchange, situation, span }, p));
  const text = promises.length === 0 ? 'The plan has no promises.' : promises.map(inWords).join('\n');
  return { exit: promises.every((p) => p.holds) ? 0 : 1, value: { promises }, text };
}

function inWords({ id, name, firm, holds, asked, counterexample }: Verdict): string {
  const head = `${holds ? 'holds ' : 'BROKEN'}  ${id}: ${name}${firm ? ' (firm)' : ''}`;
  if (!counterexample) return `${head}; ${asked} ways of calls`;
  const { call, sentence } = counterexample;
  const holding = call.situation ? ` with ${JSON.stringify(call.situation)}` : '';
  return `${head}\n        ${call.from} > ${call.dial} @ ${call.at}${holding}: ${sentence}`;
}
