import type { Span } from '../../cells';
import { differences } from '../../plan';
import type { Exchange, Situation } from '../../routing';
import { affectedBy, redials } from '../affected';
import { phonesApart } from '../entries';
import { deciding } from '../impact';
import { numbersMet } from '../impact-outside';
import { Onwards, type Shared, type Way } from '../ways';
import type { AskedOf } from './asked-of';
import type { Brought } from './entries';

/** How the calls of an entry can go, and of whom they are. */
interface KnownWays {
  ways: Way[];
  /** the number that is called from outside */
  number: string | null;
  /** the phone that dials outside; null also where it dials what has digits of its own */
  phone: string | null;
  brought: Brought | null;
}

/** Entries of a plan whose ways are kept: promises of a large plan seldom ask for the same ones. */
const MOST_KEPT = 50_000;

/** What is known of the calls of a plan: of entries, of what many dial, and of what follows where callers from outside came to. */
export class Known {
  private readonly ways = new Map<string, KnownWays>();
  private readonly shared = new Map<string, Shared>();
  /** without a trunk down, and with one */
  readonly onwards: readonly Onwards[] = [new Onwards(), new Onwards()];

  waysOf(key: string, of: Omit<KnownWays, 'ways'>, make: () => Way[]): Way[] {
    const known = this.ways.get(key);
    if (known) return known.ways;
    const ways = make();
    if (this.ways.size < MOST_KEPT) this.ways.set(key, { ways, ...of });
    return ways;
  }

  sharedBy(key: string): Shared {
    let found = this.shared.get(key);
    if (!found) this.shared.set(key, (found = new Map()));
    return found;
  }

  /** Takes over what holds still: of numbers and phones that no edit met. */
  takeOver(before: Known, holds: (of: KnownWays) => boolean): void {
    for (const [key, of] of before.ways) if (holds(of)) this.ways.set(key, of);
  }
}

const known = new WeakMap<AskedOf, Known>();

/** The plans asked last: what is known of them is taken over by those that follow. */
const last = new Map<string, { exchange: Exchange; known: Known }>();
/** Situations and times of which the last plan is remembered. */
const MOST_REMEMBERED = 3;
/** Edits between two plans; of more little would be left. */
const MOST_EDITS = 200;

/** What is known of the calls of a plan, with what is known still of one before it. */
export function knownOf(exchange: Exchange, situation: Situation, span: Span, of: AskedOf): Known {
  let found = known.get(of);
  if (found) return found;
  known.set(of, (found = new Known()));
  const name = JSON.stringify([situation, of.apart, of.tried, span]);
  const before = last.get(name);
  const holds = before && stillHolds(before.exchange, exchange, situation);
  if (before && holds) found.takeOver(before.known, holds);
  last.delete(name);
  last.set(name, { exchange, known: found });
  if (last.size > MOST_REMEMBERED) last.delete(last.keys().next().value!);
  return found;
}

/** Whether ways of one plan are those of another; null: none are. */
function stillHolds(was: Exchange, willBe: Exchange, situation: Situation): ((of: KnownWays) => boolean) | null {
  const edits = deciding(differences(was.plan, willBe.plan));
  if (edits.length > MOST_EDITS) return null;
  const affected = affectedBy([was.plan, willBe.plan], edits, situation);
  if (affected.all) return null;
  const numbers = new Set(numbersMet({ was, willBe }, affected));
  const apart = phonesApart([was, willBe], edits);
  const { ids, dialling } = affected;
  const callsElse = (id: string) =>
    apart.has(id) || [was, willBe].some((x) => dialling.has(x.extensions.get(id)?.site ?? ''));
  const outside = !redials(edits) && !willBe.plan.rungs.some((r) => ids.has(r.id));
  const routed = outside && ![was, willBe].some((x) => x.routes.some((r) => ids.has(r.route.id)));
  const isBrought = ({ trunk, inside }: Brought) => routed && !ids.has(trunk) && (inside === null || !ids.has(inside));
  return ({ number, phone, brought }) => {
    if (brought !== null) return isBrought(brought);
    return number !== null ? !numbers.has(number) : outside && phone !== null && !callsElse(phone);
  };
}
