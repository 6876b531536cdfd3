import { ATTENDANT_MODES, GREETING_FIELDS, type Attendant, type AttendantKey, type AttendantMode } from '../plan';
import type { Exchange, HoursNow } from '../exchange/exchange';
import { hoursNow, noticeAt, type NoticeNow } from '../exchange/hours-now';
import type { Moment } from './offer';

/* Which of its modes an attendant is in (ENGINE E11). */

export function keysOf(exchange: Exchange, object: Attendant, mode: AttendantMode): AttendantKey[] {
  return (exchange.attendantKeys.get(object.id) ?? []).filter((k) => k.mode === mode);
}

export const greetingOf = (object: Attendant, mode: AttendantMode): string | null => object[GREETING_FIELDS[mode]];

/** Nothing was set for a mode: neither a greeting nor a key. When open, dialling extensions or names is enough. */
export function isMissing(exchange: Exchange, object: Attendant, mode: AttendantMode): boolean {
  if (greetingOf(object, mode) !== null || keysOf(exchange, object, mode).length > 0) return false;
  return mode !== 'open' || (object.directDialling === 'none' && !object.dialByName);
}

/** Modes that can come up: a holiday or notice without anything set falls back on closed or open. */
export function modesOf(exchange: Exchange, object: Attendant): AttendantMode[] {
  if (!object.hours) return ['open'];
  return ATTENDANT_MODES.filter((m) => m === 'open' || m === 'closed' || !isMissing(exchange, object, m));
}

export type ModeNow = { mode: AttendantMode; why: string } | { leadsTo: string; why: string };

export function modeNow(object: Attendant, moment: Pick<Moment, 'exchange' | 'situation' | 'at'>): ModeNow {
  const notice = noticeAt(moment.exchange, moment.situation, object.id, moment.at);
  if (notice) return modeBy(moment.exchange, object, noticed(notice));
  if (!object.hours) return { mode: 'open', why: 'it has no hours' };
  const { exchange } = moment;
  return modeBy(exchange, object, hoursNow(exchange, moment.situation, object.hours, moment.at));
}

/** A notice of the attendant itself as what its hours say. */
export const noticed = (notice: NoticeNow): HoursNow => ({
  ...notice,
  mode: 'notice',
  notice: notice.name,
  why: `notice “${notice.name}” says ${notice.open ? 'open' : 'closed'}`,
});

/** A holiday or notice for which nothing is set is treated as closed or open. */
export function modeBy(exchange: Exchange, object: Attendant, now: HoursNow): ModeNow {
  if (now.leadsTo) return { leadsTo: now.leadsTo, why: now.why };
  for (const mode of ['notice', 'holiday'] as const)
    if (now.mode === mode && !isMissing(exchange, object, mode)) return { mode, why: now.why };
  return { mode: now.open ? 'open' : 'closed', why: now.why };
}
