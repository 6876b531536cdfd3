import type { Promised } from '../../plan';
import type { Exchange, Situation } from '../../routing';
import { ANYTHING } from '../affected';
import { metIn, type Met } from '../met';

/** What promises are asked with: everything may make a difference, and what any of them names stands alone. */
export interface AskedOf extends Met {
  /** what stands alone, by id */
  apart: readonly string[];
}

const known = new WeakMap<Exchange, Map<string, AskedOf>>();

/** The same for all promises of a plan, so that what is found for one is known for all. */
export function askedOf(exchange: Exchange, situation: Situation, { places }: Promised): AskedOf {
  const ofExchange = known.get(exchange) ?? new Map<string, AskedOf>();
  known.set(exchange, ofExchange);
  const apart = [...new Set([...exchange.plan.promises.flatMap((p) => p.places), ...places])].sort();
  const name = JSON.stringify([situation, apart]);
  let found = ofExchange.get(name);
  if (!found) ofExchange.set(name, (found = { ...metIn([exchange], ANYTHING, situation, situation, apart), apart }));
  return found;
}
