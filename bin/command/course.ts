import { readWhen } from '@/core/ask';
import { wholeCourse, type Entry } from '@/core/course';
import { dialledFromOutside, type Exchange } from '@/core/routing';
import { Refusal, flagsOf, need, type Answer } from './answer';
import { exchangeOf } from './plan';
import { situationOf } from './trace';

/** The entry asked about: a number of ours, or the digits of something inside. */
function entryOf(exchange: Exchange, flags: Map<string, string>): { entry: Entry; site: string } {
  const number = flags.get('number');
  if (number !== undefined) {
    const found = dialledFromOutside(exchange, number).number;
    if (!found) throw new Refusal('no-such-number', '--number', `${number} is not one of the plan's numbers.`);
    return { entry: { type: 'number', e164: found.e164 }, site: found.site };
  }
  const digits = need(flags, 'digits', '--number E164 or the digits of an extension, group or queue');
  for (const { object } of exchange.destinations.values())
    if ('digits' in object && object.digits === digits)
      return { entry: { type: 'destination', id: object.id }, site: object.site };
  throw new Refusal('no-such-digits', '--digits', `Nothing in the plan has the digits ${digits}.`);
}

export function course(args: string[]): Answer {
  const { flags } = flagsOf(args, { flags: ['plan', 'number', 'digits', 'at', 'situation'], words: 0 });
  if (flags.has('number') && flags.has('digits'))
    throw new Refusal('surplus-argument', '--digits', '--number and --digits are both there; one of them is right.');
  const exchange = exchangeOf(need(flags, 'plan', 'a plan file'));
  const { entry, site } = entryOf(exchange, flags);
  const text = flags.get('at');
  let at: number | null = null;
  if (text !== undefined) {
    const read = readWhen(text, exchange.sites.get(site)!.zone, Date.now());
    if (!read.ok) throw new Refusal('bad-time', '--at', read.sentence);
    at = read.at;
  }
  const value = wholeCourse(
    exchange,
    entry,
    at === null ? null : { at, situation: situationOf(flags.get('situation'), exchange) },
  );
  const label = new Map(value.nodes.map((n) => [n.id, n.kind === 'tone' ? n.label : `${n.kind} ${n.label}`]));
  const lines = value.ways.map((w) => `${label.get(w.from)}  —${w.when}→  ${label.get(w.to)}`);
  const loops = value.loops.map((l) => `${l.type}: ${l.nodes.map((n) => label.get(n)).join(' → ')}`);
  return {
    exit: value.loops.length > 0 ? 1 : 0,
    value,
    text: [...lines, ...loops].join('\n') || [...label.values()].join(),
  };
}
