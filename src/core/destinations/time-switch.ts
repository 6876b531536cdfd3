import type { TimeSwitch } from '../plan';
import { UNREACHABLE } from '../exchange/cause';
import type { HoursNow } from '../exchange/exchange';
import { hoursNow } from '../exchange/hours-now';
import type { Situation } from '../exchange/situation';
import { leadOr, type Behaviour, type CourseWayOn } from './offer';

/** A time switch sends a call on at once and silently: as it is set by hand, else by its hours. */
export const timeSwitch: Behaviour<TimeSwitch> = {
  offer(object, moment) {
    const { when, to, why } = chosen(object, moment.situation, (id) =>
      hoursNow(moment.exchange, moment.situation, id, moment.at),
    );
    const sentence = `${object.name} is ${when}: ${why}.`;
    return {
      landing: null,
      code: 'time-switch',
      sentence,
      way: { when, afterSeconds: 0, to: leadOr(to, UNREACHABLE), code: 'time-switch', sentence },
    };
  },
  lands: () => false,
  ways(object, _exchange, _part, moment) {
    const way = (when: string, to: string | null): CourseWayOn => ({
      when,
      drive: 'none',
      to: leadOr(to, UNREACHABLE),
    });
    if (moment) {
      const now = chosen(object, moment.situation, moment.hoursAt);
      return [way(now.when, now.to)];
    }
    const holiday = object.hours ? [way('holiday', object.holiday ?? object.closed)] : [];
    return [way('open', object.open), way('closed', object.closed), ...holiday];
  },
};

function chosen(
  object: TimeSwitch,
  { switches }: Pick<Situation, 'switches'>,
  hoursAt: (id: string) => HoursNow,
): { when: string; to: string | null; why: string } {
  const set = switches?.find((s) => s.id === object.id)?.setting;
  if (set && set !== 'by hours')
    return { when: set, to: set === 'open' ? object.open : object.closed, why: 'set by hand' };
  if (!object.hours) return { when: 'open', to: object.open, why: 'it has no hours' };
  return byHours(object, hoursAt(object.hours));
}

function byHours(object: TimeSwitch, now: HoursNow): { when: string; to: string | null; why: string } {
  if (now.leadsTo) return { when: 'notice', to: now.leadsTo, why: now.why };
  if (now.mode === 'holiday') return { when: 'holiday', to: object.holiday ?? object.closed, why: now.why };
  const when = now.open ? 'open' : 'closed';
  return { when, to: object[when], why: now.why };
}
