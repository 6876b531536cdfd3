import type { Answer } from '@/contract';
import { AHEAD_MS, entrancesOf, reachOf, whoReaches, type Entrance } from '@/core/proof';
import { labelOf, KINDS } from '@/core/plan';
import { Refused } from '../../access/rights';
import { goingOn } from '../ground/going-on';
import { keptFor, sightIn, type By, type Given } from '../ground/question';
import { seesCall } from '../ground/sees-call';
import { besides, hourOf, type Moment } from '../ground/verdicts';
import { heldOf } from './held-of';

/* Where calls can end up, and who can end up somewhere. */

/** Groups of numbers that are asked at once. */
const AT_ONCE = 40;
/** Numbers of a group that are named. */
const NAMED = 12;

const nameOf = ({ numbers, brought }: Entrance): string => (brought ? `${brought.trunk} ${brought.dial}` : numbers[0]!);

/** Everywhere that calls to our numbers can end up, a part at a time; or who can end up at one object. */
export async function reach(
  given: Given,
  input: By & Moment & { of: string; to: string; from: number },
): Promise<Answer<'reach'>> {
  const held = await heldOf(given, input.of);
  const exchange = held.exchange();
  const sight = sightIn(held, input.reader);
  const from = hourOf(input.now);
  const reaching = { exchange, situation: input.situation, span: { from, to: from + AHEAD_MS } };
  const sees = (e164: string) => sight.sees('number', exchange.numberByE164.get(e164)!);
  /** What of an entrance the reader may see; nothing where that is none of it. */
  const seenOf = <T extends Entrance>(entrance: T): T[] => {
    const trunk = entrance.brought && exchange.trunks.get(entrance.brought.trunk)!;
    const numbers = entrance.numbers.filter(sees);
    return (trunk ? sight.sees('trunk', trunk) : numbers.length > 0) ? [{ ...entrance, numbers }] : [];
  };
  const told = ({ numbers, brought }: Entrance) => {
    const trunk = brought && exchange.trunks.get(brought.trunk)!;
    const { site } = trunk ?? exchange.numberByE164.get(numbers[0]!)!;
    return {
      numbers: numbers.slice(0, NAMED),
      count: numbers.length,
      brought: trunk && { trunk: trunk.name, dial: brought.dial },
      zone: exchange.sites.get(site)!.zone,
    };
  };
  if (input.to !== '') {
    const place = exchange.destinations.get(input.to);
    if (!place || !sight.sees(place.kind, place.object))
      throw new Refused(404, 'no-such-object', 'There is no such place that calls are led to.', 'to');
    const found = keptFor(held.plan, `reaches ${input.to}`, [besides(input)], () =>
      whoReaches({ ...reaching, progress: goingOn }, input.to),
    );
    const groups = found.groups.flatMap(seenOf).map((g) => ({ ...told(g), ends: [g.end] }));
    const { example, ...phones } = found.phones;
    return sight.cut({
      count: groups.length,
      next: null,
      weekFrom: from,
      to: `${KINDS[place.kind].word} ${labelOf(place.kind, place.object)}`,
      groups,
      phones: { ...phones, example: example && seesCall(sight, example) ? example : null },
    });
  }
  const all = keptFor(held.plan, 'reach groups', [besides(input)], () => entrancesOf(reaching));
  const seen = all.flatMap(seenOf);
  const some = seen.slice(input.from, input.from + AT_ONCE);
  const next = input.from + some.length;
  return sight.cut({
    count: seen.length,
    next: next < seen.length ? next : null,
    to: null,
    weekFrom: from,
    groups: some.map((entrance, i) => ({
      ...told(entrance),
      ends: keptFor(held.plan, `reach ${nameOf(entrance)}`, [besides(input)], () => {
        goingOn(i / some.length);
        return reachOf(reaching, entrance);
      }),
    })),
    phones: null,
  });
}
