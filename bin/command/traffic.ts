import { mainSite } from '@/core/plan';
import { trafficOf, type Traffic } from '@/core/records';
import { Refusal, flagsOf, need, type Answer } from './answer';
import { exchangeOf } from './plan';
import { recordsOf } from './replay';

/** Traffic of calls that were made, all or those of one trunk, on the wall clock of a site. */
export function trafficCommand(args: string[]): Answer {
  const { flags } = flagsOf(args, { flags: ['plan', 'calls', 'trunk', 'site'], words: 0 });
  const exchange = exchangeOf(need(flags, 'plan', 'a plan file'));
  const records = recordsOf(need(flags, 'calls', 'a file of calls, JSON lines or CSV'), exchange, flags.get('site'));
  const trunk = flags.get('trunk');
  if (trunk !== undefined && !exchange.trunks.has(trunk))
    throw new Refusal(
      'no-such-trunk',
      '--trunk',
      `The plan has no trunk ${trunk}; ${[...exchange.trunks.keys()].join(', ')} are.`,
    );
  const site = exchange.sites.get(flags.get('site') ?? '') ?? mainSite(exchange.plan);
  const value = trafficOf(
    trunk === undefined ? records : records.filter((r) => r.trunk === trunk),
    site?.zone ?? 'UTC',
  );
  return { exit: 0, value, text: inWords(value) };
}

function inWords({ calls, refused, erlangHours, peak, busyHour, busiest }: Traffic): string {
  return [
    `${calls} calls, ${refused} refused, ${erlangHours.toFixed(2)} erlang hours`,
    ...(peak ? [`at most ${peak.calls} at once, at ${peak.at}`] : []),
    ...(busyHour ? [`busy hour from ${busyHour.from}, ${busyHour.erlangs.toFixed(2)} erlangs on average`] : []),
    ...(busiest ? [`busiest hour from ${busiest.at}, ${busiest.erlangs.toFixed(2)} erlangs`] : []),
  ].join('\n');
}
