import { clockChange, faultsOf, hoursInWords, nextChange, stateAt, weekText } from '@/core/hours';
import { mainSite, KINDS, referrersOf } from '@/core/plan';
import { countryName } from '@/core/plan/facts/value-words';
import { publicHolidays } from '../../holidays/public-holidays';
import { sightIn, type By, type Given } from '../ground/question';
import { objectPage } from './objects';
import { shortLedger } from './short-ledger';

/* Opening hours: the list of them, and one with the calendars that it may name. */

/** All hours, each with what it says, whether it is open, and what asks it. */
export function hoursLedger(given: Given, { reader, now }: By & { now: number }) {
  const { plan, exchange } = given.draft;
  const sight = sightIn(given.draft, reader);
  const referrers = referrersOf(plan, new Set(plan.hours.map((h) => h.id)));
  return shortLedger(
    given,
    reader,
    'hours',
    (h) => {
      const { hours } = exchange().hours.get(h.id)!;
      const until = nextChange(hours, [], now);
      const asked = (referrers.get(h.id) ?? []).filter((r) => sight.sees(r.kind, r.object));
      return {
        name: h.name,
        zone: h.zone,
        now: stateAt(hours, [], now).open ? 'open' : 'closed',
        until: until === null ? '' : new Date(until).toISOString(),
        week: weekText(hours.week),
        said: hoursInWords(
          hours.week,
          hours.holidays.size + hours.yearly.size,
          h.exceptions.length,
          plan.organisation.language,
        ),
        faults: String(faultsOf(hours.week).length),
        asked: [...new Set(asked.map((r) => KINDS[r.kind].word))].join(', '),
      };
    },
    ['name', 'zone'],
    { zone: mainSite(plan)?.zone },
  );
}

/** One hours object; every holiday calendar with its dates, since any of them may be chosen; what holds now and until when. */
export function hoursPage(given: Given, { id, reader, now }: By & { id: string; now: number }) {
  const data = objectPage(given, { kind: 'hours', id, reader });
  if (!data) return null;
  const { hours } = given.draft.exchange().hours.get(id)!;
  const until = nextChange(hours, [], now);
  return {
    data,
    language: given.draft.plan.organisation.language,
    clock: clockChange(hours, now),
    others: sightIn(given.draft, reader)
      .list('hours')
      .filter((h) => h.id !== id)
      .map((h) => ({ id: h.id, label: h.name, weekly: h.weekly, zone: h.zone })),
    calendars: sightIn(given.draft, reader)
      .list('holidays')
      .map((c) => ({ id: c.id, name: c.name, dates: c.dates.filter((d) => d.closed) })),
    now: {
      at: new Date(now).toISOString(),
      open: stateAt(hours, [], now).open,
      until: until === null ? null : new Date(until).toISOString(),
    },
  };
}

/** All holiday calendars: whose they are, how far they reach, what asks them. */
export function holidaysLedger(given: Given, { reader, today }: By & { today: number }) {
  const { plan } = given.draft;
  const day = new Date(today).toISOString().slice(0, 10);
  const sight = sightIn(given.draft, reader);
  return shortLedger(
    given,
    reader,
    'holidays',
    (c) => {
      const kept = c.dates.filter((d) => d.closed);
      const next = kept
        .map((d) => ({ name: d.name, date: d.yearly ? nextOfYear(d.date, day) : d.date }))
        .filter((d) => d.date >= day)
        .sort((a, b) => a.date.localeCompare(b.date))[0];
      return {
        name: c.name,
        country: c.country ? countryName(c.country) : 'by hand',
        dates: String(kept.length),
        next: next?.date ?? '',
        nextName: next?.name ?? '',
        until: kept.some((d) => d.yearly)
          ? 'every year'
          : (kept
              .map((d) => d.date)
              .sort()
              .at(-1) ?? ''),
        asked: plan.hours
          .filter((h) => h.holidays.includes(c.id) && sight.sees('hours', h))
          .map((h) => h.name)
          .join(', '),
      };
    },
    ['name', 'country'],
    { country: mainSite(plan)?.country },
  );
}

/** A date that comes every year, from a day on. */
function nextOfYear(date: string, from: string): string {
  const year = Number(from.slice(0, 4));
  const here = `${year}${date.slice(4)}`;
  return here >= from ? here : `${year + 1}${date.slice(4)}`;
}

/** Hours that ask a holiday calendar, as far as the reader may see them. */
export const hoursOfCalendar = ({ draft }: Given, { reader, id }: By & { id: string }) =>
  sightIn(draft, reader)
    .list('hours')
    .filter((h) => h.holidays.includes(id))
    .map((h) => ({ id: h.id, name: h.name }));

/** Public holidays of a country or region by name in the organisation's language. */
export const publicHolidaysOf = (
  { draft }: Given,
  { country, region, year }: { country: string; region: string | null; year: number },
) => publicHolidays({ country, region }, year, draft.plan.organisation.language);
