import type { CalendarReading } from '@/contract/calendars';
import { dateOf, readCalendar, spansText, weekText, writeCalendar, type Hours } from '@/core/hours';
import { hoursNotices, type Situation } from '@/core/routing';
import { Refused } from '../../access/rights';
import type { HeldPlan } from '../ground/held';
import { sightIn, type By, type Given } from '../ground/question';

/* Hours as calendars: written from draft or live, read into what they would change. */

const DAY_MS = 86_400_000;
/** Single days are spelt out from a month ago to two years ahead. */
const [BACK, AHEAD] = [31, 740];

const textOf = (hours: Hours, name: string, now: number, notices: ReturnType<typeof hoursNotices>) => {
  const today = Math.floor(now / DAY_MS);
  return writeCalendar(hours, { name, fromDay: today - BACK, toDay: today + AHEAD, notices });
};

/** Hours of draft or live as iCalendar text, with the notices of the situation; null when there are none. */
export function calendarOfHours(
  { draft, live }: Given,
  { id, of, now, situation }: { id: string; of: 'draft' | 'live'; now: number; situation: Situation },
): { name: string; text: string } | null {
  const x = (of === 'live' ? live : draft).exchange();
  const found = x.hours.get(id);
  return found
    ? { name: found.name, text: textOf(found.hours, found.name, now, hoursNotices(x, situation, id)) }
    : null;
}

type Dated = CalendarReading['exceptions'][number];

/** Dates of a calendar with times of their own; its holidays are closed all day. */
function datesOf(hours: Hours): Dated[] {
  const out = new Map<string, Dated>();
  for (const [day, name] of hours.holidays) out.set(dateOf(day), { date: dateOf(day), open: '', name });
  for (const [day, spans] of hours.exceptions) {
    const date = dateOf(day);
    out.set(date, { date, open: spansText(spans), name: out.get(date)?.name ?? '' });
  }
  return [...out.values()].sort((a, b) => a.date.localeCompare(b.date)).slice(0, 400);
}

/** What dates would change in the exceptions of hours, in a sentence each. */
function dateChanges(before: readonly Dated[], dates: readonly Dated[]): string[] {
  const known = new Map(before.map((d) => [d.date, d]));
  return dates.flatMap((d) => {
    const was = known.get(d.date);
    const says = `${d.open === '' ? 'closed all day' : `open ${d.open}`}${d.name ? ` (${d.name})` : ''}`;
    if (!was) return [`${d.date}: ${says}`];
    return was.open === d.open
      ? []
      : [`${d.date}: ${says}, where it is ${was.open === '' ? 'closed all day' : `open ${was.open}`} now`];
  });
}

const find = ({ plan }: HeldPlan, id: string) => plan.hours.find((h) => h.id === id);

/** What an iCalendar text says, and what it would change in hours of the draft; 422 when it is no calendar. */
export function calendarReading(
  { draft }: Given,
  { reader, id, text }: By & { id: string; text: string },
): CalendarReading {
  const object = sightIn(draft, reader)
    .list('hours')
    .find((h) => h.id === id);
  if (!object) throw new Refused(404, 'no-such-object', 'There are no such hours.');
  const read = readCalendar(text, object.zone);
  if (!read.ok) throw new Refused(422, 'bad-calendar', read.sentence, 'file');
  const { hours, notCarried, notices } = read.read;
  const weekly = weekText(hours.week);
  const exceptions = datesOf(hours);
  const yearly = [...hours.yearly].map(
    ([day, name]) => `${name} comes every year on ${day}; a holiday calendar holds that.`,
  );
  return {
    weekly,
    exceptions,
    notCarried: [
      ...notCarried,
      ...yearly,
      ...(notices.length > 0 ? ['Notices act at once and are set on this page, not taken from a file.'] : []),
    ].slice(0, 200),
    changes: [
      ...(weekly !== '' && weekly !== object.weekly
        ? [`The week becomes ${weekly}, where it is ${object.weekly || 'never open'} now.`]
        : []),
      ...dateChanges(object.exceptions, exceptions),
    ],
  };
}

/** The dates that a feed says, by the zone of its hours. */
export function feedDates(
  { draft, live }: Given,
  { id, text }: { id: string; text: string },
): { ok: true; dates: Dated[]; notCarried: number } | { ok: false; why: string } {
  const object = find(draft, id) ?? find(live, id);
  if (!object) return { ok: false, why: 'the hours are gone' };
  const read = readCalendar(text, object.zone);
  if (!read.ok) return { ok: false, why: read.sentence.replace(/\.$/, '') };
  const { hours } = read.read;
  const today = Math.floor(Date.now() / DAY_MS);
  const ahead = datesOf(hours).filter((d) => d.date >= dateOf(today - BACK));
  return { ok: true, dates: ahead, notCarried: read.read.notCarried.length };
}

/** What the dates of a feed would change in hours of the draft. */
export function feedChanges(
  { draft }: Given,
  { reader, id, dates }: By & { id: string; dates: readonly Dated[] },
): string[] {
  const object = sightIn(draft, reader)
    .list('hours')
    .find((h) => h.id === id);
  return object ? dateChanges(object.exceptions, dates) : [];
}
