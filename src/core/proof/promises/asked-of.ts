import type { Promised } from '../../plan';
import type { Exchange, Situation } from '../../routing';
import { affectedBy, ANYTHING, type Affected } from '../affected';
import { metIn, type Met } from '../met';

/** What callers do that is tried: all that they can, or only what may lead them to where they can dial outside. */
type Tried = 'anything' | 'what leads to outside dialling';

/** What promises are asked with: what makes a difference, and what any of them names stands alone. */
export interface AskedOf extends Met {
  /** what stands alone, by id */
  apart: readonly string[];
  tried: Tried;
}

const known = new WeakMap<Exchange, Map<string, AskedOf>>();

/** The same for all promises of a plan, so that what is found for one is known for all. */
export function askedOf(
  exchange: Exchange,
  situation: Situation,
  { places }: Promised,
  tried: Tried = 'anything',
): AskedOf {
  const ofExchange = known.get(exchange) ?? new Map<string, AskedOf>();
  known.set(exchange, ofExchange);
  const apart = [...new Set([...exchange.plan.promises.flatMap((p) => p.places), ...places])].sort();
  const name = JSON.stringify([situation, apart, tried]);
  let found = ofExchange.get(name);
  if (!found) {
    const affected = tried === 'anything' ? ANYTHING : diallingOutside(exchange, situation);
    ofExchange.set(name, (found = { ...metIn([exchange], affected, situation, situation, apart), apart, tried }));
  }
  return found;
}

/** What leads to attendants at which callers may dial outside. */
function diallingOutside({ plan }: Exchange, situation: Situation): Affected {
  const there = plan.attendants.filter((a) => a.outsideDialling);
  return affectedBy(
    [plan],
    there.map((a) => ({ kind: 'attendant', id: a.id, before: a, after: a })),
    situation,
  );
}
