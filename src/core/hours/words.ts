import { DAY_MINUTES, daySpans, openByDay, type Span, type Week } from './week';
import { wordsIn, type HoursWords } from './languages';

/**
 * Opening times read back in a language (RFC 5646; English where the language is not known here): `Mondays to Fridays 07:00 to 19:00,
 * Saturdays 08:00 to 13:00; closed on 9 holidays`.
 */
export function hoursInWords(week: Week, holidays: number, exceptions = 0, language = 'en'): string {
  const words = wordsIn(language);
  const parts = [weekInWords(week, language)];
  if (holidays > 0) parts.push(words.closedOn(holidays));
  if (exceptions > 0) parts.push(words.otherTimes(exceptions));
  return parts.join('; ');
}

/** The week alone, without what differs from it. */
export function weekInWords(week: Week, language = 'en'): string {
  const words = wordsIn(language);
  const days = openByDay(week);
  if (days.every((spans) => spans.length === 0)) return words.never;
  if (days.every((spans) => spans.length === 1 && spans[0]!.from === 0 && spans[0]!.to === DAY_MINUTES))
    return words.always;
  const groups = new Map<string, number[]>();
  days.forEach((spans, day) => {
    if (spans.length === 0) return;
    const times = spansInWords(spans, words);
    groups.set(times, [...(groups.get(times) ?? []), day]);
  });
  const said = [...groups].map(([times, on]) => `${daysInWords(on, words)} ${times}`).join(', ');
  return said.charAt(0).toUpperCase() + said.slice(1);
}

function spansInWords(spans: readonly Span[], words: HoursWords): string {
  return spans
    .map(({ from, to }) =>
      from === 0 && to === DAY_MINUTES
        ? words.allDay
        : words.fromTo(clockTime(from), to > DAY_MINUTES ? words.nextDay(clockTime(to - DAY_MINUTES)) : clockTime(to)),
    )
    .join(` ${words.and} `);
}

/** Minutes after midnight as `07:30`; the end of a day is `24:00`. */
export function clockTime(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}

function daysInWords(days: readonly number[], words: HoursWords): string {
  if (days.length === 7) return words.everyDay;
  const runs = daySpans(days).flatMap(([a, b]) =>
    b - a >= 2
      ? [words.fromTo(words.days[a]!, words.days[b]!)]
      : b > a
        ? [words.days[a]!, words.days[b]!]
        : [words.days[a]!],
  );
  return runs.length < 2 ? runs[0]! : `${runs.slice(0, -1).join(', ')} ${words.and} ${runs[runs.length - 1]}`;
}
