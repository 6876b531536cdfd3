import type { Extension } from '../plan';
import { BUSY, NO_ANSWER, UNREACHABLE, type Cause } from '../exchange/cause';
import type { ReasonCode } from '../exchange/reasons';
import type { ForwardWhen } from '../exchange/situation';
import type { Behaviour, CourseWayOn, Moment, Offer, Onward, WayOn } from './offer';
import { mailboxOf } from './mailbox';
import { answersWithin, phoneObstacle } from './phone';
import { presenceOf, presenceWays } from './presence';

/** Part 1 is the phone alone: a reach plan rings it without starting anew. */
export const JUST_THE_PHONE = 1;

/** An extension rings, unless its person's forwarding, presence, reach plan or state sends the call on (ENGINE E11). */
export const extension: Behaviour<Extension> = {
  offer(object, moment, part) {
    return wished(object, moment, part) ?? rings(object, moment);
  },
  lands: (object, _exchange, part) =>
    object.kind !== 'virtual' && (object.reachPlan === null || part === JUST_THE_PHONE),
  ways(object, exchange, part) {
    const box = mailboxOf(object, exchange);
    const mailbox = (when: string, drive: CourseWayOn['drive'], cause: Cause): CourseWayOn => ({
      when,
      drive,
      to: box ? { type: 'destination', id: box } : { type: 'end', outcome: 'failed', cause },
    });
    const presence = presenceWays(object, exchange);
    if (object.reachPlan && part !== JUST_THE_PHONE)
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
function wished(object: Extension, moment: Moment, part: number): Offer | null {
  const { situation } = moment;
  const { id, name } = object;
  const passes = (code: ReasonCode, sentence: string, way: WayOn): Offer => ({ landing: null, code, sentence, way });
  const always = situation.forwarding?.find((f) => f.extension === id && f.when === 'always');
  if (always) {
    const sentence = `${name} forwards every call.`;
    return passes('forwarded-always', sentence, {
      when: 'forwarded',
      afterSeconds: 0,
      to: { type: 'forward', digits: always.to, owner: id },
      code: 'forwarded-always',
      sentence,
    });
  }
  const presence = presenceOf(object, moment);
  if (presence) return passes('presence', presence.sentence, presence);
  if (object.reachPlan && part !== JUST_THE_PHONE && !situation.doNotDisturb?.includes(id)) {
    const sentence = `${name} is looked for by a reach plan.`;
    const to: Onward = { type: 'destination', id: object.reachPlan };
    return passes('reach-plan', sentence, { when: 'reach plan', afterSeconds: 0, to, code: 'reach-plan', sentence });
  }
  return null;
}

function rings(object: Extension, moment: Moment): Offer {
  const { id, name, digits, ringSeconds } = object;
  const obstacle = phoneObstacle(object, moment);
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
    sentence: `${label} rings for ${ringSeconds} s.`,
    way: onward(object, moment, 'no answer', 'no answer', ringSeconds, 'no-answer', unanswered, NO_ANSWER),
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
    ? { type: 'forward', digits: forward.to, owner: object.id }
    : box
      ? { type: 'destination', id: box }
      : { type: 'end', outcome: 'failed', cause };
  return { when, afterSeconds, to, code, sentence };
}
