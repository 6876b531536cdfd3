import type { Extension, OutsideNumber, RingGroup } from '../plan';
import { joinsAfter } from '../plan/facts/stages';
import { BUSY, NO_ANSWER, UNREACHABLE } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import { heardPrompt } from '../exchange/hear';
import { leadOr, type Behaviour, type CourseWayOn, type Moment, type Offer, type OutsideLeg } from './offer';
import { memberObstacle } from './member';
import { answersWithin, isWaiting, phoneObstacle } from './phone';
import { presenceAct } from './presence';
import { overAndOver } from './over-and-over';

/** A ring group rings every member it can reach; busy and absent ones are passed over. */
export const ringGroup: Behaviour<RingGroup> = {
  offer(group, moment) {
    const asked = [
      ...membersOf(group, moment.exchange).map((m) => memberOf(group, m, moment)),
      ...group.outside.map((id) => outsideOf(id, moment)),
    ];
    const ringers = asked.flatMap((m) => (m.ringer ? [m.ringer] : []));
    const also = asked.flatMap((m) => (m.said === null ? [] : [{ code: 'group-nobody' as const, sentence: m.said }]));
    const offer = ringers.length > 0 ? rings(group, ringers, asked.length, moment) : nobody(group, asked);
    return also.length > 0 ? { ...offer, also } : offer;
  },
  lands: (group, exchange) => membersOf(group, exchange).some((m) => m.kind !== 'virtual' || group.forwards),
  ways: (group) => [
    ...group.outside.map(
      // Whoever answers has the call: this is no part of a circle.
      (id): CourseWayOn => ({ when: 'rings outside', drive: 'answered', to: { type: 'destination', id } }),
    ),
    { when: 'no answer', drive: 'ring', to: leadOr(group.noAnswer, NO_ANSWER) },
    { when: 'busy', drive: 'none', to: leadOr(group.allBusy ?? group.noAnswer, BUSY) },
    { when: 'unreachable', drive: 'none', to: leadOr(group.allBusy ?? group.noAnswer, UNREACHABLE) },
  ],
};

/** What rings for a member: a phone of ours, or a leg to the outside. */
interface Ringer {
  name: string;
  /** by which the situation says who answers */
  answersAs: string;
  leg: OutsideLeg | null;
}

/** A member as it is found: what rings for it, or whether it is busy; and what is said of it beside. */
interface Asked {
  ringer: Ringer | null;
  busy: boolean;
  said: string | null;
}

function outsideOf(id: string, moment: Moment): Asked {
  const { name, dial } = moment.exchange.destinations.get(id)!.object as OutsideNumber;
  return outsideRinger(name, { dial, number: id, owner: null, showsCaller: true }, moment);
}

function outsideRinger(name: string, leg: OutsideLeg, moment: Moment): Asked {
  const barred = moment.barred(leg);
  if (barred !== null) return { ringer: null, busy: false, said: `${name} does not ring: ${barred}` };
  return { ringer: { name, answersAs: leg.number ?? leg.dial, leg }, busy: false, said: null };
}

function memberOf(group: RingGroup, member: Extension, moment: Moment): Asked {
  const to = group.forwards ? forwardedBy(member, moment) : null;
  return to === null ? phoneOf(group, member, moment) : forwardedRinger(group, member, to, moment);
}

/** The phone of a member, which is only rung. */
function phoneOf(group: RingGroup, member: Extension, moment: Moment): Asked {
  const obstacle = memberObstacle(member, moment);
  if (obstacle) return { ringer: null, busy: obstacle.when === 'busy', said: null };
  if (group.skipBusy && isWaiting(member, moment)) return { ringer: null, busy: true, said: null };
  return { ringer: { name: member.digits, answersAs: member.id, leg: null }, busy: false, said: null };
}

/** Digits to which a member’s own forwarding sends this call; its presence comes first, and not being answered is the group’s. */
function forwardedBy(member: Extension, moment: Moment): string | null {
  const to = (when: string) =>
    moment.situation.forwarding?.find((f) => f.extension === member.id && f.when === when)?.to ?? null;
  const presence = presenceAct(member, moment);
  if (presence && presence.act !== 'ring') return null;
  const always = to('always');
  const obstacle = always === null ? phoneObstacle(member, moment) : null;
  return obstacle ? to(obstacle.when === 'unreachable' ? 'unreachable' : 'busy') : always;
}

/** What rings where a member forwards to: the phone behind the digits, only rung, or an outside one with the member’s rights. */
function forwardedRinger(group: RingGroup, member: Extension, digits: string, moment: Moment): Asked {
  const inside = moment.insideOf(member, digits);
  const none = (said: string): Asked => ({ ringer: null, busy: false, said: `${member.name} does not ring: ${said}` });
  if (inside === null)
    return outsideRinger(digits, { dial: digits, number: null, owner: member.id, showsCaller: true }, moment);
  const phone = moment.exchange.extensions.get(inside);
  return phone ? phoneOf(group, phone, moment) : none(`${digits} is no phone.`);
}

function membersOf(group: RingGroup, exchange: Exchange): Extension[] {
  return group.members.map((id) => exchange.extensions.get(id)!);
}

/** Seconds for which the nth of those who can ring does so: from when, how long; null: its turn never comes. */
function turnOf(group: RingGroup, nth: number): { from: number; seconds: number } | null {
  const { order, ringSeconds } = group;
  if (order === 'all at once') return { from: 0, seconds: ringSeconds };
  if (order !== 'by stages') return { from: nth * ringSeconds, seconds: ringSeconds };
  const from = joinsAfter(group, nth);
  return from < ringSeconds ? { from, seconds: ringSeconds - from } : null;
}

const HOW: Record<RingGroup['order'], (group: RingGroup) => string> = {
  'all at once': (g) => `at once for ${g.ringSeconds} s`,
  'in turn': (g) => `in turn, ${g.ringSeconds} s each`,
  'at random': (g) => `one after the other at random, ${g.ringSeconds} s each`,
  'by stages': (g) =>
    g.stages === ''
      ? `for ${g.ringSeconds} s, ${g.stageMembers} more joining after every ${g.stageSeconds} s`
      : `for ${g.ringSeconds} s, by stages: ${g.stages}`,
};

function rings(group: RingGroup, ringers: readonly Ringer[], all: number, moment: Moment): Offer {
  const count = ringers.length;
  const oneByOne = group.order === 'in turn' || group.order === 'at random';
  const whole = oneByOne ? group.ringSeconds * count : group.ringSeconds;
  const answering = ringers.filter((r, nth) => {
    const turn = turnOf(group, nth);
    return turn !== null && answersWithin(moment, r.answersAs, turn.seconds);
  });
  const takes = answering.some((r) => r.leg === null);
  const taken = takes ? undefined : answering[0];
  const names = ringers.map((r) => r.name).join(', ');
  const passed = all > count ? ` ${all - count} of its ${all} phones can't ring.` : '';
  const key = ringers.some((r) => r.leg) && group.keyToTake ? ' An outside member presses a key to take the call.' : '';
  const music = moment.told ? heardPrompt(moment.exchange, group.music, moment.language) : null;
  return {
    landing: takes ? { kind: 'ringGroup', id: group.id, digits: group.digits, label: group.name } : null,
    ...(taken ? { outside: taken.leg! } : {}),
    ...(music ? { heard: overAndOver([], music, whole) } : {}),
    ...(group.shownName ? { shownName: group.shownName } : {}),
    code: 'group-rings',
    sentence: `${group.name} rings ${names} ${HOW[group.order](group)}.${passed}${key}`,
    way: {
      when: 'no answer',
      afterSeconds: whole,
      to: leadOr(group.noAnswer, NO_ANSWER),
      code: 'group-no-answer',
      sentence: `Nobody of ${group.name} answers within ${whole} s.`,
    },
  };
}

function nobody(group: RingGroup, asked: readonly Asked[]): Offer {
  const busy = asked.some((m) => m.busy);
  const sentence =
    asked.length === 0
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
