import type { Extension, OutsideNumber, ReachPlan, ReachStep } from '../plan';
import { BUSY, NO_ANSWER, UNREACHABLE, type Cause } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import { JUST_RUNG } from './extension';
import {
  leadOr,
  type Behaviour,
  type CourseWayOn,
  type Drive,
  type Moment,
  type Offer,
  type Onward,
  type OutsideLeg,
} from './offer';
import { answersWithin, phoneObstacle } from './phone';

/** A reach plan rings a person's phones, outside ones included, step by step; each part is one step with those beside it. */
export const reachPlan: Behaviour<ReachPlan> = {
  offer(plan, moment, part) {
    const groups = groupsOf(moment.exchange, plan);
    const group = groups[part];
    if (!group) {
      const sentence = `${plan.name} has no steps.`;
      return {
        landing: null,
        code: 'reach-over',
        sentence,
        way: { when: 'no answer', afterSeconds: 0, to: endOf(plan, UNREACHABLE), code: 'reach-over', sentence },
      };
    }
    return ring(plan, groups, part, moment);
  },
  lands: () => false,
  ways(plan, exchange, part) {
    const groups = groupsOf(exchange, plan);
    const next = (cause: Cause) => nextOf(plan, part, groups.length, cause);
    const phones = (groups[part] ?? []).map((step): CourseWayOn => ({
      when: step.outside ? 'rings outside' : 'rings',
      // Whoever answers has the call: this is no part of a circle.
      drive: 'answered',
      to: { type: 'destination', id: (step.extension ?? step.outside)!, part: step.extension ? JUST_RUNG : 0 },
    }));
    const onward = (when: string, drive: Drive, cause: Cause): CourseWayOn => ({ when, drive, to: next(cause) });
    return [
      ...phones,
      onward('no answer', 'ring', NO_ANSWER),
      onward('busy', 'none', BUSY),
      onward('unreachable', 'none', UNREACHABLE),
    ];
  },
};

function groupsOf(exchange: Exchange, plan: ReachPlan): ReachStep[][] {
  const groups: ReachStep[][] = [];
  for (const step of exchange.reachSteps.get(plan.id) ?? []) {
    const last = groups[groups.length - 1];
    if (step.withPrevious && last) last.push(step);
    else groups.push([step]);
  }
  return groups;
}

/** Where a caller goes after the last step; why it ends where nothing is set. */
const endOf = (plan: ReachPlan, cause: Cause): Onward => leadOr(plan.end, cause);

function nextOf(plan: ReachPlan, part: number, count: number, cause: Cause): Onward {
  return part + 1 < count ? { type: 'destination', id: plan.id, part: part + 1 } : endOf(plan, cause);
}

/** A step's phones that can ring now. */
interface Ringing {
  inside: { step: ReachStep; phone: Extension }[];
  outside: { step: ReachStep; leg: OutsideLeg }[];
  /** why outside phones do not ring, a sentence each */
  barred: string[];
  busy: boolean;
}

function ringing(plan: ReachPlan, group: readonly ReachStep[], moment: Moment): Ringing {
  const { exchange } = moment;
  const out: Ringing = { inside: [], outside: [], barred: [], busy: false };
  const owner = ownerOf(exchange, plan)?.id ?? null;
  for (const step of group) {
    if (step.extension) {
      const phone = exchange.extensions.get(step.extension)!;
      const obstacle = phoneObstacle(phone, moment);
      if (!obstacle) out.inside.push({ step, phone });
      else if (obstacle.when === 'busy') out.busy = true;
    } else if (step.outside) {
      const { dial, id, name } = numberOf(exchange, step.outside);
      const leg = { dial, number: id, owner, showsCaller: plan.showsCaller };
      const barred = moment.barred(leg);
      if (barred === null) out.outside.push({ step, leg });
      else out.barred.push(`${name} does not ring: ${barred}`);
    }
  }
  return out;
}

/** Why a plan ends that leads nowhere: it rang in vain, everybody is busy, or nobody is there (ENGINE E11). */
function causeOf(plan: ReachPlan, groups: readonly ReachStep[][], moment: Moment): Cause {
  const all = groups.map((group) => ringing(plan, group, moment));
  if (all.some((r) => r.inside.length + r.outside.length > 0)) return NO_ANSWER;
  return all.some((r) => r.busy) ? BUSY : UNREACHABLE;
}

function ring(plan: ReachPlan, groups: ReachStep[][], part: number, moment: Moment): Offer {
  const { exchange } = moment;
  const { inside, outside, barred } = ringing(plan, groups[part]!, moment);
  const last = part + 1 === groups.length && plan.end === null;
  const to = nextOf(plan, part, groups.length, last ? causeOf(plan, groups, moment) : NO_ANSWER);
  const also = barred.map((sentence) => ({ code: 'reach-unreachable' as const, sentence }));
  if (inside.length + outside.length === 0) {
    const sentence = `No phone of step ${part + 1} of ${plan.name} can ring.`;
    return {
      landing: null,
      code: 'reach-unreachable',
      sentence,
      also,
      way: { when: 'unreachable', afterSeconds: 0, to, code: 'reach-unreachable', sentence },
    };
  }
  const seconds = Math.max(...[...inside, ...outside].map((o) => o.step.seconds));
  const answering = inside.find(({ step, phone }) => answersWithin(moment, phone.id, step.seconds))?.phone;
  const first = outside.find(({ step, leg }) => answersWithin(moment, leg.number, step.seconds));
  const names = [...inside.map((i) => i.phone.name), ...outside.map((o) => numberOf(exchange, o.leg.number).name)];
  const key = outside.some((o) => o.step.keyToTake) ? ' An outside phone presses a key to take the call.' : '';
  return {
    landing: answering
      ? {
          kind: 'extension',
          id: answering.id,
          digits: answering.digits,
          label: `${answering.digits} ${answering.name}`,
        }
      : null,
    ...(!answering && first ? { outside: first.leg } : {}),
    code: 'reach-rings',
    sentence: `${plan.name}, step ${part + 1}: ${names.join(', ')} for ${seconds} s.${key}`,
    also,
    way: {
      when: 'no answer',
      afterSeconds: seconds,
      to,
      code: 'reach-no-answer',
      sentence: `Step ${part + 1} of ${plan.name} is not answered within ${seconds} s.`,
    },
  };
}

function numberOf(exchange: Exchange, id: string): OutsideNumber {
  return exchange.destinations.get(id)!.object as OutsideNumber;
}

/** The extension that a plan looks for. */
function ownerOf(exchange: Exchange, plan: ReachPlan): Extension | undefined {
  return exchange.plan.extensions.find((e) => e.reachPlan === plan.id);
}
