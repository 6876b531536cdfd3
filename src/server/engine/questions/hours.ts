import { faultsOf, hoursInWords, nextChange, stateAt, weekText } from '@/core/hours';
import { KINDS, referrersOf } from '@/core/plan';
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
        said: hoursInWords(hours.week, hours.holidays.size + hours.yearly.size, h.exceptions.length),
        faults: String(faultsOf(hours.week).length),
        asked: [...new Set(asked.map((r) => KINDS[r.kind].word))].join(', '),
      };
    },
    ['name', 'zone'],
    { zone: plan.sites[0]?.zone },
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
