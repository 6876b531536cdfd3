import { readWhen } from '@/core/ask';
import { atlasOf, type Region } from '@/core/proof';
import { Refusal, flagsOf, need, type Answer } from './answer';
import { exchangeOf } from './plan';
import { situationOf } from './trace';

/** Everything that a phone can dial, cut into regions: each string of 1 to 32 symbols is in one. */
export function atlasCommand(args: string[]): Answer {
  const { flags } = flagsOf(args, { flags: ['plan', 'phone', 'at', 'situation'], words: 0 });
  const exchange = exchangeOf(need(flags, 'plan', 'a plan file'));
  const digits = need(flags, 'phone', 'the digits of an extension');
  const phone = exchange.plan.extensions.find((e) => e.digits === digits);
  if (!phone) throw new Refusal('no-such-extension', '--phone', `No extension of the plan has the digits ${digits}.`);
  if (phone.kind === 'virtual')
    throw new Refusal('no-phone', '--phone', `${digits} ${phone.name} is virtual: it has no phone to dial at.`);
  const read = readWhen(flags.get('at') ?? 'now', exchange.sites.get(phone.site)!.zone, Date.now());
  if (!read.ok) throw new Refusal('bad-time', '--at', read.sentence);
  const { regions } = atlasOf(exchange, phone.id, read.at, situationOf(flags.get('situation'), exchange));
  return { exit: 0, value: { regions }, text: regions.map(inWords).join('\n') };
}

function inWords({ map, exact, count, outcome, kind, label, trunk, takenEarly, waits }: Region): string {
  const how = [
    kind,
    label,
    trunk && `by ${trunk}`,
    takenEarly && 'something shorter is taken before',
    waits && 'waits for more',
  ];
  return `${map}${exact ? '' : ' and more'}  ${count} × ${outcome}${how.map((h) => (h ? `, ${h}` : '')).join('')}`;
}
