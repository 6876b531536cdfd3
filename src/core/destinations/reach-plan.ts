import type { Extension, OutsideNumber, ReachPlan, ReachStep } from '../plan';
import { NO_ANSWER } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import { leadOr, type Behaviour, type Moment, type Offer, type Onward } from './offer';
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
        way: { when: 'no answer', afterSeconds: 0, to: endOf(plan), code: 'reach-over', sentence },
      };
    }
    return ring(plan, group, part, groups.length, moment);
  },
  lands: (_plan, exchange, part) => (groupsOf(exchange, _plan)[part]?.length ?? 0) > 0,
  ways(plan, exchange, part) {
    const next = nextOf(plan, part, groupsOf(exchange, plan).length);
    const legs = (groupsOf(exchange, plan)[part] ?? []).flatMap((step) =>
      step.outside
        ? [{ when: 'rings outside', drive: 'ring' as const, to: { type: 'destination' as const, id: step.outside } }]
        : [],
    );
    return [...legs, { when: 'no answer', drive: 'ring', to: next }, { when: 'unreachable', drive: 'none', to: next }];
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

const endOf = (plan: ReachPlan): Onward => leadOr(plan.end, NO_ANSWER);

function nextOf(plan: ReachPlan, part: number, count: number): Onward {
  return part + 1 < count ? { type: 'destination', id: plan.id, part: part + 1 } : endOf(plan);
}

function ring(plan: ReachPlan, group: ReachStep[], part: number, count: number, moment: Moment): Offer {
  const { exchange } = moment;
  const inside = group.flatMap((step) => {
    const phone = step.extension ? exchange.extensions.get(step.extension)! : null;
    return phone && phoneObstacle(phone, moment) === null ? [{ step, phone }] : [];
  });
  const outside = group.flatMap((step) => (step.outside ? [{ step, number: numberOf(exchange, step.outside) }] : []));
  const to = nextOf(plan, part, count);
  if (inside.length + outside.length === 0) {
    const sentence = `No phone of step ${part + 1} of ${plan.name} can ring.`;
    return {
      landing: null,
      code: 'reach-unreachable',
      sentence,
      way: { when: 'unreachable', afterSeconds: 0, to, code: 'reach-unreachable', sentence },
    };
  }
  const seconds = Math.max(...[...inside, ...outside].map((o) => o.step.seconds));
  const answering = inside.find(({ step, phone }) => answersWithin(moment, phone.id, step.seconds))?.phone;
  const first = outside.find(({ step, number }) => answersWithin(moment, number.id, step.seconds));
  const names = [...inside.map((i) => i.phone.name), ...outside.map((o) => o.number.name)].join(', ');
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
    ...(!answering && first
      ? {
          outside: {
            dial: first.number.dial,
            number: first.number.id,
            owner: ownerOf(exchange, plan)?.id ?? null,
            showsCaller: plan.showsCaller,
          },
        }
      : {}),
    code: 'reach-rings',
    sentence: `${plan.name}, step ${part + 1}: ${names} for ${seconds} s.${key}`,
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
