import type { Extension, OutsideNumber, ReachPlan, ReachStep } from '../plan';
import { BUSY, NO_ANSWER, UNREACHABLE, type Cause } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import { JUST_RUNG } from './extension';
import { hoursNow } from '../exchange/hours-now';
import {
  leadOr,
  type Behaviour,
  type CourseNow,
  type CourseWayOn,
  type Drive,
  type Moment,
  type Onward,
} from './offer';
import { presenceState } from './presence';
import { ringStep, together, type Reaching, type Search } from './reach-search';

/** A reach plan rings a person's phones, outside ones included, step by step; each part is one step with those beside it. */
export const reachPlan: Behaviour<ReachPlan> = {
  offer(plan, moment, part) {
    const search = searchOf(plan, moment);
    if (search.groups[part]) return ringStep(search, part, moment);
    const sentence = `${plan.name} has no steps.`;
    return {
      landing: null,
      code: 'reach-over',
      sentence,
      way: { when: 'no answer', afterSeconds: 0, to: endOf(plan, UNREACHABLE), code: 'reach-over', sentence },
    };
  },
  lands: () => false,
  ways(plan, exchange, part, now) {
    const groups = groupsOf(exchange, plan);
    const owner = ownerOf(exchange, plan);
    const taken = (step: ReachStep) => now === null || isTaken(step, owner, exchange, now);
    const next = (cause: Cause) => nextOf(plan, part, groups.length, cause);
    const phones = (groups[part] ?? []).filter(taken).map((step): CourseWayOn => ({
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

const groupsOf = (exchange: Exchange, plan: ReachPlan): ReachStep[][] =>
  together(exchange.reachSteps.get(plan.id) ?? []);

/** Where a caller goes after the last step; why it ends where nothing is set. */
const endOf = (plan: ReachPlan, cause: Cause): Onward => leadOr(plan.end, cause);

function nextOf(plan: ReachPlan, part: number, count: number, cause: Cause): Onward {
  return part + 1 < count ? { type: 'destination', id: plan.id, part: part + 1 } : endOf(plan, cause);
}

function searchOf(plan: ReachPlan, moment: Moment): Search {
  const { exchange, situation, at } = moment;
  const person = ownerOf(exchange, plan);
  const owner = person?.id ?? null;
  const now = { situation, hoursAt: (id: string) => hoursNow(exchange, situation, id, at) };
  const groups = groupsOf(exchange, plan).map((group) =>
    group
      .filter((step) => isTaken(step, person, exchange, now))
      .map((step): Reaching => {
        const number =
          step.outside === null ? null : (exchange.destinations.get(step.outside)!.object as OutsideNumber);
        return {
          ...step,
          outside: number && {
            leg: { dial: number.dial, number: number.id, owner, showsCaller: plan.showsCaller },
            name: number.name,
          },
        };
      }),
  );
  return {
    name: plan.name,
    groups,
    hasEnd: plan.end !== null,
    next: (part, cause) => nextOf(plan, part, groups.length, cause),
  };
}

/** Whether a step is taken: by its hours, and by the presence of the person who is looked for. */
function isTaken(
  step: ReachStep,
  person: Extension | undefined,
  exchange: Exchange,
  now: Pick<CourseNow, 'situation' | 'hoursAt'>,
): boolean {
  if (step.hours !== null && now.hoursAt(step.hours).open !== (step.when === 'open')) return false;
  if (step.presences.length === 0) return true;
  const state = person ? presenceState(person, exchange, now.situation) : null;
  return state !== null && step.presences.includes(state.id);
}

/** The extension that a plan looks for. */
function ownerOf(exchange: Exchange, plan: ReachPlan): Extension | undefined {
  return exchange.plan.extensions.find((e) => e.reachPlan === plan.id);
}
