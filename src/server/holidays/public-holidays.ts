import type { PublicHolidays } from '@/contract/holidays';
import { Refused } from '../access/rights';

/** A calendar is filled for this year and so many after it. */
const YEARS_AHEAD = 3;

/**
 * The holidays of a country (ISO 3166-1) or of a region of it, from this year to three years ahead, in a language where they have
 * names in it; 422 where nothing is known of the country or the region.
 */
export async function publicHolidays(
  { country, region }: { country: string; region: string | null },
  year: number,
  language: string,
): Promise<PublicHolidays> {
  // Large and seldom needed: it comes when it is.
  const { default: Holidays } = await import('date-holidays');
  const known = new Holidays();
  if (!(country in known.getCountries()))
    throw new Refused(422, 'no-holidays', `No holidays are known of ${country}; enter the dates by hand.`, 'country');
  const states = known.getStates(country) ?? {};
  if (region !== null && !(region in states))
    throw new Refused(422, 'no-region', `${region} is no region of ${country} whose holidays are known.`, 'region');
  const found = region === null ? new Holidays(country) : new Holidays(country, region);
  found.setLanguages([language, ...found.getLanguages()]);
  const dates = new Map<string, { date: string; name: string; kind: 'public' | 'bank' | 'other' }>();
  for (let y = year; y <= year + YEARS_AHEAD; y++)
    for (const h of found.getHolidays(y)) {
      const date = h.date.slice(0, 10);
      const kind = h.type === 'public' || h.type === 'bank' ? h.type : ('other' as const);
      // Of two on one day the one that is kept counts.
      const before = dates.get(date);
      if (!before || (before.kind === 'other' && kind !== 'other'))
        dates.set(date, { date, name: h.name.slice(0, 80), kind });
    }
  return {
    regions: Object.entries(states)
      .map(([id, label]) => ({ id, label: String(label) }))
      .sort((a, b) => a.label.localeCompare(b.label)),
    dates: [...dates.values()].sort((a, b) => a.date.localeCompare(b.date)),
  };
}
