import { BEHAVIOURS, type Behaviour, type Moment, type Offer, type Onward } from '../destinations';
import type { Extension } from '../plan';
import type { Call, Ending, Landing, ObjectRef, Then } from '../exchange/answer';
import { LOOP, REFUSED, TOO_MANY_HOPS, UNALLOCATED, UNREACHABLE, type Cause } from '../exchange/cause';
import { ruleAt, type DialRule } from '../exchange/context';
import { contextOf, type DialMoment } from './dialling';
import { type Exchange } from '../exchange/exchange';
import { placeOf } from '../exchange/hours-now';
import { dialledOn } from './dialled-on';
import { leaveThrough, type CameIn } from './leave-through';
import { leaveBy } from './outgoing';
import { ending, refTo, Run } from './run';
import type { Situation } from '../exchange/situation';

/** Most times a call goes on round a circle from one place to the next before it is given up (ENGINE E11). */
const MOST_HOPS = 20;

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
  /** destinations met, and those met since somebody had time or a key to press: meeting one of these again is a loop */
  private readonly met = new Set<string>();
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
      if (onward.type === 'dialled') {
        const next = this.dialledOn(onward);
        if ('ended' in next) return next.ended;
        onward = next.onward;
        continue;
      }
      if (onward.type === 'forward') {
        const next = this.forward(onward);
        if ('ended' in next) return next.ended;
        onward = next.onward;
        continue;
      }
      const place = `${onward.id} ${onward.part ?? 0}`;
      if (this.sinceWait.has(place)) {
        run.step('end', 'loop', 'The call is back where it was without anybody having had time to answer: a loop.');
        return this.finish('loop', LOOP);
      }
      if (hops++ > MOST_HOPS && this.met.has(place)) {
        run.step('end', 'too-many-hops', `After ${MOST_HOPS} hops round a circle the call is given up.`);
        return this.finish('loop', TOO_MANY_HOPS);
      }
      this.met.add(place);
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
    this.hear(offer, object);
    if (object.kind === 'extension' && !offer.landing && !this.landing) run.passed.push(id);
    if (offer.landing) this.lands(offer.landing);
    const left = offer.outside && !offer.landing ? leaveThrough(run, offer.outside, this.cameIn) : null;
    if (left?.lands && !this.landing) run.through = id;
    if (left?.lands) this.lands(left.lands, left);
    if (!offer.way) return { ended: left && !left.lands ? this.leftBy(left) : this.routed() };
    const { way } = offer;
    // Keys and waits are what somebody does: from here on a place may be met again.
    if (way.afterSeconds > 0 || offer.keysTaken) this.sinceWait.clear();
    if (way.code === 'queue-closed') run.unwatched();
    if (way.afterSeconds > 0) {
      run.atSeconds = toMilliseconds(run.atSeconds + way.afterSeconds);
      run.step('destination', way.code, way.sentence, { object, out: way.when });
    } else if (way.code !== offer.code) run.step('destination', way.code, way.sentence, { object, out: way.when });
    this.when = way.when;
    return { onward: way.to };
  }

  /** What is heard at a place, and what it changes of what is heard and shown from there on. */
  private hear({ heard = [], language, shownName }: Offer, object: ObjectRef): void {
    const { run } = this;
    if (run.told)
      for (const { afterSeconds, until, ...sound } of heard)
        run.heard.push({
          ...sound,
          atSeconds: toMilliseconds(run.atSeconds + afterSeconds),
          heardSeconds: toMilliseconds(Math.max(0, until - afterSeconds)),
          object,
        });
    if (run.hearing !== null)
      for (const { afterSeconds, until, prompt, phrase, language: spoken, text, figure, sound } of heard)
        if (until > afterSeconds) {
          const atSeconds = toMilliseconds(run.atSeconds + afterSeconds);
          const said = figure === null ? text : '';
          run.hearing.push({ atSeconds, until, prompt, phrase, language: spoken, text: said, sound });
        }
    if (language) run.language = language;
    if (shownName) run.shownName = shownName;
  }

  /** Digits that the caller dials on to the outside; an inside caller needs the right of their own class (ENGINE E6 b). */
  private dialledOn({ digits, from }: Extract<Onward, { type: 'dialled' }>): { onward: Onward } | { ended: Ending } {
    const { run, cameIn } = this;
    const on = dialledOn(run, digits, cameIn, from, 'outside');
    if ('leadsTo' in on) return { onward: { type: 'destination', id: on.leadsTo } };
    if (on.ended.lands) this.lands(on.ended.lands, on.ended);
    return { ended: on.ended.lands ? this.routed() : this.leftBy(on.ended) };
  }

  private lands(landing: Landing, outside: Ending | null = null): void {
    if (this.landing) this.then.push({ when: this.when, afterSeconds: this.run.atSeconds, lands: landing });
    else {
      this.landing = landing;
      this.outside = outside;
      this.run.landed = true;
      this.run.landedAt = this.run.atSeconds;
      this.run.atLanding = { language: this.run.language, keysUsed: this.run.keysUsed };
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
    const { kind, object, named = { kind, object } } = placeOf(run.exchange, run.situation, id);
    const behaviour = BEHAVIOURS[kind] as Behaviour<typeof object>;
    const moment: Moment = {
      exchange: run.exchange,
      situation: run.situation,
      at: run.now,
      atSeconds: run.atSeconds,
      outside: cameIn.trunk !== null,
      withheld: cameIn.trunk !== null && cameIn.calling === null,
      fromSite: cameIn.site,
      language: run.language || (run.exchange.sites.get(cameIn.site)?.language ?? ''),
      keys: run.keysLeft(),
      when: this.when,
      told: run.told || run.hearing !== null,
      barred: (leg) => {
        const aside = run.aside();
        return leaveThrough(aside, leg, cameIn).lands ? null : (aside.steps.at(-1)?.sentence ?? '');
      },
      insideOf(owner, digits) {
        const rule = ruleAt(contextOf(run.exchange, owner, { at: run.now, situation: run.situation }), digits);
        return rule?.type === 'destination' ? rule.id : null;
      },
    };
    return { offer: behaviour.offer(object, moment, part), object: refTo(named.kind, named.object) };
  }

  /** Digits of a person's forwarding, dialled as one block from the owner's phone: onward inside, or gone outside. */
  private forward(onward: Extract<Onward, { type: 'forward' }>): { onward: Onward } | { ended: Ending } {
    const { run } = this;
    const owner = run.exchange.extensions.get(onward.owner)!;
    run.step('destination', 'forwarding', `${owner.name} forwards to ${onward.digits}.`, {
      object: refTo('extension', owner),
      out: onward.digits,
    });
    const rule = ruleAt(contextOf(run.exchange, owner, { at: run.now, situation: run.situation }), onward.digits);
    if (!rule) return { onward: { type: 'end', outcome: 'failed', cause: UNALLOCATED } };
    if (rule.type === 'destination') return { onward: { type: 'destination', id: rule.id } };
    if (rule.type !== 'rung') return { onward: this.refusedForward(rule, owner) };
    run.exchange.asksCaller?.();
    const { trunk, calling } = this.cameIn;
    const left = leaveBy(
      run,
      rule.compiled,
      onward.digits,
      {
        owner,
        caller: owner,
        fromSite: this.cameIn.site,
        rights: [{ class: owner.class, who: owner.name, right: trunk ? 'forward' : 'allow', asksPin: false }],
        diverted: true,
        showsCaller: true,
        original: calling,
        entered: trunk,
        transit: false,
      },
      owner.site,
    );
    if (!left.lands || !onward.untaken) return { ended: this.leftBy(left) };
    this.lands(left.lands, left);
    const { afterSeconds, to } = onward.untaken;
    run.atSeconds += afterSeconds;
    this.sinceWait.clear();
    this.when = 'no key';
    run.step('destination', 'key-to-take', `Nobody presses a key to take the call within ${afterSeconds} s.`, {
      object: refTo('extension', owner),
    });
    return { onward: to };
  }

  private refusedForward(rule: DialRule, owner: Extension): Onward {
    const isEmergency = rule.type === 'emergency';
    const what = isEmergency ? 'an emergency number' : 'a service code';
    this.run.step('right', 'forward-refused', `Nobody forwards calls to ${what}.`, {
      object: refTo('extension', owner),
    });
    return { type: 'end', outcome: 'refused', cause: isEmergency ? REFUSED : UNREACHABLE };
  }
}

/** Seconds without what sums of fractions leave behind them. */
const toMilliseconds = (seconds: number) => Math.round(seconds * 1000) / 1000;

function released(cause: Cause): Landing {
  return { kind: 'tone', id: null, digits: null, label: `released, cause ${cause.q850}` };
}

/** The object with this id and its kind, whichever kind of destination it is. */
export function destinationOf(exchange: Exchange, id: string): ObjectRef | null {
  const found = exchange.destinations.get(id);
  return found ? refTo(found.kind, found.object) : null;
}

/** Where a call ends that has come to a destination: one from outside by a trunk of its site, or from inside where it has none. */
export function outcomeAt(exchange: Exchange, id: string, at: number, situation: Situation): Ending {
  const { site } = exchange.destinations.get(id)!.object;
  const trunk = exchange.plan.trunks.find((t) => t.site === site) ?? null;
  const call: Call = { from: { type: 'outside', calling: null }, dial: '', enBloc: true, at };
  const cameIn: CameIn = { trunk, calling: '', phone: null, site };
  return walk(new Run(exchange, call, situation, false), { type: 'destination', id }, cameIn);
}

/** A call from outside that has come to a destination, with its steps and all that is heard there and after it. */
export function playedAt(
  exchange: Exchange,
  id: string,
  at: number,
  situation: Situation,
): Ending & Pick<Run, 'steps' | 'heard'> {
  const { site } = exchange.destinations.get(id)!.object;
  const trunk = exchange.plan.trunks.find((t) => t.site === site) ?? null;
  const call: Call = { from: { type: 'outside', calling: null }, dial: '', enBloc: true, at };
  const run = new Run(exchange, call, situation);
  const end = walk(run, { type: 'destination', id }, { trunk, calling: '', phone: null, site });
  return { ...end, steps: run.steps, heard: run.heard };
}

/** How a call would go on by digits that are taken as dialled at the site that it came to, or why it would not. */
export function dialledBy(
  exchange: Exchange,
  digits: string,
  cameIn: CameIn,
  { at, situation }: DialMoment,
): Pick<Ending, 'lands' | 'cause'> {
  const call: Call = { from: { type: 'outside', calling: null }, dial: digits, enBloc: true, at };
  return walk(new Run(exchange, call, situation, false), { type: 'dialled', digits, from: cameIn.site }, cameIn);
}

/** How a call would go on by somebody's forwarding to digits that lead outside, or why it would not. */
export function forwardingBy(
  exchange: Exchange,
  owner: Extension,
  digits: string,
  cameIn: CameIn,
  { at, situation }: DialMoment,
): Pick<Ending, 'lands' | 'cause'> {
  const call: Call = { from: { type: 'outside', calling: null }, dial: digits, enBloc: true, at };
  return walk(new Run(exchange, call, situation, false), { type: 'forward', digits, owner: owner.id }, cameIn);
}
