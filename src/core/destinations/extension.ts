import type { Extension } from '../plan';
import { BUSY, NO_ANSWER, REFUSED, UNREACHABLE, type Cause } from '../exchange/cause';
import type { ReasonCode } from '../exchange/reasons';
import { isNamed, type ForwardWhen, type Situation } from '../exchange/situation';
import type { Behaviour, CourseWayOn, Moment, Offer, Onward, WayOn } from './offer';
import { mailboxOf } from './mailbox';
import { OWN_REACH, ownReachOf, ringOwnStep } from './own-reach';
import { answersWithin, deviceObstacle, isWaiting, phoneObstacle } from './phone';
import { presenceOf, presenceWays } from './presence';

/** Part 1 is the phone when it is only rung: by a step of a reach plan, with no way on of its own. */
export const JUST_RUNG = 1;
/** Part 2 is the phone alone for a call back to an emergency call: ahead of every wish of its owner (ENGINE E4). */
export const CALLED_BACK = 2;

/** An extension rings, unless its person's forwarding, presence, reach plan or state sends the call on (ENGINE E11). */
export const extension: Behaviour<Extension> = {
  offer(object, moment, part) {
    const own = part >= OWN_REACH ? ownReachOf(object, moment) : undefined;
    if (own) return ringOwnStep(object, own, part - OWN_REACH, moment);
    return (part === CALLED_BACK ? null : wished(object, moment)) ?? rings(object, moment, part);
  },
  lands: (object, _exchange, part) => object.kind !== 'virtual' && (object.reachPlan === null || part !== 0),
  ways(object, exchange, part, _now, callers) {
    if (part === JUST_RUNG) return [];
    const box = mailboxOf(object, exchange);
    const mailbox = (when: string, drive: CourseWayOn['drive'], cause: Cause): CourseWayOn => ({
      when,
      drive,
      to: box ? { type: 'destination', id: box } : { type: 'end', outcome: 'failed', cause },
    });
    const { withheldLeadTo } = exchange.plan.organisation;
    const rejected: CourseWayOn = {
      when: 'number withheld',
      drive: 'none',
      to: withheldLeadTo
        ? { type: 'destination', id: withheldLeadTo }
        : { type: 'end', outcome: 'refused', cause: REFUSED },
    };
    const presence = [...(object.rejectsWithheld ? [rejected] : []), ...presenceWays(object, exchange, callers)];
    if (object.reachPlan && part === 0)
      return [
        ...presence,
        { when: 'reach plan', drive: 'none', to: { type: 'destination', id: object.reachPlan } },
        mailbox('do not disturb', 'none', BUSY),
      ];
    if (object.kind === 'virtual') return [...presence, mailbox('unreachable', 'none', UNREACHABLE)];
    return [
      ...presence,
      mailbox('no answer', 'ring', NO_ANSWER),
      mailbox('busy', 'none', BUSY),
      mailbox('unreachable', 'none', UNREACHABLE),
    ];
  },
};

/** What the owner wants done with calls, before any phone rings; null when it rings. */
function wished(object: Extension, moment: Moment): Offer | null {
  const { situation } = moment;
  const { id, name } = object;
  const passes = (code: ReasonCode, sentence: string, way: WayOn): Offer => ({ landing: null, code, sentence, way });
  if (object.rejectsWithheld && moment.outside) moment.exchange.asksCaller?.();
  if (moment.withheld && object.rejectsWithheld) {
    const sentence = `${name} rejects callers who hide their number.`;
    const { withheldLeadTo } = moment.exchange.plan.organisation;
    const to: Onward = withheldLeadTo
      ? { type: 'destination', id: withheldLeadTo }
      : { type: 'end', outcome: 'refused', cause: REFUSED };
    return passes('withheld-rejected', sentence, {
      when: 'number withheld',
      afterSeconds: 0,
      to,
      code: 'withheld-rejected',
      sentence,
    });
  }
  const always = situation.forwarding?.find((f) => f.extension === id && f.when === 'always');
  if (always) {
    const sentence = `${name} forwards every call.`;
    return passes('forwarded-always', sentence, {
      when: 'forwarded',
      afterSeconds: 0,
      to: forwardTo(object, moment, always),
      code: 'forwarded-always',
      sentence,
    });
  }
  const presence = presenceOf(object, moment);
  if (presence) return passes('presence', presence.sentence, presence);
  const own = ownReachOf(object, moment);
  if ((object.reachPlan || own) && !isNamed(situation.doNotDisturb, object)) {
    const sentence = `${name} is looked for by ${own ? 'their own' : 'a'} reach plan.`;
    const to: Onward = own
      ? { type: 'destination', id, part: OWN_REACH }
      : { type: 'destination', id: object.reachPlan! };
    return passes('reach-plan', sentence, { when: 'reach plan', afterSeconds: 0, to, code: 'reach-plan', sentence });
  }
  return null;
}

function rings(object: Extension, moment: Moment, part: number): Offer {
  const { id, name, digits, ringSeconds } = object;
  const obstacle = part === CALLED_BACK ? deviceObstacle(object, moment, true) : phoneObstacle(object, moment);
  if (obstacle) {
    const { code, sentence, cause } = obstacle;
    const when: ForwardWhen = obstacle.when === 'do not disturb' ? 'busy' : obstacle.when;
    return {
      landing: null,
      code,
      sentence,
      way: onward(object, moment, when, obstacle.when, 0, code, sentence, cause),
    };
  }
  const label = `${digits} ${name}`;
  const unanswered = `${name} does not answer within ${ringSeconds} s.`;
  return {
    landing: answersWithin(moment, id, ringSeconds) ? { kind: 'extension', id, digits, label } : null,
    code: 'rings',
    sentence: `${label} rings for ${ringSeconds} s${isWaiting(object, moment) ? ', with call waiting' : ''}.`,
    way: onward(object, moment, 'no answer', 'no answer', ringSeconds, 'no-answer', unanswered, NO_ANSWER),
  };
}

/** Where a forwarding leads; one that asks for a key goes on to the mailbox when the key is not pressed. */
function forwardTo(
  object: Extension,
  moment: Moment,
  { to, keyToTake }: NonNullable<Situation['forwarding']>[number],
): Onward {
  const box = mailboxOf(object, moment.exchange);
  const untaken: Onward = box ? { type: 'destination', id: box } : { type: 'end', outcome: 'failed', cause: NO_ANSWER };
  return {
    type: 'forward',
    digits: to,
    owner: object.id,
    ...(keyToTake ? { untaken: { afterSeconds: object.ringSeconds, to: untaken } } : {}),
  };
}

/** Personal forwarding for the case first, then the mailbox, then the cause (ENGINE E11). */
function onward(
  object: Extension,
  moment: Moment,
  forwardWhen: ForwardWhen,
  when: string,
  afterSeconds: number,
  code: ReasonCode,
  sentence: string,
  cause: Cause,
): WayOn {
  const forward = moment.situation.forwarding?.find((f) => f.extension === object.id && f.when === forwardWhen);
  const box = mailboxOf(object, moment.exchange);
  const to: Onward = forward
    ? forwardTo(object, moment, forward)
    : box
      ? { type: 'destination', id: box }
      : { type: 'end', outcome: 'failed', cause };
  return { when, afterSeconds, to, code, sentence };
}
