import { BEHAVIOURS, type Behaviour, type Moment, type Offer, type Onward, type OutsideLeg } from '../destinations';
import type { Extension, OutsideNumber, Trunk } from '../plan';
import type { Landing, ObjectRef, Then } from '../exchange/answer';
import type { LegOwner } from './caller-id';
import { LOOP, REFUSED, TOO_MANY_HOPS, UNALLOCATED, UNREACHABLE, type Cause } from '../exchange/cause';
import { ruleAt, type DialRule } from '../exchange/context';
import { contextOf } from './dialling';
import { type Exchange } from '../exchange/exchange';
import { leaveBy } from './outgoing';
import { ending, refTo, type Ending, type Run } from './run';

/** Most times a call goes on from one place to the next before it is given up (ENGINE E11). */
const MOST_HOPS = 20;

/** Where a call that goes from place to place came from. */
export interface CameIn {
  /** the trunk of an outside caller; null for a call from inside */
  trunk: Trunk | null;
  calling: string | null;
  /** the site from which it reaches us */
  site: string | null;
}

/**
 * Takes a call from destination to destination (ENGINE E11, E13): `lands` is the first that takes it, `then` is what
 * follows while nobody does.
 */
export function walk(run: Run, start: Onward, cameIn: CameIn): Ending {
  return new Walk(run, cameIn).from(start);
}

class Walk {
  private landing: Landing | null = null;
  /** how the call left, when it landed outside */
  private outside: Ending | null = null;
  private when = '';
  private readonly then: Then[] = [];
  /** destinations met since the last wait: meeting one again is a loop */
  private readonly sinceWait = new Set<string>();

  constructor(
    private readonly run: Run,
    private readonly cameIn: CameIn,
  ) {}

  from(start: Onward): Ending {
    const { run } = this;
    let onward = start;
    for (let hops = 0; ;) {
      if (onward.type === 'end') {
        run.step('end', 'call-ends', `The call ends with cause ${onward.cause.q850} (SIP ${onward.cause.sip}).`);
        return this.finish(onward.outcome, onward.cause);
      }
      if (onward.type === 'forward') {
        const next = forward(run, onward, this.cameIn);
        if ('onward' in next) {
          onward = next.onward;
          continue;
        }
        return this.leftBy(next.left);
      }
      const place = `${onward.id} ${onward.part ?? 0}`;
      if (this.sinceWait.has(place)) {
        run.step('end', 'loop', 'The call is back where it was without anybody having had time to answer: a loop.');
        return this.finish('loop', LOOP);
      }
      if (hops++ > MOST_HOPS) {
        run.step('end', 'too-many-hops', `After ${MOST_HOPS} hops the call is given up.`);
        return this.finish('loop', TOO_MANY_HOPS);
      }
      this.sinceWait.add(place);
      const next = this.at(onward.id, onward.part ?? 0);
      if ('ended' in next) return next.ended;
      onward = next.onward;
    }
  }

  /** One destination: who takes the call there, and where it goes on. */
  private at(id: string, part: number): { onward: Onward } | { ended: Ending } {
    const { run } = this;
    const { offer, object } = this.offerOf(id, part);
    run.step('destination', offer.code, offer.sentence, { object });
    for (const more of offer.also ?? []) run.step('destination', more.code, more.sentence, { object });
    if (offer.keysTaken) run.keysUsed += offer.keysTaken;
    if (offer.landing) this.lands(offer.landing);
    const left = offer.outside && !offer.landing ? this.goOutside(offer.outside) : null;
    if (left?.lands) this.lands(left.lands, left);
    if (!offer.way) return { ended: left && !left.lands ? this.leftBy(left) : this.routed() };
    const way = left && !left.lands ? { ...offer.way, afterSeconds: 0, when: 'unreachable' } : offer.way;
    if (way.afterSeconds > 0) {
      this.sinceWait.clear();
      run.atSeconds += way.afterSeconds;
      run.step('destination', way.code, way.sentence, { object });
    } else if (way.code !== offer.code) run.step('destination', way.code, way.sentence, { object });
    this.when = way.when;
    return { onward: way.to };
  }

  private lands(landing: Landing, outside: Ending | null = null): void {
    if (this.landing) this.then.push({ when: this.when, afterSeconds: this.run.atSeconds, lands: landing });
    else {
      this.landing = landing;
      this.outside = outside;
    }
  }

  private routed(): Ending {
    return {
      ...(this.outside ?? ending({ outcome: 'routed' })),
      outcome: 'routed',
      lands: this.landing,
      then: this.then,
      cause: null,
    };
  }

  /** The call left by a forwarding or an outside number without coming back, or could not. */
  private leftBy(left: Ending): Ending {
    if (!this.landing) return left;
    this.then.push({ when: this.when, afterSeconds: this.run.atSeconds, lands: left.lands ?? released(left.cause!) });
    return this.routed();
  }

  private finish(outcome: Ending['outcome'], cause: Cause): Ending {
    if (!this.landing) return ending({ outcome, cause });
    this.then.push({ when: this.when, afterSeconds: this.run.atSeconds, lands: released(cause) });
    return this.routed();
  }

  private offerOf(id: string, part: number): { offer: Offer; object: ObjectRef } {
    const { run, cameIn } = this;
    const { kind, object } = run.exchange.destinations.get(id)!;
    const behaviour = BEHAVIOURS[kind] as Behaviour<typeof object>;
    const moment: Moment = {
      exchange: run.exchange,
      situation: run.situation,
      at: run.call.at + run.atSeconds * 1000,
      atSeconds: run.atSeconds,
      outside: cameIn.trunk !== null,
      fromSite: cameIn.site,
      keys: run.keysLeft(),
    };
    return { offer: behaviour.offer(object, moment, part), object: refTo(kind, object) };
  }

  /** An outside number of the plan, dialled as from its site (ENGINE E6 a: the owner's class, for outside calls). */
  private goOutside(leg: OutsideLeg): Ending {
    const { run, cameIn } = this;
    const number = run.exchange.destinations.get(leg.number)!.object as OutsideNumber;
    const owner = leg.owner ? run.exchange.extensions.get(leg.owner)! : null;
    const context = contextOf(run.exchange, { person: owner?.person ?? null, site: number.site });
    const rule = ruleAt(context, leg.dial);
    const object = refTo('outsideNumber', number);
    if (!rule || rule.type !== 'rung') {
      const what =
        rule?.type === 'emergency' ? 'is an emergency number, which nothing leads to' : 'is no outside number there';
      run.step('destination', 'outside-unreadable', `${leg.dial} ${what}.`, { object, in: leg.dial });
      return ending(
        rule?.type === 'emergency'
          ? { outcome: 'refused', cause: REFUSED }
          : { outcome: 'unroutable', cause: UNALLOCATED },
      );
    }
    const legOwner: LegOwner = owner
      ? { ...owner, class: number.class }
      : {
          id: number.id,
          name: number.name,
          digits: number.digits ?? '',
          site: number.site,
          person: null,
          class: number.class,
          outgoingNumber: null,
          withholdNumber: false,
        };
    const origin = cameIn.trunk ? 'forward' : 'plan';
    return leaveBy(
      run,
      rule.compiled,
      leg.dial,
      {
        owner: legOwner,
        origin,
        original: leg.showsCaller ? cameIn.calling : null,
        cameBy: leg.showsCaller ? cameIn.trunk : null,
        entered: cameIn.trunk,
      },
      number.site,
    );
  }
}

function released(cause: Cause): Landing {
  return { kind: 'tone', id: null, digits: null, label: `released, cause ${cause.q850}` };
}

/** The object with this id and its kind, whichever kind of destination it is. */
export function destinationOf(exchange: Exchange, id: string): ObjectRef | null {
  const found = exchange.destinations.get(id);
  return found ? refTo(found.kind, found.object) : null;
}

/** Digits of a person's forwarding, dialled as one block from the owner's phone: onward inside, or gone outside. */
function forward(
  run: Run,
  onward: Extract<Onward, { type: 'forward' }>,
  cameIn: CameIn,
): { onward: Onward } | { left: Ending } {
  const owner = run.exchange.extensions.get(onward.owner)!;
  run.step('destination', 'forwarding', `${owner.name} forwards to ${onward.digits}.`, {
    object: refTo('extension', owner),
    out: onward.digits,
  });
  const rule = ruleAt(contextOf(run.exchange, owner), onward.digits);
  if (!rule) return { onward: { type: 'end', outcome: 'failed', cause: UNALLOCATED } };
  return forwardBy(run, rule, owner, onward.digits, cameIn);
}

function forwardBy(
  run: Run,
  rule: DialRule,
  owner: Extension,
  digits: string,
  cameIn: CameIn,
): { onward: Onward } | { left: Ending } {
  if (rule.type === 'destination') return { onward: { type: 'destination', id: rule.id } };
  if (rule.type === 'rung') {
    const leg = {
      owner,
      origin: 'forward',
      original: cameIn.calling,
      cameBy: cameIn.trunk,
      entered: cameIn.trunk,
    } as const;
    return { left: leaveBy(run, rule.compiled, digits, leg, owner.site) };
  }
  const what = rule.type === 'emergency' ? 'an emergency number' : 'a feature code';
  run.step('right', 'forward-refused', `Nobody forwards calls to ${what}.`, { object: refTo('extension', owner) });
  return { onward: { type: 'end', outcome: 'refused', cause: rule.type === 'emergency' ? REFUSED : UNREACHABLE } };
}
