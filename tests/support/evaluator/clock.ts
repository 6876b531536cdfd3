import { DateTime } from 'luxon';
import type { Plan } from '@/core/plan';
import type { Situation } from '@/core/routing';

/* Opening hours (ENGINE E10) asked of one moment at a time, by the calendar of another library. */

export interface Says {
  open: boolean;
  mode: 'open' | 'closed' | 'holiday' | 'exception' | 'notice';
  leadsTo: string | null;
}

const DAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];
const minutes = (text: string): number => {
  const [h, m = '0'] = text.trim().split(':');
  return Number(h) * 60 + Number(m);
};

/** Intervals of one part of a text such as `22-2`: minutes of the day, the end past 1440 where it runs over. */
function interval(times: string): [number, number] {
  const [from, to] = times.split('-').map(minutes) as [number, number];
  return [from, to < from ? to + 1440 : to];
}

function weekly(text: string, weekday: number): [number, number][] {
  return text
    .split(',')
    .filter((part) => part.trim() !== '')
    .flatMap((part) => {
      const [, days, times] = /^\s*([a-z]+(?:\s*-\s*[a-z]+)?)\s+(.*)$/.exec(part)!;
      const [first, last = first] = days!.split('-').map((d) => DAYS.indexOf(d.trim())) as [number, number?];
      const on = first <= last! ? weekday >= first && weekday <= last! : weekday >= first || weekday <= last!;
      return on ? [interval(times!)] : [];
    });
}

type Hours = Plan['hours'][number];

/** What one date brings: its intervals, and how strongly it is owned. */
function dateOf(plan: Plan, hours: Hours, day: DateTime): { strength: 0 | 1 | 2; intervals: [number, number][] } {
  const iso = day.toISODate()!;
  const exception = hours.exceptions.find((e) => e.date === iso);
  if (exception)
    return {
      strength: 2,
      intervals: exception.open
        .split(',')
        .filter((t) => t.trim() !== '')
        .map(interval),
    };
  const holiday = plan.holidayCalendars
    .filter((c) => hours.holidays.includes(c.id))
    .some((c) => c.dates.some((d) => (d.yearly ? d.date.slice(5) === iso.slice(5) : d.date === iso)));
  return holiday ? { strength: 1, intervals: [] } : { strength: 0, intervals: weekly(hours.weekly, day.weekday - 1) };
}

const inForce = (n: { from: string; until?: string | null | undefined }, at: number) =>
  Date.parse(n.from) <= at && (!n.until || at < Date.parse(n.until));

/** The notice of a number, route, attendant or queue itself. */
export const noticeOf = (situation: Situation, id: string, at: number) =>
  situation.notices?.find((n) => n.of === id && inForce(n, at)) ?? null;

export function saysHours(plan: Plan, situation: Situation, id: string, at: number): Says {
  const hours = plan.hours.find((h) => h.id === id)!;
  const notice = situation.notices?.find((n) => n.hours === id && inForce(n, at));
  if (notice) return { open: notice.open, mode: 'notice', leadsTo: notice.leadsTo ?? null };
  const now = DateTime.fromMillis(at, { zone: hours.zone });
  const minute = now.hour * 60 + now.minute + now.second / 60;
  const today = dateOf(plan, hours, now);
  const before = dateOf(plan, hours, now.minus({ days: 1 }));
  const within = (list: [number, number][], m: number) => list.some(([from, to]) => from <= m && m < to);
  const tail = (today.strength === 0 || before.strength > today.strength) && within(before.intervals, minute + 1440);
  const own = within(today.intervals, minute);
  const word = (strength: number, open: boolean): Says['mode'] =>
    strength === 2 ? 'exception' : open ? 'open' : strength === 1 ? 'holiday' : 'closed';
  if (tail && !(own && before.strength === 0)) return { open: true, mode: word(before.strength, true), leadsTo: null };
  return { open: own, mode: word(today.strength, own), leadsTo: null };
}
