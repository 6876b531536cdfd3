import { BEHAVIOURS, type Behaviour, type Offer, type Onward } from '../destinations';
import { run as runAutomaton } from '../digits';
import type { Trunk } from '../plan';
import type { Landing, ObjectRef, Then } from './answer';
import { LOOP, REFUSED, TOO_MANY_HOPS, UNALLOCATED, type Cause } from './cause';
import { contextOf, type DialRule, type Exchange } from './exchange';
import { leaveBy } from './outgoing';
import { ending, refTo, type Ending, type Run } from './run';

/** Most times a call goes on from one place to the next before it is given up (ENGINE E11). */
const MOST_HOPS = 20;

/** The outside caller behind a call that came in, for legs that go out again. */
export interface CameIn {
  trunk: Trunk | null;
  calling: string | null;
}

/**
 * Takes a call from destination to destination (ENGINE E11, E13): `lands` is the first that takes it, `then` is what
 * follows while nobody does.
 */
export function walk(run: Run, start: Onward, cameIn: CameIn): Ending {
  let onward = start;
  let landing: Landing | null = null;
  let when = '';
  const then: Then[] = [];
  /** destinations met since the last wait: meeting one again is a loop */
  const sinceWait = new Set<string>();
  const routed = () => ending({ outcome: 'routed', lands: landing, then });
  const finish = (outcome: Ending['outcome'], cause: Cause): Ending => {
    if (!landing) return ending({ outcome, cause });
    then.push({ when, afterSeconds: run.atSeconds, lands: tone(cause) });
    return routed();
  };
  let hops = 0;
  for (;;) {
    if (onward.type === 'end') {
      run.step('end', 'call-ends', `The call ends with cause ${onward.cause.q850} (SIP ${onward.cause.sip}).`);
      return finish(onward.outcome, onward.cause);
    }
    if (onward.type === 'forward') {
      const next = forward(run, onward, cameIn);
      if ('onward' in next) {
        onward = next.onward;
        continue;
      }
      if (!landing) return next.left;
      then.push({ when, afterSeconds: run.atSeconds, lands: next.left.lands ?? tone(next.left.cause!) });
      return routed();
    }
    const { id } = onward;
    if (sinceWait.has(id)) {
      run.step('end', 'loop', 'The call is back where it was without anybody having had time to answer: a loop.');
      return finish('loop', LOOP);
    }
    if (hops++ > MOST_HOPS) {
      run.step('end', 'too-many-hops', `After ${MOST_HOPS} hops the call is given up.`);
      return finish('loop', TOO_MANY_HOPS);
    }
    sinceWait.add(id);
    const { offer, object } = offerOf(run, id);
    run.step('destination', offer.code, offer.sentence, { object });
    if (offer.landing && !landing) landing = offer.landing;
    else if (offer.landing) then.push({ when, afterSeconds: run.atSeconds, lands: offer.landing });
    if (!offer.way) return routed();
    if (offer.way.afterSeconds > 0) {
      sinceWait.clear();
      run.atSeconds += offer.way.afterSeconds;
      run.step('destination', offer.way.code, offer.way.sentence, { object });
    }
    when = offer.way.when;
    onward = offer.way.to;
  }
}

function tone(cause: Cause): Landing {
  return { kind: 'tone', id: null, digits: null, label: `released, cause ${cause.q850}` };
}

/** The object with this id and its kind, whichever kind of destination it is. */
export function destinationOf(exchange: Exchange, id: string): ObjectRef | null {
  const found = exchange.destinations.get(id);
  return found ? refTo(found.kind, found.object) : null;
}

function offerOf(run: Run, id: string): { offer: Offer; object: ObjectRef } {
  const { kind, object } = run.exchange.destinations.get(id)!;
  const behaviour = BEHAVIOURS[kind] as Behaviour<typeof object>;
  return { offer: behaviour(object, run.situation, run.exchange), object: refTo(kind, object) };
}

/** Digits of a person's forwarding, dialled as one block from the owner's phone: onward inside, or gone outside. */
function forward(
  run: Run,
  onward: Extract<Onward, { type: 'forward' }>,
  cameIn: CameIn,
): { onward: Onward } | { left: Ending } {
  const owner = run.exchange.extensions.get(onward.owner)!;
  const context = contextOf(run.exchange, owner);
  run.step('destination', 'forwarding', `${owner.name} forwards to ${onward.digits}.`, {
    object: refTo('extension', owner),
    out: onward.digits,
  });
  const state = runAutomaton(context.automaton, onward.digits);
  const rule: DialRule | undefined = state < 0 ? undefined : context.rules[context.automaton.accepts[state]![0] ?? -1];
  if (!rule) return { onward: { type: 'end', outcome: 'failed', cause: UNALLOCATED } };
  if (rule.type === 'destination') return { onward: { type: 'destination', id: rule.id } };
  if (rule.type === 'emergency') {
    run.step('right', 'forward-refused', 'Nobody forwards calls to an emergency number.', {
      object: refTo('extension', owner),
    });
    return { onward: { type: 'end', outcome: 'refused', cause: REFUSED } };
  }
  const leg = { owner, origin: 'forward', original: cameIn.calling, cameBy: cameIn.trunk } as const;
  return { left: leaveBy(run, rule.compiled, onward.digits, leg, owner.site) };
}
