import type { Extension, RingGroup } from '../plan';
import { BUSY, NO_ANSWER, UNREACHABLE } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import { leadOr, type Behaviour, type Moment, type Offer } from './offer';
import { memberObstacle } from './member';
import { answersWithin } from './phone';

/** A ring group rings every member it can reach, at once or in turn; busy and absent ones are passed over. */
export const ringGroup: Behaviour<RingGroup> = {
  offer(group, moment) {
    const members = membersOf(group, moment.exchange);
    const reachable = members.filter((m) => memberObstacle(m, moment) === null);
    return reachable.length > 0 ? rings(group, reachable, members.length, moment) : nobody(group, members, moment);
  },
  lands: (group, exchange) => membersOf(group, exchange).some((m) => m.kind !== 'virtual'),
  ways: (group) => [
    { when: 'no answer', drive: 'ring', to: leadOr(group.noAnswer, NO_ANSWER) },
    { when: 'busy', drive: 'none', to: leadOr(group.allBusy ?? group.noAnswer, BUSY) },
    { when: 'unreachable', drive: 'none', to: leadOr(group.allBusy ?? group.noAnswer, UNREACHABLE) },
  ],
};

function membersOf(group: RingGroup, exchange: Exchange): Extension[] {
  return group.members.map((id) => exchange.extensions.get(id)!);
}

function rings(group: RingGroup, reachable: Extension[], all: number, moment: Moment): Offer {
  const inTurn = group.order === 'in turn';
  const whole = inTurn ? group.ringSeconds * reachable.length : group.ringSeconds;
  const takes = reachable.some((m) => answersWithin(moment, m.id, group.ringSeconds));
  const names = reachable.map((m) => m.digits).join(', ');
  const passed = all > reachable.length ? ` ${all - reachable.length} of its ${all} phones can't ring.` : '';
  return {
    landing: takes ? { kind: 'ringGroup', id: group.id, digits: group.digits, label: group.name } : null,
    code: 'group-rings',
    sentence: `${group.name} rings ${names} ${inTurn ? `in turn, ${group.ringSeconds} s each` : `at once for ${group.ringSeconds} s`}.${passed}`,
    way: {
      when: 'no answer',
      afterSeconds: whole,
      to: leadOr(group.noAnswer, NO_ANSWER),
      code: 'group-no-answer',
      sentence: `Nobody of ${group.name} answers within ${whole} s.`,
    },
  };
}

function nobody(group: RingGroup, members: Extension[], moment: Moment): Offer {
  const busy = members.some((m) => memberObstacle(m, moment)!.when === 'busy');
  const sentence =
    members.length === 0
      ? `${group.name} has no members.`
      : `No phone of ${group.name} can ring${busy ? ': all are busy or away' : ''}.`;
  const to = leadOr(group.allBusy ?? group.noAnswer, busy ? BUSY : UNREACHABLE);
  return {
    landing: null,
    code: 'group-nobody',
    sentence,
    way: { when: busy ? 'busy' : 'unreachable', afterSeconds: 0, to, code: 'group-nobody', sentence },
  };
}
