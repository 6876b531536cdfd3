import { DateTime } from 'luxon';

export type WhenResult = { ok: true; at: number } | { ok: false; sentence: string; expected: string };

const DAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];
const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const EXPECTED = 'now, fri 17:10, 24 dec 08:00, 17:10 or an ISO time such as 2026-12-24T08:00';

/**
 * Reads a moment as people write it: `now`, `17:10` (today), `fri 17:10` (the next one, today included while it is still to
 * come), `24 dec 08:00` (this year, next year when it is past), ISO 8601. Without an offset it is wall time in `zone`.
 * `now` is milliseconds since 1970 UTC, as is the answer.
 */
export function readWhen(text: string, zone: string, now: number): WhenResult {
  const words = text.trim().toLowerCase().replace(/\s+/g, ' ');
  if (words === '' || words === 'now') return { ok: true, at: now };
  const here = DateTime.fromMillis(now, { zone });
  // The time of day is the last word; what stands before it is the day.
  const cut = words.lastIndexOf(' ') + 1;
  const clock = /^(\d{1,2})[:.](\d{2})$/.exec(words.slice(cut));
  if (clock && !/^\d{4}-/.test(words)) {
    const [hour, minute] = [Number(clock[1]), Number(clock[2])];
    if (hour > 23 || minute > 59) return bad(`${clock[1]}:${clock[2]} is no time of day`);
    const time = here.set({ hour, minute, second: 0, millisecond: 0 });
    return onDay(words.slice(0, cut).trim() || undefined, time, here);
  }
  const iso = DateTime.fromISO(text.trim(), { zone, setZone: false });
  return iso.isValid ? { ok: true, at: iso.toMillis() } : bad(`“${text.trim().slice(0, 40)}” is no time`);
}

function onDay(day: string | undefined, time: DateTime, here: DateTime): WhenResult {
  if (day === undefined || day === 'today') return { ok: true, at: time.toMillis() };
  if (day === 'tomorrow') return { ok: true, at: time.plus({ days: 1 }).toMillis() };
  const weekday = DAYS.indexOf(day.slice(0, 3)) + 1;
  if (weekday > 0 && /^[a-z]+$/.test(day)) {
    let ahead = (weekday - here.weekday + 7) % 7;
    if (ahead === 0 && time < here) ahead = 7;
    return { ok: true, at: time.plus({ days: ahead }).toMillis() };
  }
  const date = /^(\d{1,2})\s+([a-z]{3})[a-z]*(?:\s+(\d{4}))?$/.exec(day);
  const month = date ? MONTHS.indexOf(date[2]!) + 1 : 0;
  if (!date || month === 0) return bad(`“${day}” is no day`);
  const year = date[3] ? Number(date[3]) : here.year;
  const on = DateTime.fromObject(
    { year, month, day: Number(date[1]), hour: time.hour, minute: time.minute },
    { zone: here.zone },
  );
  if (!on.isValid) return bad(`${date[1]} ${date[2]} is no date of ${year}`);
  return { ok: true, at: (date[3] || on >= here ? on : on.plus({ years: 1 })).toMillis() };
}

function bad(what: string): WhenResult {
  return { ok: false, sentence: `${what}; ${EXPECTED} would be.`, expected: EXPECTED };
}
