import type { TimeSwitch } from '../plan';
import { UNREACHABLE } from '../routing/cause';
import { hoursNow } from '../routing/hours-now';
import { leadOr, type Behaviour, type Moment } from './offer';

/** A time switch sends a call on at once and silently: as it is set by hand, else by its hours. */
export const timeSwitch: Behaviour<TimeSwitch> = {
  offer(object, moment) {
    const { when, to, why } = chosen(object, moment);
    const sentence = `${object.name} is ${when}: ${why}.`;
    return {
      landing: null,
      code: 'time-switch',
      sentence,
      way: { when, afterSeconds: 0, to: leadOr(to, UNREACHABLE), code: 'time-switch', sentence },
    };
  },
  lands: () => false,
  ways: (object) => [
    { when: 'open', drive: 'none', to: leadOr(object.open, UNREACHABLE) },
    { when: 'closed', drive: 'none', to: leadOr(object.closed, UNREACHABLE) },
    ...(object.hours
      ? [{ when: 'holiday', drive: 'none' as const, to: leadOr(object.holiday ?? object.closed, UNREACHABLE) }]
      : []),
  ],
};

function chosen(object: TimeSwitch, moment: Moment): { when: string; to: string | null; why: string } {
  const set = moment.situation.switches?.find((s) => s.id === object.id)?.setting;
  if (set && set !== 'by hours')
    return { when: set, to: set === 'open' ? object.open : object.closed, why: 'set by hand' };
  if (!object.hours) return { when: 'open', to: object.open, why: 'it has no hours' };
  const now = hoursNow(moment.exchange, moment.situation, object.hours, moment.at);
  if (now.leadsTo) return { when: 'notice', to: now.leadsTo, why: now.why };
  if (now.mode === 'holiday') return { when: 'holiday', to: object.holiday ?? object.closed, why: now.why };
  return now.open
    ? { when: 'open', to: object.open, why: now.why }
    : { when: 'closed', to: object.closed, why: now.why };
}
