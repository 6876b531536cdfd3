import type { Extension } from '../plan';
import { BUSY, NO_ANSWER, UNREACHABLE, type Cause } from '../exchange/cause';
import type { ReasonCode } from '../exchange/reasons';
import type { Moment, Offer, Onward, OutsideLeg } from './offer';
import { answersWithin, phoneObstacle } from './phone';

/* Steps by which somebody is looked for: those of a reach plan, or those that a person set themselves. */

/** One phone of a step: of ours, or an outside one. */
export interface Reaching {
  extension: string | null;
  outside: { leg: OutsideLeg; name: string } | null;
  seconds: number;
  keyToTake: boolean;
}

/** Phones in the order in which they ring; those of one list ring together. */
export interface Search {
  /** what it is called in sentences */
  name: string;
  groups: readonly (readonly Reaching[])[];
  /** where the call goes after a step; after the last one with the cause that it ends with where nothing is set */
  next(part: number, cause: Cause): Onward;
  /** whether something is set for after the last step */
  hasEnd: boolean;
}

/** Steps in order, those that ring together in one list. */
export function together<S extends { withPrevious?: boolean | undefined }>(steps: readonly S[]): S[][] {
  const groups: S[][] = [];
  for (const step of steps) {
    const last = groups[groups.length - 1];
    if (step.withPrevious && last) last.push(step);
    else groups.push([step]);
  }
  return groups;
}

/** A step's phones that can ring now. */
interface Ringing {
  inside: { step: Reaching; phone: Extension }[];
  outside: { step: Reaching; leg: OutsideLeg; name: string }[];
  /** why outside phones do not ring, a sentence each */
  barred: string[];
  busy: boolean;
}

function ringing(group: readonly Reaching[], moment: Moment): Ringing {
  const out: Ringing = { inside: [], outside: [], barred: [], busy: false };
  for (const step of group) {
    if (step.extension) {
      const phone = moment.exchange.extensions.get(step.extension);
      const obstacle = phone ? phoneObstacle(phone, moment) : null;
      if (phone && !obstacle) out.inside.push({ step, phone });
      else if (obstacle?.when === 'busy') out.busy = true;
    } else if (step.outside) {
      const { leg, name } = step.outside;
      const barred = moment.barred(leg);
      if (barred === null) out.outside.push({ step, leg, name });
      else out.barred.push(`${name} does not ring: ${barred}`);
    }
  }
  return out;
}

/** Why a search ends that leads nowhere: it rang in vain, everybody is busy, or nobody is there (ENGINE E11). */
function causeOf(groups: Search['groups'], moment: Moment): Cause {
  const all = groups.map((group) => ringing(group, moment));
  if (all.some((r) => r.inside.length + r.outside.length > 0)) return NO_ANSWER;
  return all.some((r) => r.busy) ? BUSY : UNREACHABLE;
}

/** Rings the phones of one step; without any that can ring the call goes on at once. */
export function ringStep(search: Search, part: number, moment: Moment): Offer {
  const { name, groups } = search;
  const { inside, outside, barred } = ringing(groups[part]!, moment);
  const last = part + 1 === groups.length && !search.hasEnd;
  const to = search.next(part, last ? causeOf(groups, moment) : NO_ANSWER);
  const also = barred.map((sentence) => ({ code: 'reach-unreachable' as ReasonCode, sentence }));
  if (inside.length + outside.length === 0) {
    const sentence = `No phone of step ${part + 1} of ${name} can ring.`;
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
  const first = outside.find(({ step, leg }) => answersWithin(moment, leg.number ?? leg.dial, step.seconds));
  const names = [...inside.map((i) => i.phone.name), ...outside.map((o) => o.name)];
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
    sentence: `${name}, step ${part + 1}: ${names.join(', ')} for ${seconds} s.${key}`,
    also,
    way: {
      when: 'no answer',
      afterSeconds: seconds,
      to,
      code: 'reach-no-answer',
      sentence: `Step ${part + 1} of ${name} is not answered within ${seconds} s.`,
    },
  };
}
