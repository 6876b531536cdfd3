import { readCall } from '@/core/ask';
import { inputErrors } from '@/core/plan';
import { situationErrors, situationSchema, trace, type Exchange, type Situation, type Trace } from '@/core/routing';
import { Refusal, flagsOf, need, readDocument, type Answer } from './answer';
import { exchangeOf } from './plan';

/** The situation of a file; an id that the plan doesn't have is refused with its path (ENGINE E13). */
export function situationOf(path: string | undefined, exchange: Exchange): Situation {
  if (path === undefined) return {};
  const parsed = situationSchema.safeParse(readDocument(path, '--situation'));
  const [first] = parsed.success ? situationErrors(exchange, parsed.data) : inputErrors(parsed.error);
  if (parsed.success && !first) return parsed.data;
  throw new Refusal(first!.code, `--situation ${first!.path}`, first!.sentence);
}

export function traceCommand(args: string[]): Answer {
  const { flags } = flagsOf(args, {
    flags: ['plan', 'from', 'dial', 'at', 'calling', 'en-bloc', 'every-rule', 'situation'],
    words: 0,
  });
  const exchange = exchangeOf(need(flags, 'plan', 'a plan file'));
  const situation = situationOf(flags.get('situation'), exchange);
  const from = need(flags, 'from', 'an extension, trunk:ID or outside:NUMBER');
  const dial = need(flags, 'dial', 'the digits dialled');
  const read = readCall(
    {
      from,
      dial,
      when: flags.get('at') ?? 'now',
      calling: flags.get('calling') ?? null,
      enBloc: flags.has('en-bloc') || undefined,
    },
    exchange,
    Date.now(),
  );
  if (!read.ok) throw new Refusal(`bad-${read.path}`, `--${read.path}`, read.sentence, read.offset);
  const value = trace(exchange, read.call, situation, flags.has('every-rule'));
  return { exit: value.outcome === 'routed' ? 0 : 1, value, text: inWords(value) };
}

function inWords(t: Trace): string {
  const head = t.lands
    ? `${t.outcome}: ${t.lands.label}`
    : `${t.outcome}: cause ${t.cause?.q850} (SIP ${t.cause?.sip})`;
  const steps = t.steps.flatMap((s) => [
    `${s.atSeconds.toFixed(1).padStart(6)} s  ${s.sentence}`,
    ...s.notTaken.map((n) => `            not ${n.label}: ${n.why}`),
  ]);
  return [head, ...steps].join('\n');
}
