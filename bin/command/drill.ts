import { readWhen } from '@/core/ask';
import { callersWords, DRILL_MS, drillOf, drillWords, drillsOf, nameIn, type DrillResult } from '@/core/proof';
import type { Exchange } from '@/core/routing';
import { Refusal, flagsOf, need, type Answer } from './answer';
import { exchangeOf } from './plan';
import { situationOf } from './trace';

/** What breaks while trunks, links or sites are out of order: everything that can be drilled, or one of them. */
export function drillCommand(args: string[]): Answer {
  const { flags } = flagsOf(args, { flags: ['plan', 'of', 'at', 'situation'], words: 0 });
  const exchange = exchangeOf(need(flags, 'plan', 'a plan file'));
  const of = flags.get('of');
  const all = drillsOf(exchange);
  const chosen = of === undefined ? all : all.filter((d) => d.out.length === 1 && d.out[0] === of);
  if (chosen.length === 0 && of !== undefined)
    throw new Refusal('nothing-to-drill', '--of', `The plan has no trunk or site with the id ${of}.`);
  const read = readWhen(flags.get('at') ?? 'now', 'UTC', Date.now());
  if (!read.ok) throw new Refusal('bad-time', '--at', read.sentence);
  const situation = situationOf(flags.get('situation'), exchange);
  const span = { from: read.at, to: read.at + DRILL_MS };
  const drills = chosen.map((d) => drillOf({ exchange, situation, span }, d));
  const found = drills.some((d) => d.emergency.some((e) => !e.leaves));
  return { exit: found ? 1 : 0, value: { drills }, text: drills.map((d) => inWords(exchange, d)).join('\n') };
}

function channelsWords(exchange: Exchange, { left, of, sites }: DrillResult['channels']): string {
  const own = sites.map((s) => `${s.left} of ${s.of} at ${nameIn(exchange, s.site)}`);
  return `${left} of ${of} channels left${own.length > 0 ? ` (${own.join(', ')})` : ''}`;
}

function inWords(exchange: Exchange, drill: DrillResult): string {
  const { groups, emergency, channels, stranded } = drill;
  const nowhere = callersWords(stranded, ' and ');
  const stuck = emergency.filter((e) => !e.leaves).map((e) => `${e.number} of ${nameIn(exchange, e.site)}`);
  const parts = [
    groups.length === 0 ? 'nothing changes' : `${groups.length} groups of calls change`,
    nowhere ? `${nowhere} have calls that end nowhere` : 'no call ends nowhere',
    channelsWords(exchange, channels),
    stuck.length > 0 ? `NO EMERGENCY CALL: ${stuck.join(', ')}` : 'every emergency call leaves',
  ];
  return `${drillWords(drill)}: ${parts.join('; ')}`;
}
